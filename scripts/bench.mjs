// npm run bench [casting] [loading] [interface]: bundles the benchmarks as the product is bundled, then runs them.
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
process.chdir(root);
await import(join(root, 'build/bench.mjs'));
