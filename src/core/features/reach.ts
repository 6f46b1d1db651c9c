import type { Glyph, Project } from '../project/model';
import { defaultMaster, drawingOf, glyphsInOrder } from '../project/queries';
import { fontTexts, groundOf } from './ground';
import type { DraftLookup } from './lookups';
import { systemsFor } from './scripts';
import { compileSections } from './sections';

/** What a lookup makes of what, contexts aside. */
export function* replacements(l: DraftLookup): Generator<readonly [from: readonly number[], to: readonly number[]]> {
  for (const p of l.parts)
    switch (p.kind) {
      case 'single':
        for (const [g, to] of p.by) yield [[g], [to]];
        break;
      case 'multiple':
      case 'alternate':
        for (const [g, to] of p.by) yield [[g], to];
        break;
      case 'ligature':
        for (const { parts, to } of p.ligatures) yield [parts, [to]];
        break;
      case 'reverse':
        for (const { by } of p.rules) for (const [g, to] of by) yield [[g], [to]];
    }
}

/** All that rules make of some glyphs, by index, contexts aside; those that they begin with are among them. */
export function reachedBy(drafts: readonly DraftLookup[], begun: Iterable<number>): ReadonlySet<number> {
  const reached = new Set(begun);
  const subs = drafts.filter((l) => l.table === 'GSUB');
  for (let before = -1; before !== reached.size; ) {
    before = reached.size;
    for (const l of subs)
      for (const [from, to] of replacements(l))
        if (from.every((g) => reached.has(g))) for (const g of to) reached.add(g);
  }
  return reached;
}

/** Names of the glyphs that fonts of a project need for some of them: these, what rules make of them, and what they give way to. */
export function reachedFrom(project: Project, begins: (glyph: Glyph) => boolean): ReadonlySet<string> {
  const cast = glyphsInOrder(project).filter((g) => g.cast);
  const names = cast.map((g) => g.name);
  const main = defaultMaster(project).id;
  const entries = cast.map((glyph) => ({ glyph, drawing: drawingOf(glyph, main) }));
  const { included, languageSystems, sections } = project.features;
  const compiled = compileSections(fontTexts(sections, groundOf(entries, project.unitsPerEm)), included, {
    glyphs: names,
    away: new Set(Object.values(project.glyphs).flatMap((g) => (g.cast ? [] : [g.name]))),
    systems: systemsFor(
      cast.flatMap((g) => g.unicodes),
      languageSystems,
    ),
    place: { axes: project.axes, at: {} },
    // Rules under conditions count wherever they hold.
    vary: () => undefined,
  });
  const at = new Map(cast.map((g, i) => [g.id, i]));
  const standIns = (reached: ReadonlySet<number>): number[] =>
    [...reached].flatMap((i) => cast[i]!.handovers.flatMap((h) => at.get(h.glyph) ?? []));
  let reached = reachedBy(
    compiled.drafts,
    cast.flatMap((g, i) => (begins(g) ? [i] : [])),
  );
  for (let before = -1; before !== reached.size; ) {
    before = reached.size;
    reached = reachedBy(compiled.drafts, [...reached, ...standIns(reached)]);
  }
  return new Set([...reached].map((i) => names[i]!));
}
