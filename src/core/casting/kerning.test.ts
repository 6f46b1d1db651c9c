import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { kernLookups, writeGpos } from '../opentype/gpos';
import { readLayout } from '../opentype/layout/lists';
import { readSfnt } from '../opentype/sfnt';
import type { GlyphId, Project } from '../project/model';
import { type PairSide, pairKey, pairSides } from '../project/pairs';
import { glyphForCodePoint } from '../project/queries';
import { castFont } from './font';
import { kerningSize } from './tables/gpos';

const demo = buildStarter();
const LETTERS = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789';
const ids = [...LETTERS].map((c) => glyphForCodePoint(demo, c.codePointAt(0)!)!.id);
const folder = mkdtempSync(join(tmpdir(), 'wendril-kern-'));

/** Advances HarfBuzz gives to the first glyph of each pair of letters. */
function kerned(bytes: Uint8Array, pairs: readonly string[], ...features: string[]): number[] {
  const path = join(folder, 'kern.otf');
  writeFileSync(path, bytes);
  const out = JSON.parse(
    execFileSync(process.execPath, ['scripts/shape.mjs', path, pairs.join(' '), ...features], { encoding: 'utf8' }),
  ) as { advance: number }[];
  return pairs.map((_, i) => out[i * 3]!.advance);
}

/** The value a pair should have, by the order of the document: glyph–glyph, glyph–group, group–glyph, group–group. */
function wanted(project: Project, first: GlyphId, second: GlyphId): number {
  const group = (id: GlyphId, side: 'first' | 'second'): PairSide[] =>
    project.groups.filter((g) => g.side === side && g.members.includes(id)).map((g) => ({ kind: 'group', id: g.id }));
  const { kerning } = project.masters[0]!;
  const firsts: PairSide[] = [{ kind: 'glyph', id: first }, ...group(first, 'first')];
  const seconds: PairSide[] = [{ kind: 'glyph', id: second }, ...group(second, 'second')];
  for (const a of firsts)
    for (const b of seconds) {
      const value = kerning[pairKey(a, b)];
      if (value !== undefined) return value;
    }
  return 0;
}

const side = (members: number) => fc.array(fc.integer({ min: 0, max: 3 }), { minLength: members, maxLength: members });
const kerning = fc.record({
  first: side(ids.length),
  second: side(ids.length),
  pairs: fc.array(fc.tuple(fc.boolean(), fc.nat(), fc.boolean(), fc.nat(), fc.integer({ min: -120, max: 80 })), {
    minLength: 1,
    maxLength: 60,
  }),
});

test('HarfBuzz finds every pair’s value by the document’s order, whatever the groups and exceptions', () => {
  fc.assert(
    fc.property(kerning, ({ first, second, pairs }) => {
      const groups = [0, 1, 2].flatMap((k) => [
        { id: `f${k}`, side: 'first' as const, name: `f${k}`, members: ids.filter((_, i) => first[i] === k) },
        { id: `s${k}`, side: 'second' as const, name: `s${k}`, members: ids.filter((_, i) => second[i] === k) },
      ]);
      const values: Record<string, number> = {};
      for (const [gf, a, gs, b, v] of pairs) {
        const one: PairSide = gf ? { kind: 'group', id: `f${a % 3}` } : { kind: 'glyph', id: ids[a % ids.length]! };
        const two: PairSide = gs ? { kind: 'group', id: `s${b % 3}` } : { kind: 'glyph', id: ids[b % ids.length]! };
        values[pairKey(one, two)] = v;
      }
      const project: Project = { ...demo, groups, masters: [{ ...demo.masters[0]!, kerning: values }] };
      const font = castFont(project, { flavour: 'otf', place: { master: 'm1' } });
      if (!font.ok) throw new Error(font.reason);
      const texts = [...LETTERS].flatMap((a, i) =>
        [0, 1, 2, 3, 4, 5].map((k) => a + LETTERS[(i * 7 + k * 11) % LETTERS.length]!),
      );
      const on = kerned(font.value.bytes, texts);
      const off = kerned(font.value.bytes, texts, 'kern=0');
      const got = texts.map((text, i) => [text, on[i]! - off[i]!]);
      const id = (c: string) => glyphForCodePoint(project, c.codePointAt(0)!)!.id;
      expect(got).toEqual(texts.map((text) => [text, wanted(project, id(text[0]!), id(text[1]!))]));
    }),
    { numRuns: 12 },
  );
});

test('more pairs than one subtable holds are spread over several', () => {
  const pairs = Array.from({ length: 400 }, (_, i) =>
    Array.from({ length: 60 }, (_, k) => ({
      first: { glyph: i + 1 },
      second: { glyph: k + 1 },
      value: -((i * 7 + k) % 450) - 1,
    })),
  ).flat();
  const gposOf = (list: typeof pairs) =>
    writeGpos(
      [{ tag: 'kern', lookups: kernLookups({ firstGroups: [], secondGroups: [], pairs: list }) }],
      ['latn', 'cyrl'],
    )!;
  const table = gposOf(pairs);
  expect(table.length).toBeGreaterThan(90_000);
  // Letters with the same pairs share them.
  expect(gposOf(pairs.map((p) => ({ ...p, value: -p.second.glyph }))).length).toBeLessThan(6000);
  expect(readLayout(table, 'GPOS', 9).features.map((f) => f.tag)).toEqual(['kern']);
});

test('no kerning, no table; keys name their sides', () => {
  const font = castFont(demo, { flavour: 'ttf', place: { master: 'm1' } });
  expect(font.ok && readSfnt(font.value.bytes).tables.has('GPOS')).toBe(false);
  expect(pairSides('glyph:g1 group:k2')).toEqual([
    { kind: 'glyph', id: 'g1' },
    { kind: 'group', id: 'k2' },
  ]);
  expect(pairSides('nonsense')).toBeUndefined();
});

test('what kerning costs in the font is what its table takes', () => {
  const font = castFont(demo, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const size = kerningSize(demo, 'm1');
  expect(size.pairs).toBe(font.value.kerningPairs);
  expect(size.bytes).toBe(readSfnt(font.value.bytes).tables.get('GPOS')?.length ?? 0);
  expect(kerningSize(demo, 'nowhere')).toEqual({ pairs: 0, bytes: 0 });
});
