// Bundles the command line and the server for Node into build/. Runs after every install, so both start at once.
import { chmodSync, existsSync, mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
rmSync(join(root, 'build'), { recursive: true, force: true });
await build({
  entryPoints: {
    wendril: join(root, 'src/cli/main.ts'),
    server: join(root, 'src/server/main.ts'),
    scanSheet: join(root, 'src/server/scanSheet.ts'),
    castThread: join(root, 'src/cli/castThread.ts'),
  },
  outdir: join(root, 'build'),
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  minify: true,
  outExtension: { '.js': '.mjs' },
  external: ['express', 'woff2-encoder', 'pngjs', 'jpeg-js', 'harfbuzzjs', 'quickjs-emscripten-core', '@jitl/*'],
  logLevel: 'warning',
});
// `npx wendril` looks for the command among the installed ones first.
const bin = join(root, 'node_modules/.bin');
mkdirSync(bin, { recursive: true });
chmodSync(join(root, 'bin/wendril.mjs'), 0o755);
if (!existsSync(join(bin, 'wendril'))) symlinkSync('../../bin/wendril.mjs', join(bin, 'wendril'));
