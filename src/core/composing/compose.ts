import { isRefused } from '../base/result';
import type { Glyph, GlyphId, Project } from '../project/model';
import { drawingOf, isEmptyDrawing } from '../project/queries';
import { lettersOf } from './ligatures';
import { type AnchorName, markOf } from './marks';
import { nameOf, Workbench } from './workbench';

/** What putting together came to, by glyph name, with reasons. */
export type Composed = {
  project: Project;
  /** Precomposed glyphs that were built. */
  built: readonly string[];
  /** Dotless letters and combining marks that were made on the way. */
  made: readonly string[];
  /** Glyphs that are drawn by hand or built already. */
  kept: readonly string[];
  notPossible: readonly { code?: number; name: string; why: string }[];
};

/** What is to be put together: a character, or a glyph by its name. */
export type Wanted = number | string;

/**
 * Puts characters and glyphs together from a base and marks, in every master: missing glyphs are added, empty ones filled; what is
 * drawn is overwritten only when it is to be made `again`. Dotless letters are made from i and j, combining marks from spacing
 * accents; anchors that are missing are placed by the shapes, those that are there hold.
 */
export function composed(project: Project, wanted: readonly Wanted[], { again = false } = {}): Composed {
  const work = new Workbench(project);
  const built: string[] = [];
  const kept: string[] = [];
  const notPossible: Composed['notPossible'][number][] = [];
  for (const each of new Set(wanted)) {
    const code = typeof each === 'number' ? each : work.named(each)?.unicodes[0];
    const there = (code === undefined ? undefined : work.forCode(code)) ?? work.named(wantedName(each));
    const name = there?.name ?? wantedName(each);
    if (there && work.made.includes(name)) continue;
    if (!again && there && project.masters.some((m) => !isEmptyDrawing(drawingOf(there, m.id)))) {
      kept.push(name);
      continue;
    }
    const fault = (why: string) => notPossible.push({ ...(code !== undefined && { code }), name, why });
    const special = again || code === undefined ? undefined : work.special(code);
    if (special) {
      if (isRefused(special)) fault(special.reason);
      continue;
    }
    const drawings = work.build(name, code);
    if (isRefused(drawings)) {
      fault(drawings.reason);
      continue;
    }
    const glyph = there ?? work.added(name, code === undefined ? [] : [code]);
    work.put({ ...glyph, drawings: { ...glyph.drawings, ...drawings } });
    built.push(name);
  }
  return { project: work.done(), built, made: work.made, kept, notPossible };
}

const wantedName = (each: Wanted): string => (typeof each === 'string' ? each : nameOf(each));

/** Anchors for glyphs, in every master, where they have none of that name; those that are there hold. */
export function withAnchors(project: Project, glyphs: readonly GlyphId[]): { project: Project; changed: number } {
  const work = new Workbench(project);
  for (const id of glyphs) {
    const glyph = project.glyphs[id];
    if (!glyph) continue;
    const letters = lettersOf(project, glyph);
    if (letters) work.anchorLigature(id, letters);
    else for (const { anchor, role } of anchorsFor(glyph)) work.anchored(id, anchor, role);
  }
  const next = work.done();
  return { project: next, changed: glyphs.filter((id) => next.glyphs[id] !== project.glyphs[id]).length };
}

/** Anchors that a letter takes beside top and bottom, by its character. */
const MORE: readonly (readonly [AnchorName, RegExp])[] = [
  ['ogonek', /^[AEIOUYaeiouyǪǫ]$/],
  ['cedilla', /^[CSTDGKLNRHEcstdgklnrhe]$/],
  ['horn', /^[OUou]$/],
  ['topright', /^[dltL]$/],
];

function anchorsFor(glyph: Glyph): { anchor: AnchorName; role: 'takesMark' | 'isMark' }[] {
  const code = glyph.unicodes[0];
  if (code === undefined) return [];
  const kind = markOf(code);
  // Marks above and below carry others of their kind.
  if (kind)
    return [
      { anchor: kind.anchor, role: 'isMark' },
      ...(kind.anchor === 'top' || kind.anchor === 'bottom'
        ? [{ anchor: kind.anchor, role: 'takesMark' } as const]
        : []),
    ];
  const character = String.fromCodePoint(code);
  if (!/\p{L}/u.test(character) || /\p{Lm}/u.test(character)) return [];
  const names: AnchorName[] = ['top', 'bottom', ...MORE.flatMap(([name, of]) => (of.test(character) ? [name] : []))];
  return names.map((anchor) => ({ anchor, role: 'takesMark' }));
}
