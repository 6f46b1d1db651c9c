import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { build } from 'esbuild';

/** Names that the bundler has hashed: another content has another name. */
const HASHED = /^assets\/.+-[\w-]{8}\.\w+$/;

/** All files of a built app by their addresses, with a revision where the name does not tell it. */
export function filesOf(dist: string): { url: string; revision: string | null }[] {
  return readdirSync(dist, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile() && e.name !== 'offline.js' && !e.name.endsWith('.map'))
    .map((e) => join(e.parentPath, e.name))
    .sort()
    .map((path) => {
      const name = relative(dist, path).split(sep).join('/');
      const revision = HASHED.test(name)
        ? null
        : createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16);
      return { url: `/${name}`, revision };
    });
}

/** Writes the worker that keeps a built app in the browser, beside it. */
export async function writeOfflineWorker(root: string, dist: string): Promise<void> {
  await build({
    entryPoints: [join(root, 'src/offline/worker.ts')],
    outfile: join(dist, 'offline.js'),
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { FILES: JSON.stringify(filesOf(dist)), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  });
}
