import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, plural, refused } from './edit';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from './model';
import { drawingsOf, flattened } from './outline';
import { pairSides } from './pairs';
import { writesName } from './rename';
import { waypointId } from './waypoints';

/** Taking glyphs away, and what becomes of all that refers to them. */

/** Is any of some glyphs a part of this one, in any master? */
export const hasPartOf = (glyph: Glyph, ids: ReadonlySet<GlyphId>): boolean =>
  Object.values(glyph.drawings).some((d) => d.components.some((c) => ids.has(c.glyph)));

/** Why glyphs cannot be removed, or undefined. */
export function removalFault(project: Project, ids: readonly GlyphId[]): string | undefined {
  const kept = ids.flatMap((id) => project.glyphs[id] ?? []).find((g) => g.name === '.notdef' || g.name === 'space');
  return kept && `Every font needs ${kept.name}; it cannot be removed.`;
}

/** Settings without what speaks of glyphs: recipes of theirs, findings accepted in them, what a set made of them. */
function withoutGlyphs(
  settings: Project['settings'],
  names: ReadonlySet<string>,
  ids: ReadonlySet<GlyphId>,
): Project['settings'] {
  const { recipes, preflight, deriving } = settings;
  const accepts = preflight?.accepted?.some((each) => each.glyph !== undefined && names.has(each.glyph));
  return {
    ...settings,
    ...(recipes?.some((r) => names.has(r.glyph)) && { recipes: recipes.filter((r) => !names.has(r.glyph)) }),
    ...(deriving?.made?.some((m) => ids.has(m.glyph)) && {
      deriving: { ...deriving, made: deriving.made.filter((m) => !ids.has(m.glyph)) },
    }),
    ...(accepts && {
      preflight: {
        ...preflight,
        accepted: preflight!.accepted!.filter((each) => each.glyph === undefined || !names.has(each.glyph)),
      },
    }),
  };
}

/**
 * Removes glyphs and everything that refers to them: components, group memberships, pairs, follow rules, recipes of theirs.
 * `.notdef` and the space stay. Letters that they are parts of keep their look where their parts are drawn out first.
 */
export const removeGlyphs = defineEdit(
  {
    name: 'removeGlyphs',
    does: 'Removes glyphs and what refers to them',
    reach: 'all masters',
    args: z.object({ ids: a.glyphs, drawOut: z.boolean().optional() }),
  },
  (project, { ids, drawOut }) => {
    const doomed = new Set(ids.filter((id) => project.glyphs[id]));
    if (doomed.size === 0) return refused('Those glyphs are no longer in the project.');
    const kept = removalFault(project, ids);
    if (kept) return refused(kept);
    const glyphs: Record<GlyphId, Glyph> = {};
    for (const [id, glyph] of Object.entries(project.glyphs))
      if (!doomed.has(id)) glyphs[id] = withoutReferences(drawOut ? drawnOut(project, glyph, doomed) : glyph, doomed);
    const gone = (side: { kind: string; id: string }) => side.kind === 'glyph' && doomed.has(side.id);
    const names = new Set([...doomed].map((id) => project.glyphs[id]!.name));
    const next: Project = {
      ...project,
      glyphs,
      glyphOrder: project.glyphOrder.filter((id) => !doomed.has(id)),
      groups: project.groups.some((g) => g.members.some((m) => doomed.has(m)))
        ? project.groups.map((g) => ({ ...g, members: g.members.filter((m) => !doomed.has(m)) }))
        : project.groups,
      masters: project.masters.map((m) => ({
        ...m,
        kerning: Object.fromEntries(Object.entries(m.kerning).filter(([k]) => !pairSides(k)?.some(gone))),
      })),
      settings: withoutGlyphs(project.settings, names, doomed),
    };
    return edited(
      next,
      doomed.size === 1
        ? `Removed ${project.glyphs[[...doomed][0]!]!.name}`
        : `Removed ${plural(doomed.size, 'glyph')}`,
    );
  },
);

/** A glyph whose parts of some glyphs are outlines of its own. */
function drawnOut(project: Project, glyph: Glyph, doomed: ReadonlySet<GlyphId>): Glyph {
  if (!hasPartOf(glyph, doomed)) return glyph;
  const out = (m: MasterId, d: Drawing): Drawing => {
    const going = d.components.filter((c) => doomed.has(c.glyph));
    const contours = flattened({ ...d, contours: [], components: going }, drawingsOf(project, m));
    const components = d.components.filter((c) => !doomed.has(c.glyph));
    return { ...d, contours: [...d.contours, ...contours], components };
  };
  return {
    ...glyph,
    drawings: Object.fromEntries(Object.entries(glyph.drawings).map(([m, d]) => [m, out(m, d)])),
    waypoints: glyph.waypoints.map((w) => ({ ...w, drawing: out(waypointId(w.place), w.drawing) })),
  };
}

/** What refers to some glyphs, and what becomes of it: a sentence for each kind of thing; none when nothing does. */
export function removalConsequences(project: Project, ids: readonly GlyphId[], drawOut = false): string[] {
  const doomed = new Set(ids);
  const names = new Set(ids.flatMap((id) => project.glyphs[id]?.name ?? []));
  const codes = new Set(ids.flatMap((id) => project.glyphs[id]?.unicodes ?? []));
  const staying = Object.values(project.glyphs).filter((g) => !doomed.has(g.id));
  const composites = staying.filter((g) => hasPartOf(g, doomed));
  const givers = staying.filter((g) => g.handovers.some((h) => doomed.has(h.glyph)));
  const groups = project.groups.filter((g) => g.members.some((m) => doomed.has(m)));
  const pairs = new Set(
    project.masters.flatMap((m) =>
      Object.keys(m.kerning).filter((k) => pairSides(k)?.some((s) => s.kind === 'glyph' && doomed.has(s.id))),
    ),
  );
  const followers = staying.filter((g) => [...g.follows.left, ...g.follows.right].some((f) => doomed.has(f.glyph)));
  const lists = (project.settings.lists ?? []).filter((l) => {
    const words = l.text.split(/[\s,]+/);
    return words.some((w) => names.has(w.replace(/^\//, '')) || [...w].some((c) => codes.has(c.codePointAt(0)!)));
  });
  const recipes = (project.settings.recipes ?? []).filter((r) =>
    [r.base, ...r.parts.map((p) => p.glyph)].some((n) => names.has(n)),
  );
  const written = project.features.sections.filter((s) => [...names].some((n) => writesName(s.text, n)));
  const list = (all: Iterable<string>) => {
    const some = [...all];
    return `${some.slice(0, 4).join(', ')}${some.length > 4 ? '…' : ''}`;
  };
  return [
    composites.length > 0 &&
      `${plural(composites.length, 'letter')} (${list(composites.map((g) => g.name))}) ${
        drawOut ? 'keep their look: the part is drawn out.' : 'lose a part.'
      }`,
    followers.length > 0 &&
      `${plural(followers.length, 'glyph')} (${list(followers.map((g) => g.name))}) no longer follow its sides; they stay as wide as they are.`,
    givers.length > 0 &&
      `${plural(givers.length, 'glyph')} (${list(givers.map((g) => g.name))}) no longer give way to it.`,
    groups.length > 0 && `${plural(groups.length, 'kerning group')} go on without it.`,
    pairs.size > 0 && `${plural(pairs.size, 'kerning value')} for it alone go.`,
    lists.length > 0 && `${list(lists.map((l) => l.name))}: the list keeps it, as missing.`,
    recipes.length > 0 && `${list(recipes.map((r) => r.glyph))} can no longer be put together by the recipe.`,
    written.length > 0 &&
      `${plural(written.length, 'section')} of feature text still name it, which is an error there.`,
  ].filter((s) => s !== false);
}

function withoutReferences(glyph: Glyph, doomed: ReadonlySet<GlyphId>): Glyph {
  const uses = hasPartOf(glyph, doomed);
  const gives = glyph.handovers.some((h) => doomed.has(h.glyph));
  const follows = [...glyph.follows.left, ...glyph.follows.right].some((f) => doomed.has(f.glyph));
  if (!uses && !follows && !gives) return glyph;
  const without = (d: Drawing): Drawing => ({ ...d, components: d.components.filter((c) => !doomed.has(c.glyph)) });
  return {
    ...glyph,
    handovers: glyph.handovers.filter((h) => !doomed.has(h.glyph)),
    waypoints: glyph.waypoints.map((w) => ({ ...w, drawing: without(w.drawing) })),
    drawings: Object.fromEntries(Object.entries(glyph.drawings).map(([m, d]) => [m, without(d)])),
    follows: {
      left: glyph.follows.left.filter((f) => !doomed.has(f.glyph)),
      right: glyph.follows.right.filter((f) => !doomed.has(f.glyph)),
    },
  };
}
