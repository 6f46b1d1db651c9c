import { reverseContour } from '../geometry/contour';
import { square } from '../geometry/testShapes';
import { createProject, emptyDrawing } from '../project/create';
import { drawingsAt } from '../project/drawingsAt';
import type { Drawing, Glyph, Master, Project } from '../project/model';
import { sheetOf, weightsAt } from '../project/places';
import { designsOf } from '../project/structure';
import { agreementOf, agrees } from './agreement';
import { brokenGlyphs } from './between';
import { setAxis } from './familyEdits';
import { instanceAt } from './instance';
import { mendedGlyph } from './mending';

const WEIGHT = {
  tag: 'wght',
  name: 'Weight',
  minimum: 400,
  default: 400,
  maximum: 800,
  map: [],
  hidden: false,
  labels: {},
};
const ITALIC = { ...WEIGHT, tag: 'ital', name: 'Italic', minimum: 0, default: 0, maximum: 1, discrete: [0, 1] };

const withSquares = (...sizes: number[]): Drawing => ({
  ...emptyDrawing(500),
  contours: sizes.map((s, i) => square(i * 200, i * -30, s)),
});

/** An upright and an italic design, each light and heavy; the italic is drawn of two contours, the upright of one. */
function family(): Project {
  const base = createProject({ family: 'Orde', masterName: 'Light', created: 0 });
  const master = (id: string, name: string, wght: number, ital: number): Master => ({
    ...base.masters[0]!,
    id,
    name,
    place: { wght, ital },
  });
  const drawings = {
    m1: withSquares(100),
    m2: withSquares(300),
    m3: withSquares(80, 90),
    m4: withSquares(160, 190),
  };
  const glyph: Glyph = { ...base.glyphs[base.glyphOrder[0]!]!, id: 'gx', name: 'o', drawings };
  return {
    ...base,
    axes: [WEIGHT, ITALIC],
    masters: [
      master('m1', 'Light', 400, 0),
      master('m2', 'Heavy', 800, 0),
      master('m3', 'Light Italic', 400, 1),
      master('m4', 'Heavy Italic', 800, 1),
    ],
    instances: [{ name: 'Middle Italic', place: { wght: 600, ital: 1 } }],
    glyphOrder: ['gx'],
    glyphs: { gx: glyph },
  };
}

const widths = (d: Drawing) =>
  d.contours.map((c) => Math.max(...c.points.map((p) => p.x)) - Math.min(...c.points.map((p) => p.x)));

test('nothing is blended from one single value of an axis to another', () => {
  const project = family();
  const at = (wght: number, ital: number) => widths(drawingsAt(project, { wght, ital })('gx')!);
  expect(at(600, 0)).toEqual([200]);
  expect(at(600, 1)).toEqual([120, 140]);
  // A value between counts as the nearest that the axis has.
  expect(at(500, 0.4)).toEqual([150]);
  expect(at(500, 0.6)).toEqual([100, 115]);
  const { project: made, stuck } = instanceAt(project, { wght: 700, ital: 1 }, 'Bold Italic');
  expect(stuck).toEqual([]);
  expect(widths(made.glyphs.gx!.drawings[made.masters[0]!.id]!)).toEqual([140, 165]);
  expect(
    weightsAt(
      project.axes,
      project.masters.map((m) => m.place),
      { wght: 800, ital: 0.9 },
    ),
  ).toEqual([0, 0, 0, 1]);
});

test('where an axis runs through, its masters count as before', () => {
  const { axes, masters } = family();
  const through = axes.map(({ discrete: _, ...a }: (typeof axes)[number]) => a);
  const places = masters.map((m) => m.place);
  expect(weightsAt(through, places, { wght: 600, ital: 0.5 })).toEqual([0.25, 0.25, 0.25, 0.25]);
  expect(sheetOf(through, { ital: 1 })).toBe('');
});

test('masters of one value agree with one another; beside others they need not', () => {
  const project = family();
  const glyph = project.glyphs.gx!;
  expect(agreementOf(project, glyph)).toEqual([]);
  const turned: Glyph = {
    ...glyph,
    drawings: {
      ...glyph.drawings,
      m4: { ...glyph.drawings.m4!, contours: glyph.drawings.m4!.contours.map((c) => reverseContour(c)) },
    },
  };
  const broken = { ...project, glyphs: { gx: turned } };
  const faults = agreementOf(broken, turned);
  expect(faults.map((f) => [f.kind, f.at])).toEqual([
    ['direction', { master: 'm4' }],
    ['direction', { master: 'm4' }],
  ]);
  expect(faults[0]!.reason).toContain('than in Light Italic');
  const mended = mendedGlyph(broken, turned);
  expect(mended.left).toEqual([]);
  expect(agrees(broken, mended.glyph)).toBe(true);
  expect(mended.glyph.drawings.m1).toBe(glyph.drawings.m1);
});

test('what breaks between masters is looked for in each design by itself', () => {
  const project = family();
  expect(designsOf(project).map((p) => [p.masters.map((m) => m.id), p.instances.length])).toEqual([
    [['m1', 'm2'], 0],
    [['m3', 'm4'], 1],
  ]);
  expect(brokenGlyphs(project)).toEqual([]);
  // In the heavy italic the two squares change places, so that they cross on the way.
  const crossing = { ...project.glyphs.gx!.drawings.m4!, contours: [square(300, 0, 90), square(-100, -30, 90)] };
  const glyph = { ...project.glyphs.gx!, drawings: { ...project.glyphs.gx!.drawings, m4: crossing } };
  const [found] = brokenGlyphs({ ...project, glyphs: { gx: glyph } });
  expect(found?.tangles[0]?.contours).toEqual([0, 1]);
  expect(found?.tangles[0]?.place.ital).toBe(1);
});

test('an axis is given single values, and lets go of them', () => {
  const project = family();
  const set = (discrete: number[]) => setAxis(project, { tag: 'wght', change: { discrete } });
  const ok = set([400, 600, 800]);
  expect(ok.ok && ok.project.axes[0]!.discrete).toEqual([400, 600, 800]);
  const free = setAxis(project, { tag: 'ital', change: { discrete: [] } });
  expect(free.ok && 'discrete' in free.project.axes[1]!).toBe(false);
  const said = (o: ReturnType<typeof set>) => (o.ok ? 'done' : o.reason);
  expect(said(set([400, 800, 900]))).toMatch(/900 lies beyond the ends/);
  expect(said(set([400, 600]))).toMatch(/800 is not among them/);
  expect(said(set([400]))).toMatch(/two single values at least/);
  expect(said(set([400, 800, 800]))).toMatch(/each once/);
});
