import type { Affine } from '../geometry/affine';
import type { Point } from '../geometry/contour';
import { kerningThrough } from '../project/kerningLookup';
import type { Drawing, Glyph, Master, Project } from '../project/model';
import { defaultMaster, drawingOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import { designEnds, type Place, weightsAt } from './places';

const sum = (weights: readonly number[], value: (i: number) => number): number =>
  weights.reduce((total, w, i) => (w === 0 ? total : total + w * value(i)), 0);

/** Drawings of one structure blended by weights; anchors that not all of them have are left out. Nothing is rounded. */
export function blendedDrawing(drawings: readonly Drawing[], weights: readonly number[]): Drawing {
  const first = drawings[0]!;
  const point = (c: number, k: number): Point => ({
    ...first.contours[c]!.points[k]!,
    x: sum(weights, (i) => drawings[i]!.contours[c]!.points[k]!.x),
    y: sum(weights, (i) => drawings[i]!.contours[c]!.points[k]!.y),
  });
  return {
    ...first,
    advance: Math.max(
      0,
      sum(weights, (i) => drawings[i]!.advance),
    ),
    contours: first.contours.map((contour, c) => ({ ...contour, points: contour.points.map((_, k) => point(c, k)) })),
    components: first.components.map((component, c) => ({
      ...component,
      transform: component.transform.map((_, t) =>
        sum(weights, (i) => drawings[i]!.components[c]!.transform[t]!),
      ) as unknown as Affine,
    })),
    anchors: first.anchors.flatMap((anchor) => {
      const all = drawings.map((d) => d.anchors.find((a) => a.name === anchor.name));
      return all.every((a) => a !== undefined)
        ? [{ ...anchor, x: sum(weights, (i) => all[i]!.x), y: sum(weights, (i) => all[i]!.y) }]
        : [];
    }),
  };
}

/**
 * The family at one place between its masters, as a project with a single master of that name. Glyphs whose masters do not
 * agree keep the drawing of the default, and are named in `stuck`. A glyph's waypoints have a say of their own. A place outside the axes
 * counts as their end, unless what lies `beyond` is wanted: then what happens at the end goes on.
 */
export function instanceAt(
  project: Project,
  place: Place,
  name: string,
  beyond = false,
): { project: Project; stuck: string[] } {
  const { masters } = project;
  const weightsFor = (places: readonly Place[]) =>
    weightsAt(project.axes, places, beyond ? place : held(project, place));
  const weights = weightsFor(masters.map((m) => m.place));
  const main = defaultMaster(project);
  const stuck: string[] = [];
  const glyph = (g: Glyph): Glyph => {
    const drawings = [...masters.map((m) => drawingOf(g, m.id)), ...g.waypoints.map((w) => w.drawing)];
    const agrees = sameStructure(drawings);
    if (!agrees) stuck.push(g.name);
    const own =
      g.waypoints.length === 0
        ? weights
        : weightsFor([...masters.map((m) => m.place), ...g.waypoints.map((w) => w.place)]);
    return {
      ...g,
      waypoints: [],
      drawings: { [main.id]: agrees ? blendedDrawing(drawings, own) : drawingOf(g, main.id) },
    };
  };
  return {
    project: {
      ...project,
      axes: [],
      instances: [],
      masters: [blendedMaster(project, weights, main, name)],
      glyphs: Object.fromEntries(Object.entries(project.glyphs).map(([id, g]) => [id, glyph(g)])),
    },
    stuck,
  };
}

/** A place held within the ends of the axes. */
const held = (project: Project, place: Place): Place =>
  Object.fromEntries(
    project.axes.map((a) => {
      const { least, usual, most } = designEnds(a);
      const value = place[a.tag] ?? usual;
      return [a.tag, Math.min(Math.max(value, Math.min(least, most)), Math.max(least, most))];
    }),
  );

function blendedMaster(project: Project, weights: readonly number[], main: Master, name: string): Master {
  const { masters } = project;
  const zone = (key: 'baseline' | 'xHeight' | 'capHeight' | 'ascender' | 'descender') => ({
    ...main.zones[key],
    position: sum(weights, (i) => masters[i]!.zones[key].position),
    overshoot: sum(weights, (i) => masters[i]!.zones[key].overshoot),
  });
  const keys = new Set(masters.flatMap((m) => Object.keys(m.kerning)));
  return {
    ...main,
    name,
    place: {},
    zones: {
      ...main.zones,
      baseline: zone('baseline'),
      xHeight: zone('xHeight'),
      capHeight: zone('capHeight'),
      ascender: zone('ascender'),
      descender: zone('descender'),
    },
    stems: main.stems.map((s, k) => ({ ...s, value: sum(weights, (i) => masters[i]!.stems[k]?.value ?? s.value) })),
    kerning: Object.fromEntries(
      [...keys].map((key) => [key, sum(weights, (i) => kerningThrough(project, masters[i]!, key))]),
    ),
  };
}
