import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { guideParts, partsWith } from './guideParts';

const guide = readFileSync('docs/guide.md', 'utf8');
const app = 'src/app';
const sources = readdirSync(app, { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.tsx?$/.test(f) && !/\.test\./.test(f))
  .map((f) => readFileSync(join(app, f), 'utf8'))
  .join('\n');

test('the guide has a chapter for every stage, and a chapter holds its parts', () => {
  const parts = guideParts(guide);
  const titles = parts.map((p) => p.title);
  for (const stage of ['Plan', 'Case', 'Draw', 'Fit', 'Kern', 'Cast']) expect(titles).toContain(stage);
  const draw = parts.find((p) => p.title === 'Draw')!;
  expect(draw.text).toContain(
    parts
      .find((p) => p.title === 'Tools')!
      .text.trim()
      .slice(0, 40),
  );
  expect(partsWith(parts, 'queue exception').map((p) => p.title)).toContain('Kern');
  expect(partsWith(parts, 'nothing of the kind zzz')).toEqual([]);
});

test('every command that the guide names in bold is in the interface by that name', () => {
  const named = [...guide.matchAll(/\*\*([^*]+)\*\*/g)].map((m) => m[1]!.replace(/…$/, ''));
  expect(named.length).toBeGreaterThan(30);
  const missing = named.filter((n) => !sources.toLowerCase().includes(n.toLowerCase()));
  expect(missing).toEqual([]);
});

test('every picture that the guide shows is there', () => {
  const pictures = readdirSync('docs/screenshots');
  for (const [, path] of guide.matchAll(/!\[[^\]]*\]\(screenshots\/([^)]+)\)/g)) expect(pictures).toContain(path);
});
