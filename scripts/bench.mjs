// npm run bench [casting] [fonts] [loading] [interface]: bundles the benchmarks as the product is bundled, then runs them.
import { execFileSync } from 'node:child_process';
import { bundle } from './bundle.mjs';
import { root } from './install.mjs';

const file = await bundle('bench/run.ts', 'bench.mjs', { minify: true });
// With the memory setting of bin/wendril.mjs.
execFileSync(
  process.execPath,
  ['--max-semi-space-size=128', '--min-semi-space-size=128', file, ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
);
