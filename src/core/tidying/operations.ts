import { z } from 'zod';
import type { Contour } from '../geometry/contour';
import { removeOverlaps } from '../geometry/overlaps';
import { tidy } from '../geometry/tidy';
import { directedByNesting } from '../geometry/winding';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { type Drawing, drawingSchema, type Glyph, type GlyphId, type MasterId, type Project } from '../project/model';
import { defaultMaster, drawingOf } from '../project/queries';
import { deviation } from './deviation';
import { evenedOut } from './even';
import { withExtremes } from './extremes';
import { withFewerPoints } from './fewer';
import { agreeing, type Siblings } from './siblings';
import { rounded, straightened, withAlignedHandles } from './straight';
import { isStray, withoutDoubledPoints, withSteadyStart } from './strays';

/** What an operation is measured in, its usual value and how far it may go. */
export type TidyOption = { label: string; unit: string; usual: number; least: number; most: number };
export type TidyOperation = {
  title: string;
  /** As the history says it: "Added extremes". */
  done: string;
  hint: string;
  option?: TidyOption;
  /** All contours of a drawing and of its siblings in other masters; the lists agree contour by contour. */
  run: (drawings: readonly (readonly Contour[])[], amount: number) => readonly (readonly Contour[])[];
};

/** One contour after the other, each with its siblings. */
const eachContour =
  (change: (siblings: Siblings, amount: number) => readonly Contour[]) =>
  (drawings: readonly (readonly Contour[])[], amount: number): Contour[][] => {
    const changed = drawings[0]!.map((_, i) =>
      change(
        drawings.map((d) => d[i]!),
        amount,
      ),
    );
    return drawings.map((_, k) => changed.map((siblings) => siblings[k]!));
  };

const alone = (change: (contour: Contour, amount: number) => Contour) =>
  eachContour((siblings, amount) =>
    keepAgreement(
      siblings,
      siblings.map((c) => change(c, amount)),
    ),
  );
/** A change that would make siblings disagree is made in none of them. */
const keepAgreement = (before: Siblings, after: readonly Contour[]): readonly Contour[] =>
  agreeing(after) ? after : before;

const distance = (usual: number): TidyOption => ({ label: 'Within', unit: 'units', usual, least: 0.05, most: 20 });

export const TIDY = {
  extremes: {
    title: 'Add extremes',
    done: 'Added extremes',
    hint: 'A point wherever a curve turns in x or y; the shape stays',
    run: eachContour(withExtremes),
  },
  fewer: {
    title: 'Fewer points',
    done: 'Took needless points away',
    hint: 'Points that the shape can do without; extremes and corners stay',
    option: distance(0.5),
    run: eachContour(withFewerPoints),
  },
  round: {
    title: 'Round',
    done: 'Rounded coordinates',
    hint: 'Every coordinate on a grid',
    option: { label: 'Grid', unit: 'units', usual: 1, least: 0.1, most: 50 },
    run: alone(rounded),
  },
  straighten: {
    title: 'Straighten',
    done: 'Straightened sides',
    hint: 'Sides that are nearly level, upright or straight become so',
    option: distance(2),
    run: alone(straightened),
  },
  handles: {
    title: 'Align handles',
    done: 'Aligned handles',
    hint: 'Handles nearly level, upright or in line become so; points nearly smooth become smooth',
    option: { label: 'Within', unit: 'degrees', usual: 2, least: 0.1, most: 10 },
    run: alone(withAlignedHandles),
  },
  even: {
    title: 'Even out',
    done: 'Evened out curves',
    hint: 'Curvature runs on through smooth points; only the lengths of handles change',
    run: alone((c) => evenedOut(c)),
  },
  directions: {
    title: 'Set directions',
    done: 'Set directions',
    hint: 'Outer shapes one way, counters the other, by nesting',
    run: (drawings) => drawings.map(directedByNesting),
  },
  starts: {
    title: 'Set starts',
    done: 'Set starts',
    hint: 'Each contour starts at its lowest point, the same one in every master',
    run: eachContour(withSteadyStart),
  },
  overlap: {
    title: 'Remove overlap',
    done: 'Removed overlaps',
    hint: 'What lies on each other becomes one outline; masters may disagree afterwards',
    run: (drawings) => drawings.map((d) => keptOrTidied(d, removeOverlaps(d).contours)),
  },
  strays: {
    title: 'Remove strays',
    done: 'Removed strays and doubled points',
    hint: 'Lone points, contours without area, points that stand where another stands',
    run: (drawings) => {
      const kept = drawings[0]!.map((_, i) => !isStray(drawings.map((d) => d[i]!)));
      return eachContour(withoutDoubledPoints)(
        drawings.map((d) => d.filter((_, i) => kept[i])),
        0,
      );
    },
  },
} as const satisfies Record<string, TidyOperation>;

export type TidyName = keyof typeof TIDY;
export const TIDY_NAMES = Object.keys(TIDY) as TidyName[];
const operationOf = (name: TidyName): TidyOperation => TIDY[name];

const keptOrTidied = (before: readonly Contour[], after: readonly Contour[]): Contour[] =>
  after.map((c) =>
    before.includes(c) ? c : { ...c, points: c.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) },
  );

/** What an operation would do to one glyph: the drawings of the masters asked for that change, and how much. */
export type TidyProposal = {
  glyph: GlyphId;
  drawings: Readonly<Record<MasterId, Drawing>>;
  /** Points in all those masters. */
  before: number;
  after: number;
  /** The greatest distance between the old and the new outline, in font units. */
  deviation: number;
  /** The masters do not agree, so that each was tidied by itself. */
  apart: boolean;
};

const pointsIn = (contours: readonly Contour[]): number => contours.reduce((sum, c) => sum + c.points.length, 0);
const same = (a: readonly Contour[], b: readonly Contour[]): boolean =>
  a.length === b.length && a.every((c, i) => c === b[i] || JSON.stringify(c) === JSON.stringify(b[i]));

/** What an operation would do to a glyph in some masters; undefined when it changes nothing. Masters that agree stay so. */
export function tidyProposal(
  project: Project,
  glyph: Glyph,
  masters: readonly MasterId[],
  name: TidyName,
  amount?: number,
): TidyProposal | undefined {
  const operation = operationOf(name);
  const main = defaultMaster(project).id;
  const drawn = masters.filter((m) => glyph.drawings[m]).sort((a, b) => Number(b === main) - Number(a === main));
  if (drawn.length === 0) return undefined;
  const before = drawn.map((m) => drawingOf(glyph, m).contours);
  const by = amount ?? operation.option?.usual ?? 0;
  const together =
    before.every((d) => d.length === before[0]!.length) &&
    before[0]!.every((_, i) => agreeing(before.map((d) => d[i]!)));
  const after = together ? operation.run(before, by) : before.flatMap((d) => operation.run([d], by));
  const changed = drawn.flatMap((m, i) =>
    same(before[i]!, after[i]!) ? [] : [{ m, before: before[i]!, after: after[i]! }],
  );
  if (changed.length === 0) return undefined;
  return {
    glyph: glyph.id,
    drawings: Object.fromEntries(changed.map((c) => [c.m, { ...drawingOf(glyph, c.m), contours: c.after }])),
    before: changed.reduce((sum, c) => sum + pointsIn(c.before), 0),
    after: changed.reduce((sum, c) => sum + pointsIn(c.after), 0),
    deviation: Math.max(
      ...changed.map((c) => (name === 'directions' || name === 'starts' ? 0 : deviation(c.before, c.after))),
    ),
    apart: !together,
  };
}

/** Carries an operation out on glyphs in some masters. */
export const tidyGlyphs = defineEdit(
  {
    name: 'tidyGlyphs',
    does: 'Tidies glyphs',
    reach: 'masters named',
    args: z.object({
      operation: z.enum(TIDY_NAMES),
      glyphs: a.glyphs,
      masters: a.masters,
      amount: a.number.optional(),
    }),
  },
  (project, { operation, glyphs, masters, amount }) => {
    const proposals = glyphs.flatMap((id) =>
      project.glyphs[id] ? (tidyProposal(project, project.glyphs[id]!, masters, operation, amount) ?? []) : [],
    );
    return takeTidying(project, { operation, proposals });
  },
);

/** Takes proposals over as one edit. */
export const takeTidying = defineEdit(
  {
    name: 'takeTidying',
    does: 'Takes proposed tidying over',
    reach: 'masters named',
    args: z.object({
      operation: z.enum(TIDY_NAMES),
      proposals: z
        .array(z.object({ glyph: a.glyph, drawings: z.record(a.master, drawingSchema).readonly() }))
        .readonly(),
    }),
  },
  (project, { operation, proposals }) => {
    if (proposals.length === 0) return refused('There is nothing to tidy that way.');
    const next = { ...project.glyphs };
    for (const p of proposals) {
      const glyph = next[p.glyph];
      if (glyph) next[p.glyph] = { ...glyph, drawings: { ...glyph.drawings, ...p.drawings } };
    }
    const [first] = proposals;
    const where = proposals.length === 1 ? project.glyphs[first!.glyph]?.name : plural(proposals.length, 'glyph');
    return edited({ ...project, glyphs: next }, `${operationOf(operation).done} in ${where}`);
  },
);
