import { readyDemo } from '../../../demo/ready';
import { castFont } from '../casting/font';
import { ruledFacts } from '../casting/ruledFacts';
import { addTracking, sidesOf } from '../fitting/sides';
import { styleHints } from '../fontfacts/styleWords';
import { hhea } from '../opentype/hhea';
import { os2 } from '../opentype/os2';
import { readSfnt, tableOf } from '../opentype/sfnt';
import { copyName, duplicateGlyph } from './duplicate';
import type { Outcome } from './edit';
import { setFitLines, setMasterName, setUnitsPerEm } from './edits';
import { setGlyphNames } from './glyphEdits';
import { kerningOf } from './kerningLookup';
import { setEmbedding, setItalicAngle, setMasterFact, setStyleLink } from './masterFacts';
import type { Project } from './model';
import { drawingOf, glyphNamed } from './queries';
import { removalFault } from './removal';

const demo = readyDemo();
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const named = (project: Project, name: string) => glyphNamed(project, name)!;

describe('a new em', () => {
  test('scales everything: letters, sides, kerning, metrics look as they did; or only the number changes', () => {
    const twice = done(setUnitsPerEm(demo, { unitsPerEm: 2000, scale: true }));
    expect(twice.unitsPerEm).toBe(2000);
    demo.masters.forEach((m, i) => {
      for (const name of ['a', 'A', 'eacute', 'f_i']) {
        const [was, is] = [sidesOf(demo, named(demo, name), m.id), sidesOf(twice, named(twice, name), m.id)];
        for (const key of ['left', 'right', 'advance'] as const)
          expect((is as Record<string, number>)[key]).toBeCloseTo(2 * (was as Record<string, number>)[key]!, 0);
      }
      const scaled = twice.masters[i]!;
      expect(scaled.zones.xHeight.position).toBe(2 * m.zones.xHeight.position);
      for (const [key, value] of Object.entries(m.kerning)) expect(scaled.kerning[key]).toBe(2 * value);
    });
    for (const d of Object.values(named(twice, 'a').drawings))
      for (const p of d.contours.flatMap((c) => c.points)) expect([p.x % 1, p.y % 1].map(Math.abs)).toEqual([0, 0]);
    const only = done(setUnitsPerEm(demo, { unitsPerEm: 2000 }));
    expect(only.glyphs).toBe(demo.glyphs);
    expect(setUnitsPerEm(demo, { unitsPerEm: 7, scale: true })).toMatchObject({ ok: false });
  });
});

describe('a copy of a glyph', () => {
  test('has all masters, sides, groups and pairs, stands beside it, and takes no name or code point that is taken', () => {
    const A = named(demo, 'A');
    const name = copyName(demo, A);
    expect(name).toBe('A.alt');
    const made = done(duplicateGlyph(demo, { glyph: A.id, name, anchors: true, kerning: true }));
    const copy = named(made, name);
    expect(made.glyphOrder.indexOf(copy.id)).toBe(made.glyphOrder.indexOf(A.id) + 1);
    expect(copy.unicodes).toEqual([]);
    expect(copy.drawings).toEqual(A.drawings);
    const V = named(demo, 'V').id;
    for (const m of made.masters) {
      expect(kerningOf(made, m, copy.id, V)?.value).toBe(kerningOf(demo, m, A.id, V)?.value);
      expect(kerningOf(made, m, V, copy.id)?.value).toBe(kerningOf(demo, m, V, A.id)?.value);
    }
    expect(copyName(made, copy)).toBe('A.alt2');
    const bare = done(duplicateGlyph(demo, { glyph: A.id, name, anchors: false, kerning: false }));
    expect(Object.values(named(bare, name).drawings).every((d) => d.anchors.length === 0)).toBe(true);
    expect(bare.groups).toEqual(demo.groups);
    for (const bad of ['A', '', '1x', 'a b'])
      expect(duplicateGlyph(demo, { glyph: A.id, name: bad, anchors: true, kerning: true })).toMatchObject({
        ok: false,
      });
  });
});

test('an even value is added once, also to composites whose base gets it', () => {
  const ids = ['a', 'aacute', 'adieresis'].flatMap((n) => glyphNamed(demo, n)?.id ?? []);
  expect(ids.length).toBeGreaterThan(1);
  const spaced = done(addTracking(demo, { glyphs: ids, master: 'm1', value: 7 }));
  for (const id of ids)
    expect(drawingOf(spaced.glyphs[id]!, 'm1').advance).toBe(drawingOf(demo.glyphs[id]!, 'm1').advance + 14);
});

describe('facts of a master', () => {
  const fontOf = (project: Project) => {
    const font = castFont(project, { flavour: 'otf', place: { master: 'm1' } });
    if (!font.ok) throw new Error(font.reason);
    const { tables } = readSfnt(font.value.bytes);
    return { o: os2.read(tables.get('OS/2')!), h: hhea.read(tableOf(readSfnt(font.value.bytes), 'hhea')) };
  };

  test('by rule the font has what is shown; set outright it has that; let go it has the rule again', () => {
    const master = demo.masters.find((m) => m.id === 'm1')!;
    const ruled = ruledFacts(demo, master);
    const { o, h } = fontOf(demo);
    expect(o).toMatchObject({
      usWeightClass: ruled.weightClass,
      sTypoAscender: ruled.typoAscender,
      usWinDescent: ruled.winDescent,
      yStrikeoutPosition: ruled.strikeoutPosition,
    });
    expect(h.ascender).toBe(ruled.hheaAscender);
    const set = (fact: string, value?: number) => (p: Project) => done(setMasterFact(p, { master: 'm1', fact, value }));
    const own = [set('weightClass', 350), set('typoAscender', 801), set('strikeoutSize', 44)].reduce(
      (p, f) => f(p),
      demo,
    );
    expect(fontOf(own).o).toMatchObject({ usWeightClass: 350, sTypoAscender: 801, yStrikeoutSize: 44 });
    expect(fontOf(set('weightClass')(own)).o.usWeightClass).toBe(ruled.weightClass);
    expect(setMasterFact(demo, { master: 'm1', fact: 'widthClass', value: 12 })).toMatchObject({ ok: false });
    const linked = done(setStyleLink(demo, { master: 'm1', link: 'bold' }));
    expect(fontOf(linked).o.fsSelection! & 0x20).toBe(0x20);
    const kept = done(setEmbedding(demo, { embedding: 'view' }));
    expect(fontOf(kept).o.fsType).toBe(4);
    expect(fontOf(done(setEmbedding(kept, { embedding: 'free' }))).o.fsType).toBe(0);
  });

  test('a name that says italic asks for an angle; what it says of weight and link is told', () => {
    const project = done(setMasterName(demo, { master: 'm1', name: 'Bold Italic' }));
    const hints = (p: Project) => styleHints(p, p.masters.find((m) => m.id === 'm1')!);
    expect(hints(project).map((h) => h.kind)).toEqual(['angle', 'classes']);
    expect(hints(project)[1]!.sentence).toBe('By its name: weight class 700, linked as Bold Italic.');
    const set = done(setItalicAngle(project, { master: 'm1', angle: -9 }));
    expect(hints(set).map((h) => h.kind)).toEqual(['classes']);
    expect(setItalicAngle(project, { master: 'm1', angle: 80 })).toMatchObject({ ok: false });
  });
});

test('a new name reaches lines of one’s own; what cannot be removed says so beforehand', () => {
  const lined = done(setFitLines(demo, { lines: ['nn/f_i nn/f_i.alt ', '/f_i'] }));
  const g = named(lined, 'f_i');
  const renamed = done(setGlyphNames(lined, { id: g.id, name: 'fi.liga', unicodes: [...g.unicodes] }));
  expect(renamed.texts.words).toEqual(['nn/fi.liga nn/f_i.alt ', '/fi.liga']);
  expect(removalFault(demo, [named(demo, '.notdef').id])).toMatch(/needs \.notdef/);
  expect(removalFault(demo, [g.id])).toBeUndefined();
});
