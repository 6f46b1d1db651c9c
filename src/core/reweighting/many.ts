import type { Drawing, GlyphId, MasterId, Project } from '../project/model';
import { drawingOf, isEmptyDrawing, masterThere } from '../project/queries';
import { type Weighing, weighedContours, weighedParts } from './drawings';
import type { Eased } from './reweight';

/** Drawings of more points than this are no letters of strokes; they are left as they are. */
export const MOST_POINTS = 900;
export const countedPoints = (drawing: Drawing): number => drawing.contours.reduce((n, c) => n + c.points.length, 0);

/** Many glyphs of one master. */
export type ReweightAsked = Weighing & {
  readonly glyphs: readonly GlyphId[];
  readonly master: MasterId;
  /** Glyphs that get more or less than the others: by so many units their stems end thicker. */
  readonly own: Readonly<Record<GlyphId, number>>;
};

export type Reweighed = { readonly glyph: GlyphId; readonly drawing: Drawing; readonly eased: readonly Eased[] };
/** What came of it: the drawings, and what stays as it is with the reason. */
export type ManyReweighed = {
  readonly made: readonly Reweighed[];
  readonly left: readonly { readonly glyph: GlyphId; readonly reason: string }[];
};

/** The stems asked of one glyph: those of all, and so many units more. */
const forGlyph = (asked: ReweightAsked, glyph: GlyphId): Weighing => {
  const more = asked.own[glyph] ?? 0;
  if (more === 0) return asked;
  const { vertical, horizontal } = asked.to;
  const share = vertical > 0 ? horizontal / vertical : 1;
  return {
    ...asked,
    to: { vertical: Math.max(1, vertical + more), horizontal: Math.max(1, horizontal + more * share) },
  };
};

/**
 * Reweights glyphs. Drawings of contours change; what is built of parts follows its parts, which must be asked for too, or it
 * stays as it is.
 */
export function reweighedGlyphs(
  project: Project,
  asked: ReweightAsked,
  progress: (done: number, total: number) => void = () => {},
): ManyReweighed {
  const master = masterThere(project, asked.master);
  const made = new Map<GlyphId, Reweighed>();
  const left: ManyReweighed['left'][number][] = [];
  const built: GlyphId[] = [];
  for (const [i, id] of asked.glyphs.entries()) {
    if (i % 8 === 0) progress(i, asked.glyphs.length);
    const glyph = project.glyphs[id];
    if (!glyph) continue;
    const drawing = drawingOf(glyph, asked.master);
    if (countedPoints(drawing) > MOST_POINTS)
      left.push({ glyph: id, reason: `It has more than ${MOST_POINTS} points: no letter of strokes.` });
    else if (drawing.contours.length > 0) {
      const { drawing: weighed, eased } = weighedContours(project, drawing, master, forGlyph(asked, id));
      made.set(id, { glyph: id, drawing: weighed, eased });
    }
    if (drawing.components.length > 0) built.push(id);
    else if (isEmptyDrawing(drawing)) left.push({ glyph: id, reason: 'Nothing is drawn yet.' });
  }
  const before = (id: GlyphId) => project.glyphs[id] && drawingOf(project.glyphs[id], asked.master);
  const after = (id: GlyphId) => made.get(id)?.drawing ?? before(id);
  const waiting = new Set(built);
  const follow = (id: GlyphId) => {
    if (!waiting.delete(id)) return;
    const drawing = made.get(id)?.drawing ?? before(id)!;
    for (const c of drawing.components) follow(c.glyph);
    if (!drawing.components.some((c) => made.has(c.glyph))) {
      if (!made.has(id)) left.push({ glyph: id, reason: 'It is built of parts that are not reweighted with it.' });
      return;
    }
    const moved = weighedParts(drawing, { before, after }, asked.width, project.settings.grid);
    made.set(id, { glyph: id, drawing: moved, eased: made.get(id)?.eased ?? [] });
  };
  for (const id of built) follow(id);
  const order = new Map(asked.glyphs.map((id, i) => [id, i]));
  return { made: [...made.values()].sort((a, b) => order.get(a.glyph)! - order.get(b.glyph)!), left };
}
