import { followOf, outOfDate } from '../fitting/follows';
import { measureFrom, proposedSides } from '../fitting/optical';
import { ManySides, sidesOf } from '../fitting/sides';
import { withGlyph } from '../project/edit';
import type { Glyph, GlyphId, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import type { Derived } from './derive';
import { isDrawn, type SetFacts } from './sets';

/**
 * Lets the sides of glyphs made from others, name from name, follow each other as those of what they come from do: where B follows
 * H, the small capital of B follows that of H. Offsets stay as they are.
 */
export function withFollowsLike(project: Project, from: ReadonlyMap<string, string>): Project {
  const madeOf = new Map<GlyphId, GlyphId>();
  for (const [to, of] of from) {
    const [made, source] = [glyphNamed(project, to), glyphNamed(project, of)];
    if (made && source) madeOf.set(source.id, made.id);
  }
  let current = project;
  const bound = new Set<GlyphId>();
  for (const [source, made] of madeOf) {
    const glyph = current.glyphs[made]!;
    const like = (side: 'left' | 'right'): Glyph['follows']['left'] =>
      project.glyphs[source]!.follows[side].flatMap((rule) => {
        const other = madeOf.get(rule.glyph);
        return other === undefined ? [] : [{ ...rule, glyph: other }];
      });
    const follows = { left: like('left'), right: like('right') };
    if (follows.left.length + follows.right.length === 0) continue;
    bound.add(made);
    current = withGlyph(current, { ...glyph, follows });
  }
  return bound.size === 0 ? current : upToDate(current, bound);
}

/** Sides of some glyphs as their rules say; what follows a follower takes a turn more. */
function upToDate(project: Project, glyphs: ReadonlySet<GlyphId>): Project {
  let current = project;
  for (let turn = 0; turn < 4; turn++) {
    const off = outOfDate(current).filter((o) => glyphs.has(o.glyph));
    if (off.length === 0) break;
    const sides = new ManySides(current);
    for (const { glyph, side, master, wanted } of off) sides.set({ at: { glyph, master }, [side]: wanted });
    current = sides.done();
  }
  return current;
}

/** What fitting a set came to: the project, and how many glyphs have other sides. */
export type SpacedSet = { readonly project: Project; readonly count: number };

/**
 * Sides for the glyphs that a set made, from its two controls, in every master: the white that those leave goes to all others.
 * What was drawn or corrected by hand stays, and sides that follow another stay with it. A reason where a control is not drawn.
 */
export function spacedSet(project: Project, set: SetFacts, items: readonly Derived[]): SpacedSet | string {
  const names = set.controls?.(project);
  if (!names) return `${set.title} have no controls of their own to be fitted by.`;
  const lack = names.filter((n) => !isDrawn(project, glyphNamed(project, n)));
  if (lack.length > 0)
    return `${lack.join(' and ')} ${lack.length === 1 ? 'is' : 'are'} not drawn in every master yet.`;
  const [straight, round] = names.map((n) => glyphNamed(project, n)!.id) as [GlyphId, GlyphId];
  const made = items.flatMap((i) =>
    (i.state === 'made' || i.state === 'changed') && i.way.how === 'scaled' && !names.includes(i.name)
      ? (glyphNamed(project, i.name)?.id ?? [])
      : [],
  );
  const changed = new Set<GlyphId>();
  const sides = new ManySides(project);
  for (const master of project.masters) {
    const measure = measureFrom(project, master, straight, round);
    if (!measure) continue;
    for (const id of made) {
      const glyph = sides.now.glyphs[id]!;
      const wanted = proposedSides(sides.now, glyph, master.id, measure);
      const now = sidesOf(sides.now, glyph, master.id);
      if (!wanted || !('left' in now)) continue;
      const side = (which: 'left' | 'right') => (followOf(glyph, which, master.id) ? now[which] : wanted[which]);
      const [left, right] = [side('left'), side('right')];
      if (left === now.left && right === now.right) continue;
      if (!sides.set({ at: { glyph: id, master: master.id }, left, right })) changed.add(id);
    }
  }
  return { project: upToDate(sides.done(), new Set(made)), count: changed.size };
}
