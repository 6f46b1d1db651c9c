import { readyDemo } from '../../../demo/ready';
import { isRefused } from '../base/result';
import { contourBounds } from '../geometry/contour';
import { nestingDepths, wrongWay } from '../geometry/winding';
import { editDrawing } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { derivedSet, termsFor, termsOf } from './derive';
import { derivedDrawing, Ground, heightIn } from './draw';
import { setSetTerms } from './edits';
import { withGroupsLike } from './groups';
import { ligatureItems, ligatureOf, welded } from './ligatures';
import { isDrawn, needsOf, SETS, setOf, type Way } from './sets';
import { setCounts } from './view';

/** Sets by what they hold, the ways one by one, groups, and numbers: in one master, where one tells all. */

const demo = readyDemo();
const project: Project = { ...demo, masters: demo.masters.slice(0, 1) };
const master = project.masters[0]!;
const ground = new Ground(project, master);
const names = (key: string, p: Project = project) =>
  setOf(key)!
    .items(p)
    .map((i) => i.name);
const done = (outcome: ReturnType<typeof removeGlyphs>): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const drawn = (key: string, way: Way, p: Project = project): Drawing => {
  const set = setOf(key)!;
  const made = derivedDrawing(new Ground(p, p.masters[0]!), set, termsOf(p, set), way);
  if (isRefused(made)) throw new Error(made.reason);
  return made;
};
const boxOf = (d: Drawing, p: Project = project) => drawingBounds(d, drawingsOf(p, p.masters[0]!.id));
const glyphBox = (name: string) => boxOf(drawingOf(glyphNamed(project, name)!, master.id));

describe('what sets hold', () => {
  test('each set is told, its glyphs are named once, and their parts are glyphs or of the set itself', () => {
    for (const set of SETS) {
      const items = set.items(project);
      expect(set.title.length > 3 && set.does.length > 5).toBe(true);
      expect([set.key, new Set(items.map((i) => i.name)).size]).toEqual([set.key, items.length]);
      const own = new Set(items.map((i) => i.name));
      for (const item of items)
        for (const part of needsOf(item.way))
          expect([
            set.key,
            item.name,
            part,
            own.has(part) || /\.(numr|dnom)$/.test(part) || glyphNamed(project, part) !== undefined,
          ]).toEqual([set.key, item.name, part, true]);
    }
  });

  test('small capitals come from capitals that are drawn themselves, those with accents from marks', () => {
    const items = setOf('smallCaps')!.items(project);
    const way = (name: string) => items.find((i) => i.name === name)?.way;
    expect(way('a.sc')).toEqual({ how: 'scaled', of: 'A', among: 'capitals' });
    expect(way('ae.sc')).toEqual({ how: 'scaled', of: 'AE', among: 'capitals' });
    expect(way('germandbls.sc')).toEqual({ how: 'scaled', of: 'uni1E9E', among: 'capitals' });
    expect(way('aacute.sc')).toMatchObject({ how: 'marked', base: 'a.sc', marks: [{ anchor: 'top' }] });
    // The caron of ď stands beside it; that of its capital on top.
    expect(way('dcaron.sc')).toMatchObject({ base: 'd.sc', marks: [{ glyph: 'caroncomb', anchor: 'top' }] });
    // The comma of ģ is turned above it; that of its capital hangs below.
    expect(way('uni0123.sc')).toMatchObject({ base: 'g.sc', marks: [{ glyph: 'commabelowcomb', anchor: 'bottom' }] });
    // Nothing comes of forms of capitals, and nothing is asked for twice.
    expect(items.every((i) => !/\..*\.sc$/.test(i.name))).toBe(true);
  });

  test('without the capital of ß two of s stand for it', () => {
    const without = done(removeGlyphs(project, { ids: [glyphNamed(project, 'uni1E9E')!.id] }));
    const item = setOf('smallCaps')!
      .items(without)
      .find((i) => i.name === 'germandbls.sc');
    expect(item?.way).toEqual({ how: 'row', of: ['s.sc', 's.sc'] });
  });

  test('figures of every kind, fractions, numerals and rings have their characters', () => {
    const codes = (key: string) =>
      setOf(key)!
        .items(project)
        .flatMap((i) => i.unicodes);
    expect(String.fromCodePoint(...codes('superiors'))).toBe('⁰¹²³⁴⁵⁶⁷⁸⁹');
    expect(String.fromCodePoint(...codes('inferiors'))).toBe('₀₁₂₃₄₅₆₇₈₉');
    expect(String.fromCodePoint(...codes('fractions').slice(0, 5))).toBe('½¼¾⅓⅔');
    expect(String.fromCodePoint(...codes('roman').slice(0, 12))).toBe('ⅠⅡⅢⅣⅤⅥⅦⅧⅨⅩⅪⅫ');
    expect(codes('ringed')).toHaveLength(21);
    expect(names('oldStyle')).toEqual(
      ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'].map((n) => `${n}.onum`),
    );
    const tenth = setOf('fractions')!
      .items(project)
      .find((i) => i.unicodes[0] === 0x2152);
    expect(tenth?.way).toEqual({ how: 'row', of: ['one.numr', 'fraction', 'one.dnom', 'zero.dnom'] });
  });

  test('counts tell how many are drawn of how many', () => {
    const counts = setCounts(project);
    expect(counts.smallCaps).toEqual({ drawn: 138, all: names('smallCaps').length });
    expect(counts.fractions).toEqual({ drawn: 3, all: 19 });
    expect(counts.superiors).toEqual({ drawn: 10, all: 10 });
    expect(counts.tabular).toEqual({ drawn: 0, all: 0 });
    expect(Object.keys(counts)).toEqual(SETS.map((s) => s.key));
    expect(isDrawn(project, undefined)).toBe(false);
  });
});

describe('ways', () => {
  test('heights and stems of kinds are measured where they are flat and straight', () => {
    expect(ground.heightOf('capitals')).toBe(700);
    expect(Math.abs(ground.heightOf('small') - master.zones.xHeight.position)).toBeLessThan(3);
    expect(ground.stemsOf('capitals').vertical).toBeGreaterThan(ground.stemsOf('small').vertical);
    expect(ground.figureWidth()).toBe(drawingOf(glyphNamed(project, 'zero')!, master.id).advance);
    const caps = setOf('smallCaps')!;
    // The small capitals that are drawn tell their height; without them its numbers do.
    expect(heightIn(ground, caps, { ...caps.usual, height: 110 })).toBe(glyphBox('h.sc').yMax);
    const figures = setOf('superiors')!;
    expect(heightIn(ground, figures, { ...figures.usual, height: 50 })).toBeCloseTo(ground.heightOf('figures') / 2, 6);
  });

  test('a part goes to the middle of capitals, onto the baseline, down to hang, or stays', () => {
    const lift = (of: string, to: Extract<Way, { how: 'moved' }>['to'], key = 'caseForms') =>
      drawn(key, { how: 'moved', of, to }).components[0]!.transform[5];
    const middle = (b: ReturnType<typeof glyphBox>) => (b.yMin + b.yMax) / 2;
    expect(Math.abs(middle(glyphBox('hyphen')) + lift('hyphen', 'middle') - 350)).toBeLessThanOrEqual(1);
    expect(glyphBox('questiondown').yMin + lift('questiondown', 'baseline')).toBeCloseTo(0, 0);
    expect(lift('three', 'hang', 'oldStyle')).toBeLessThan(-100);
    expect(lift('six', 'asIs', 'oldStyle')).toBe(0);
    // Of an empty glyph nothing can be told.
    expect(lift('space', 'middle')).toBe(0);
  });

  test('what is scaled ends at its height, above its foot, with the weight of the set', () => {
    const set = setOf('superiors')!;
    const one = drawn('superiors', { how: 'scaled', of: 'one', among: 'figures' });
    const box = boxOf(one);
    expect(Math.abs(box.yMax - box.yMin - heightIn(ground, set, set.usual))).toBeLessThan(3);
    expect(Math.abs(box.yMin - 0.42 * 700)).toBeLessThan(2);
    expect(one.components).toEqual([]);
    expect(one.advance).toBeLessThan(drawingOf(glyphNamed(project, 'one')!, master.id).advance);
    // Anchors of the letter go along.
    const caps = drawn('smallCaps', { how: 'scaled', of: 'A', among: 'capitals' });
    const top = drawingOf(glyphNamed(project, 'A')!, master.id).anchors.find((a) => a.name === 'top')!;
    const made = caps.anchors.find((a) => a.name === 'top')!;
    expect(made.y).toBeLessThan(top.y * 0.85);
    expect(made.y).toBeGreaterThan(boxOf(caps).yMax - 5);
  });

  test('a ring goes round its figures, its wall is ink and its inside is not', () => {
    for (const figures of [['five'], ['one', 'nine']]) {
      const ring = drawn('ringed', { how: 'ringed', of: figures });
      const [outer, inner] = ring.contours;
      const [a, b] = [contourBounds(outer!), contourBounds(inner!)];
      expect(a.xMin < b.xMin && a.xMax > b.xMax).toBe(true);
      expect(nestingDepths(ring.contours).slice(0, 2)).toEqual([0, 1]);
      expect(wrongWay(ring.contours)).toEqual([]);
      for (const c of ring.contours.slice(2)) {
        const inside = contourBounds(c);
        expect([figures, inside.xMin > b.xMin, inside.xMax < b.xMax]).toEqual([figures, true, true]);
      }
      // It stands in the middle of its width.
      expect(Math.abs(a.xMin - (ring.advance - a.xMax))).toBeLessThanOrEqual(1);
    }
  });

  test('rows are as wide as their parts, frames go round, sides come from the shapes', () => {
    const width = (n: string) => drawingOf(glyphNamed(project, n)!, master.id).advance;
    const row = drawn('roman', { how: 'row', of: ['X', 'I', 'I'] });
    expect(row.advance).toBe(width('X') + 2 * width('I'));
    expect(row.components.map((c) => c.transform[4])).toEqual([0, width('X'), width('X') + width('I')]);
    const key = boxOf(drawn('keys', { how: 'framed', of: 'A' }));
    expect(key.yMax > 700 && key.yMin < 0).toBe(true);
    const sided = drawn('proportional', { how: 'sided', of: 'one' });
    expect(sided.advance).toBeLessThan(width('one'));
    expect(boxOf(sided).xMin).toBeGreaterThan(20);
    expect(
      isRefused(
        derivedDrawing(ground, setOf('smallCaps')!, termsOf(project, setOf('smallCaps')!), {
          how: 'marked',
          base: 'a.sc',
          marks: [],
        }),
      ),
    ).toBe(true);
  });
});

describe('ligatures', () => {
  test('letters that touch in a master are told with it, and asked for', () => {
    const f = glyphNamed(project, 'f')!.id;
    const wide = editDrawing(project, { glyph: f, master: master.id }, 'Leans over', (d) => ({
      ...d,
      advance: d.advance - 110,
    }));
    if (!wide.ok) throw new Error(wide.reason);
    const items = ligatureItems(wide.project);
    expect(items.length).toBeGreaterThan(ligatureItems(project).length);
    expect(items.find((i) => i.name === 'f_l')?.hint).toMatch(/^f and l touch\./);
    expect(items.some((i) => i.name === 'f_b')).toBe(true);
    // Ligatures that the project has beside the usual ones are in the list.
    expect(ligatureItems(project).map((i) => i.name)).toEqual(expect.arrayContaining(['longs_t', 'longs_longs']));
  });
  test('one is named by characters or by names; a letter that is not there makes none', () => {
    expect(ligatureOf(project, 'fj')?.name).toBe('f_j');
    expect(ligatureOf(project, ' f_f_b ')?.way).toEqual({ how: 'row', of: ['f', 'f', 'b'] });
    expect(ligatureOf(project, 'f')).toBeUndefined();
    expect(ligatureOf(project, 'f字')).toBeUndefined();
  });
  test('what is welded is outlines alone, of the same ink', () => {
    const glyph = glyphForCodePoint(project, 0x2153) ?? glyphNamed(project, 'onehalf')!;
    const made = welded(project, glyph)!;
    const [before, after] = [drawingOf(glyph, master.id), drawingOf(made, master.id)];
    expect(after.components).toEqual([]);
    expect(after.contours.length).toBeGreaterThan(2);
    const [a, b] = [boxOf(before), boxOf(after)];
    for (const k of ['xMin', 'xMax', 'yMin', 'yMax'] as const) expect(b[k]).toBeCloseTo(a[k], 2);
  });
});

describe('groups and numbers', () => {
  test('what is made stands in groups like those of what it comes from; those in a group stay in it', () => {
    const groups = [
      {
        id: 'k1',
        side: 'first' as const,
        name: 'stem',
        members: ['H', 'I', 'N'].map((n) => glyphNamed(project, n)!.id),
      },
      { id: 'k2', side: 'second' as const, name: 'round', members: ['O', 'C'].map((n) => glyphNamed(project, n)!.id) },
    ];
    const from = new Map([
      ['h.sc', 'H'],
      ['i.sc', 'I'],
      ['o.sc', 'O'],
    ]);
    const next = withGroupsLike({ ...project, groups }, from, 'smallCaps');
    const own = next.groups.filter((g) => !groups.some((o) => o.id === g.id));
    expect(own.map((g) => [g.name, g.side, g.members.map((m) => next.glyphs[m]!.name)])).toEqual([
      ['stem.sc', 'first', ['h.sc', 'i.sc']],
    ]);
    // Once more it changes nothing, and one more of them joins the group that is there.
    expect(withGroupsLike(next, from, 'smallCaps')).toBe(next);
    const more = withGroupsLike(next, new Map([['n.sc', 'N']]), 'smallCaps');
    expect(more.groups.find((g) => g.name === 'stem.sc')!.members).toHaveLength(3);
  });

  test('a glyph’s own numbers go before those of the set, and those before the usual ones', () => {
    const set = setOf('smallCaps')!;
    const at = (p: Project) => termsFor(p, set, 's.sc');
    const taller = done(setSetTerms(project, { set: 'smallCaps', height: 110, width: 98 }));
    const own = done(setSetTerms(taller, { set: 'smallCaps', glyph: 's.sc', width: 90 }));
    expect([at(project), at(taller), at(own)]).toEqual([
      set.usual,
      { ...set.usual, height: 110, width: 98 },
      { ...set.usual, height: 110, width: 90 },
    ]);
    expect(termsFor(own, set, 'a.sc').width).toBe(98);
  });

  test('in an empty project every glyph of every set lacks something, in words', () => {
    const bare = {
      ...project,
      glyphs: Object.fromEntries(Object.entries(project.glyphs).map(([k, g]) => [k, { ...g, drawings: {} }])),
    };
    for (const set of SETS)
      for (const item of derivedSet(bare, set)) {
        expect([set.key, item.name, item.state]).toEqual([set.key, item.name, 'lacks']);
        expect(item.why).toMatch(/not drawn yet\.$/);
      }
  });
});
