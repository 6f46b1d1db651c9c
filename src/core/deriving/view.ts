import type { MasterId, Project } from '../project/model';
import { drawingPath } from '../project/pathData';
import { drawingOf, glyphNamed } from '../project/queries';
import { type Derived, derivedSet, drafted, glyphOf, type ItemState } from './derive';
import { isDrawn, needsOf, SETS, setOf, type Way } from './sets';
import { itemsOf } from './ways';

/** A glyph of a set as the interface shows it. */
export type SetItem = {
  readonly name: string;
  readonly unicodes: readonly number[];
  readonly state: ItemState;
  readonly how: Way['how'];
  /** Names of the glyphs that it comes from. */
  readonly of: readonly string[];
  readonly why?: string;
  readonly hint?: string;
  /** What its set makes of it, in a master; only where that is not what is drawn. */
  readonly draft?: { readonly path: string; readonly advance: number };
};

/** The glyphs of a set, with drafts in a master; none for a set that there is not. */
export function setView(
  project: Project,
  key: string,
  master: MasterId,
  progress: (done: number, total: number) => void = () => {},
): SetItem[] {
  const set = setOf(key);
  if (!set) return [];
  const items = derivedSet(project, set, progress);
  const whole = items.some((i) => i.state === 'can' && !i.drawings) ? drafted(project, set, items) : project;
  const draftOf = (d: Derived): SetItem['draft'] => {
    if (d.state === 'made' || d.state === 'drawn') return undefined;
    const made = d.state === 'can' ? glyphNamed(whole, d.name) : undefined;
    const drawing = d.drawings?.[master] ?? (made && drawingOf(made, master));
    return drawing && { path: drawingPath(whole, master, drawing), advance: drawing.advance };
  };
  return items.map((d): SetItem => {
    const draft = draftOf(d);
    return {
      name: d.name,
      unicodes: d.unicodes,
      state: d.state,
      how: d.way.how,
      of: needsOf(d.way),
      ...(d.why !== undefined && { why: d.why }),
      ...(d.hint !== undefined && { hint: d.hint }),
      ...(draft && { draft }),
    };
  });
}

/** How many glyphs of each set are drawn, and how many it has. */
export const setCounts = (project: Project): Record<string, { drawn: number; all: number }> =>
  Object.fromEntries(
    SETS.map((set) => {
      const items = itemsOf(project, set);
      return [set.key, { drawn: items.filter((i) => isDrawn(project, glyphOf(project, i))).length, all: items.length }];
    }),
  );
