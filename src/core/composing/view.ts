import { tidy } from '../geometry/tidy';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingPath } from '../project/pathData';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';
import { type StandsOut, standsOut } from './apart';
import { composed } from './compose';
import { type OwnRecipe, ownRecipeOf } from './ownRecipes';
import { recipeOf } from './recipes';

/** How a composed letter stands: built of parts, drawn by hand, or what could be done about it. */
export type ComposedState = 'built' | 'hand' | 'can' | 'not';

/** A letter with marks: how it stands and why; of one that can be built what it would look like in a master. */
export type ComposedCell = {
  /** The character, or −1 for a glyph without one. */
  code: number;
  name: string;
  /** The base by its character, −1 where it has none. */
  base: number;
  /** The marks of its recipe by their characters, nearest first. */
  marks: readonly number[];
  state: ComposedState;
  why?: string;
  /** What it looks like by its recipe: where it is not drawn, or drawn another way. */
  preview?: { path: string; advance: number };
  /** Is it drawn otherwise than its recipe would have it, in this master? */
  differs?: true;
  /** How far its marks stand out of it, in this master. */
  out?: StandsOut;
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

/** Base and marks of a recipe as characters; of the project's own as far as its glyphs have any. */
function ingredients(project: Project, code: number, own: OwnRecipe | undefined): { base: number; marks: number[] } {
  const codeOf = (name: string) => glyphNamed(project, name)?.unicodes[0] ?? -1;
  if (own) return { base: codeOf(own.base), marks: own.parts.map((p) => codeOf(p.glyph)) };
  const recipe = recipeOf(code);
  return {
    base: recipe?.base ?? -1,
    marks: [...(recipe?.before ?? []), ...(recipe?.marks.map((m) => m.mark) ?? []), ...(recipe?.beside ?? [])],
  };
}

/** Do two drawings show the same parts at the same places, of the same width? */
function alike(a: Drawing, b: Drawing): boolean {
  const place = (c: Drawing['components'][number]) => `${c.glyph} ${c.transform.map((v) => tidy(v)).join(' ')}`;
  return (
    a.contours.length === b.contours.length &&
    Math.abs(a.advance - b.advance) < 0.5 &&
    a.components.length === b.components.length &&
    a.components.every((c, i) => place(c) === place(b.components[i]!))
  );
}

/**
 * Letters asked for that have a recipe, and glyphs with a recipe of the project's own, each with how it stands, by what a
 * build of all of them would come to.
 */
export function composedView(project: Project, codes: readonly number[], master: MasterId): ComposedCell[] {
  const named = (project.settings.recipes ?? []).flatMap(({ glyph }) => {
    const there = glyphNamed(project, glyph);
    return there && there.unicodes.length === 0 ? [glyph] : [];
  });
  const ownOf = (code: number) => ownRecipeOf(project, glyphForCodePoint(project, code)?.name ?? '');
  const asked = codes.filter((c) => recipeOf(c) || ownOf(c));
  const wanted = [...asked, ...named];
  const { project: next, built, notPossible } = composed(project, wanted);
  const buildable = new Set(built);
  const reasons = new Map(notPossible.map((n) => [n.code ?? n.name, n.why]));
  const anew = composed(project, wanted, { again: true }).project;
  return wanted.map((each): ComposedCell => {
    const code = typeof each === 'number' ? each : -1;
    const find = (p: Project): Glyph | undefined =>
      typeof each === 'number' ? glyphForCodePoint(p, each) : glyphNamed(p, each);
    const glyph = find(next);
    const own = ownRecipeOf(project, glyph?.name ?? '');
    const cell = { code, name: glyph?.name ?? '', ...ingredients(project, code, own) };
    const why = reasons.get(each);
    if (!glyph || why) return { ...cell, state: 'not', ...(why && { why }) };
    const drawing = drawingOf(glyph, master);
    const out = standsOut(next, glyph, master);
    const preview = (p: Project, d: Drawing) => ({ path: drawingPath(p, master, d), advance: d.advance });
    if (buildable.has(glyph.name))
      return { ...cell, state: 'can', preview: preview(next, drawing), ...(out && { out }) };
    const again = find(anew);
    const other = again && drawingOf(again, master);
    const differs = other !== undefined && other !== drawing && !alike(other, drawing);
    return {
      ...cell,
      state: drawing.components.length > 0 ? 'built' : 'hand',
      ...(differs && { differs, preview: preview(anew, other) }),
      ...(out && { out }),
    };
  });
}
