import { readyDemo } from '../../../demo/ready';
import { transformedDrawing } from '../drawing/transform';
import { type Outcome, runEdit } from '../project/edit';
import { groupsByGlyph, kerningOf } from '../project/kerningLookup';
import type { Glyph, Project } from '../project/model';
import { pairKey } from '../project/pairs';
import { glyphNamed, masterOf } from '../project/queries';
import { collisions, holes } from './collisions';
import { addGroup, dissolveGroups, setPair, setPairs } from './edits';
import { evennessOf } from './evenness';
import { kerningFaults } from './faults';
import { proposeGroups, takeGroups } from './groups';
import { canMeet, textKind } from './meeting';
import { modelKerning } from './optical';
import { proposeKerning } from './proposal';
import { kerningQueue, pairFacts } from './queue';
import { glyphsOfPair, PAIR_FREQUENCIES, textGlyphs } from './text';
import { stepOf } from './units';

const demo = readyDemo();
const bare: Project = { ...demo, groups: [], masters: demo.masters.map((m) => ({ ...m, kerning: {} })) };
const m1 = masterOf(demo, 'm1')!;
const id = (name: string) => glyphNamed(demo, name)!.id;
const nameOf = (glyph: string) => demo.glyphs[glyph]!.name;
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};

describe('groups from shapes', () => {
  const found = proposeGroups(bare, masterOf(bare, 'm1')!);
  const of = (side: string, name: string) =>
    found.find((p) => p.side === side && p.name === name)?.members.map((m) => nameOf(m.glyph)) ?? [];

  test('letters of the same side come together, accents with their base, capitals apart from small letters', () => {
    expect(of('second', 'B')).toEqual(expect.arrayContaining(['D', 'E', 'H', 'N', 'R', 'Eacute']));
    expect(of('second', 'B')).not.toContain('h');
    expect(of('second', 'm')).toEqual(expect.arrayContaining(['n', 'r', 'p']));
    // The stem of b, and the dots of ï, meet a T where n does not.
    expect(of('second', 'm')).not.toContain('b');
    expect(of('second', 'm')).not.toContain('idieresis');
    expect(of('first', 'b')).toEqual(expect.arrayContaining(['o', 'p', 'ograve']));
    for (const p of found) for (const m of p.members) expect(m.likeness).toBeGreaterThanOrEqual(0.95);
  });

  test('taking them over puts each glyph into one group a side; what is grouped is left, and groups there are filled', () => {
    const grouped = done(takeGroups(bare, { proposals: found }));
    for (const side of ['first', 'second'] as const) {
      const all = grouped.groups.filter((g) => g.side === side).flatMap((g) => g.members);
      expect(new Set(all).size).toBe(all.length);
    }
    expect(new Set(grouped.groups.map((g) => `${g.side} ${g.name}`)).size).toBe(grouped.groups.length);
    expect(proposeGroups(grouped, masterOf(grouped, 'm1')!)).toEqual([]);
    const lead = grouped.groups.find((g) => g.side === 'second' && g.members.includes(id('H')))!;
    const without = {
      ...grouped,
      groups: grouped.groups.map((g) => (g === lead ? { ...g, members: g.members.filter((m) => m !== id('N')) } : g)),
    };
    const again = proposeGroups(without, masterOf(without, 'm1')!);
    expect(again).toMatchObject([{ group: lead.id, members: [{ glyph: id('N') }] }]);
    expect(groupsByGlyph(done(takeGroups(without, { proposals: again }))).second.get(id('N'))?.id).toBe(lead.id);
    expect(takeGroups(demo, { proposals: [] })).toMatchObject({ ok: false });
  });

  test('the more alike they have to be, the fewer come together', () => {
    const members = (atLeast: number) =>
      proposeGroups(bare, masterOf(bare, 'm1')!, atLeast).reduce((n, p) => n + p.members.length, 0);
    expect(members(0.99)).toBeLessThan(members(0.9));
  });
});

describe('proposals keep accents apart', () => {
  const glyphs = ['T', 'V', 'f', 'o', 'odieresis', 'i', 'idieresis', 'icircumflex', 'e', 'n'].map(id);
  const cleared: Project = { ...demo, masters: demo.masters.map((m) => ({ ...m, kerning: {} })) };
  const pairs = proposeKerning(cleared, 'm1', glyphs, glyphs, { least: 4, step: 5, most: 1000 }).pairs;
  const kerned = done(setPairs(cleared, { master: 'm1', pairs }));
  const value = (a: string, b: string) => kerningOf(kerned, masterOf(kerned, 'm1')!, id(a), id(b))?.value ?? 0;

  test('a group gets the value that its plain letters need, a member that would touch gets its own', () => {
    expect(value('T', 'o')).toBeLessThan(-50);
    expect(value('T', 'idieresis')).toBeGreaterThan(value('T', 'o') + 60);
    expect(collisions(kerned, 'm1', glyphs, 1)).toEqual([]);
  });

  test('values are near what each pair would have by itself', () => {
    for (const a of glyphs)
      for (const b of glyphs) {
        // What text cannot hold, as a capital after a small letter, is not looked at.
        if (!canMeet(textKind(demo.glyphs[a]!), textKind(demo.glyphs[b]!))) continue;
        const off =
          (kerningOf(kerned, masterOf(kerned, 'm1')!, a, b)?.value ?? 0) -
          modelKerning(kerned, masterOf(kerned, 'm1')!, a, b);
        // Too near counts more than too open among accented letters; a step and rounding lie between.
        expect(off).toBeGreaterThan(-18);
        expect(off).toBeLessThan(42);
      }
  });

  test('only what some pairs need is worked out when only they are asked for', () => {
    const only = proposeKerning(cleared, 'm1', glyphs, glyphs, {
      least: 4,
      step: 5,
      most: 1000,
      only: [[id('T'), id('o')]],
    }).pairs;
    expect(only.length).toBeGreaterThan(0);
    expect(only.length).toBeLessThan(pairs.length);
    const groups = groupsByGlyph(cleared);
    for (const { first, second } of only) {
      const holds = (side: typeof first, glyph: string, group: string | undefined) =>
        side.id === group ||
        groups[side === first ? 'first' : 'second'].get(side.id)?.id === group ||
        side.id === glyph;
      expect([
        holds(first, id('T'), groups.first.get(id('T'))?.id),
        holds(second, id('o'), groups.second.get(id('o'))?.id),
      ]).toEqual([true, true]);
    }
  });
});

test('figures of one width are never kerned to each other', () => {
  for (const a of ['one', 'four', 'seven'])
    for (const b of ['one', 'four', 'seven']) expect(modelKerning(demo, m1, id(a), id(b))).toBe(0);
});

test('holes are pairs that stand more open than the controls say, the most open first', () => {
  const ids = ['T', 'o', 'A', 'V', 'n'].map(id);
  expect(holes(demo, 'm1', ids, 25)).toEqual([]);
  const [first, second] = [
    { kind: 'glyph', id: id('A') },
    { kind: 'glyph', id: id('V') },
  ] as const;
  const open = done(setPair(demo, { master: 'm1', first, second, value: 40 }));
  const [hole, ...others] = holes(open, 'm1', ids, 25);
  expect([hole, others]).toMatchObject([{ first: id('A'), second: id('V') }, []]);
  // Evenness is learned from the kerning there is, of which this pair is one.
  expect(Math.abs(hole!.tooOpen - (40 - modelKerning(demo, m1, id('A'), id('V'))))).toBeLessThanOrEqual(1);
  const seen: number[] = [];
  holes(demo, 'm1', textGlyphs(demo).slice(0, 20), 25, (n, total) => seen.push(n / total));
  expect(seen.every((s) => s >= 0 && s < 1)).toBe(true);
});

test('the step is the project’s: what is proposed lies on it', () => {
  const wide = { ...demo, settings: { ...demo.settings, kerningStep: 8 } };
  expect([stepOf(demo), stepOf(wide)]).toEqual([5, 8]);
  for (const [a, b] of [
    ['T', 'o'],
    ['A', 'V'],
    ['L', 'y'],
  ] as const)
    expect(pairFacts(wide, m1, id(a), id(b)).proposed % 8 || 0).toBe(0);
});

test('an em of twice the units has twice the kerning', () => {
  const names = ['n', 'o', 'H', 'O', 'T', 'A', 'V', 'v', 'period'];
  const twice: Project = {
    ...demo,
    unitsPerEm: demo.unitsPerEm * 2,
    glyphs: Object.fromEntries(
      names.map((name) => {
        const g = glyphNamed(demo, name)!;
        const drawing = transformedDrawing(g.drawings.m1!, [2, 0, 0, 2, 0, 0], () => false);
        return [g.id, { ...g, drawings: { m1: { ...drawing, advance: g.drawings.m1!.advance * 2 } } }];
      }),
    ),
    masters: demo.masters.map((m) => ({
      ...m,
      zones: {
        ...m.zones,
        xHeight: { ...m.zones.xHeight, position: 2 * m.zones.xHeight.position },
        capHeight: { ...m.zones.capHeight, position: 2 * m.zones.capHeight.position },
      },
    })),
  };
  for (const a of names)
    for (const b of names) {
      const [once, doubled] = [
        modelKerning(demo, m1, id(a), id(b)),
        modelKerning(twice, masterOf(twice, 'm1')!, id(a), id(b)),
      ];
      expect(Math.abs(doubled - 2 * once)).toBeLessThanOrEqual(4);
    }
});

test('a group of one glyph that has no value is a fault with its mend; one that has a value is let be', () => {
  const lone = done(addGroup(demo, { side: 'first', name: 'lone', members: [id('seven')] }));
  const kerned = done(
    setPair(lone, {
      master: 'm1',
      first: { kind: 'group', id: lone.groups.at(-1)!.id },
      second: { kind: 'glyph', id: id('period') },
      value: -33,
    }),
  );
  const lonely = (p: Project) => kerningFaults(p, masterOf(p, 'm1')!).find((f) => f.kind === 'kerning/lonely');
  expect(lonely(kerned)).toBeUndefined();
  expect(lonely(lone)!.reason).toBe('One group has one glyph or none, and no value: lone.');
  const mended = done(runEdit(lone, lonely(lone)!.mend!.edit, lonely(lone)!.mend!.args));
  expect(kerningFaults(mended, masterOf(mended, 'm1')!)).toEqual(kerningFaults(demo, m1));
  // Dissolved with a value, the value goes to the glyph, and nothing moves.
  const moved = done(dissolveGroups(kerned, { groups: [kerned.groups.at(-1)!.id] }));
  expect(kerningOf(moved, masterOf(moved, 'm1')!, id('seven'), id('period'))?.value).toBe(-33);
  expect(kerningFaults(demo, m1)).toEqual([]);
  expect(dissolveGroups(demo, { groups: [] })).toMatchObject({ ok: false });
  expect(dissolveGroups(demo, { groups: ['none'] })).toMatchObject({ ok: false });
});

describe('what text can hold', () => {
  const kind = (c: string) => textKind({ unicodes: [c.codePointAt(0)!] } as unknown as Glyph);
  const meet = (pair: string) => canMeet(kind([...pair][0]!), kind([...pair][1]!));

  test('one script with itself and with common signs, cases as they meet; no rare letter beside another', () => {
    for (const pair of ['To', 'AV', 'ov', 'T.', '“A', 'y,', 'Żu', 'Пр', 'Αγ', 'A4', '74', '(f', 'f)', 'T-', '”.'])
      expect([pair, meet(pair)]).toEqual([pair, true]);
    for (const pair of ['oT', 'Tо', 'Вo', 'ʃʒ', 'ἀἐ', '4a']) expect([pair, meet(pair)]).toEqual([pair, false]);
  });
});

describe('evenness is learned from a face’s own kerning', () => {
  const model = (a: string, b: string) => modelKerning(demo, m1, id(a), id(b));

  test('next to none: the model speaks', () => {
    const bare: Project = { ...demo, masters: demo.masters.map((m) => ({ ...m, kerning: {} })) };
    const { learned, expected } = evennessOf(bare, masterOf(bare, 'm1')!);
    expect(learned).toBe(false);
    expect(expected(id('T'), id('o'), model('T', 'o'))).toBe(model('T', 'o'));
  });

  test('a face that kerns twice as strongly is not held against the model; one pair that strays is found', () => {
    // Every frequent pair by itself, twice the model, and nothing under 8 units.
    const habit = (v: number) => (Math.abs(v) < 8 ? 0 : 2 * v);
    const kerning: Record<string, number> = {};
    for (const [pair] of PAIR_FREQUENCIES) {
      const glyphs = glyphsOfPair(demo, pair);
      if (!glyphs) continue;
      const value = habit(modelKerning(demo, m1, ...glyphs));
      if (value !== 0) kerning[pairKey({ kind: 'glyph', id: glyphs[0] }, { kind: 'glyph', id: glyphs[1] })] = value;
    }
    const strong = (change: Record<string, number>): Project => ({
      ...demo,
      groups: [],
      masters: demo.masters.map((m) => ({ ...m, kerning: { ...kerning, ...change } })),
    });
    const own = strong({});
    expect(evennessOf(own, masterOf(own, 'm1')!).learned).toBe(true);
    const before = kerningQueue(own, 'm1');
    const To = pairKey({ kind: 'glyph', id: id('T') }, { kind: 'glyph', id: id('o') });
    const astray = kerningQueue(strong({ [To]: 0 }), 'm1');
    const found = astray.find((q) => q.first === id('T') && q.second === id('o'))!;
    expect(found.proposed).toBeLessThan(1.2 * model('T', 'o'));
    // Against the model alone, every value of its own would stray.
    expect(before.length).toBeLessThan(Object.keys(kerning).length / 3);
  });
});
