// Bundles the command line and the server for Node into build/. Runs after every install, so both start at once.
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
rmSync(join(root, 'build'), { recursive: true, force: true });
const common = {
  outdir: join(root, 'build'),
  bundle: true,
  platform: 'node',
  target: 'node20',
  minify: true,
  external: ['express', 'woff2-encoder', 'pngjs', 'jpeg-js', 'harfbuzzjs', 'quickjs-emscripten-core', '@jitl/*'],
  logLevel: 'warning',
};
await build({
  ...common,
  entryPoints: {
    server: join(root, 'src/server/main.ts'),
    scanSheet: join(root, 'src/server/scanSheet.ts'),
  },
  splitting: true,
  format: 'esm',
  outExtension: { '.js': '.mjs' },
});
// The command in one piece, which bin/wendril.mjs keeps compiled. Where it lies is told when it is started.
await build({
  ...common,
  entryPoints: { wendril: join(root, 'src/cli/main.ts') },
  format: 'cjs',
  outExtension: { '.js': '.cjs' },
  define: { 'import.meta.url': 'commandUrl' },
});
// A script that is kept compiled cannot import by itself: it asks who started it to do so. In regular expressions, where the
// bundler leaves them, letters beyond ASCII are written by number: such text is read in a fraction of the time.
const command = join(root, 'build/wendril.cjs');
const numbered = (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`;
const text = readFileSync(command, 'utf8').replace(/\bimport\((?=["'`])/g, 'commandImport(');
writeFileSync(command, text.replace(/[^\0-\x7f]/g, numbered));
// `npx wendril` looks for the command among the installed ones first.
const bin = join(root, 'node_modules/.bin');
mkdirSync(bin, { recursive: true });
chmodSync(join(root, 'bin/wendril.mjs'), 0o755);
if (!existsSync(join(bin, 'wendril'))) symlinkSync('../../bin/wendril.mjs', join(bin, 'wendril'));
