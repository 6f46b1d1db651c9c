import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { refused } from '../base/result';
import { createProject } from './create';
import type { Outcome } from './edit';
import { addGlyphs, parseGlyphList, renameGlyphs, setGlyphNames } from './glyphEdits';
import { codePointsForName, encodingForName, glyphNameFault, nameForCodePoint } from './glyphNames';
import type { Project } from './model';
import { cycleFrom, drawingBounds, drawingsOf, flattened } from './outline';
import { drawingOf, glyphNamed, zonesOf } from './queries';
import { removalConsequences, removeGlyphs } from './removal';
import { renamedInFeatures } from './rename';
import { addZone, overshootFault, setOwnZone, setZone } from './zoneEdits';

const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};

test('a new project has .notdef and space drawn and its characters by standard names', () => {
  const p = createProject({ family: 'Orde', characters: [0x61, 0xe9, 0x1f1f, 0x61], created: 0 });
  expect(p.glyphOrder.map((id) => p.glyphs[id]!.name)).toEqual(['.notdef', 'space', 'a', 'eacute', 'uni1F1F']);
  expect(drawingBounds(p.glyphs.g1!.drawings.m1!, drawingsOf(p, 'm1')).yMax).toBe(
    p.masters[0]!.zones.capHeight.position,
  );
  expect(p.glyphs.g2!.drawings.m1!.advance).toBe(250);
});

test('glyph names by the Adobe rules', () => {
  expect(nameForCodePoint(0x17b)).toBe('Zdotaccent');
  expect(nameForCodePoint(0x2192)).toBe('arrowright');
  expect(nameForCodePoint(0x1f682)).toBe('u1F682');
  expect(codePointsForName('f_f_i')).toEqual([0x66, 0x66, 0x69]);
  expect(codePointsForName('one.tnum')).toEqual([0x31]);
  expect(codePointsForName('uni00410042')).toEqual([0x41, 0x42]);
  expect(codePointsForName('nonsense')).toEqual([]);
  expect(encodingForName('a.ss01')).toBeUndefined();
  expect(encodingForName('eacute')).toBe(0xe9);
  expect(glyphNameFault('a b')).toMatch(/not a glyph name/);
  expect(glyphNameFault('x'.repeat(64))).toMatch(/63 characters/);
});

test('a list of glyphs is read as characters, code points, ranges and names', () => {
  const names = (text: string) => parseGlyphList(text).requests.map((r) => r.name);
  expect(names('aą U+0105')).toEqual(['a', 'aogonek']);
  expect(names('U+0041–U+0043')).toEqual(['A', 'B', 'C']);
  expect(names('a.ss01, f_f_i eacute /x.alt')).toEqual(['a.ss01', 'f_f_i', 'eacute', 'x.alt']);
  // What could be a name or a word is asked about.
  expect(parseGlyphList('hen a')).toMatchObject({ unclear: ['hen'], requests: [{ name: 'a' }] });
  expect(parseGlyphList('hen', 'letters').requests.map((r) => r.name)).toEqual(['h', 'e', 'n']);
  expect(parseGlyphList('brevecomb', 'names').requests).toEqual([{ name: 'brevecomb', unicodes: [] }]);
  expect(names('ąęł')).toEqual(['aogonek', 'eogonek', 'lslash']);
  expect(parseGlyphList('U+0200-U+0100').faults).toHaveLength(1);
  expect(parseGlyphList('U+D800').requests).toEqual([]);
});

test('adding passes over what is there; removing takes references with it', () => {
  const base = createProject({ family: 'Orde', characters: [0x61, 0x301], created: 0 });
  expect(addGlyphs(base, { requests: [{ name: 'a', unicodes: [0x61] }] })).toMatchObject({ ok: false });
  const added = done(
    addGlyphs(base, {
      requests: [
        { name: 'a', unicodes: [0x61] },
        { name: 'aacute', unicodes: [0xe1] },
      ],
    }),
  );
  const acute = glyphNamed(added, 'aacute')!;
  const a = glyphNamed(added, 'a')!;
  const composite: Project = {
    ...added,
    glyphs: {
      ...added.glyphs,
      [acute.id]: {
        ...acute,
        drawings: { m1: { ...acute.drawings.m1!, components: [{ glyph: a.id, transform: [1, 0, 0, 1, 0, 0] }] } },
      },
    },
    groups: [{ id: 'k1', side: 'first', name: 'a', members: [a.id, acute.id] }],
    masters: [{ ...added.masters[0]!, kerning: { [`glyph:${a.id} glyph:${acute.id}`]: -10, 'group:k1 group:k1': 5 } }],
  };
  expect(removalConsequences(composite, [a.id])).toEqual([
    '1 letter (aacute) lose a part.',
    '1 kerning group go on without it.',
    '1 kerning value for it alone go.',
  ]);
  const removed = done(removeGlyphs(composite, { ids: [a.id] }));
  expect(glyphNamed(removed, 'a')).toBeUndefined();
  expect(glyphNamed(removed, 'aacute')!.drawings.m1!.components).toEqual([]);
  expect(removed.groups[0]!.members).toEqual([acute.id]);
  expect(Object.keys(removed.masters[0]!.kerning)).toEqual(['group:k1 group:k1']);
  expect(removeGlyphs(composite, { ids: ['g1'] })).toMatchObject(
    refused('Every font needs .notdef; it cannot be removed.'),
  );
});

test('names and code points stay unique', () => {
  const p = createProject({ family: 'Orde', characters: [0x61, 0x62], created: 0 });
  expect(setGlyphNames(p, { id: 'g3', name: 'b', unicodes: [] })).toMatchObject(
    refused('There is already a glyph named b.'),
  );
  expect(setGlyphNames(p, { id: 'g3', name: 'a', unicodes: [0x62] })).toMatchObject(
    refused('U+0062 already belongs to b.'),
  );
  expect(done(setGlyphNames(p, { id: 'g3', name: 'a.alt', unicodes: [0x61, 0x430] })).glyphs.g3).toMatchObject({
    name: 'a.alt',
    unicodes: [0x61, 0x430],
  });
});

test('an overshoot on the wrong side is turned round and explained; lines keep their order', () => {
  const p = buildStarter();
  expect(overshootFault('baseline', 12)).toMatch(/negative; -12 was set/);
  expect(overshootFault('xHeight', -12)).toMatch(/positive; 12 was set/);
  expect(overshootFault('xHeight', 12)).toBeUndefined();
  expect(
    done(setZone(p, { master: 'm1', zone: 'baseline', change: { overshoot: 12 } })).masters[0]!.zones.baseline
      .overshoot,
  ).toBe(-12);
  expect(setZone(p, { master: 'm1', zone: 'xHeight', change: { position: 800 } })).toMatchObject(
    refused('The cap height must lie above the x-height.'),
  );
});

test('zones of one’s own are added, moved and removed, and stand among the others', () => {
  const p = done(addZone(buildStarter(), { master: 'm1', name: 'small-cap height' }));
  expect(addZone(p, { master: 'm1', name: 'small-cap height' })).toMatchObject({ ok: false });
  const moved = done(setOwnZone(p, { master: 'm1', index: 0, change: { position: 540 } }));
  expect(zonesOf(moved.masters[0]!).map((z) => z.position)).toEqual([-204, 0, 520, 540, 700, 742]);
  expect(setOwnZone(moved, { master: 'm1', index: 0, change: { overshoot: 900 } })).toMatchObject({ ok: false });
  expect(done(setOwnZone(moved, { master: 'm1', index: 0, change: {}, remove: true })).masters).toEqual(
    buildStarter().masters,
  );
});

test('components are drawn out through nested transforms; cycles are named', () => {
  const p = buildStarter();
  const i = glyphNamed(p, 'i')!;
  const n = glyphNamed(p, 'n')!;
  const withParts = (
    id: string,
    glyph: string,
    transform: readonly [number, number, number, number, number, number],
  ) => ({
    ...p.glyphs[id]!,
    drawings: { m1: { ...p.glyphs[id]!.drawings.m1!, contours: [], components: [{ glyph, transform }] } },
  });
  const nested: Project = { ...p, glyphs: { ...p.glyphs, [n.id]: withParts(n.id, i.id, [2, 0, 0, 2, 10, 0]) } };
  const box = drawingBounds(nested.glyphs[n.id]!.drawings.m1!, drawingsOf(nested, 'm1'));
  const own = drawingBounds(i.drawings.m1!, drawingsOf(p, 'm1'));
  expect(box.xMin).toBeCloseTo(own.xMin * 2 + 10, 6);
  expect(box.yMax).toBeCloseTo(own.yMax * 2, 6);
  const cyclic: Project = {
    ...nested,
    glyphs: { ...nested.glyphs, [i.id]: withParts(i.id, n.id, [1, 0, 0, 1, 0, 0]) },
  };
  expect(cycleFrom(n.id, drawingsOf(cyclic, 'm1'))).toEqual([n.id, i.id, n.id]);
  expect(flattened(cyclic.glyphs[n.id]!.drawings.m1!, drawingsOf(cyclic, 'm1'))).toEqual([]);
});

test('what refers to a glyph is told before it goes; parts drawn out keep the look of letters', () => {
  const demo = readyDemo();
  const acute = glyphNamed(demo, 'acutecomb')!;
  const project: Project = {
    ...demo,
    settings: {
      ...demo.settings,
      lists: [{ name: 'Mine', text: 'a b /acutecomb' }],
      recipes: [
        { glyph: 'x', base: 'a', parts: [{ glyph: 'acutecomb', anchor: 'top' }] },
        { glyph: 'acutecomb', base: 'a', parts: [{ glyph: 'a', anchor: '' }] },
      ],
    },
  };
  const told = removalConsequences(project, [acute.id], true);
  expect(told.find((t) => t.includes('keep their look'))).toMatch(/^\d+ letters \(/);
  expect(told).toContain('Mine: the list keeps it, as missing.');
  expect(told).toContain('x can no longer be put together by the recipe.');
  const removed = done(removeGlyphs(project, { ids: [acute.id], drawOut: true }));
  for (const m of demo.masters) {
    const [was, now] = [demo, removed].map((p) =>
      drawingBounds(drawingOf(glyphNamed(p, 'eacute')!, m.id), drawingsOf(p, m.id)),
    );
    expect(now).toEqual(was);
  }
  expect(removed.settings.recipes!.map((r) => r.glyph)).toEqual(['x']);
  expect(removalConsequences(project, [glyphNamed(project, '.notdef')!.id])).toEqual([]);
});

test('many glyphs are renamed at once, names exchanged too, in lines, lists, recipes and feature text', () => {
  const demo = readyDemo();
  const [a, b] = ['a.ss01', 'a'].map((n) => glyphNamed(demo, n)!);
  const project: Project = {
    ...demo,
    texts: { ...demo.texts, words: ['/a.ss01/a x'] },
    settings: { ...demo.settings, lists: [{ name: 'L', text: '/a.ss01, a.ss01 a' }] },
    features: {
      ...demo.features,
      classes: { alt: ['a.ss01', 'x'] },
      sections: [{ id: 's', title: '', options: {}, text: 'feature ss01 { sub a by a.ss01; } ss01; # a stays' }],
    },
  };
  const next = done(
    renameGlyphs(project, {
      renames: [
        { id: a!.id, name: 'a' },
        { id: b!.id, name: 'a.ss01' },
      ],
    }),
  );
  expect([next.glyphs[a!.id]!.name, next.glyphs[b!.id]!.name]).toEqual(['a', 'a.ss01']);
  expect(next.texts.words).toEqual(['/a/a.ss01 x']);
  expect(next.settings.lists![0]!.text).toBe('/a, a a');
  expect(next.features.classes.alt).toEqual(['a', 'x']);
  expect(next.features.sections[0]!.text).toBe('feature ss01 { sub a.ss01 by a; } ss01; # a stays');
  for (const [renames, why] of [
    [[{ id: a!.id, name: 'x' }], /already a glyph named x/],
    [[{ id: a!.id, name: '1 x' }], /./],
    [
      [
        { id: a!.id, name: 'q1' },
        { id: b!.id, name: 'q1' },
      ],
      /Two glyphs/,
    ],
    [[], /No name changes/],
  ] as const)
    expect(renameGlyphs(project, { renames: [...renames] })).toMatchObject({
      ok: false,
      reason: expect.stringMatching(why),
    });
  const names = new Map([
    ['x', 'sub'],
    ['mark', 'z'],
  ]);
  expect(renamedInFeatures('sub x by \\mark; @x "x" pos x -20;', names)).toBe(
    'sub \\sub by \\z; @x "x" pos \\sub -20;',
  );
});
