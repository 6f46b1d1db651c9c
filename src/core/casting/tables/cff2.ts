import { type Contour, curvesOf, reverseContour, signedArea } from '../../geometry/contour';
import { asCubic, type Box, type Curve, emptyBox, stretchBoxToCurve } from '../../geometry/curve';
import {
  type Blended,
  type BlendedContour,
  type Cff2Info,
  writeBlendedCharstring,
  writeCff2,
} from '../../opentype/cff2';
import type { RegionDelta } from '../../opentype/itemStore';
import { maxp } from '../../opentype/maxp';
import { shareSubroutines } from '../../opentype/subroutines';
import type { AxisRegion } from '../../opentype/variations';
import type { Master } from '../../project/model';
import { flattened } from '../../project/outline';
import { alignmentZones } from '../metrics';
import type { CastPlan, Entry } from '../plan';
import { freeze, type Say, type Varying } from '../varying';
import type { Outlines } from './outlines';

/** Regions of a font, and the sets of them that glyphs vary in: most glyphs in the first, those with waypoints in sets of their own. */
class Sets {
  readonly regions: AxisRegion[] = [];
  readonly sets: number[][] = [];
  private readonly numbers = new Map<string, number>();

  of(regions: readonly AxisRegion[]): number {
    const own = regions.map((r) => {
      const at = this.regions.findIndex((o) => JSON.stringify(o) === JSON.stringify(r));
      return at >= 0 ? at : this.regions.push(r) - 1;
    });
    const key = own.join(' ');
    const known = this.numbers.get(key) ?? this.sets.push(own) - 1;
    this.numbers.set(key, known);
    return known;
  }
}

type Drawn = Pick<Say, 'drawing' | 'source'>;
/** Curves of a drawing’s contours, in whole units; all cubics where the source has quadratics. */
type Outline = readonly (readonly Curve[])[];

/** CFF2 outlines: lines and cubics that are blended between the masters, overlaps kept. */
export function cff2Outlines(plan: CastPlan, varies: Varying): Outlines {
  const sets = new Sets();
  // The masters’ own set is the first, which dictionaries vary by.
  const first = sets.of(regionsOf(varies.of(varies.masters.map(() => 0))));
  const boxes: Box[] = [];
  const charstrings = plan.entries.map((entry) => {
    const says = varies.saysDrawnOut(entry.glyph);
    const main = outlineOf({ drawing: entry.drawing, source: plan.source }, turnsRound(entry, plan));
    const own = says.length > 1 ? says.map((s) => outlineOf(s, turnsRound(entry, plan))) : [];
    const all = own.every((o) => isAlike(o, main)) ? own : [];
    if (all.length < own.length) freeze(plan, varies, entry);
    boxes.push(boxOf(main));
    const blend = (at: (o: Outline) => number): Blended => {
      if (all.length === 0) return { value: at(main), deltas: [] };
      const { base, deltas } = varies.ofSays(says, (_, i) => at(all[i]!));
      return { value: base, deltas: deltas.map((d) => d.delta) };
    };
    const set = all.length === 0 ? first : sets.of(regionsOf(varies.ofSays(says, () => 0)));
    return writeBlendedCharstring(blended(main, blend), { set, regions: sets.sets[set]!.length });
  });
  const shared = plan.compact ? shareSubroutines(charstrings) : { charstrings, global: [], local: [] };
  // Subroutines of this table end where their bytes do.
  const withoutReturn = (list: readonly Uint8Array[]) => list.map((s) => s.subarray(0, -1));
  const cff2 = writeCff2(
    {
      unitsPerEm: plan.project.unitsPerEm,
      axisCount: varies.axes.length,
      regions: sets.regions,
      sets: sets.sets,
      ...zonesOf(plan, varies),
    },
    shared.charstrings,
    { global: withoutReturn(shared.global), local: withoutReturn(shared.local) },
  );
  return {
    tables: [
      ['CFF2', cff2],
      ['maxp', maxp.write({ version: maxp.VERSION_CFF, numGlyphs: plan.entries.length })],
    ],
    boxes,
    indexToLocFormat: 0,
    error: 0,
    overlapsKept: [],
  };
}

const regionsOf = ({ deltas }: { deltas: readonly RegionDelta[] }): AxisRegion[] => deltas.map((d) => d.region);

const closedOf = ({ drawing, source }: Drawn): Contour[] =>
  flattened(drawing, source).filter((c) => c.closed && c.points.length > 1);

/** Is an outline turned as a whole, so that its fill counts counter-clockwise? The default tells it for all masters. */
const turnsRound = ({ drawing }: Entry, { source }: CastPlan): boolean =>
  closedOf({ drawing, source }).reduce((sum, c) => sum + signedArea(c), 0) < 0;

function outlineOf(say: Drawn, turned: boolean): Outline {
  return closedOf(say).map((c) =>
    curvesOf(turned ? reverseContour(c) : c).map((curve) =>
      (curve.length === 6 ? asCubic(curve) : curve).map(Math.round),
    ),
  );
}

const isAlike = (a: Outline, b: Outline): boolean =>
  a.length === b.length &&
  a.every((c, i) => c.length === b[i]!.length && c.every((curve, k) => curve.length === b[i]![k]!.length));

function boxOf(outline: Outline): Box {
  const box = emptyBox();
  for (const c of outline.flat()) stretchBoxToCurve(box, c);
  return box;
}

/** Contours of an outline, each number blended; a straight last side is left to the fill, which closes a contour by itself. */
function blended(main: Outline, blend: (at: (o: Outline) => number) => Blended): BlendedContour[] {
  return main.flatMap((curves, c): BlendedContour[] => {
    if (curves.length < 2) return [];
    const drawn = curves.at(-1)!.length === 4 ? curves.slice(0, -1) : curves;
    const number = (k: number, i: number) => blend((o) => o[c]![k]![i]!);
    return [
      {
        x: number(0, 0),
        y: number(0, 1),
        segments: drawn.map((curve, k) => curve.slice(2).map((_, i) => number(k, i + 2))),
      },
    ];
  });
}

/** Alignment zones and standard stems as they vary; those that not all masters have alike as the default has them. */
function zonesOf(
  { master, hinted }: CastPlan,
  varies: Varying,
): Pick<Cff2Info, 'blueValues' | 'otherBlues' | 'stdHW' | 'stdVW'> {
  if (!hinted) return { blueValues: [], otherBlues: [], stdHW: undefined, stdVW: undefined };
  const rows = (of: (m: Master) => readonly number[]): Blended[] => {
    const all = varies.masters.map(of);
    const own = of(master);
    const alike = all.every((r) => r.length === own.length);
    return own.map((value, i) => {
      if (!alike) return { value, deltas: [] };
      const { base, deltas } = varies.of(all.map((r) => r[i]!));
      return { value: base, deltas: deltas.map((d) => d.delta) };
    });
  };
  const stem = (vertical: boolean) =>
    rows((m) =>
      m.stems
        .filter((s) => s.vertical === vertical)
        .slice(0, 1)
        .map((s) => Math.round(s.value)),
    )[0];
  return {
    blueValues: rows((m) => alignmentZones(m).blueValues),
    otherBlues: rows((m) => alignmentZones(m).otherBlues),
    stdHW: stem(false),
    stdVW: stem(true),
  };
}
