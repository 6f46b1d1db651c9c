// npm run fuzz [cases] [first seed]: bundles the fuzz run as the product is bundled, then runs it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root } from './install.mjs';

await build({
  entryPoints: [join(root, 'fuzz/run.ts')],
  outfile: join(root, 'build/fuzz.mjs'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'error',
});
process.exitCode = spawnSync(process.execPath, [join(root, 'build/fuzz.mjs'), ...process.argv.slice(2)], { cwd: root, stdio: 'inherit' }).status ?? 1;
