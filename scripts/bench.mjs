// npm run bench [casting] [fonts] [loading] [interface]: bundles the benchmarks as the product is bundled, then runs them.
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root } from './install.mjs';

await build({
  entryPoints: [join(root, 'bench/run.ts')],
  outfile: join(root, 'build/bench.mjs'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  minify: true,
  logLevel: 'error',
});
// With the memory setting of bin/wendril.mjs.
execFileSync(process.execPath, ['--max-semi-space-size=128', '--min-semi-space-size=128', join(root, 'build/bench.mjs'), ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
