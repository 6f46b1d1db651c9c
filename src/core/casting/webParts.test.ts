import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { styleSheet } from './styleSheet';
import { unicodeRange, webParts } from './webParts';

const demo = readyDemo();
const project = (codes: readonly number[]): Project => {
  const [first] = Object.values(demo.glyphs);
  const glyphs = Object.fromEntries(
    codes.map((code, i) => [`g${i}`, { ...first!, id: `g${i}`, name: `c${code}`, unicodes: [code], cast: true }]),
  );
  return { ...demo, glyphs, glyphOrder: Object.keys(glyphs) };
};
const read = (range: string): number[] =>
  range.split(', ').flatMap((part) => {
    const [from, to = from] = part
      .replace('U+', '')
      .split('-')
      .map((h) => Number.parseInt(h, 16));
    return Array.from({ length: to! - from! + 1 }, (_, i) => from! + i);
  });
const code = fc.oneof(
  fc.integer({ min: 0x20, max: 0x17f }),
  fc.integer({ min: 0x300, max: 0x52f }),
  fc.integer({ min: 0x1e00, max: 0x22ff }),
  fc.integer({ min: 0x10000, max: 0x1f9ff }),
);

test('ranges say just the code points that they are made of, in as few pieces as can be', () => {
  fc.assert(
    fc.property(fc.array(code, { minLength: 1, maxLength: 60 }), (codes) => {
      const sorted = [...new Set(codes)].sort((a, b) => a - b);
      const range = unicodeRange(codes);
      expect(read(range)).toEqual(sorted);
      const gaps = sorted.filter((c, i) => i > 0 && c !== sorted[i - 1]! + 1).length;
      expect(range.split(', ')).toHaveLength(gaps + 1);
    }),
  );
  expect(unicodeRange([0x1f600])).toBe('U+1F600');
});

test('every character is in one part; parts have what they say, and marks for their letters', () => {
  fc.assert(
    fc.property(fc.uniqueArray(code, { minLength: 1, maxLength: 60 }), (codes) => {
      const parts = webParts(project(codes));
      expect(parts.flatMap((p) => read(p.range)).sort((a, b) => a - b)).toEqual([...codes].sort((a, b) => a - b));
      for (const p of parts) {
        for (const c of read(p.range)) expect(p.has.codes.has(c)).toBe(true);
        for (const c of codes) if (c >= 0x300 && c <= 0x36f) expect(p.has.codes.has(c)).toBe(true);
      }
    }),
  );
});

test('parts are called by what pages are written in', () => {
  const named = (text: string) => webParts(project([...text].map((c) => c.codePointAt(0)!))).map((p) => p.name);
  expect(named('aé€–')).toEqual(['latin']);
  expect(named('aő')).toEqual(['latin', 'latin-further']);
  expect(named('aΩЖ→')).toEqual(['latin', 'greek', 'cyrillic', 'others']);
  expect(named('Ж')).toEqual(['cyrillic']);
});

test('the style sheet has a rule for each part, with its range, and none for a whole font', () => {
  const file = (fileName: string, range?: string) => ({
    fileName,
    format: 'woff2' as const,
    thing: { master: 'm1' },
    ...(range !== undefined && { range }),
  });
  const css = styleSheet(demo, [file('A-latin.woff2', 'U+0041'), file('A-greek.woff2', 'U+0391')])!;
  expect(css.match(/@font-face/g)).toHaveLength(2);
  expect(css.match(/unicode-range: .*;/g)).toEqual(['unicode-range: U+0041;', 'unicode-range: U+0391;']);
  expect(css).toMatch(/A-latin\.woff2'\) format\('woff2'\);\n {2}unicode-range: U\+0041;\n\}/);
  expect(styleSheet(demo, [file('A.woff2')])).not.toMatch(/unicode-range/);
});
