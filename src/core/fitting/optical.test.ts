import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { transformedDrawing } from '../drawing/transform';
import type { Outcome } from '../project/edit';
import { changeSettings } from '../project/edits';
import type { Project } from '../project/model';
import { glyphNamed, masterOf } from '../project/queries';
import { startingSides, stemAndCounter } from './counter';
import { bothSides, builtOn, setFollows } from './follows';
import { controlStrings, controlsOf, glyphsOfLine, withGlyphAt } from './lines';
import { measureFor, openness, proposedSides, whiteLines, whiteWanted, zoneOf } from './optical';
import { limitRise, profileOf } from './profile';
import { copySide, sidesOf } from './sides';

const demo = readyDemo();
const m1 = masterOf(demo, 'm1')!;
const named = (p: Project, name: string) => glyphNamed(p, name)!;
const id = (name: string) => named(demo, name).id;
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const sides = (p: Project, name: string, master = 'm1') => {
  const s = sidesOf(p, named(p, name), master);
  if (!('left' in s)) throw new Error(`${name} is not drawn`);
  return s;
};

test('depths beside each other differ by the rise at most, are never deeper than before, and stay where that holds already', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 500 }), { minLength: 1, maxLength: 60 }),
      fc.integer({ min: 1, max: 60 }),
      (from, rise) => {
        const depths = Float64Array.from(from);
        limitRise(depths, rise);
        for (let i = 0; i < depths.length; i++) {
          expect(depths[i]).toBeLessThanOrEqual(from[i]!);
          if (i > 0) expect(Math.abs(depths[i]! - depths[i - 1]!)).toBeLessThanOrEqual(rise);
          // As deep as the shallowest place allows, and no shallower.
          expect(depths[i]).toBe(Math.min(...from.map((v, k) => v + rise * Math.abs(i - k))));
        }
        const again = Float64Array.from(depths);
        limitRise(again, rise);
        expect(again).toEqual(depths);
      },
    ),
  );
});

test('a straight side has no white of its own, a round one some, an open one more, and none more than the eye looks for', () => {
  const open = (name: string, side: 'left' | 'right') => {
    const glyph = named(demo, name);
    return openness(profileOf(demo, glyph.id, 'm1'), side, zoneOf(demo, glyph, m1), demo.unitsPerEm);
  };
  expect(open('H', 'left')).toBeCloseTo(0, 6);
  expect(open('O', 'left')).toBeGreaterThan(20);
  expect(open('T', 'left')).toBeGreaterThan(open('O', 'left'));
  expect(open('c', 'right')).toBeGreaterThan(open('o', 'right'));
  for (const name of [...'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'])
    for (const side of ['left', 'right'] as const) expect(open(name, side)).toBeLessThan(0.11 * demo.unitsPerEm);
  expect(whiteLines(profileOf(demo, id('space'), 'm1'), 'left', { bottom: 0, top: 500 }, 1000)).toBeUndefined();
});

test('what a side shall have lies between what its straight and its round control have', () => {
  const measure = { straight: { open: 4, white: 70 }, round: { open: 30, white: 80 }, shift: 0 };
  expect([0, 4, 17, 30, 90].map((open) => whiteWanted(measure, open, 'left'))).toEqual([70, 70, 75, 80, 80]);
  expect(whiteWanted({ ...measure, shift: 6 }, 4, 'left') - whiteWanted({ ...measure, shift: 6 }, 4, 'right')).toBe(12);
});

test('slanted letters are fitted along their slant: what is proposed moves as the letter upright', () => {
  const tan = Math.tan((11 * Math.PI) / 180);
  const names = ['n', 'o', 'H', 'O', 'a', 'c', 's', 't', 'v', 'T', 'K', 'E'];
  // About half the x-height, so that the letters stay in the middle of their advance.
  const about = (-tan * m1.zones.xHeight.position) / 2;
  const slanted: Project = {
    ...demo,
    masters: demo.masters.map((m) => ({ ...m, italicAngle: -11 })),
    glyphs: Object.fromEntries(
      names.map((n) => {
        const g = named(demo, n);
        const drawing = transformedDrawing(g.drawings.m1!, [1, 0, tan, 1, about, 0], () => false);
        return [g.id, { ...g, drawings: { m1: drawing } }];
      }),
    ),
  };
  for (const name of names) {
    const moves = [demo, slanted].map((p) => {
      const got = proposedSides(p, named(p, name), 'm1', measureFor(p, named(p, name), masterOf(p, 'm1')!)!)!;
      const now = sides(p, name);
      return [got.left - now.left, got.right - now.right];
    });
    for (const side of [0, 1]) expect(Math.abs(moves[0]![side]! - moves[1]![side]!)).toBeLessThanOrEqual(3);
  }
});

test('a stem and its counter are measured where no bar lies across; a letter starts with half its counter on each side', () => {
  const { stem, counter } = stemAndCounter(demo, named(demo, 'n'), m1);
  expect(stem).toBeGreaterThan(60);
  expect(counter).toBeGreaterThan(stem!);
  expect(stemAndCounter(demo, named(demo, 'l'), m1).counter).toBeUndefined();
  expect(startingSides(demo, named(demo, 'l'), m1)).toBeUndefined();
  const half = startingSides(demo, named(demo, 'H'), m1)!;
  expect(half.left).toBe(Math.round(stemAndCounter(demo, named(demo, 'H'), m1).counter! / 2));
  const more = done(changeSettings(demo, { startShare: 0.6 }));
  expect(startingSides(more, named(more, 'H'), m1)!.left / half.left).toBeCloseTo(1.2, 1);
  // A round letter starts with less, for what its sides leave by themselves.
  expect(startingSides(demo, named(demo, 'o'), m1)!.left).toBeLessThan(
    stemAndCounter(demo, named(demo, 'o'), m1).counter! / 2,
  );
  expect(changeSettings(demo, { startShare: -1 })).toMatchObject({ ok: false });
  expect(changeSettings(demo, { kerningStep: 2.5 })).toMatchObject({ ok: false });
});

test('a side is copied to the other side and to other glyphs, each master its own value', () => {
  const p = done(copySide(demo, { from: id('a'), side: 'left', to: [id('a')], sides: ['right'], masters: ['m1'] }));
  expect(sides(p, 'a').right).toBe(sides(demo, 'a').left);
  const many = done(
    copySide(demo, {
      from: id('n'),
      side: 'left',
      to: ['t', 'z'].map(id),
      sides: ['left', 'right'],
      masters: demo.masters.map((m) => m.id),
    }),
  );
  for (const m of demo.masters)
    for (const name of ['t', 'z'])
      expect([sides(many, name, m.id).left, sides(many, name, m.id).right]).toEqual([
        sides(demo, 'n', m.id).left,
        sides(demo, 'n', m.id).left,
      ]);
  expect(
    copySide(demo, { from: id('n'), side: 'left', to: [id('space')], sides: ['left'], masters: ['m1'] }),
  ).toMatchObject({ ok: false });
  expect(copySide(demo, { from: 'gone', side: 'left', to: [id('n')], sides: ['left'], masters: ['m1'] })).toMatchObject(
    { ok: false },
  );
});

test('both sides follow another glyph as they are or mirrored; what is built on a letter is found', () => {
  const rule = { glyph: id('v'), offset: 4, everyMaster: true };
  const p = done(setFollows(demo, { bindings: bothSides([id('x'), id('z')], 'mirrored', rule), master: 'm1' }));
  for (const name of ['x', 'z'])
    expect([sides(p, name).left, sides(p, name).right]).toEqual([sides(p, 'v').right + 4, sides(p, 'v').left + 4]);
  const same = done(setFollows(demo, { bindings: bothSides([id('x')], 'same', rule), master: 'm1' }));
  expect([sides(same, 'x').left, sides(same, 'x').right]).toEqual([
    sides(same, 'v').left + 4,
    sides(same, 'v').right + 4,
  ]);
  const built = builtOn(demo, named(demo, 'o')).map((g) => demo.glyphs[g]!.name);
  expect(built).toContain('oslash');
  // Composites follow their base by themselves.
  expect(built).not.toContain('odieresis');
  expect(built).not.toContain('oe');
});

describe('lines of one’s own', () => {
  const line = 'n_o/f_i _n';
  test('a slot stands for the glyph that is fitted; names with an underscore are names', () => {
    const ids = glyphsOfLine(demo, line, named(demo, 'v')).glyphs.map((g) => demo.glyphs[g]!.name);
    expect(ids).toEqual(['n', 'v', 'o', 'f_i', 'v', 'n']);
    expect(glyphsOfLine(demo, '_').glyphs.map((g) => demo.glyphs[g]!.name)).toEqual(['underscore']);
  });

  test('a glyph put in leaves slots and spelling as they are', () => {
    expect(withGlyphAt(demo, line, 2, named(demo, 'x'), named(demo, 'v'))).toBe('n_xo/f_i _n');
    expect(withGlyphAt(demo, line, 6, named(demo, 'x'), named(demo, 'v'))).toBe('n_o/f_i _nx');
    expect(withGlyphAt(demo, '/f_i', 1, named(demo, 'x'))).toBe('/f_i x');
    expect(withGlyphAt(demo, '', 0, named(demo, 'f_i'))).toBe('/f_i ');
  });
});

test('small capitals are judged among their own H and O, and against capitals', () => {
  const a = named(demo, 'a.sc');
  const controls = controlsOf(demo, a)!;
  expect([controls.straight.name, controls.round.name]).toEqual(['h.sc', 'o.sc']);
  const lines = controlStrings(demo, a);
  expect(lines[0]).toBe('/h.sc /h.sc /a.sc /h.sc /a.sc /a.sc /h.sc /h.sc ');
  expect(lines[3]).toBe('H/a.sc O/a.sc H/a.sc /a.sc O');
  expect(glyphsOfLine(demo, lines[3]!).missing).toEqual([]);
  // Measured by them: each of the two is proposed nearly as it stands.
  for (const name of ['h.sc', 'o.sc']) {
    const got = proposedSides(demo, named(demo, name), 'm1', measureFor(demo, named(demo, name), m1)!)!;
    expect(Math.abs(got.left + got.right - sides(demo, name).left - sides(demo, name).right)).toBeLessThanOrEqual(2);
  }
  // A project without small H and O falls back on n and o.
  const fewer = {
    ...demo,
    glyphs: Object.fromEntries(Object.entries(demo.glyphs).filter(([, g]) => g.name !== 'h.sc')),
  };
  expect(controlsOf(fewer, a)!.straight.name).toBe('n');
});
