import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { type Contour, contourFromCurves, reverseContour } from '../geometry/contour';
import { runEdit } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { pairKey } from '../project/pairs';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import type { Finding } from './finding';
import { judgeKinds } from './judged';
import { Preflight } from './preflight';

/** Kinds that need a drawing, a pair or a rule of their own, on letters in one master. */
const whole = readyDemo();
const [, regular] = whole.masters;
const demo: Project = {
  ...whole,
  axes: [],
  instances: [],
  masters: [{ ...regular!, place: {} }],
  glyphs: Object.fromEntries(
    Object.entries(whole.glyphs).map(([k, g]) => [
      k,
      { ...g, drawings: { [regular!.id]: g.drawings[regular!.id]! }, waypoints: [], handovers: [] },
    ]),
  ),
};
const master = regular!.id;
const preflight = new Preflight();
const id = (name: string) => glyphNamed(demo, name)!.id;
const line = (...places: readonly (readonly [number, number])[]): Contour => ({
  closed: true,
  points: places.map(([x, y]) => ({ x, y, type: 'line' })),
});
const box = (x: number, y: number, w: number, h: number) => line([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const drawn = (contours: readonly Contour[]): Project =>
  withChanged(demo, 'n', master, () => ({ contours, components: [] }));
const ofGlyph = (p: Project, kind: string, name = 'n'): Finding[] =>
  preflight.glyphFindings(p, id(name)).filter((f) => f.kind === kind);
const ofProject = (p: Project, kind: string): Finding[] => preflight.check(p).filter((f) => f.kind === kind);
function mended(p: Project, [f]: readonly Finding[]): Project {
  const [mend] = f!.mends;
  const done = runEdit(p, mend!.edit, mend!.args);
  if (!done.ok) throw new Error(done.reason);
  return done.project;
}

describe('outlines', () => {
  it('shapes side by side that run both ways: the smaller one is turned', () => {
    const p = drawn([box(0, 0, 300, 300), reverseContour(box(400, 0, 100, 100))]);
    const found = ofGlyph(p, 'outlines/turned');
    expect(found.map((f) => f.contour)).toEqual([1]);
    expect(ofGlyph(p, 'outlines/direction')).toEqual([]);
    expect(ofGlyph(mended(p, found), 'outlines/turned')).toEqual([]);
  });

  it('a counter inside is right one way and filled the other', () => {
    const outer = box(0, 0, 300, 300);
    const inner = box(100, 100, 100, 100);
    expect(ofGlyph(drawn([outer, reverseContour(inner)]), 'outlines/direction')).toEqual([]);
    const p = drawn([outer, inner]);
    const found = ofGlyph(p, 'outlines/direction');
    expect(found.map((f) => [f.contour, f.reason])).toEqual([[1, expect.stringMatching(/filled with ink/)]]);
    expect(ofGlyph(mended(p, found), 'outlines/direction')).toEqual([]);
  });

  it('the bar of a theta, drawn over its white, is neither counter nor fault', () => {
    const ring = [box(0, 0, 400, 600), reverseContour(box(60, 60, 280, 480))];
    const bar = line([30, 280], [100, 280], [300, 280], [370, 280], [370, 320], [300, 320], [100, 320], [30, 320]);
    const p = drawn([...ring, bar]);
    for (const kind of ['outlines/direction', 'outlines/turned', 'outlines/counterOut'])
      expect(ofGlyph(p, kind)).toEqual([]);
  });

  it('a counter that reaches out of its shape is pointed out where it does', () => {
    const p = drawn([
      box(0, 0, 300, 300),
      reverseContour(line([100, 100], [250, 100], [380, 150], [250, 200], [100, 200])),
    ]);
    const [found] = ofGlyph(p, 'outlines/counterOut');
    expect(found!.spots[0]!.x).toBeGreaterThan(300);
    expect(found!.mends).toEqual([]);
  });

  const wave = contourFromCurves(
    [
      [0, 0, 200, 0],
      [200, 0, 300, 0, 100, 300, 200, 300],
      [200, 300, 0, 300],
      [0, 300, 0, 0],
    ],
    true,
  );
  it('inflections are looked for on request only, and get a point that leaves the shape', () => {
    const p = drawn([wave]);
    expect(ofGlyph(p, 'outlines/inflection')).toEqual([]);
    const asked = judgeKinds(p, { kinds: { 'outlines/inflection': { on: true } } });
    if (!asked.ok) throw new Error(asked.reason);
    const found = ofGlyph(asked.project, 'outlines/inflection');
    expect(found).toHaveLength(1);
    expect(found[0]!.spots[0]).toMatchObject({ x: 200, y: 150 });
    const after = mended(asked.project, found);
    expect(ofGlyph(after, 'outlines/inflection')).toEqual([]);
    const [contour] = glyphNamed(after, 'n')!.drawings[master]!.contours;
    expect(contour!.points).toContainEqual({ x: 200, y: 150, type: 'curve', smooth: true });
  });

  it('bumps are looked for on request only, and evened out', () => {
    const bumpy: Contour = {
      closed: true,
      points: [
        { x: 0, y: 0, type: 'line' },
        { x: 400, y: 0, type: 'line' },
        { x: 400, y: 20, type: 'off' },
        { x: 390, y: 200, type: 'off' },
        { x: 200, y: 200, type: 'curve', smooth: true },
        { x: 190, y: 200, type: 'off' },
        { x: 0, y: 120, type: 'off' },
        { x: 0, y: 60, type: 'curve' },
      ],
    };
    const asked = judgeKinds(drawn([bumpy]), { kinds: { 'outlines/bump': { on: true } } });
    if (!asked.ok) throw new Error(asked.reason);
    const found = ofGlyph(asked.project, 'outlines/bump');
    expect(found.map((f) => f.point)).toEqual([4]);
    expect(ofGlyph(mended(asked.project, found), 'outlines/bump')).toEqual([]);
    expect(ofGlyph(drawn([bumpy]), 'outlines/bump')).toEqual([]);
  });

  it('a picture of very many points is left alone', () => {
    const crowd = Array.from({ length: 6000 }, (_, i) => box(i * 3, 0, 1, 1));
    expect(preflight.glyphFindings(drawn(crowd), id('n')).filter((f) => f.kind.startsWith('outlines/'))).toEqual([]);
  });
});

describe('parts', () => {
  it('components nested deeper than programs follow', () => {
    let p = demo;
    const chain = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'];
    for (const [i, name] of chain.slice(1).entries())
      p = withChanged(p, name, master, () => ({
        contours: [],
        components: [{ glyph: id(chain[i]!), transform: [1, 0, 0, 1, 0, 0] }],
      }));
    expect(ofGlyph(p, 'parts/deep', 'H')[0]?.reason).toMatch(/nested 7 deep/);
    expect(ofGlyph(p, 'parts/deep', 'D')).toEqual([]);
  });

  it('a circle is told and does not hang', () => {
    const part = (name: string) => (): Partial<Drawing> => ({
      components: [{ glyph: id(name), transform: [1, 0, 0, 1, 0, 0] as const }],
    });
    const p = withChanged(withChanged(demo, 'A', master, part('B')), 'B', master, part('A'));
    expect(ofGlyph(p, 'parts/endless', 'A')).toHaveLength(1);
    expect(ofProject(p, 'parts/endless')).toHaveLength(2);
  });
});

describe('fitting and kerning', () => {
  it('a side a little off what looks alike is set to what its fellows have', () => {
    const given = glyphNamed(demo, 'H')!.follows;
    const p = withChanged(
      {
        ...demo,
        glyphs: { ...demo.glyphs, [id('E')]: { ...glyphNamed(demo, 'E')!, follows: { left: [], right: given.right } } },
      },
      'E',
      master,
      (d) => ({
        advance: d.advance + 2,
        contours: d.contours.map((c) => ({ ...c, points: c.points.map((q) => ({ ...q, x: q.x + 2 })) })),
      }),
    );
    const found = ofProject(p, 'fitting/side').filter((f) => f.glyph === id('E'));
    expect(found[0]?.reason).toMatch(/left side is/);
    expect(ofProject(mended(p, found), 'fitting/side').filter((f) => f.glyph === id('E'))).toEqual([]);
  });

  it('pairs that are small, needless, or of what is gone, and lonely groups go by one press', () => {
    const first = demo.groups.find((g) => g.side === 'first' && g.members.length > 1)!;
    const second = demo.groups.find((g) => g.side === 'second' && g.members.length > 1)!;
    const bothGroups = pairKey({ kind: 'group', id: first.id }, { kind: 'group', id: second.id });
    const twoGlyphs = pairKey({ kind: 'glyph', id: first.members[0]! }, { kind: 'glyph', id: second.members[0]! });
    const p: Project = {
      ...demo,
      groups: [...demo.groups, { id: 'alone', side: 'first', name: 'alone', members: [] }],
      masters: demo.masters.map((m) => ({
        ...m,
        kerning: {
          [bothGroups]: -40,
          [twoGlyphs]: -40,
          [pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('I') })]: 1,
          [pairKey({ kind: 'glyph', id: 'nobody' }, { kind: 'glyph', id: id('I') })]: -30,
        },
      })),
    };
    for (const kind of ['kerning/needless', 'kerning/small', 'kerning/missing', 'kerning/lonely']) {
      const found = ofProject(p, kind);
      expect([kind, found.length]).toEqual([kind, 1]);
      expect([kind, ofProject(mended(p, found), kind)]).toEqual([kind, []]);
    }
  });
});

describe('rules', () => {
  const ruled = (text: string): Project => ({
    ...demo,
    features: { ...demo.features, sections: [{ id: 'own', title: 'Own', options: {}, text }] },
  });

  it('errors and questions name their section, and the line', () => {
    const p = ruled('feature liga {\n  sub f i by f_i;\n  sub f nobody by f_i;\n} liga;');
    const [error] = ofProject(p, 'features/error');
    expect([error!.section, error!.line]).toEqual(['own', 3]);
    expect(ofProject(ruled('feature liga {\n  sub f i by f_i;\n} liga;'), 'features/error')).toEqual([]);
  });

  it('languages that lose features are declared by one press', () => {
    const p = ruled(
      'languagesystem DFLT dflt;\nlanguagesystem latn dflt;\nfeature liga {\n  sub f i by f_i;\n} liga;\nfeature locl {\n  script latn;\n  language TRK;\n  sub i by dotlessi;\n} locl;',
    );
    const found = ofProject(p, 'features/question').filter((f) => f.mends.length > 0);
    expect(found).toHaveLength(1);
    expect(ofProject(mended(p, found), 'features/question').filter((f) => f.reason === found[0]!.reason)).toEqual([]);
  });
});

describe('lines of text', () => {
  it('what is cut off is told with its glyphs, and the top set where they reach', () => {
    const p: Project = {
      ...demo,
      masters: demo.masters.map((m) => ({ ...m, verticalMetrics: { ...m.verticalMetrics, winAscent: 500 } })),
    };
    const found = ofProject(p, 'lines/clipped');
    expect(found[0]!.others!.length).toBeGreaterThan(30);
    expect(ofProject(mended(p, found), 'lines/clipped')).toEqual([]);
  });

  it('an overshoot on the inner side is turned round', () => {
    const p: Project = {
      ...demo,
      masters: demo.masters.map((m) => ({
        ...m,
        zones: { ...m.zones, capHeight: { ...m.zones.capHeight, overshoot: -9 } },
      })),
    };
    const found = ofProject(p, 'lines/sign');
    expect(found).toHaveLength(1);
    expect(mended(p, found).masters[0]!.zones.capHeight.overshoot).toBe(9);
  });
});
