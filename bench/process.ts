import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';

/** What a script prints, as it is shipped: bundled, in a process of its own. */
export function printedBy<T>(entry: string): T {
  const script = join(mkdtempSync(join(tmpdir(), 'wendril-masters-')), 'script.mjs');
  buildSync({ entryPoints: [entry], outfile: script, bundle: true, platform: 'node', format: 'esm' });
  return JSON.parse(execFileSync(process.execPath, [script], { encoding: 'utf8' })) as T;
}
