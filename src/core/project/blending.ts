import type { Affine } from '../geometry/affine';
import type { Point } from '../geometry/contour';
import { kerningThrough } from './kerningLookup';
import type { Drawing, Master, Project } from './model';

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

/** What masters come to, blended by weights: the facts of the main one, with its zones, stems and kerning in between. */
export function blendedMaster(project: Project, weights: readonly number[], main: Master, name: string): Master {
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
    verticalMetrics: Object.fromEntries(
      Object.entries(main.verticalMetrics).map(([key, value]) => {
        const all = masters.map((m) => m.verticalMetrics[key as keyof Master['verticalMetrics']]);
        return [key, all.every((v) => v !== undefined) ? sum(weights, (i) => all[i]!) : value];
      }),
    ),
    stems: main.stems.map((s, k) => ({ ...s, value: sum(weights, (i) => masters[i]!.stems[k]?.value ?? s.value) })),
    kerning: Object.fromEntries(
      [...keys].map((key) => [key, sum(weights, (i) => kerningThrough(project, masters[i]!, key))]),
    ),
  };
}
