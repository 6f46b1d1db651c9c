import type { Drawing, GlyphId } from '../project/model';
import type { DrawingSource } from '../project/outline';
import {
  type CffShape,
  cffShape,
  drawnOutShape,
  type FamilyShape,
  familyShape,
  type HowCff,
  type Sibling,
  type TrueTypeShape,
  trueTypeShape,
} from './shape';

type Bases = readonly (readonly [GlyphId, Drawing | undefined])[];
type Kept<T> = {
  bases: Bases;
  /** Drawings in other masters that the bytes depend on, each with what it is composed of there. */
  siblings: readonly { drawing: Drawing; bases: Bases }[];
  castKey: string;
  shape: T;
};

/**
 * Shapes per drawing, kept while the drawing and every drawing it is composed of are the same objects. Documents are
 * immutable, so identity is exact: after one edit one glyph (and its composites) is made anew.
 */
export class CastCache {
  private readonly cff = new WeakMap<Drawing, Kept<CffShape>>();
  private readonly cffKept = new WeakMap<Drawing, Kept<CffShape>>();
  private readonly trueType = new WeakMap<Drawing, Kept<TrueTypeShape>>();
  private readonly trueTypeKept = new WeakMap<Drawing, Kept<TrueTypeShape>>();
  private readonly families = new WeakMap<Drawing, Kept<FamilyShape | undefined>>();
  private readonly familiesDrawnOut = new WeakMap<Drawing, Kept<FamilyShape>>();

  private rules: { key: string; value: unknown } | undefined;

  /** Rules compiled before, while what they are made from is the same. */
  compiledRules<T>(key: string, make: () => T): T {
    if (this.rules?.key !== key) this.rules = { key, value: make() };
    return this.rules.value as T;
  }

  cffShape(drawing: Drawing, source: DrawingSource, how: HowCff): CffShape {
    const key = `${how.unitsPerEm}${how.hinted ? '' : ' unhinted'}${how.fractions ? ' fractions' : ''}`;
    return this.get(how.keepOverlaps ? this.cffKept : this.cff, drawing, source, key, () =>
      cffShape(drawing, source, how),
    );
  }

  trueTypeShape(
    drawing: Drawing,
    source: DrawingSource,
    keepOverlaps: boolean,
    isCast: (id: GlyphId) => boolean,
    siblings: readonly Sibling[] = [],
  ): TrueTypeShape {
    return this.get(
      keepOverlaps ? this.trueTypeKept : this.trueType,
      drawing,
      source,
      castKeyOf(drawing, isCast),
      () => trueTypeShape(drawing, source, keepOverlaps, isCast, siblings),
      siblings,
    );
  }

  /** As {@link familyShape}. */
  familyShape(says: readonly Sibling[], main: number, isCast: (id: GlyphId) => boolean): FamilyShape | undefined {
    const { drawing, source } = says[main]!;
    const key = `${main} ${castKeyOf(drawing, isCast)}`;
    return this.get(this.families, drawing, source, key, () => familyShape(says, main, isCast), says);
  }

  /** As {@link drawnOutShape}. */
  drawnOutShape(says: readonly Sibling[], main: number): FamilyShape {
    const { drawing, source } = says[main]!;
    return this.get(this.familiesDrawnOut, drawing, source, `${main}`, () => drawnOutShape(says, main), says);
  }

  private get<T>(
    store: WeakMap<Drawing, Kept<T>>,
    drawing: Drawing,
    source: DrawingSource,
    castKey: string,
    make: () => T,
    siblings: readonly Sibling[] = [],
  ): T {
    const kept = store.get(drawing);
    const same =
      kept &&
      kept.castKey === castKey &&
      kept.siblings.length === siblings.length &&
      kept.siblings.every((s, i) => s.drawing === siblings[i]!.drawing && isSame(s.bases, siblings[i]!.source));
    if (same && isSame(kept.bases, source)) return kept.shape;
    const shape = make();
    store.set(drawing, {
      bases: basesOf(drawing, source),
      siblings: siblings.map((s) => ({ drawing: s.drawing, bases: basesOf(s.drawing, s.source) })),
      castKey,
      shape,
    });
    return shape;
  }
}

/** Which of a drawing’s parts are cast. */
const castKeyOf = ({ components }: Drawing, isCast: (id: GlyphId) => boolean): string =>
  components.map((c) => (isCast(c.glyph) ? '1' : '0')).join('');

const isSame = (bases: Bases, source: DrawingSource): boolean => bases.every(([id, base]) => source(id) === base);

/** Every drawing a drawing is composed of, through all levels. */
function basesOf(drawing: Drawing, source: DrawingSource): [GlyphId, Drawing | undefined][] {
  const found = new Map<GlyphId, Drawing | undefined>();
  const visit = (d: Drawing) => {
    for (const { glyph } of d.components) {
      if (found.has(glyph)) continue;
      const base = source(glyph);
      found.set(glyph, base);
      if (base) visit(base);
    }
  };
  visit(drawing);
  return [...found];
}
