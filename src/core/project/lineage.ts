import type { Glyph, GlyphId, Project } from './model';

type Glyphs = Project['glyphs'];

/**
 * What each record of glyphs was made of. Only a shortcut: where nothing is known, records are compared glyph by glyph.
 * Earlier records are held weakly, so that nothing is kept for it.
 */
const made = new WeakMap<Glyphs, { from: WeakRef<Glyphs>; ids: readonly GlyphId[] }>();

/** How far back a common beginning is looked for. */
const STEPS = 4;

/** Ids of records in their order: shared by all that are made of one another by replacing. */
const idsOf = new WeakMap<Glyphs, readonly GlyphId[]>();

/** The record with some glyphs replaced or added. */
export function replacing(glyphs: Glyphs, changed: readonly Glyph[]): Glyphs {
  const known = idsOf.get(glyphs) ?? Object.keys(glyphs);
  const added = changed.flatMap(({ id }) => (id in glyphs ? [] : [id]));
  // It is made on every move of the hand. Of thousands of glyphs, a copy by known names takes half the time of a spread, and less than
  // half of that again where the engine knows from the start that it is a table and no object with a class.
  const next = Object.create(null) as Record<GlyphId, Glyph>;
  for (let i = 0; i < known.length; i++) next[known[i]!] = glyphs[known[i]!]!;
  for (const glyph of changed) next[glyph.id] = glyph;
  idsOf.set(next, added.length === 0 ? known : [...known, ...new Set(added)]);
  remember(
    next,
    glyphs,
    changed.map((g) => g.id),
  );
  return next;
}

/** Notes that `next` differs from `from` in these glyphs at most. */
export const remember = (next: Glyphs, from: Glyphs, ids: readonly GlyphId[]): void => {
  made.set(next, { from: new WeakRef(from), ids });
};

/** Glyphs in which two records may differ, where their common beginning is known. */
export function touchedBetween(before: Glyphs, after: Glyphs): ReadonlySet<GlyphId> | undefined {
  const ancestors = lineOf(before);
  const touched = new Set<GlyphId>();
  for (const { record, ids } of lineOf(after)) {
    const common = ancestors.findIndex((a) => a.record === record);
    if (common >= 0) {
      for (const a of ancestors.slice(0, common)) for (const id of a.ids) touched.add(id);
      return touched;
    }
    for (const id of ids) touched.add(id);
  }
  return undefined;
}

/** A record and those it was made of, with what changed from each to the one after it. */
function lineOf(record: Glyphs): { record: Glyphs; ids: readonly GlyphId[] }[] {
  const line: { record: Glyphs; ids: readonly GlyphId[] }[] = [];
  let at: Glyphs | undefined = record;
  for (let i = 0; at && i <= STEPS; i++) {
    const step: { from: WeakRef<Glyphs>; ids: readonly GlyphId[] } | undefined = made.get(at);
    line.push({ record: at, ids: step?.ids ?? [] });
    at = step?.from.deref();
  }
  return line;
}
