import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { outOfDate, setFollow, setFollows } from '../fitting/follows';
import { measureFor, proposedSides, whiteOnSide } from '../fitting/optical';
import { setSides, sidesOf } from '../fitting/sides';
import { type Outcome, runEdit } from '../project/edit';
import { groupsByGlyph, kerningOf, membersOf, sidesToChange, widestSides } from '../project/kerningLookup';
import { type Project, projectSchema } from '../project/model';
import { pairKey } from '../project/pairs';
import { glyphNamed, masterOf } from '../project/queries';
import { collisions } from './collisions';
import {
  addGroup,
  dissolveGroup,
  leavePair,
  makeException,
  pairsLeft,
  putInGroup,
  setPair,
  setPairs,
  setWordList,
} from './edits';
import { kerningFaults } from './faults';
import { likeness } from './likeness';
import { kerningQueue } from './queue';
import { textGlyphs } from './text';

const demo = readyDemo();
const id = (name: string) => glyphNamed(demo, name)!.id;
const m1 = masterOf(demo, 'm1')!;
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};

test('a change goes to where the value stands: an exception, else the groups', () => {
  const [t, e, o] = [id('T'), id('e'), id('o')];
  expect(sidesToChange(demo, m1, t, o)).toEqual(widestSides(demo, t, o));
  const p = done(makeException(demo, { master: 'm1', first: t, second: e, value: -9 }));
  const master = masterOf(p, 'm1')!;
  expect(sidesToChange(p, master, t, e)).toEqual([
    { kind: 'glyph', id: t },
    { kind: 'glyph', id: e },
  ]);
  expect(sidesToChange(p, master, t, o)).toEqual(widestSides(demo, t, o));
  expect(kerningOf(p, master, t, e, pairKey({ kind: 'glyph', id: t }, { kind: 'glyph', id: e }))?.value).toBe(
    kerningOf(demo, m1, t, o)?.value,
  );
});

test('members are those that are there; a glyph that is gone stands for nothing', () => {
  expect(membersOf(demo, { kind: 'glyph', id: 'gone' })).toEqual([]);
  expect(membersOf(demo, { kind: 'group', id: 'gone' })).toEqual([]);
  const group = groupsByGlyph(demo).first.get(id('T'))!;
  const thinned = {
    ...demo,
    groups: demo.groups.map((g) => (g === group ? { ...g, members: [...g.members, 'gone'] } : g)),
  };
  expect(membersOf(thinned, { kind: 'group', id: group.id })).toEqual(group.members);
});

test('a pair left for good stays out of the queue until it is taken up again', () => {
  const [first] = kerningQueue(demo, 'm1');
  const key = pairKey(...first!.sides);
  const left = done(leavePair(demo, { key, leave: true }));
  expect([...pairsLeft(left)]).toEqual([key]);
  expect(leavePair(left, { key, leave: true })).toMatchObject({ ok: false });
  expect(kerningQueue(left, 'm1', pairsLeft(left)).map((q) => pairKey(...q.sides))).not.toContain(key);
  const again = done(leavePair(left, { key, leave: false }));
  expect(pairsLeft(again).size).toBe(0);
  expect(pairsLeft({ lib: { 'org.wendril.kerning.left': 'broken' } }).size).toBe(0);
});

test('word lists are kept within bounds; an empty one is refused', () => {
  const p = done(setWordList(demo, { lines: ['To', 'x'.repeat(500)] }));
  expect(p.texts.pairs.map((l) => l.length)).toEqual([2, 200]);
  expect(done(setWordList(demo, { lines: Array.from({ length: 9000 }, (_, i) => `w${i}`) })).texts.pairs).toHaveLength(
    5000,
  );
  expect(setWordList(demo, { lines: [] })).toMatchObject({ ok: false });
});

test('what is made of text is letters, figures and punctuation; marks and arrows are not', () => {
  const names = new Set(textGlyphs(demo).map((g) => demo.glyphs[g]!.name));
  for (const name of ['a', 'Adieresis', 'seven', 'period', 'guillemotleft']) expect(names).toContain(name);
  for (const name of ['acutecomb', 'arrowup', 'space', 'plus']) expect(names).not.toContain(name);
});

test('a damaged key is a fault that can be taken away, and throws nothing', () => {
  const broken = {
    ...demo,
    masters: demo.masters.map((m) => ({ ...m, kerning: { ...m.kerning, nonsense: 7, 'glyph:a': 2 } })),
  };
  const [fault] = kerningFaults(broken, masterOf(broken, 'm1')!);
  expect(fault!.mend!.args).toEqual({ master: 'm1', keys: ['nonsense', 'glyph:a'] });
  const mended = done(runEdit(broken, fault!.mend!.edit, fault!.mend!.args));
  expect(kerningFaults(mended, masterOf(mended, 'm1')!)).toEqual(kerningFaults(demo, m1));
});

const glyph = fc.constantFrom(...['T', 'V', 'A', 'o', 'e', 'period', 'n', 'Tbar', 'adieresis'].map(id));
const side = fc.constantFrom('first' as const, 'second' as const);

test('whatever is done to groups, a glyph is in one of a side at most, the document stays sound, and dissolving moves nothing', () => {
  const step = fc.oneof(
    fc.tuple(side, glyph, fc.nat(60)).map(
      ([s, g, k]) =>
        (p: Project) =>
          putInGroup(p, { side: s, glyph: g, group: p.groups.filter((x) => x.side === s)[k]?.id }),
    ),
    fc.tuple(side, fc.uniqueArray(glyph, { maxLength: 4 }), fc.constantFrom('one', 'two', ' a b ', '')).map(
      ([s, members, name]) =>
        (p: Project) =>
          addGroup(p, { side: s, name, members }),
    ),
    fc.tuple(glyph, glyph, fc.integer({ min: -200, max: 200 })).map(([a, b, value]) => (p: Project) => {
      const [first, second] = widestSides(p, a, b);
      return setPair(p, { master: 'm1', first, second, value });
    }),
    fc.tuple(glyph, glyph, fc.integer({ min: -90, max: 90 })).map(
      ([a, b, value]) =>
        (p: Project) =>
          makeException(p, { master: 'm1', first: a, second: b, value }),
    ),
    fc.nat(80).map((k) => (p: Project) => dissolveGroup(p, { group: p.groups[k]?.id ?? 'none' })),
  );
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 10 }), (steps) => {
      const end = steps.reduce((p, s) => {
        const o = s(p);
        if (!o.ok) expect(o.reason).toMatch(/\.$/);
        return o.ok ? o.project : p;
      }, demo);
      for (const s of ['first', 'second'] as const) {
        const all = end.groups.filter((g) => g.side === s).flatMap((g) => g.members);
        expect(new Set(all).size).toBe(all.length);
      }
      const some = end.groups.filter((g) => g.members.includes(id('T')) || g.members.includes(id('o')));
      const apart = some.reduce((p, g) => done(dissolveGroup(p, { group: g.id })), end);
      expect(apart.groups).toHaveLength(end.groups.length - some.length);
      for (const a of ['T', 'V', 'Tbar', 'o']) {
        for (const b of ['o', 'A', 'period', 'adieresis']) {
          expect(kerningOf(apart, masterOf(apart, 'm1')!, id(a), id(b))?.value).toBe(
            kerningOf(end, masterOf(end, 'm1')!, id(a), id(b))?.value,
          );
        }
      }
      expect(projectSchema.shape.groups.safeParse(end.groups).success).toBe(true);
    }),
    { seed: 8, numRuns: 12 },
  );
});

test('likeness is the same both ways, 1 to itself, and nothing to do with where the glyph stands', () => {
  const names = ['o', 'e', 'n', 'T', 'V', 'period', 'germandbls', 'eight'];
  for (const s of ['first', 'second'] as const) {
    for (const a of names) {
      expect(likeness(demo, m1, s, id(a), id(a))).toBeCloseTo(1, 9);
      for (const b of names)
        expect(likeness(demo, m1, s, id(a), id(b))).toBeCloseTo(likeness(demo, m1, s, id(b), id(a)), 9);
    }
  }
});

test('collisions grow with the distance asked for, kerning moves them, and they agree with the pair set the other way round', () => {
  const ids = ['f', 'idieresis', 'T', 'icircumflex', 'parenright', 'quotedblright'].map(id);
  const found = (p: Project, near: number) => collisions(p, 'm1', ids, near);
  expect(found(demo, 60).length).toBeGreaterThanOrEqual(found(demo, 20).length);
  for (const c of found(demo, 60)) expect(c.distance).toBeLessThan(60);
  const tight = done(
    setPairs(demo, {
      master: 'm1',
      pairs: [{ first: { kind: 'glyph', id: id('T') }, second: { kind: 'glyph', id: id('T') }, value: -100 }],
    }),
  );
  const of = (p: Project) => found(p, 400).find((c) => c.first === id('T') && c.second === id('T'))!.distance;
  expect(of(demo) - of(tight)).toBe(100 + (kerningOf(demo, m1, id('T'), id('T'))?.value ?? 0));
});

describe('the white of a side', () => {
  test('is what the controls have when a glyph stands as proposed', () => {
    for (const name of ['a', 'e', 's', 'v', 'T', 'K', 'S']) {
      const g = glyphNamed(demo, name)!;
      const measure = measureFor(demo, g, m1)!;
      const fitted = done(
        setSides(demo, { at: { glyph: g.id, master: 'm1' }, ...proposedSides(demo, g, 'm1', measure)! }),
      );
      for (const s of ['left', 'right'] as const) {
        const { now, wanted } = whiteOnSide(fitted, fitted.glyphs[g.id]!, m1, s, measure)!;
        expect(Math.abs(now - wanted)).toBeLessThanOrEqual(0.5);
      }
    }
  });

  test('the controls themselves are proposed as they are', () => {
    for (const name of ['n', 'o', 'H', 'O']) {
      const g = glyphNamed(demo, name)!;
      const now = sidesOf(demo, g, 'm1');
      const sides = proposedSides(demo, g, 'm1', measureFor(demo, g, m1)!)!;
      if (!('left' in now)) throw new Error('drawn');
      expect(Math.abs(sides.left + sides.right - now.left - now.right)).toBeLessThan(8);
    }
  });
});

test('the same side of several glyphs is bound in one step, or in none', () => {
  const follow = { glyph: id('n'), side: 'left' as const, offset: 6, everyMaster: true };
  const bound = setFollows(demo, {
    bindings: ['t', 'z', 'x'].map((n) => ({ glyph: id(n), side: 'left', follow })),
    master: 'm1',
  });
  expect(bound.ok && bound.sentence).toBe('3 sides of 3 glyphs follow n');
  const p = done(bound);
  expect(outOfDate(p)).toEqual([]);
  for (const name of ['t', 'z', 'x']) {
    for (const m of demo.masters) {
      const [own, n] = [sidesOf(p, p.glyphs[id(name)]!, m.id), sidesOf(p, p.glyphs[id('n')]!, m.id)];
      expect('left' in own && 'left' in n && own.left - n.left).toBe(6);
    }
  }
  expect(
    setFollows(demo, { bindings: ['t', 'n'].map((n) => ({ glyph: id(n), side: 'left', follow })), master: 'm1' }),
  ).toMatchObject({ ok: false });
  expect(setFollows(demo, { bindings: [], master: 'm1' })).toMatchObject({ ok: false });
  expect(
    setFollow(demo, { glyph: id('t'), side: 'left', master: 'm1', follow: { ...follow, offset: Number.NaN } }),
  ).toMatchObject({ ok: false });
});
