import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, refused } from '../project/edit';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';

/** A recipe of the project's own: glyphs by name; parts without an anchor stand beside, one after the other. */
export type OwnRecipe = NonNullable<Project['settings']['recipes']>[number];

const MOST_RECIPES = 2000;
const MOST_PARTS = 8;

/** The project's own recipe for a glyph, which is put before what Unicode says. */
export const ownRecipeOf = (project: Project, name: string): OwnRecipe | undefined =>
  project.settings.recipes?.find((r) => r.glyph === name);

/** Does a recipe lead back to the glyph that it is for? */
function leadsBack(project: Project, recipe: OwnRecipe): boolean {
  const seen = new Set<string>();
  const open = [recipe.base, ...recipe.parts.map((p) => p.glyph)];
  while (open.length > 0) {
    const name = open.pop()!;
    if (name === recipe.glyph) return true;
    if (seen.has(name)) continue;
    seen.add(name);
    const next = ownRecipeOf(project, name);
    if (next) open.push(next.base, ...next.parts.map((p) => p.glyph));
  }
  return false;
}

/** Says what a glyph is put together from, in place of what Unicode says; what is drawn is not touched. */
export const setRecipe = defineEdit(
  {
    name: 'setRecipe',
    does: 'Says what a glyph is put together from',
    reach: 'no master',
    args: z.object({
      glyph: a.text,
      base: a.text,
      parts: z.array(z.object({ glyph: a.text, anchor: a.text })).readonly(),
    }),
  },
  (project, recipe) => {
    const { glyph, base, parts } = recipe;
    if (parts.length === 0) return refused('A recipe has a base and at least one part.');
    if (parts.length > MOST_PARTS) return refused(`A recipe has at most ${MOST_PARTS} parts.`);
    const missing = [base, ...parts.map((p) => p.glyph)].find((n) => !glyphNamed(project, n));
    if (missing !== undefined) return refused(`There is no glyph ${missing} to put ${glyph} together from.`);
    const wrong = parts.find((p) => p.anchor !== '' && !/^[A-Za-z][A-Za-z0-9_.-]{0,40}$/.test(p.anchor));
    if (wrong) return refused(`${wrong.anchor} is no name of an anchor.`);
    if (leadsBack(project, recipe)) return refused(`${glyph} would be put together from itself.`);
    const others = (project.settings.recipes ?? []).filter((r) => r.glyph !== glyph);
    if (others.length >= MOST_RECIPES) return refused(`A project keeps at most ${MOST_RECIPES} recipes.`);
    return edited(
      { ...project, settings: { ...project.settings, recipes: [...others, { glyph, base, parts: [...parts] }] } },
      `${glyph} is put together from ${[base, ...parts.map((p) => p.glyph)].join(' + ')}`,
    );
  },
);

/** Gives a glyph back to the recipe of its character. */
export const dropRecipe = defineEdit(
  {
    name: 'dropRecipe',
    does: 'Takes a recipe of the project’s own away',
    reach: 'no master',
    args: z.object({ glyph: a.text }),
  },
  (project, { glyph }) => {
    if (!ownRecipeOf(project, glyph)) return refused(`${glyph} has no recipe of its own.`);
    const recipes = project.settings.recipes!.filter((r) => r.glyph !== glyph);
    return edited(
      { ...project, settings: { ...project.settings, recipes } },
      `${glyph} is put together as its character is`,
    );
  },
);
