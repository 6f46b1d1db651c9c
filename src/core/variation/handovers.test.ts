import { readyDemo } from '../../../demo/ready';
import { castFont } from '../casting/font';
import { hhea } from '../opentype/hhea';
import { hmtx } from '../opentype/hmtx';
import { readSfnt } from '../opentype/sfnt';
import type { Outcome } from '../project/edit';
import { kerningOf } from '../project/kerningLookup';
import type { Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { defaultMaster, drawingOf, glyphNamed } from '../project/queries';
import { removalConsequences, removeGlyphs } from '../project/removal';
import { addMaster, removeAxis } from './familyEdits';
import { glyphAt } from './glyphAt';
import { type Handover, jumpAt, removeHandover, setHandover, standsFor } from './handovers';
import { instanceAt } from './instance';

const demo = readyDemo();
const [a, o, adieresis] = ['a', 'o', 'adieresis'].map((n) => glyphNamed(demo, n)!);
const HEAVY: Handover = { axis: 'wght', from: 600, to: 800, glyph: o!.id };
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const why = (outcome: Outcome): string | undefined => (outcome.ok ? undefined : outcome.reason);
const given = done(setHandover(demo, { glyph: a!.id, handover: HEAVY }));
const at = (wght: number) => ({ wght, wdth: 100 });

test('a glyph gives way over its stretch, the ends counted in, and nowhere else', () => {
  const stands = [300, 599, 600, 700, 800].map((w) => standsFor(given, a!.id, at(w)));
  expect(stands).toEqual([a!.id, a!.id, o!.id, o!.id, o!.id]);
  expect(glyphAt(given, a!.id, at(700))).toEqual(glyphAt(demo, o!.id, at(700)));
  expect(glyphAt(given, a!.id, at(500))).toEqual(glyphAt(demo, a!.id, at(500)));
});

test('an instance has the other’s drawing, spacing and kerning; composites keep what they are built on', () => {
  const [plain, handed] = [demo, given].map((p) => instanceAt(p, at(700), 'Bold').project);
  const master = defaultMaster(handed!);
  expect(drawingOf(handed!.glyphs[a!.id]!, master.id)).toEqual(drawingOf(plain!.glyphs[o!.id]!, master.id));
  expect(handed!.glyphs[a!.id]!.unicodes).toEqual(a!.unicodes);
  const outline = (p: Project, id: string) => {
    const source = drawingsOf(p, defaultMaster(p).id);
    return flattened(source(id)!, source);
  };
  expect(outline(handed!, adieresis!.id)).toEqual(outline(plain!, adieresis!.id));
  // Every pair of the one that gives way is kerned as the one that stands in.
  let kerned = 0;
  for (const other of demo.glyphOrder) {
    if (other === a!.id) continue;
    const value = (p: Project, first: string, second: string) =>
      kerningOf(p, defaultMaster(p), first, second)?.value ?? 0;
    expect([other, value(handed!, a!.id, other)]).toEqual([other, value(plain!, o!.id, other)]);
    expect([other, value(handed!, other, a!.id)]).toEqual([other, value(plain!, other, o!.id)]);
    kerned += value(plain!, other, o!.id) === 0 ? 0 : 1;
  }
  expect(kerned).toBeGreaterThan(20);
  // Before the limit nothing is different.
  expect(instanceAt(given, at(500), 'x').project.groups).toBe(instanceAt(demo, at(500), 'x').project.groups);
});

test('fonts of a master within the stretch have the other drawing too', () => {
  const advances = ['m1', 'm3'].map((master) =>
    [demo, given].map((p) => {
      const cast = castFont(p, { flavour: 'otf', place: { master } });
      if (!cast.ok) throw new Error(cast.reason);
      const { tables } = readSfnt(cast.value.bytes);
      const rows = hmtx.read(
        tables.get('hmtx')!,
        hhea.read(tables.get('hhea')!).numberOfHMetrics,
        cast.value.glyphIds.length,
      );
      return rows[cast.value.glyphIds.indexOf(a!.id)]!.advanceWidth;
    }),
  );
  expect(advances[0]![1]).toBe(advances[0]![0]);
  expect(advances[1]![1]).toBe(Math.round(drawingOf(o!, 'm3').advance));
  expect(advances[1]![1]).not.toBe(advances[1]![0]);
});

test('what jumps at the limit is measured there', () => {
  const jump = jumpAt(given, a!, HEAVY, 600);
  const advance = (id: string) => glyphAt(demo, id, at(600))!.advance;
  expect(jump.advance).toBeCloseTo(advance(o!.id) - advance(a!.id), 6);
  expect(Math.abs(jump.kerning!.units)).toBeGreaterThan(1);
  expect(glyphNamed(demo, jump.kerning!.with)).toBeDefined();
});

test('handovers that make no sense are refused, and what they refer to is minded', () => {
  const set = (handover: Partial<Handover>, p = given, glyph = a!.id, index?: number) =>
    why(setHandover(p, { glyph, handover: { ...HEAVY, ...handover }, ...(index !== undefined && { index }) }));
  expect(set({ axis: 'opsz' })).toBe('There is no axis opsz.');
  expect(set({ glyph: a!.id })).toBe('a cannot give way to itself.');
  expect(set({ from: 700, to: 650 })).toMatch(/not less/);
  expect(set({ from: 900, to: 950 })).toMatch(/does not reach there/);
  expect(set({ from: 750, to: 800 })).toMatch(/holds there already/);
  expect(set({ from: 750, to: 800 }, given, a!.id, 0)).toBeUndefined();
  expect(set({ glyph: a!.id }, given, adieresis!.id)).toMatch(/a gives way itself/);
  expect(set({ glyph: adieresis!.id }, given, o!.id)).toMatch(/o stands in for another/);
  expect(why(removeHandover(given, { glyph: a!.id, index: 1 }))).toMatch(/no longer there/);
  expect(done(removeHandover(given, { glyph: a!.id, index: 0 })).glyphs[a!.id]!.handovers).toEqual([]);
  expect(removalConsequences(given, [o!.id]).join(' ')).toMatch(/1 glyph \(a\) no longer give way to it/);
  expect(done(removeGlyphs(given, { ids: [o!.id], drawOut: true })).glyphs[a!.id]!.handovers).toEqual([]);
  const flat = { ...given, masters: given.masters.filter((m) => m.place.wght === 400 || m.place.wght === undefined) };
  expect(why(removeAxis(flat, { tag: 'wght' }))).toMatch(/a gives way to another glyph along Weight/);
  // A new master begins with each glyph’s own drawing.
  const [plain, handed] = [demo, given].map((p) => done(addMaster(p, { name: 'Semi', place: at(700) })));
  const id = plain!.masters.at(-1)!.id;
  expect(drawingOf(handed!.glyphs[a!.id]!, id)).toEqual(drawingOf(plain!.glyphs[a!.id]!, id));
});
