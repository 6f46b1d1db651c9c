import type { Glyph, MasterId, Project } from './model';
import { drawingBounds, drawingsOf } from './outline';
import { drawingOf, glyphForCodePoint, glyphsInOrder, isEmptyDrawing } from './queries';

/** What comes next on the way to a finished font: a sentence, and where it is done; `glyph` the one to do it to. */
export type NextStep = { stage: 'draw' | 'fit' | 'kern' | 'cast' | 'case'; sentence: string; glyph?: string };

/** Letters that all others are judged by, in the order that they are best drawn. */
const FIRST = 'noHO';
/** A project with as many letters is no beginner's any more. */
const MANY = 60;

/** Have nearly all letters the same white on either side, as a sheet that was cut up leaves them? */
function standAlike(project: Project, drawn: readonly Glyph[], master: MasterId): boolean {
  const source = drawingsOf(project, master);
  const sides = drawn.flatMap((g) => {
    const drawing = drawingOf(g, master);
    const box = drawingBounds(drawing, source);
    return [box.xMin, drawing.advance - box.xMax];
  });
  const middle = [...sides].sort((a, b) => a - b)[sides.length >> 1]!;
  const near = project.unitsPerEm / 100;
  return sides.filter((s) => Math.abs(s - middle) <= near).length > sides.length * 0.9;
}

/** The next step of a young project in a master; undefined when there is enough of it to find the way alone. */
export function nextStep(project: Project, master: MasterId): NextStep | undefined {
  const drawn = glyphsInOrder(project).filter(
    (g) => g.name !== '.notdef' && g.unicodes.length > 0 && !isEmptyDrawing(drawingOf(g, master)),
  );
  if (drawn.length >= MANY) return undefined;
  const has = (c: string) => drawn.some((g) => g.unicodes.includes(c.codePointAt(0)!));
  const missing = [...FIRST].find((c) => !has(c) && glyphForCodePoint(project, c.codePointAt(0)!));
  if (missing && (drawn.length === 0 || (has('n') !== has('o') && /[no]/.test(missing))))
    return {
      stage: 'draw',
      sentence:
        drawn.length === 0
          ? `Draw ${missing} first: it sets stems and rhythm for all the others.`
          : `Now ${missing}: what is straight and what is round are judged by these two.`,
      glyph: glyphForCodePoint(project, missing.codePointAt(0)!)!.id,
    };
  const given = (c: string) => {
    const glyph = glyphForCodePoint(project, c.codePointAt(0)!);
    return glyph && has(c) && drawingOf(glyph, master).advance !== Math.round(project.unitsPerEm * 0.5);
  };
  if (has('n') && has('o') && !(given('n') || given('o')))
    return {
      stage: 'fit',
      sentence: 'Give n and o their sides; the other letters can follow them.',
      glyph: glyphForCodePoint(project, 0x6e)!.id,
    };
  if (drawn.length < 6)
    return { stage: 'case', sentence: 'Go on with more letters: a word is enough to see whether they go together.' };
  if (drawn.length >= 6 && standAlike(project, drawn, master))
    return {
      stage: 'fit',
      sentence: 'Every letter has the same sides yet: give n and o theirs, then Propose… fits the others to them.',
      glyph: (glyphForCodePoint(project, 0x6e) ?? drawn[0]!).id,
    };
  const kerned = project.masters.some((m) => Object.keys(m.kerning).length > 0);
  if (drawn.length >= 20 && !kerned)
    return {
      stage: 'kern',
      sentence: 'The sides are set; kerning for pairs such as To and AV can be proposed at once.',
    };
  return { stage: 'cast', sentence: 'Enough for a word: cast a font file and try it where it will be used.' };
}
