import { readdirSync, readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { printTable } from './table';

/** What a first visit loads before any WebAssembly, gzipped: page, scripts and styles of the frame and the first stage. */
export function benchLoading(): void {
  const html = readFileSync('dist/index.html', 'utf8');
  const wanted = new Set([...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.(?:js|css))"/g)].map((m) => m[1]!));
  for (const file of readdirSync('dist/assets')) {
    if (/^(Draw|Details|parts|lines)-.*\.js$/.test(file)) wanted.add(`assets/${file}`);
  }
  const size = [...wanted].reduce((sum, f) => sum + gzipSync(readFileSync(`dist/${f}`)).length, gzipSync(html).length);
  printTable('Loading', [
    {
      what: `first load before WebAssembly, ${wanted.size} files`,
      budget: '600 KB gzip',
      measured: `${(size / 1024).toFixed(0)} KB`,
      met: size < 600 * 1024,
    },
  ]);
}
