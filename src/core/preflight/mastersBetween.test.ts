import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { withStart } from '../geometry/contour';
import { runEdit } from '../project/edit';
import type { Drawing, Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { waypointId } from '../project/waypoints';
import { withChanged } from '../testing/change';
import { planted, smoothPoints } from '../testing/plantedKink';
import type { Finding } from './finding';
import { judgeKinds } from './judged';
import { Preflight } from './preflight';

/** What masters do to each other: kinks, crossings, lumps, waypoints; and findings that stand in several of them. */
const demo = readyDemo();
const preflight = new Preflight();
const [light, regular, heavy] = demo.masters.map((m) => m.id) as [string, string, string];
const id = (name: string) => glyphNamed(demo, name)!.id;
const withGlyph = (glyph: Glyph): Project => ({ ...demo, glyphs: { ...demo.glyphs, [glyph.id]: glyph } });
const of = (p: Project, name: string, kind: string): readonly Finding[] => preflight.glyphFindings(p, id(name), kind);
function done(p: Project, edit: string, args: unknown): Project {
  const outcome = runEdit(p, edit, args);
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
}
const mended = (p: Project, [f]: readonly Finding[]): Project => done(p, f!.mends[0]!.edit, f!.mends[0]!.args);

test('a kink between masters is told at its point and slid away', () => {
  const kinked = ['e', 'c', 's', 'a', 'S', 'ampersand']
    .flatMap((name) => {
      const g = glyphNamed(demo, name)!;
      return smoothPoints(g.drawings[heavy]!).map((at) => ({
        name,
        at,
        project: withGlyph(planted(g, heavy, at, 26)),
      }));
    })
    .map((tried) => ({ ...tried, found: of(tried.project, tried.name, 'masters/kink') }))
    .find(({ found }) => found.length === 1 && found[0]!.mends.length > 0)!;
  expect([kinked.found[0]!.contour, kinked.found[0]!.point]).toEqual(kinked.at);
  expect(kinked.found[0]!.reason).toMatch(/breaks by [\d.]+° at /);
  expect(of(mended(kinked.project, kinked.found), kinked.name, 'masters/kink')).toEqual([]);
  // Judged less strictly, it is left alone.
  const lenient = done(kinked.project, 'judgeKinds', { kinds: { 'masters/kink': { amount: 30 } } });
  expect(of(lenient, kinked.name, 'masters/kink')).toEqual([]);
});

test('a start that agrees in number only crosses on the way, and begins elsewhere', () => {
  const project = withChanged(demo, 'I', heavy, (d) => ({ contours: d.contours.map((c) => withStart(c, 2)) }));
  const found = preflight
    .glyphFindings(project, id('I'))
    .filter((f) => f.kind === 'masters/crossing' || f.kind === 'masters/suspicious');
  expect(found.length).toBeGreaterThan(0);
  const after = found.reduce((p, f) => (f.mends[0] ? done(p, f.mends[0].edit, f.mends[0].args) : p), project);
  expect(preflight.glyphFindings(after, id('I')).filter((f) => f.kind.startsWith('masters/'))).toEqual([]);
});

describe('masters that disagree', () => {
  const more = (d: Drawing): Partial<Drawing> => ({
    contours: d.contours.map((c, i) =>
      i === 0 ? { ...c, points: [...c.points, { x: 3, y: 4, type: 'line' as const }] } : c,
    ),
  });

  it('are one finding of the glyph, however many differ, and name the contour', () => {
    const project = withChanged(withChanged(demo, 'n', light, more), 'n', heavy, more);
    const found = of(project, 'n', 'masters/disagree');
    expect(found).toHaveLength(1);
    expect([...found[0]!.masters].sort()).toEqual([light, heavy].sort());
    expect(found[0]!.contour).toBe(0);
    expect(found[0]!.reason).toMatch(/And 1 more\.$/);
    expect(of(mended(project, found), 'n', 'masters/disagree')).toEqual([]);
  });

  it('keep their own faults of outlines: the same point of another build is another place', () => {
    const project = withChanged(demo, 'n', light, (d) => {
      const own = more(d).contours!;
      return { contours: [...own, { closed: true, points: [{ x: 1, y: 1, type: 'line' as const }] }] };
    });
    const [stray] = of(project, 'n', 'outlines/stray');
    expect(stray!.masters).toEqual([light]);
    const after = mended(project, [stray!]);
    expect(of(after, 'n', 'outlines/stray')).toEqual([]);
    expect(after.glyphs[id('n')]!.drawings[heavy]).toBe(demo.glyphs[id('n')]!.drawings[heavy]);
  });
});

describe('what stands in several masters', () => {
  const raise =
    (by: number) =>
    (d: Drawing): Partial<Drawing> => ({
      contours: d.contours.map((c) => ({
        ...c,
        points: c.points.map((p) => (p.y === 700 ? { ...p, y: p.y + by } : p)),
      })),
    });

  it('is one finding with one mend for all of them, each by its own amount', () => {
    const project = withChanged(withChanged(demo, 'H', light, raise(2)), 'H', regular, raise(1));
    const found = preflight.check(project).filter((f) => f.kind === 'heights/line' && f.glyph === id('H'));
    const spread = found.filter((f) => f.masters.length > 1);
    expect(spread.length).toBeGreaterThan(0);
    for (const f of spread) {
      expect(f.masters[0]).toBe(light);
      expect(f.mends[0]!.title).toMatch(/and so in 1 more master$/);
    }
    const after = spread.reduce((p, f) => done(p, f.mends[0]!.edit, f.mends[0]!.args), project);
    for (const m of [light, regular])
      expect(glyphNamed(after, 'H')!.drawings[m]!.contours.flatMap((c) => c.points.map((p) => p.y))).toEqual(
        glyphNamed(demo, 'H')!.drawings[m]!.contours.flatMap((c) => c.points.map((p) => p.y)),
      );
  });

  it('is mended in all of them or in none', () => {
    const refused = runEdit(demo, 'mendTogether', {
      edits: [
        { edit: 'mendHeight', args: { glyph: id('H'), master: light, contour: 0, points: [0], axis: 'y', by: 1 } },
        { edit: 'mendHeight', args: { glyph: id('H'), master: light, contour: 99, points: [0], axis: 'y', by: 1 } },
      ],
    });
    expect(refused.ok).toBe(false);
    expect(runEdit(demo, 'mendTogether', { edits: [{ edit: 'nothing', args: {} }] }).ok).toBe(false);
  });
});

describe('waypoints', () => {
  const place = {
    ...Object.fromEntries(demo.axes.map((a) => [a.tag, regularPlace(a.tag)])),
    [demo.axes[0]!.tag]: between(),
  };
  function regularPlace(tag: string): number {
    return demo.masters.find((m) => m.id === regular)!.place[tag]!;
  }
  function between(): number {
    const [a, b] = [regular, heavy].map((m) => demo.masters.find((o) => o.id === m)!.place[demo.axes[0]!.tag]!);
    return Math.round((a! + b!) / 2);
  }
  const project = done(demo, 'addWaypoint', { glyph: id('n'), place });

  it('that lie where the glyph lies anyway do nothing, and go', () => {
    const found = of(project, 'n', 'masters/waypoint');
    expect(found).toHaveLength(1);
    expect(mended(project, found).glyphs[id('n')]!.waypoints).toEqual([]);
  });

  it('are judged and mended like masters', () => {
    const n = project.glyphs[id('n')]!;
    const [w] = n.waypoints;
    const stray = { closed: true, points: [{ x: 1, y: 1, type: 'line' as const }] };
    const faulty: Project = {
      ...project,
      glyphs: {
        ...project.glyphs,
        [n.id]: { ...n, waypoints: [{ ...w!, drawing: { ...w!.drawing, contours: [...w!.drawing.contours, stray] } }] },
      },
    };
    const [found] = of(faulty, 'n', 'outlines/stray');
    expect(found!.masters).toEqual([waypointId(w!.place)]);
    const after = mended(faulty, [found!]);
    expect(after.glyphs[n.id]!.waypoints[0]!.drawing.contours).toEqual(w!.drawing.contours);
    expect(after.glyphs[n.id]!.drawings).toEqual(n.drawings);
  });
});

test('a family of one master is looked through without what masters could do', () => {
  const alone: Project = {
    ...demo,
    axes: [],
    instances: [],
    masters: [{ ...demo.masters[1]!, place: {} }],
    glyphs: Object.fromEntries(
      Object.entries(demo.glyphs).map(([k, g]) => [
        k,
        { ...g, drawings: { [regular]: g.drawings[regular]! }, waypoints: [], handovers: [] },
      ]),
    ),
  };
  const found = new Preflight().check(alone);
  expect(found.filter((f) => f.kind.startsWith('masters/'))).toEqual([]);
  expect(found.some((f) => f.kind === 'outlines/doubled')).toBe(true);
  expect(judgeKinds(alone, { kinds: { 'masters/kink': { on: false } } }).ok).toBe(true);
});
