import fc from 'fast-check';
import { buildUnspaced } from '../../../demo/family';
import { readyDemo } from '../../../demo/ready';
import { refused } from '../base/result';
import { evenFigures, unevenFigures } from '../fitting/figures';
import { followOf, outOfDate, setFollow, updateFollows } from '../fitting/follows';
import { proposeFit, takeFit } from '../fitting/proposal';
import { addToSides, setSides, sidesOf } from '../fitting/sides';
import type { Outcome } from '../project/edit';
import { groupsByGlyph, kerningOf, sideName, widestSides } from '../project/kerningLookup';
import type { Project } from '../project/model';
import { pairKey, pairSides } from '../project/pairs';
import { defaultMaster, drawingOf, glyphNamed, masterOf } from '../project/queries';
import { collisions, linesOfWordList } from './collisions';
import { addGroup, dissolveGroup, makeException, putInGroup, removePairs, setPair, setPairs } from './edits';
import { kerningFaults } from './faults';
import { alike, likeness, offeredFor } from './likeness';
import { calibrated, modelKerning, whiteOf } from './optical';
import { proposeKerning } from './proposal';
import { kerningQueue } from './queue';

const demo = readyDemo();
const id = (name: string) => glyphNamed(demo, name)!.id;
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const m1 = masterOf(demo, 'm1')!;
const letters = [...'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'];

describe('kerning of a pair', () => {
  test('is the first of glyph–glyph, glyph–group, group–glyph, group–group, as a plain reading of all pairs gives it', () => {
    const names = ['T', 'V', 'A', 'o', 'e', 'adieresis', 'period', 'n'];
    const groups = groupsByGlyph(demo);
    fc.assert(
      fc.property(
        fc.constantFrom(...names),
        fc.constantFrom(...names),
        fc.array(fc.integer({ min: -90, max: 90 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: 0, max: 15 }),
        (a, b, values, present) => {
          const [ga, gb] = [groups.first.get(id(a)), groups.second.get(id(b))];
          const ways = [
            pairKey({ kind: 'glyph', id: id(a) }, { kind: 'glyph', id: id(b) }),
            gb && pairKey({ kind: 'glyph', id: id(a) }, { kind: 'group', id: gb.id }),
            ga && pairKey({ kind: 'group', id: ga.id }, { kind: 'glyph', id: id(b) }),
            ga && gb && pairKey({ kind: 'group', id: ga.id }, { kind: 'group', id: gb.id }),
          ];
          const kerning = Object.fromEntries(
            ways.flatMap((w, i) => (w && present & (1 << i) ? [[w, values[i]!]] : [])),
          );
          const first = ways.find((w) => w !== undefined && kerning[w] !== undefined);
          expect(kerningOf(demo, { kerning }, id(a), id(b))?.value).toBe(
            first === undefined ? undefined : kerning[first],
          );
        },
      ),
    );
  });

  test('is set for groups, made an exception, and taken away; names say what is a group', () => {
    const sides = widestSides(demo, id('T'), id('o'));
    expect(sides.map((s) => sideName(demo, s))).toEqual(['T group', 'o group']);
    let p = done(setPair(demo, { master: 'm1', first: sides[0], second: sides[1], value: -77 }));
    const of = (a: string, b: string) => kerningOf(p, masterOf(p, 'm1')!, id(a), id(b))?.value;
    expect([of('T', 'o'), of('T', 'e'), of('Tcaron', 'c')]).toEqual([-77, -77, -77]);
    p = done(makeException(p, { master: 'm1', first: id('T'), second: id('e'), value: -60 }));
    expect([of('T', 'o'), of('T', 'e')]).toEqual([-77, -60]);
    expect(makeException(p, { master: 'm1', first: id('T'), second: id('e') })).toMatchObject({ ok: false });
    p = done(removePairs(p, { master: 'm1', keys: [kerningOf(p, masterOf(p, 'm1')!, id('T'), id('e'))!.key] }));
    expect(of('T', 'e')).toBe(-77);
    expect(setPair(p, { master: 'm1', first: sides[0], second: sides[1], value: Number.NaN })).toMatchObject({
      ok: false,
    });
    expect(removePairs(p, { master: 'm1', keys: ['nothing'] })).toMatchObject({ ok: false });
  });
});

describe('groups', () => {
  test('a glyph is in one group of a side; dissolving moves nothing', () => {
    let p = done(addGroup(demo, { side: 'first', name: 'my diagonals', members: [id('V'), id('W')] }));
    const mine = p.groups.find((g) => g.name === 'my_diagonals')!;
    for (const g of p.groups) if (g.side === 'first' && g !== mine) expect(g.members).not.toContain(id('V'));
    expect(addGroup(p, { side: 'first', name: 'my diagonals', members: [] })).toMatchObject({ ok: false });
    p = done(putInGroup(p, { side: 'first', glyph: id('Y'), group: mine.id }));
    expect(p.groups.filter((g) => g.side === 'first' && g.members.includes(id('Y'))).map((g) => g.id)).toEqual([
      mine.id,
    ]);
    p = done(putInGroup(p, { side: 'first', glyph: id('Y'), group: undefined }));
    expect(putInGroup(p, { side: 'first', glyph: id('Y'), group: undefined })).toMatchObject({ ok: false });
    const t = groupsByGlyph(demo).first.get(id('T'))!;
    const apart = done(dissolveGroup(demo, { group: t.id }));
    for (const b of ['o', 'a', 'period', 'v', 'A']) {
      for (const a of ['T', 'Tbar'])
        expect(kerningOf(apart, masterOf(apart, 'm3')!, id(a), id(b))?.value).toBe(
          kerningOf(demo, masterOf(demo, 'm3')!, id(a), id(b))?.value,
        );
    }
  });
});

describe('likeness of sides', () => {
  test('the same shape is wholly alike, accents apart; straight and round are not', () => {
    const like = (side: 'first' | 'second', a: string, b: string) => likeness(demo, m1, side, id(a), id(b));
    expect(like('second', 'o', 'o')).toBe(1);
    expect(like('second', 'o', 'ograve')).toBeGreaterThan(0.99);
    expect(like('first', 'o', 'p')).toBeGreaterThan(0.93);
    expect(like('first', 'n', 'h')).toBeGreaterThan(0.97);
    expect(like('first', 'n', 'o')).toBeLessThan(0.9);
    expect(like('first', 'T', 'o')).toBeLessThan(0.7);
    expect(like('first', 'space', 'o')).toBe(0);
    const found = alike(demo, m1, 'first', id('o')).map((f) => demo.glyphs[f.glyph]!.name);
    expect(found).toEqual(expect.arrayContaining(['ograve', 'odieresis', 'p', 'b']));
    expect(found).not.toEqual(expect.arrayContaining(['n', 'o', 'T']));
  });

  test('offered for a group is what is most alike and not in it, on that side alone; for a glyph in no group nothing', () => {
    const without = done(
      ['p', 'odieresis'].reduce<Outcome>(
        (o, name) => (o.ok ? putInGroup(o.project, { side: 'first', glyph: id(name), group: undefined }) : o),
        { ok: true, project: demo } as Outcome,
      ),
    );
    const master = masterOf(without, 'm1')!;
    const group = groupsByGlyph(without).first.get(id('o'))!;
    const offered = offeredFor(without, master, 'first', id('o'));
    const names = offered.map((f) => without.glyphs[f.glyph]!.name);
    expect(names).toEqual(expect.arrayContaining(['p', 'odieresis']));
    expect(offered.length).toBeLessThanOrEqual(6);
    expect(offered.some((f) => group.members.includes(f.glyph))).toBe(false);
    expect(offered.map((f) => f.likeness)).toEqual([...offered.map((f) => f.likeness)].sort((a, b) => b - a));
    const loose = without.glyphOrder.find((g) => !groupsByGlyph(without).second.has(g))!;
    expect(offeredFor(without, master, 'second', loose)).toEqual([]);
  });
});

describe('the optical model', () => {
  test('leaves the controls alone and knows open, diagonal and overhanging pairs', () => {
    const kern = (pair: string) => modelKerning(demo, m1, id(pair[0]!), id(pair[1]!));
    for (const pair of ['nn', 'no', 'on', 'oo', 'HH', 'OO', 'HO']) expect(Math.abs(kern(pair))).toBeLessThan(6);
    for (const pair of ['To', 'AV', 'LT', 'Ty', 'Fa']) expect(kern(pair)).toBeLessThan(-30);
    expect(Math.abs(kern('AV') - kern('VA'))).toBeLessThan(3);
    expect(modelKerning(demo, m1, id('n'), id('space'))).toBe(0);
  });

  test('white grows with distance; where the origin lies does not matter', () => {
    const white = calibrated(demo, m1)!;
    const gaps = Float64Array.of(40, 90, 180, 300);
    expect(whiteOf(gaps, 20, white)).toBeGreaterThan(whiteOf(gaps, 0, white));
    // The same letter moved by ten, its right side as much nearer: between two of them nothing has changed.
    const before = sidesOf(demo, glyphNamed(demo, 'T')!, 'm1');
    if (!('left' in before)) throw new Error('drawn');
    const moved = done(
      setSides(demo, { at: { glyph: id('T'), master: 'm1' }, left: before.left + 10, right: before.right - 10 }),
    );
    expect(
      Math.abs(
        modelKerning(moved, masterOf(moved, 'm1')!, id('T'), id('T')) - modelKerning(demo, m1, id('T'), id('T')),
      ),
    ).toBeLessThan(2);
  });
});

describe('proposals', () => {
  test('kerning: by groups, on the step, nothing small, the most worthwhile first, within the limit', () => {
    const ids = ['T', 'V', 'A', 'L', 'o', 'e', 'a', 'period', 'n', 'H'].map(id);
    const bare = { ...demo, masters: demo.masters.map((m) => ({ ...m, kerning: {} })) };
    const found = proposeKerning(bare, 'm1', ids, ids, { least: 8, step: 5, most: 1000 }).pairs;
    expect(found.length).toBeGreaterThan(10);
    // An exception alone may be 0.
    for (const { value, first, second } of found)
      expect([value % 5 === 0, Math.abs(value) >= 8 || first.kind === 'glyph' || second.kind === 'glyph']).toEqual([
        true,
        true,
      ]);
    expect(found.some((f) => f.first.kind === 'group' && f.second.kind === 'group' && f.glyphs > 1)).toBe(true);
    expect(proposeKerning(bare, 'm1', ids, ids, { least: 8, step: 5, most: 3 }).pairs).toHaveLength(3);
    const taken = done(setPairs(bare, { master: 'm1', pairs: found }));
    expect(proposeKerning(taken, 'm1', ids, ids, { least: 8, step: 5, most: 1000 }).pairs).toEqual([]);
  });

  test('the queue: worst first, what is left for good stays out, what is kerned even goes', () => {
    const queue = kerningQueue(demo, 'm1');
    const worth = (q: (typeof queue)[number]) => Math.abs(q.proposed - q.now) * Math.sqrt(1 + q.frequency);
    for (let i = 1; i < queue.length; i++) expect(worth(queue[i]!)).toBeLessThanOrEqual(worth(queue[i - 1]!));
    const [first] = queue;
    const key = pairKey(...first!.sides);
    expect(kerningQueue(demo, 'm1', new Set([key])).some((q) => pairKey(...q.sides) === key)).toBe(false);
    const even = done(
      setPair(demo, { master: 'm1', first: first!.sides[0], second: first!.sides[1], value: first!.proposed }),
    );
    expect(kerningQueue(even, 'm1').some((q) => pairKey(...q.sides) === key)).toBe(false);
  });

  test('faults: needless exceptions, small values, missing glyphs, each with its keys', () => {
    const sides = widestSides(demo, id('T'), id('o'));
    let p = done(setPair(demo, { master: 'm1', first: sides[0], second: sides[1], value: -70 }));
    p = done(
      setPair(p, {
        master: 'm1',
        first: { kind: 'glyph', id: id('T') },
        second: { kind: 'glyph', id: id('o') },
        value: -70,
      }),
    );
    p = done(
      setPair(p, {
        master: 'm1',
        first: { kind: 'glyph', id: id('at') },
        second: { kind: 'glyph', id: id('at') },
        value: 2,
      }),
    );
    const faults = kerningFaults(
      { ...p, masters: p.masters.map((m) => ({ ...m, kerning: { ...m.kerning, 'glyph:gone glyph:gone': 9 } })) },
      { ...masterOf(p, 'm1')!, kerning: { ...masterOf(p, 'm1')!.kerning, 'glyph:gone glyph:gone': 9 } },
    );
    expect(faults.map((f) => f.reason)).toEqual([
      expect.stringContaining('groups give them anyway'),
      expect.stringContaining('less than 4'),
      expect.stringContaining('no longer there'),
    ]);
    expect(pairSides((faults[0]!.mend!.args as { keys: string[] }).keys[0]!)![0]).toEqual({
      kind: 'glyph',
      id: id('T'),
    });
  });

  test('fit: within ten units of the family’s own sides for most letters of every weight, and nothing fixed is touched', () => {
    const keep = new Set(['n', 'o', 'H', 'O'].map(id));
    const drawn = buildUnspaced();
    const free: Project = {
      ...drawn,
      glyphs: Object.fromEntries(
        Object.entries(drawn.glyphs).map(([k, g]) => [k, { ...g, follows: { left: [], right: [] } }]),
      ),
    };
    for (const master of ['m1', 'm2', 'm3']) {
      const found = new Map(proposeFit(free, master, letters.map(id), keep).map((f) => [f.glyph, f]));
      expect([...keep].some((k) => found.has(k))).toBe(false);
      const off = letters
        .filter((l) => !keep.has(id(l)))
        .flatMap((l) => {
          const f = found.get(id(l));
          return f ? [Math.abs(f.left - f.now.left), Math.abs(f.right - f.now.right)] : [0, 0];
        })
        .sort((a, b) => a - b);
      expect(off[off.length >> 1]).toBeLessThan(10);
      expect(off[Math.floor(off.length * 0.9)]).toBeLessThan(25);
    }
  });

  test('fit: symmetric glyphs get symmetric sides, figures keep their width, followed sides stay', () => {
    const odd = done(setSides(demo, { at: { glyph: id('x'), master: 'm1' }, left: 90, right: 10 }));
    const found = proposeFit(odd, 'm1', ['x', 'A', 'zero', 'one', 'b'].map(id), new Set());
    const x = found.find((f) => f.glyph === id('x'))!;
    expect(Math.abs(x.left - x.right)).toBeLessThan(8);
    for (const f of found)
      if (['zero', 'one'].map(id).includes(f.glyph)) expect(f.left + f.right).toBe(f.now.left + f.now.right);
    const fitted = done(takeFit(odd, { master: 'm1', proposals: found }));
    expect(unevenFigures(fitted, 'm1')).toBeUndefined();
    const wide = done(setSides(demo, { at: { glyph: id('three'), master: 'm1' }, advance: 700 }));
    expect(unevenFigures(wide, 'm1')?.odd).toEqual([id('three')]);
    const even = done(evenFigures(wide, {}));
    expect(unevenFigures(even, 'm1')).toBeUndefined();
    const [before, after] = [demo, even].map(
      (p) => sidesOf(p, p.glyphs[id('three')]!, 'm1') as { left: number; right: number; advance: number },
    );
    expect(Math.abs(after!.left - before!.left)).toBeLessThan(80);
    expect(after!.advance).toBe(before!.advance);
    expect(evenFigures(even, {})).toMatchObject({ ok: false });
    expect(takeFit(demo, { master: 'm1', proposals: [] })).toMatchObject({ ok: false });
    // What the controls say nothing of is left: raised, lowered and old-style figures, marks, signs.
    const all = new Set(
      proposeFit(buildUnspaced(), 'm1', demo.glyphOrder, new Set()).map((f) => demo.glyphs[f.glyph]!.name),
    );
    for (const name of ['twosuperior', 'three.onum', 'four.numr', 'ordfeminine', 'acutecomb', 'plus'])
      expect(all).not.toContain(name);
    expect(all).toContain('s');
  });
});

describe('sides that follow', () => {
  const at = (name: string) => ({ glyph: id(name), master: 'm1' });
  const left = (p: Project, name: string, master = 'm1') => {
    const s = sidesOf(p, p.glyphs[id(name)]!, master);
    return 'left' in s ? s.left : Number.NaN;
  };

  test('a side is let go in one master, and the rule stays in the others', () => {
    const follow = { glyph: id('n'), side: 'left', offset: -20, everyMaster: true } as const;
    const where = { glyph: id('t'), side: 'left', master: 'm1' } as const;
    let p = done(setFollow(demo, { ...where, follow }));
    p = done(setFollow(p, { ...where, hereOnly: true }));
    const t = p.glyphs[id('t')]!;
    expect(followOf(t, 'left', 'm1')).toBeUndefined();
    for (const m of demo.masters.filter((d) => d.id !== 'm1'))
      expect(followOf(t, 'left', m.id)).toMatchObject({ offset: -20, master: m.id });
    p = done(setSides(p, { at: at('t'), left: 3 }));
    expect(outOfDate(p).filter((o) => o.glyph === id('t'))).toEqual([]);
    expect(setFollow(p, { ...where, hereOnly: true })).toMatchObject({ ok: false });
    p = done(setFollow(p, { ...where, master: 'm2' }));
    expect(followOf(p.glyphs[id('t')]!, 'left', 'm2')).toBeUndefined();
    expect(followOf(p.glyphs[id('t')]!, 'left', 'm3')).toBeDefined();
  });

  test('a rule is written at once in every master, updated through chains, and told when out of date', () => {
    let p = done(
      setFollow(demo, {
        glyph: id('t'),
        side: 'left',
        master: 'm1',
        follow: { glyph: id('n'), side: 'left', offset: -20, everyMaster: true },
      }),
    );
    p = done(
      setFollow(p, {
        glyph: id('f'),
        side: 'left',
        master: 'm1',
        follow: { glyph: id('t'), side: 'left', offset: 5, everyMaster: true },
      }),
    );
    for (const m of demo.masters)
      expect([left(p, 't', m.id), left(p, 'f', m.id)]).toEqual([left(p, 'n', m.id) - 20, left(p, 'n', m.id) - 15]);
    p = done(setSides(p, { at: at('n'), left: 100 }));
    const late = outOfDate(p, ['m1']);
    expect(late.map((o) => p.glyphs[o.glyph]!.name)).toEqual(expect.arrayContaining(['t', 'h', 'b']));
    p = done(updateFollows(p, {}));
    expect([left(p, 't'), left(p, 'f'), left(p, 'h')]).toEqual([80, 85, 100]);
    expect(outOfDate(p)).toEqual([]);
    expect(updateFollows(p, {})).toMatchObject({ ok: false });
  });

  test('sides are changed in every master at once, each from its own', () => {
    const masters = demo.masters.map((m) => m.id);
    const p = done(addToSides(demo, { glyph: id('a'), masters, left: 7, right: -3 }));
    for (const m of masters) {
      const [before, after] = [demo, p].map((q) => sidesOf(q, q.glyphs[id('a')]!, m));
      if (!('left' in before!) || !('left' in after!)) throw new Error('drawn');
      expect([after.left - before.left, after.right - before.right]).toEqual([7, -3]);
    }
    const wide = done(addToSides(demo, { glyph: id('space'), masters: ['m1'], left: 10, right: 5 }));
    expect(sidesOf(wide, wide.glyphs[id('space')]!, 'm1').advance).toBe(
      sidesOf(demo, demo.glyphs[id('space')]!, 'm1').advance + 15,
    );
    expect(addToSides(demo, { glyph: 'gone', masters, left: 1, right: 1 })).toMatchObject({ ok: false });
  });

  test('the order in which rules were made does not matter', () => {
    const rules = [
      ['t', 'n'],
      ['f', 't'],
      ['z', 'f'],
    ] as const;
    const made = (order: readonly (readonly [string, string])[]) =>
      order.reduce(
        (p, [a, b]) =>
          done(
            setFollow(p, {
              glyph: id(a),
              side: 'left',
              master: 'm1',
              follow: { glyph: id(b), side: 'left', offset: 1, everyMaster: true },
            }),
          ),
        demo,
      );
    const [one, other] = [made(rules), made([...rules].reverse())];
    for (const [a] of rules) expect(left(one, a)).toBe(left(other, a));
  });

  test('circles are refused with their chain; one master only; letting go', () => {
    const rule = (
      glyph: string,
      side: 'left' | 'right',
      of: string,
      ofSide: 'left' | 'right',
      p = demo,
      everyMaster = true,
    ) =>
      setFollow(p, {
        glyph: id(glyph),
        side,
        master: 'm1',
        follow: { glyph: id(of), side: ofSide, offset: 0, everyMaster },
      });
    expect(rule('n', 'left', 'h', 'left')).toEqual(refused('That would go in a circle: n left → h left → n left.'));
    const only = done(rule('t', 'left', 'o', 'left', demo, false));
    expect(left(only, 't')).toBe(left(only, 'o'));
    expect(left(only, 't', 'm3')).toBe(left(demo, 't', 'm3'));
    expect(setFollow(only, { glyph: id('z'), side: 'left', master: 'm1', follow: undefined })).toMatchObject({
      ok: false,
    });
    const free = done(setFollow(only, { glyph: id('t'), side: 'left', master: 'm1', follow: undefined }));
    expect(free.glyphs[id('t')]!.follows.left).toEqual([]);
  });
});

test('collisions: nothing touches among plain letters; an accent that meets its neighbour is found', () => {
  expect(collisions(demo, 'm1', letters.map(id), 5).filter((c) => c.distance < -2)).toEqual([]);
  const tight = done(
    setPair(demo, {
      master: 'm1',
      first: { kind: 'glyph', id: id('f') },
      second: { kind: 'glyph', id: id('idieresis') },
      value: -150,
    }),
  );
  const found = collisions(tight, 'm1', ['f', 'idieresis', 'n'].map(id), 10);
  expect(found[0]).toMatchObject({ first: id('f'), second: id('idieresis') });
  expect(found[0]!.distance).toBeLessThan(0);
});

test('a word list is lines without comments; masters differ', () => {
  expect(linesOfWordList('# pairs\nTo\n\n  AV # tight\r\nhamburg\n')).toEqual(['To', 'AV', 'hamburg']);
  expect(defaultMaster(demo).id).toBe('m1');
  expect(drawingOf(glyphNamed(demo, 'n')!, 'm3')).not.toEqual(drawingOf(glyphNamed(demo, 'n')!, 'm1'));
});
