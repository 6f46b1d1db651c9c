import { remember, replacing, touchedBetween } from './lineage';
import { type Glyph, type GlyphId, PART_NAMES, type PartName, type Parts, type Project } from './model';

/** What differs between two projects, per glyph record and per part; `undefined` means the glyph is not there. */
export type Patch = {
  readonly glyphs: readonly {
    readonly id: GlyphId;
    readonly before: Glyph | undefined;
    readonly after: Glyph | undefined;
  }[];
  readonly parts: readonly { readonly name: PartName; readonly before: unknown; readonly after: unknown }[];
};

/** The patch that leads from one project to another; untouched records are told by identity. */
export function patchBetween(before: Project, after: Project): Patch {
  const glyphs: { id: GlyphId; before: Glyph | undefined; after: Glyph | undefined }[] = [];
  const touched = touchedBetween(before.glyphs, after.glyphs);
  if (touched) {
    for (const id of touched)
      if (after.glyphs[id] !== before.glyphs[id])
        glyphs.push({ id, before: before.glyphs[id], after: after.glyphs[id] });
  } else {
    for (const id in after.glyphs) {
      if (after.glyphs[id] !== before.glyphs[id])
        glyphs.push({ id, before: before.glyphs[id], after: after.glyphs[id] });
    }
    for (const id in before.glyphs) {
      if (!(id in after.glyphs)) glyphs.push({ id, before: before.glyphs[id], after: undefined });
    }
  }
  const parts = PART_NAMES.filter((name) => before[name] !== after[name]).map((name) => ({
    name,
    before: before[name],
    after: after[name],
  }));
  return { glyphs, parts };
}

export const isEmptyPatch = (p: Patch): boolean => p.glyphs.length === 0 && p.parts.length === 0;

/** Applies a patch forwards, or backwards to undo it. */
export function applyPatch(project: Project, patch: Patch, direction: 'forwards' | 'backwards' = 'forwards'): Project {
  const pick = <T>(change: { before: T; after: T }): T => (direction === 'forwards' ? change.after : change.before);
  let glyphs = project.glyphs;
  const [only] = patch.glyphs;
  const single = only && patch.glyphs.length === 1 ? pick(only) : undefined;
  if (single) glyphs = replacing(glyphs, single);
  else if (patch.glyphs.length > 0) {
    const next: Record<GlyphId, Glyph> = { ...glyphs };
    for (const change of patch.glyphs) {
      const glyph = pick(change);
      if (glyph) next[change.id] = glyph;
      else delete next[change.id];
    }
    remember(
      next,
      glyphs,
      patch.glyphs.map((c) => c.id),
    );
    glyphs = next;
  }
  const parts: Partial<Record<PartName, unknown>> = {};
  for (const change of patch.parts) parts[change.name] = pick(change);
  return { ...project, ...(parts as Partial<Parts>), glyphs };
}
