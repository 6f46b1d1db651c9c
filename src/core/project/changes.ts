import type { Drawing, Glyph, GlyphId, MasterId, PartName, Project } from './model';
import { applyPatch, type Patch } from './patch';

/** What a copy of a document elsewhere needs to follow it: of a glyph only the fields, and only the drawings, that are new. */
export type Changes = {
  readonly glyphs: readonly (
    | { readonly id: GlyphId; readonly whole: Glyph | undefined }
    | { readonly id: GlyphId; readonly fields: Partial<Glyph>; readonly drawings: Readonly<Record<MasterId, Drawing>> }
  )[];
  readonly parts: readonly { readonly name: PartName; readonly after: unknown }[];
};

/** The changes that a patch makes going forwards; untouched fields and drawings are told by identity. */
export const changesOf = (patch: Patch): Changes => ({
  glyphs: patch.glyphs.map(({ id, before, after }) =>
    before && after && hasAllDrawings(before, after) ? { id, ...fieldsChanged(before, after) } : { id, whole: after },
  ),
  parts: patch.parts.map(({ name, after }) => ({ name, after })),
});

/** None was taken away, nor a field: what is left can be laid over what was. */
const hasAllDrawings = (before: Glyph, after: Glyph): boolean =>
  Object.keys(before.drawings).every((m) => m in after.drawings) && Object.keys(before).every((k) => k in after);

function fieldsChanged(before: Glyph, after: Glyph): { fields: Partial<Glyph>; drawings: Record<MasterId, Drawing> } {
  const { drawings, ...rest } = after;
  const fields = Object.fromEntries(Object.entries(rest).filter(([k, v]) => before[k as keyof Glyph] !== v));
  return {
    fields,
    drawings: Object.fromEntries(Object.entries(drawings).filter(([m, d]) => before.drawings[m] !== d)),
  };
}

/** A copy of the document brought up to date. Glyphs that it does not have are left out. */
export function withChanges(project: Project, { glyphs, parts }: Changes): Project {
  return applyPatch(project, {
    glyphs: glyphs.flatMap((change) => {
      const before = project.glyphs[change.id];
      if ('whole' in change) return { id: change.id, before, after: change.whole };
      return before
        ? {
            id: change.id,
            before,
            after: { ...before, ...change.fields, drawings: { ...before.drawings, ...change.drawings } },
          }
        : [];
    }),
    parts: parts.map(({ name, after }) => ({ name, before: project[name], after })),
  });
}
