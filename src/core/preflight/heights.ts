import { shownNumber } from '../base/notation';
import { type Contour, contourBounds, isOnCurve, neighbour, type Point, signedArea } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import type { Glyph, Master, Project } from '../project/model';
import { drawingOf, zonesOf } from '../project/queries';
import { type Amounts, type Finding, finding, type KindFacts, type Spot } from './finding';
import { said, segments } from './outline';

/** Heights and stems that most letters share and one misses by a little: a slip, not a choice. */
export const HEIGHT_KINDS: readonly KindFacts[] = [
  {
    kind: 'heights/line',
    perMaster: true,
    family: 'heights',
    title: 'Heights off their line',
    severity: 'attention',
    why: 'Most letters stand on the same line to the unit. One that misses it by one or two jumps up or down a pixel on screens.',
    amount: { label: 'Misses by up to', unit: 'thousandths of the em', usual: 3, least: 0.5, most: 20 },
  },
  {
    kind: 'heights/overshoot',
    perMaster: true,
    family: 'heights',
    title: 'Overshoots that differ by a little',
    severity: 'attention',
    why: 'Rounds pass their line by the same amount, or letters look uneven in height.',
    amount: { label: 'Differs by up to', unit: 'thousandths of the em', usual: 3, least: 0.5, most: 20 },
  },
  {
    kind: 'heights/stem',
    perMaster: true,
    family: 'heights',
    title: 'Stems that differ by a little',
    severity: 'attention',
    why: 'A stem a unit or two off its fellows is a slip: it prints no heavier, but screens round it to another number of pixels.',
    amount: { label: 'Differs by up to', unit: 'thousandths of the em', usual: 2.5, least: 0.5, most: 20 },
  },
];

/** A height at which an outline ends, flat or round, or the width of an upright or level stem. */
type Measure = {
  readonly of: 'flat' | 'round' | 'upright' | 'level';
  readonly value: number;
  readonly contour: number;
  readonly points: readonly number[];
  readonly spot: Spot;
  /** Which points move, and which way, to make it larger; none where every edge is held by something else. */
  readonly moves: { readonly contour: number; readonly points: readonly number[]; readonly way: 1 | -1 } | undefined;
};

const measured = new WeakMap<readonly Contour[], { u: number; all: readonly Measure[] }>();

/** Heights and stems of a drawing's own contours; known again for the same ones. */
function measuresOf(contours: readonly Contour[], u: number): readonly Measure[] {
  const held = measured.get(contours);
  if (held?.u === u) return held.all;
  const all = contours.length > 400 ? [] : [...heights(contours, u), ...stems(contours, u)];
  measured.set(contours, { u, all });
  return all;
}

function heights(contours: readonly Contour[], u: number): Measure[] {
  const out: Measure[] = [];
  contours.forEach((c, contour) => {
    for (const s of segments(c)) {
      if (s.from < 0) continue;
      const [a, b] = [c.points[s.from]!, c.points[s.to]!];
      if (s.offs.length === 0 && Math.abs(a.y - b.y) < 0.01 && Math.abs(a.x - b.x) > 20 * u)
        out.push({
          of: 'flat',
          value: a.y,
          contour,
          points: [s.from, s.to],
          spot: { x: (a.x + b.x) / 2, y: a.y },
          moves: { contour, points: [s.from, s.to], way: 1 },
        });
    }
    c.points.forEach((p, i) => {
      if (!isOnCurve(p) || !p.smooth) return;
      const [before, after] = [neighbour(c, i, -1), neighbour(c, i, 1)];
      if (before === undefined || after === undefined) return;
      const [h, k] = [c.points[before]!, c.points[after]!];
      if (h.type !== 'off' || k.type !== 'off' || Math.abs(h.y - p.y) > 0.01 || Math.abs(k.y - p.y) > 0.01) return;
      if ((h.x - p.x) * (k.x - p.x) >= 0) return;
      out.push({ of: 'round', value: p.y, contour, points: [i], spot: p, moves: { contour, points: [i], way: 1 } });
    });
  });
  return out;
}

type Edge = { at: number; from: number; to: number; rises: boolean; contour: number; points: readonly number[] };

/** Widths of ink between straight edges that face each other, upright and level. */
function stems(contours: readonly Contour[], u: number): Measure[] {
  const largest = contours.reduce((most, c) => (Math.abs(signedArea(c)) > Math.abs(most) ? signedArea(c) : most), 0);
  const turned = largest < 0;
  const out: Measure[] = [];
  for (const kind of ['upright', 'level'] as const) {
    const [across, along] = kind === 'upright' ? (['x', 'y'] as const) : (['y', 'x'] as const);
    const least = (kind === 'upright' ? 80 : 60) * u;
    const ends = endsAlong(contours, across);
    const edges = contours.flatMap((c, contour) =>
      c.closed
        ? segments(c).flatMap((s): Edge[] => {
            if (s.from < 0 || s.offs.length > 0) return [];
            const [a, b] = [c.points[s.from]!, c.points[s.to]!];
            if (Math.abs(a[across] - b[across]) > 0.01 || Math.abs(a[along] - b[along]) < least) return [];
            const rises = b[along] > a[along] !== turned;
            const span = [a[along], b[along]].sort((p, q) => p - q) as [number, number];
            return [{ at: a[across], from: span[0], to: span[1], rises, contour, points: [s.from, s.to] }];
          })
        : [],
    );
    // Ink lies left of the way: right edges of upright stems rise, upper edges of level ones fall.
    const near = edges.filter((e) => e.rises !== (kind === 'upright'));
    const far = edges.filter((e) => e.rises === (kind === 'upright'));
    for (const a of near) {
      const facing = far
        .filter((b) => b.at > a.at && Math.min(a.to, b.to) - Math.max(a.from, b.from) > least / 2)
        .sort((p, q) => p.at - q.at)[0];
      if (
        !facing ||
        near.some(
          (e) =>
            e !== a && e.at > a.at && e.at < facing.at && Math.min(e.to, facing.to) > Math.max(e.from, facing.from),
        )
      )
        continue;
      const middle = (Math.max(a.from, facing.from) + Math.min(a.to, facing.to)) / 2;
      const mid = (a.at + facing.at) / 2;
      out.push({
        of: kind,
        value: tidy(facing.at - a.at),
        contour: facing.contour,
        points: facing.points,
        spot: kind === 'upright' ? { x: mid, y: middle } : { x: middle, y: mid },
        moves: movesOf(a, facing, ends),
      });
    }
  }
  return out;
}

function endsAlong(contours: readonly Contour[], axis: 'x' | 'y'): readonly [number, number] {
  const boxes = contours.map(contourBounds);
  return axis === 'x'
    ? [Math.min(...boxes.map((b) => b.xMin)), Math.max(...boxes.map((b) => b.xMax))]
    : [Math.min(...boxes.map((b) => b.yMin)), Math.max(...boxes.map((b) => b.yMax))];
}

/** The edge of a stem that can move: not the one at the end of the letter, which side bearings and heights are measured from. */
function movesOf(near: Edge, far: Edge, [least, most]: readonly [number, number]): Measure['moves'] {
  if (far.at < most - 1) return { contour: far.contour, points: far.points, way: 1 };
  if (near.at > least + 1) return { contour: near.contour, points: near.points, way: -1 };
  return undefined;
}

/** A value that so many glyphs share is meant; a slip is one glyph’s. */
const MEANT = 5;
/** How far from a line heights count as its own, in thousandths of the em. */
const ABOUT = 25;

/** Letters and figures by script, case and form; what is neither is drawn at heights of its own. */
function classOf(glyph: Glyph): string | undefined {
  const code = glyph.unicodes[0];
  if (code === undefined) return undefined;
  const c = String.fromCodePoint(code);
  const kind = /^\p{Lu}$/u.test(c)
    ? 'capitals'
    : /^\p{Ll}$/u.test(c)
      ? 'small letters'
      : /^\p{Nd}$/u.test(c)
        ? 'figures'
        : /^\p{Lo}$/u.test(c)
          ? 'letters'
          : undefined;
  if (!kind || c.normalize('NFKD') !== c) return undefined;
  const script = ['Latin', 'Greek', 'Cyrillic'].find((name) => new RegExp(`\\p{Script=${name}}`, 'u').test(c)) ?? '';
  return `${script} ${kind}`;
}

const WORD = { flat: 'A side', round: 'A round', upright: 'An upright stem', level: 'A level stem' } as const;
const KIND = {
  flat: 'heights/line',
  round: 'heights/overshoot',
  upright: 'heights/stem',
  level: 'heights/stem',
} as const;

type Held = { glyph: Glyph; measure: Measure };

/** Glyphs of a master that miss what others share. */
export function heightFindings(
  project: Project,
  master: Master,
  glyphs: readonly Glyph[],
  amounts: Amounts,
): Finding[] {
  const u = project.unitsPerEm / 1000;
  const judged = glyphs.flatMap((glyph) => {
    const kind = classOf(glyph);
    return kind === undefined ? [] : [{ glyph, kind }];
  });
  const zones = zonesOf(master);
  const values = new Map<string, { of: Measure['of']; values: Map<number, Held[]> }>();
  for (const { glyph, kind } of judged) {
    const { contours } = drawingOf(glyph, master.id);
    for (const measure of contours.length === 0 ? [] : measuresOf(contours, u)) {
      // Heights are those of all letters; stems differ by case.
      const key = measure.of === 'flat' || measure.of === 'round' ? measure.of : `${measure.of} ${kind}`;
      const own = values.get(key) ?? { of: measure.of, values: new Map<number, Held[]>() };
      values.set(key, own);
      const held = own.values.get(measure.value);
      if (held) held.push({ glyph, measure });
      else own.values.set(measure.value, [{ glyph, measure }]);
    }
  }
  return [...values.values()].flatMap(({ of, values: held }) =>
    slips(held, amounts(KIND[of]) * u).flatMap(({ held, value, meant, many }) => {
      const isHeight = of === 'flat' || of === 'round';
      const zone = isHeight && zones.find((z) => Math.abs(z.position - meant) < ABOUT * u);
      // What is neither on a line nor near it has its own reasons.
      if (isHeight && !zone) return [];
      return held.map(({ glyph, measure }) => {
        const reason = isHeight
          ? `${WORD[of]} at ${shownNumber(value)} misses ${shownNumber(meant)}, where ${many} letters have their ${(zone as { name: string }).name.toLowerCase()}, by ${said(Math.abs(value - meant))}.`
          : `${WORD[of]} is ${said(value)} wide; ${many} glyphs have ${meant}.`;
        return finding(KIND[of], reason, {
          glyph: glyph.id,
          masters: [master.id],
          bad: Math.abs(value - meant),
          contour: measure.contour,
          point: measure.points[0]!,
          spots: [measure.spot],
          mends: measure.moves
            ? [
                {
                  edit: 'mendHeight',
                  args: {
                    glyph: glyph.id,
                    master: master.id,
                    contour: measure.moves.contour,
                    points: measure.moves.points,
                    axis: of === 'upright' ? 'x' : 'y',
                    by: tidy((meant - value) * measure.moves.way),
                  },
                  title: isHeight ? `Put it at ${shownNumber(meant)}` : `Make it ${meant} wide`,
                },
              ]
            : [],
        });
      });
    }),
  );
}

/** Values of few glyphs that lie near one of many. */
function slips(values: ReadonlyMap<number, readonly Held[]>, within: number) {
  const counts = [...values].map(([value, held]) => ({
    value,
    held,
    glyphs: new Set(held.map((h) => h.glyph.id)).size,
  }));
  const meant = counts.filter((c) => c.glyphs >= MEANT);
  return counts.flatMap(({ value, held, glyphs }) => {
    if (glyphs > 1) return [];
    const near = meant
      .filter((m) => m.value !== value && Math.abs(m.value - value) <= within)
      .sort((a, b) => Math.abs(a.value - value) - Math.abs(b.value - value))[0];
    return near ? [{ held, value, meant: near.value, many: near.glyphs }] : [];
  });
}

/** A contour with some of its points moved along an axis, and with them the points that stand on the same line beside them. */
export function withPointsMoved(c: Contour, points: readonly number[], axis: 'x' | 'y', by: number): Contour {
  const moved = new Set<number>();
  for (const start of points) {
    const value = c.points[start]?.[axis];
    if (value === undefined) continue;
    for (const step of [-1, 1])
      for (
        let i: number | undefined = start, n = 0;
        i !== undefined && n <= c.points.length;
        i = neighbour(c, i, step), n++
      ) {
        if (Math.abs(c.points[i]![axis] - value) > 0.01) break;
        moved.add(i);
      }
  }
  return {
    ...c,
    points: c.points.map((p, i): Point => (moved.has(i) ? { ...p, [axis]: tidy(p[axis] + by) } : p)),
  };
}
