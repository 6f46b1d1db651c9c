import { z } from 'zod';
import { isRefused, type Refusal } from '../base/result';
import * as a from '../project/arguments';
import { copyOf } from '../project/duplicate';
import { defineEdit, edited, type Outcome, plural, refused } from '../project/edit';
import { glyphNameFault } from '../project/glyphNames';
import { type Drawing, drawingSchema, type Glyph, type GlyphId, type MasterId, type Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed, glyphThere, isBlank, isEmptyDrawing, masterOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import { STROKES_DONE, type StrokeWork, strokeFault, strokeKind, strokeWork, workedDrawing } from './strokes';

/** A glyph and its drawings with their edges worked on, by master. */
export type WorkedGlyph = { glyph: GlyphId; drawings: Readonly<Record<MasterId, Drawing>> };

/**
 * What work on the edges of many glyphs came to: what was made; what stays as it is, and why; and glyphs whose masters
 * agreed before and do not afterwards.
 */
export type ManyWorked = {
  made: readonly WorkedGlyph[];
  left: readonly { glyph: GlyphId; reason: string }[];
  apart: readonly GlyphId[];
};

/** Many glyphs in some masters. `copies`: the glyphs themselves stay, so that what is built of them stays too. */
export type ManyAsked = {
  glyphs: readonly GlyphId[];
  masters: readonly MasterId[];
  work: StrokeWork;
  copies: boolean;
};

/**
 * Works on the edges of many glyphs, each in all the masters asked for or in none. What is built of parts follows its parts;
 * only a frame goes around it too, and where its parts are framed themselves it is drawn apart first, so that it has one
 * frame and not theirs within.
 */
export function workedGlyphs(
  project: Project,
  { glyphs, masters, work, copies }: ManyAsked,
  progress: (done: number, total: number) => void = () => {},
): ManyWorked {
  const asked = new Set(glyphs);
  const made: WorkedGlyph[] = [];
  const left: ManyWorked['left'][number][] = [];
  for (const [i, id] of glyphs.entries()) {
    progress(i, glyphs.length);
    const glyph = project.glyphs[id];
    if (!glyph) continue;
    const result = workedMasters(project, glyph, masters, work, (d) => !copies && uses(project, d, asked));
    if (isRefused(result)) left.push({ glyph: id, reason: result.reason });
    else made.push({ glyph: id, drawings: result });
  }
  const agree = (glyph: Glyph, drawings: Readonly<Record<MasterId, Drawing>>) =>
    sameStructure(project.masters.map((m) => drawings[m.id] ?? drawingOf(glyph, m.id)));
  const apart = made
    .filter(({ glyph: id, drawings }) => {
      const glyph = project.glyphs[id]!;
      return agree(glyph, {}) && !agree(glyph, drawings);
    })
    .map(({ glyph }) => glyph);
  return { made, left, apart };
}

function workedMasters(
  project: Project,
  glyph: Glyph,
  masters: readonly MasterId[],
  work: StrokeWork,
  takesFramed: (d: Drawing) => boolean,
): Record<MasterId, Drawing> | Refusal {
  const drawings: Record<MasterId, Drawing> = {};
  for (const m of masters) {
    const drawing = drawingOf(glyph, m);
    const where = masters.length > 1 ? ` (${masterOf(project, m)!.name})` : '';
    if (isEmptyDrawing(drawing) && !(work.kind === 'frame' && isBlank(glyph)))
      return refused(`Nothing is drawn yet${where}.`);
    if (drawing.contours.length === 0 && work.kind !== 'frame')
      return refused('It is built of parts, and changes as they do.');
    const whole =
      work.kind === 'frame' && takesFramed(drawing)
        ? { ...drawing, contours: flattened(drawing, drawingsOf(project, m)), components: [] }
        : drawing;
    const result = workedDrawing(project, whole, m, [], work);
    if (isRefused(result)) return refused(`${result.reason.replace(/\.$/, '')}${where}.`);
    drawings[m] = result;
  }
  return drawings;
}

/** Is a drawing built, at any depth, of one of these glyphs? */
function uses(project: Project, drawing: Drawing, among: ReadonlySet<GlyphId>): boolean {
  const seen = new Set<GlyphId>();
  const any = (d: Drawing): boolean =>
    d.components.some(({ glyph }) => {
      if (among.has(glyph)) return true;
      if (seen.has(glyph)) return false;
      seen.add(glyph);
      const part = project.glyphs[glyph];
      return part !== undefined && Object.values(part.drawings).some(any);
    });
  return any(drawing);
}

const SUFFIX = /^[A-Za-z0-9_]{1,20}$/;
const suffix = z.string().optional().describe('ending of the names of copies that get the work: A.key');

/** Takes over drawings whose edges were worked on: in their glyphs, or in copies of them named with a suffix. */
export const takeWorkedGlyphs = defineEdit(
  {
    name: 'takeWorkedGlyphs',
    does: 'Takes over the outlines of many glyphs whose edges were worked on',
    reach: 'masters named',
    args: z.object({
      kind: strokeKind,
      made: z.array(z.object({ glyph: a.glyph, drawings: z.record(z.string(), drawingSchema) })).readonly(),
      suffix,
    }),
  },
  (project, { kind, made, suffix }): Outcome => {
    if (made.length === 0) return refused('No glyph could be worked on that way.');
    if (suffix !== undefined) return asCopies(project, made, suffix, STROKES_DONE[kind]);
    const glyphs = { ...project.glyphs };
    for (const { glyph: id, drawings } of made) {
      const glyph = glyphThere(project, id);
      glyphs[id] = { ...glyph, drawings: { ...glyph.drawings, ...drawings } };
    }
    return edited({ ...project, glyphs }, `${STROKES_DONE[kind]} in ${plural(made.length, 'glyph')}`);
  },
);

function asCopies(project: Project, made: readonly WorkedGlyph[], suffix: string, done: string): Outcome {
  if (!SUFFIX.test(suffix)) return refused('A suffix has letters and figures, at most 20, without a space or a stop.');
  const glyphs = { ...project.glyphs };
  const after = new Map<GlyphId, GlyphId>();
  let { nextId } = project;
  for (const { glyph: id, drawings } of made) {
    const glyph = glyphThere(project, id);
    const name = `${glyph.name}.${suffix}`;
    const fault = glyphNameFault(name);
    if (fault) return refused(fault);
    if (glyphNamed(project, name)) return refused(`There is already a glyph named ${name}; choose another suffix.`);
    const copy = copyOf(glyph, `g${nextId++}`, name);
    glyphs[copy.id] = { ...copy, drawings: { ...copy.drawings, ...drawings } };
    after.set(id, copy.id);
  }
  const glyphOrder = project.glyphOrder.flatMap((id) => (after.has(id) ? [id, after.get(id)!] : [id]));
  return edited({ ...project, nextId, glyphs, glyphOrder }, `${done} in ${plural(made.length, 'copy', 'copies')}`);
}

/** The same in one step; glyphs that cannot be worked on stay as they are. */
export const workStrokesOfGlyphs = defineEdit(
  {
    name: 'workStrokesOfGlyphs',
    does: 'Works on the edges of many glyphs, or of copies of them',
    reach: 'masters named',
    args: z.object({ glyphs: a.glyphs, masters: a.masters, work: strokeWork, suffix }),
  },
  (project, { glyphs, masters, work, suffix }): Outcome => {
    const fault = strokeFault(work);
    if (fault) return refused(fault);
    const { made } = workedGlyphs(project, { glyphs, masters, work, copies: suffix !== undefined });
    return takeWorkedGlyphs(project, { kind: work.kind, made, suffix });
  },
);
