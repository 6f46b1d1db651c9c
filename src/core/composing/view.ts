import type { MasterId, Project } from '../project/model';
import { drawingPath } from '../project/pathData';
import { drawingOf, glyphForCodePoint } from '../project/queries';
import { composed } from './compose';
import { recipeOf } from './recipes';

/** How a composed letter stands: built of parts, drawn by hand, or what could be done about it. */
export type ComposedState = 'built' | 'hand' | 'can' | 'not';

/** A letter with marks: how it stands and why; of one that can be built what it would look like in a master. */
export type ComposedCell = {
  code: number;
  name: string;
  base: number;
  state: ComposedState;
  why?: string;
  preview?: { path: string; advance: number };
};

/** Letters with a recipe in the scripts that are put together most. */
export function recipeCodes(script: 'Latin' | 'Greek' | 'Cyrillic'): number[] {
  const of = new RegExp(`\\p{Script=${script}}`, 'u');
  const out: number[] = [];
  for (let c = 0xc0; c < 0x2000; c++) {
    const character = String.fromCodePoint(c);
    if (of.test(character) && /\p{L}/u.test(character) && recipeOf(c)) out.push(c);
  }
  return out;
}

/** Letters asked for that have a recipe, each with how it stands, by what a build of all of them would come to. */
export function composedView(project: Project, codes: readonly number[], master: MasterId): ComposedCell[] {
  const asked = codes.filter((c) => recipeOf(c));
  const { project: next, built, notPossible } = composed(project, asked);
  const buildable = new Set(built);
  const reasons = new Map(notPossible.map((n) => [n.code, n.why]));
  return asked.map((code): ComposedCell => {
    const glyph = glyphForCodePoint(next, code);
    const base = recipeOf(code)!.base;
    const why = reasons.get(code);
    if (!glyph || why) return { code, name: glyph?.name ?? '', base, state: 'not', ...(why && { why }) };
    const drawing = drawingOf(glyph, master);
    if (!buildable.has(glyph.name))
      return { code, name: glyph.name, base, state: drawing.components.length > 0 ? 'built' : 'hand' };
    return {
      code,
      name: glyph.name,
      base,
      state: 'can',
      preview: { path: drawingPath(next, master, drawing), advance: drawing.advance },
    };
  });
}
