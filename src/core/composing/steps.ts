import type { GlyphId, Project } from '../project/model';
import { drawingOf } from '../project/queries';
import { baseUnder, DOTLESS_LETTERS, type Recipe, recipeOf } from './recipes';
import { Workbench } from './workbench';

/** What letters asked for need before they can be put together, in the order in which it is done. */
export type Groundwork = {
  /** Dotless letters, and combining marks, by their characters: drawn, to be made from others, to be drawn by hand. */
  dotless: Readiness;
  marks: Readiness;
  /** Drawn glyphs that lack an anchor that a recipe asks of them, in some master; and how many lack none. */
  anchors: { lack: readonly GlyphId[]; there: number };
};
export type Readiness = { there: readonly number[]; make: readonly number[]; lack: readonly number[] };

/** Sorts characters by whether they are drawn, could be made, or must be drawn. */
function readiness(project: Project, codes: ReadonlySet<number>): Readiness {
  const trial = new Workbench(project);
  const [there, make, lack]: [number[], number[], number[]] = [[], [], []];
  for (const code of codes) {
    if (trial.drawnEverywhere(trial.forCode(code))) there.push(code);
    else {
      const made = trial.special(code);
      (made && !('reason' in made) ? make : lack).push(code);
    }
  }
  return { there, make, lack };
}

/** What the recipes of some characters ask for before letters can be put together. */
export function groundwork(project: Project, codes: readonly number[]): Groundwork {
  const recipes = codes.map(recipeOf).filter((r): r is Recipe => r !== undefined);
  const dotless = new Set(recipes.map(baseUnder).filter((c) => [...DOTLESS_LETTERS.values()].includes(c)));
  const marks = new Set(recipes.flatMap((r) => r.marks.map((m) => m.mark)));
  const work = new Workbench(project);
  const asked = new Map<GlyphId, Set<string>>();
  const ask = (code: number, anchor: string) => {
    const glyph = work.forCode(code);
    if (!work.drawnEverywhere(glyph)) return;
    const of = asked.get(glyph.id) ?? new Set();
    asked.set(glyph.id, of.add(anchor));
  };
  for (const recipe of recipes) {
    const carriers = new Map<string, number>();
    for (const { mark, anchor } of recipe.marks) {
      ask(carriers.get(anchor) ?? baseUnder(recipe), anchor);
      ask(mark, `_${anchor}`);
      carriers.set(anchor, mark);
    }
  }
  const lack = [...asked].flatMap(([id, names]) => {
    const glyph = project.glyphs[id]!;
    const whole = project.masters.every((m) => {
      const has = new Set(drawingOf(glyph, m.id).anchors.map((a) => a.name));
      return [...names].every((n) => has.has(n));
    });
    return whole ? [] : [id];
  });
  return {
    dotless: readiness(project, dotless),
    marks: readiness(project, marks),
    anchors: { lack, there: asked.size - lack.length },
  };
}
