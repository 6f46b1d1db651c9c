// npm run bench [casting] [fonts] [loading] [storage] [interface]: bundles the benchmarks as the product is bundled, then runs them.
import { execFileSync } from 'node:child_process';
import { bundle } from './bundle.mjs';
import { installIfMissing, root, runTool } from './install.mjs';

// A fresh clone has neither packages nor what is built of them.
installIfMissing();
await import('./build-node.mjs');
const wanted = process.argv.slice(2);
if (wanted.length === 0 || wanted.includes('interface')) runTool('vite/bin/vite.js', ['build', '--logLevel', 'error']);

const file = await bundle('bench/run.ts', 'bench.mjs', { minify: true });
// With the memory setting of bin/wendril.mjs.
execFileSync(process.execPath, ['--max-semi-space-size=128', '--min-semi-space-size=128', file, ...wanted], {
  cwd: root,
  stdio: 'inherit',
});
