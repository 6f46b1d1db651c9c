import { type Contour, isOnCurve, neighbour, type Segment, segmentsOf, signedArea } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import type { Siblings } from '../tidying/siblings';
import type { KindFacts, Spot } from './finding';

/** A drawing's own contours as they are judged. */
export type Outline = {
  readonly contours: readonly Contour[];
  /** A thousandth of the em, in font units. */
  readonly u: number;
  /** What coordinates lie on, in font units; 0 for none. */
  readonly grid: number;
  /** Letters of the master lean. */
  readonly leans: boolean;
};

/** A fault in an outline: where, how bad, and what is said. */
export type OutlineFault = {
  readonly contour?: number;
  readonly point?: number;
  readonly bad: number;
  readonly spots: readonly Spot[];
  readonly reason: string;
  /** It can be mended here. */
  readonly mends?: boolean;
};

/** Where a mend works: the contour and point of the fault. */
export type FaultPlace = { readonly contour: number; readonly point: number };

/** What becomes of a contour and its siblings: others in their places, several, or none; undefined where it cannot be done. */
export type MendedContours = readonly (readonly Contour[])[] | undefined;

export type OutlineMend = {
  /** A word for the way, unique in its kind. */
  readonly way: string;
  readonly title: string;
  /** Points are added or taken away: done in all masters that agree. Else each master is mended where it has the fault. */
  readonly together: boolean;
  /** Done together, it works where only some of the masters have the fault, too. */
  readonly forSome?: boolean;
  readonly mend: (siblings: Siblings, at: FaultPlace, amount: number, u: number) => MendedContours;
};

/** A check of one drawing's outline. */
export type OutlineCheck = KindFacts & {
  /** It counts only where all masters that agree have it at the same place: between masters points may fall together. */
  readonly inAll?: boolean;
  readonly look: (outline: Outline, amount: number) => OutlineFault[];
  readonly ways?: readonly OutlineMend[];
};

const segmentsKnown = new WeakMap<Contour, readonly Segment[]>();

/** The segments of a contour, known again for the same contour. */
export function segments(contour: Contour): readonly Segment[] {
  let found = segmentsKnown.get(contour);
  if (!found) {
    found = segmentsOf(contour);
    segmentsKnown.set(contour, found);
  }
  return found;
}

/** One finding for each contour that `look` says something about. */
export const eachContour =
  (look: (contour: Contour, index: number, outline: Outline, amount: number) => OutlineFault[]) =>
  (outline: Outline, amount: number): OutlineFault[] =>
    outline.contours.flatMap((c, i) => look(c, i, outline, amount));

/** The whole contour with its siblings mended by a function of one contour. */
export const alone =
  (change: (contour: Contour, at: FaultPlace, amount: number, u: number) => Contour | undefined): OutlineMend['mend'] =>
  (siblings, at, amount, u) => {
    const out: Contour[][] = [];
    for (const c of siblings) {
      const next = change(c, at, amount, u);
      if (!next) return undefined;
      out.push([next]);
    }
    return out;
  };

export const spotOf = (contour: Contour, point: number): Spot => {
  const p = contour.points[point]!;
  return { x: p.x, y: p.y };
};

/** A length or distance as it is said. */
export const said = (v: number): string => {
  const rounded = Math.abs(v) < 10 ? Math.round(v * 10) / 10 : Math.round(v);
  return `${rounded} ${rounded === 1 ? 'unit' : 'units'}`;
};

export const handlesAt = (contour: Contour, i: number): { before?: number; after?: number } => {
  const [before, after] = [neighbour(contour, i, -1), neighbour(contour, i, 1)];
  const off = (k: number | undefined) => k !== undefined && contour.points[k]!.type === 'off';
  return { ...(off(before) && { before: before! }), ...(off(after) && { after: after! }) };
};

/** A contour with coordinates a thousandth of a unit fine, as edits leave them. */
export const neat = (c: Contour): Contour => ({
  ...c,
  points: c.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })),
});

/** Points on the outline of a contour. */
export const onPoints = (contour: Contour): number => contour.points.filter(isOnCurve).length;

/** A middle value for how thick a closed contour is: its area over half its length round. */
export const meanThickness = (contour: Contour, round: number): number =>
  round === 0 ? 0 : Math.abs(signedArea(contour)) / (round / 2);
