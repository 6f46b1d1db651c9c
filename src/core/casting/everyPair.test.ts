import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { textGlyphs } from '../kerning/text';
import { kerningOf } from '../project/kerningLookup';
import { drawingOf, masterOf } from '../project/queries';
import { castFont } from './font';

const demo = readyDemo();
const folder = mkdtempSync(join(tmpdir(), 'wendril-pairs-'));

/** Advances that HarfBuzz gives to every glyph of a text. */
function advances(font: string, text: string): number[] {
  const file = join(folder, 'pairs.txt');
  writeFileSync(file, text);
  return JSON.parse(
    execFileSync(process.execPath, ['scripts/shape.mjs', font, `@@${file}`, 'liga=0', '--advances'], {
      encoding: 'utf8',
      maxBuffer: 1 << 26,
    }),
  ) as number[];
}

test('over every pair of letters, figures and punctuation of the demo family HarfBuzz’s advance is the project’s value', () => {
  const master = masterOf(demo, 'm1')!;
  const cast = castFont(demo, { flavour: 'ttf', place: { master: 'm1' } });
  if (!cast.ok) throw new Error(cast.reason);
  const font = join(folder, 'demo.ttf');
  writeFileSync(font, cast.value.bytes);
  const letters = textGlyphs(demo).map((id) => ({
    id,
    character: String.fromCodePoint(demo.glyphs[id]!.unicodes[0]!),
    advance: drawingOf(demo.glyphs[id]!, 'm1').advance,
  }));
  let pairs = 0;
  let kerned = 0;
  const wrong: string[] = [];
  for (let from = 0; from < letters.length; from += 60) {
    const firsts = letters.slice(from, from + 60);
    // A line feed parts the pairs: nothing is kerned with it.
    const found = advances(font, firsts.flatMap((a) => letters.map((b) => `${a.character}${b.character}\n`)).join(''));
    expect(found).toHaveLength(firsts.length * letters.length * 3);
    firsts.forEach((a, i) => {
      letters.forEach((b, k) => {
        const value = kerningOf(demo, master, a.id, b.id)?.value ?? 0;
        const said = found[(i * letters.length + k) * 3]! - Math.round(a.advance);
        pairs++;
        if (value !== 0) kerned++;
        if (said !== Math.round(value)) wrong.push(`${a.character}${b.character}: ${said}, not ${value}`);
      });
    });
  }
  expect(wrong.slice(0, 20)).toEqual([]);
  expect(pairs).toBe(letters.length ** 2);
  expect(kerned).toBeGreaterThan(10_000);
});
