import type { Definitions } from '../../features/tables';
import { type CaretAt, GLYPH_CLASS, writeGdef } from '../../opentype/gdef';
import type { Lookup } from '../../opentype/layout/lists';
import type { AnchorAt } from '../../opentype/layout/positions';
import { type AnchorsByGlyph, ligatureMarkLookup, markLookup } from '../../opentype/markPos';
import type { Anchor, Glyph } from '../../project/model';
import type { CastPlan, Entry } from '../plan';

type Point = AnchorAt;
type Anchors = Map<string, Map<number, Point>>;
type Parts = Map<string, Map<number, (Point | undefined)[]>>;

/** Does a glyph stand on others: by its kind, or as it sits at their anchors? */
export const isMark = ({ glyph, drawing }: Entry): boolean =>
  glyph.category === 'mark' || drawing.anchors.some((a) => a.name.startsWith('_'));

/** Anchors that mark the places of the caret in a ligature. */
const CARET = /^caret_\d+$/;
/** Anchors that no mark sits at: joins of connected writing, carets. */
const NO_SEATS: ReadonlySet<string> = new Set(['entry', 'exit', 'caret']);
/** Numbered anchors are of a ligature's parts, from 1 on. */
const NUMBERED = /^(.+)_([1-9]\d?)$/;

/** A ligature takes marks on its parts by numbered anchors; marks have none. */
const isLigature = (entry: Entry): boolean =>
  entry.glyph.category === 'ligature' ||
  (!isMark(entry) && entry.drawing.anchors.some((a) => NUMBERED.test(a.name) || CARET.test(a.name)));

/** Anchors by name: of bases, of parts of ligatures, of marks where they sit, of marks where others sit on them. */
function anchorsOf({ entries, varies }: Pick<CastPlan, 'entries' | 'varies'>) {
  const [bases, sitting, carrying]: [Anchors, Anchors, Anchors] = [new Map(), new Map(), new Map()];
  const parts: Parts = new Map();
  const placed = (a: Anchor, glyph: Glyph): Point => varies?.anchor(glyph, a.name) ?? rounded(a);
  const note = (into: Anchors, name: string, index: number, a: Anchor) => {
    const of = into.get(name) ?? new Map();
    into.set(name, of);
    // The first of a name counts.
    if (!of.has(index)) of.set(index, placed(a, entries[index]!.glyph));
  };
  entries.forEach((entry, index) => {
    const mark = isMark(entry);
    for (const a of entry.drawing.anchors) {
      if (NO_SEATS.has(a.role ?? a.name) || NO_SEATS.has(a.name) || CARET.test(a.name)) continue;
      const numbered = NUMBERED.exec(a.name);
      if (a.name.startsWith('_')) note(sitting, a.name.slice(1), index, a);
      else if (numbered && !mark) {
        const of = parts.get(numbered[1]!) ?? new Map<number, (Point | undefined)[]>();
        parts.set(numbered[1]!, of);
        const list = of.get(index) ?? [];
        list[Number(numbered[2]) - 1] ??= placed(a, entry.glyph);
        of.set(index, list);
      } else if (!numbered && !entry.drawing.anchors.some((o) => o.name === `${a.name}_1`))
        note(mark ? carrying : bases, a.name, index, a);
    }
  });
  return { bases, parts, sitting, carrying };
}

const units = (v: number): number => Math.max(-32768, Math.min(32767, Math.round(v)));
const rounded = ({ x, y }: Point): Point => ({ x: units(x), y: units(y) });

/** Kinds of marks that carry others, in the order of their lookups; each is a set of its own in `GDEF`. */
const stackingKinds = ({ sitting, carrying }: ReturnType<typeof anchorsOf>): string[] =>
  [...sitting.keys()].sort().filter((name) => carrying.has(name));

/** Marks that sit at, or carry at, a kind of anchor. */
const marksOfKind = ({ sitting, carrying }: ReturnType<typeof anchorsOf>, name: string): number[] => [
  ...new Set([...(sitting.get(name)?.keys() ?? []), ...(carrying.get(name)?.keys() ?? [])]),
];

/**
 * `mark` and `mkmk`: lookups for each kind of anchor, in the order of their names, onto bases and onto parts of ligatures. Marks
 * of other kinds between two that stand on each other are skipped by sets of marks, unless `GDEF` comes from elsewhere.
 */
export function markFeatures(
  plan: Pick<CastPlan, 'entries' | 'varies'>,
  ownGdef = true,
  /** Sets of marks that stand before these in `GDEF`. */
  firstSet = 0,
): { tag: string; lookups: Lookup<Uint8Array>[] }[] {
  const found = anchorsOf(plan);
  const { bases, parts, sitting, carrying } = found;
  const names = [...sitting.keys()].sort();
  const none: AnchorsByGlyph = new Map();
  const onBases = names.flatMap((name) => markLookup('base', sitting.get(name)!, bases.get(name) ?? none));
  const onParts = names.flatMap((name) => {
    const of = [...(parts.get(name) ?? [])].map(([glyph, list]) => {
      const length = Math.max(...[...parts.values()].map((kind) => kind.get(glyph)?.length ?? 0));
      return [glyph, Array.from({ length }, (_, i) => list[i])] as const;
    });
    return ligatureMarkLookup(sitting.get(name)!, new Map(of));
  });
  const stacks = stackingKinds(found).flatMap((name, i) =>
    markLookup('mark', sitting.get(name)!, carrying.get(name)!).map((l) =>
      ownGdef ? { ...l, markFilteringSet: firstSet + i } : l,
    ),
  );
  return [
    { tag: 'mark', lookups: [...onBases, ...onParts] },
    { tag: 'mkmk', lookups: stacks },
  ];
}

/** What rules say of glyphs beside what anchors say: see the features’ definitions. */
type Said = Pick<
  Definitions,
  'classes' | 'carets' | 'caretPoints' | 'attachPoints' | 'attachmentClasses' | 'filterSets' | 'saysClasses'
>;

/** `GDEF`, where the font has marks, carets or rules that need it: what anchors tell, and what the rules say outright. */
export function definedGlyphs(plan: Pick<CastPlan, 'entries' | 'varies'>, said: Said): Uint8Array | undefined {
  const { entries } = plan;
  const store = plan.varies?.storeBytes;
  const carets = new Map<number, readonly CaretAt[]>([...caretsOf(plan), ...said.carets]);
  const found = anchorsOf(plan);
  const markSets = [...said.filterSets, ...stackingKinds(found).map((name) => marksOfKind(found, name))];
  const named = said.classes.size + said.attachmentClasses.length + said.attachPoints.size + said.caretPoints.size;
  if (!store && !entries.some(isMark) && carets.size + markSets.length + named === 0) return undefined;
  const classOf = (entry: Entry): number =>
    isMark(entry)
      ? GLYPH_CLASS.mark
      : isLigature(entry)
        ? GLYPH_CLASS.ligature
        : entry.glyph.category === 'component'
          ? GLYPH_CLASS.component
          : GLYPH_CLASS.base;
  const own = entries.flatMap((entry, i) => (i === 0 ? [] : [[i, classOf(entry)] as const]));
  return writeGdef({
    classes: new Map<number, number>([...(said.saysClasses ? [] : own), ...said.classes]),
    carets,
    caretPoints: said.caretPoints,
    attachPoints: said.attachPoints,
    attachmentClasses: new Map(said.attachmentClasses.flatMap((set, i) => set.map((g) => [g, i + 1] as const))),
    markSets,
    store,
  });
}

/** Places of the caret in ligatures, by glyph index, from left to right. */
export function caretsOf({ entries, varies }: Pick<CastPlan, 'entries' | 'varies'>): Map<number, CaretAt[]> {
  const out = new Map<number, CaretAt[]>();
  entries.forEach(({ drawing, glyph }, i) => {
    const places = drawing.anchors
      .filter((a) => a.role === 'caret' || CARET.test(a.name))
      .sort((a, b) => a.x - b.x)
      .map((a): CaretAt => {
        const varied = varies?.anchor(glyph, a.name);
        return varied?.xDevice ? { x: varied.x, device: varied.xDevice } : units(a.x);
      });
    if (places.length > 0) out.set(i, places);
  });
  return out;
}
