import { join } from 'node:path';
import { build } from 'esbuild';
import { root } from './install.mjs';

/** Bundles one entry for Node as the product is bundled; returns the file's path. */
export async function bundle(entry, name, options = {}) {
  const outfile = join(root, 'build', name);
  await build({
    entryPoints: [join(root, entry)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'error',
    ...options,
  });
  return outfile;
}
