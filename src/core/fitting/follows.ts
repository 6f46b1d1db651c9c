import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused, withGlyph } from '../project/edit';
import type { Glyph, GlyphId, MasterId, Project } from '../project/model';
import { glyphThere } from '../project/queries';
import { ManySides, type SideName, sidesOf } from './sides';

/** Side bearings bound to another glyph's side: same or mirrored, with an offset, for every master or one. */
export type Follow = Glyph['follows']['left'][number];

/** The rule that holds for a side in a master: one made for that master wins over one for all. */
export const followOf = (glyph: Glyph, side: SideName, master: MasterId): Follow | undefined =>
  glyph.follows[side].find((f) => f.master === master) ?? glyph.follows[side].find((f) => f.master === undefined);

/** A rule as a sentence: “follows n, left, +4, this master only”. */
export function followSentence(project: Project, follow: Follow): string {
  const parts = [`follows ${project.glyphs[follow.glyph]?.name ?? 'a missing glyph'}`, follow.side];
  if (follow.offset !== 0) parts.push(`${follow.offset > 0 ? '+' : '−'}${Math.abs(follow.offset)}`);
  if (follow.master !== undefined) parts.push('this master only');
  return parts.join(', ');
}

type Node = { glyph: GlyphId; side: SideName };
const same = (a: Node, b: Node) => a.glyph === b.glyph && a.side === b.side;

/** The chain of sides by which one follows itself, or undefined. */
function cycle(project: Project, start: Node, master: MasterId): Node[] | undefined {
  const chain: Node[] = [start];
  for (;;) {
    const last = chain[chain.length - 1]!;
    const glyph = project.glyphs[last.glyph];
    const follow = glyph && followOf(glyph, last.side, master);
    if (!follow) return undefined;
    const next = { glyph: follow.glyph, side: follow.side };
    chain.push(next);
    if (same(next, start)) return chain;
    if (chain.slice(0, -1).some((n) => same(n, next))) return undefined;
  }
}

/** A rule as it is chosen. */
const newFollow = z.object({ glyph: a.glyph, side: a.side, offset: a.number, everyMaster: z.boolean() });
export type NewFollow = z.infer<typeof newFollow>;
/** A side with the rule that it shall follow. */
export type Binding = { glyph: GlyphId; side: SideName; follow: NewFollow };

/** A project with one more rule, nothing worked out yet. A circle is refused with its chain. */
function withRule(project: Project, { glyph: id, side, follow }: Binding, master: MasterId): Outcome {
  const glyph = glyphThere(project, id);
  glyphThere(project, follow.glyph);
  if (!Number.isFinite(follow.offset)) return refused('An offset is a number of units.');
  const rule: Follow = {
    glyph: follow.glyph,
    side: follow.side,
    offset: follow.offset,
    ...(follow.everyMaster ? {} : { master }),
  };
  const others = glyph.follows[side].filter((f) => !follow.everyMaster && f.master !== master);
  const next = withGlyph(project, { ...glyph, follows: { ...glyph.follows, [side]: [...others, rule] } });
  for (const m of project.masters) {
    const chain = cycle(next, { glyph: id, side }, m.id);
    if (chain)
      return refused(
        `That would go in a circle: ${chain.map((n) => `${project.glyphs[n.glyph]?.name} ${n.side}`).join(' → ')}.`,
      );
  }
  return edited(next, `The ${side} side of ${glyph.name} ${followSentence(project, rule)}`);
}

/** Binds sides to others in one step, all or none; values are written at once, chains in their order. */
export const setFollows = defineEdit(
  {
    name: 'setFollows',
    does: 'Lets sides follow others',
    reach: 'masters named',
    args: z.object({
      bindings: z.array(z.object({ glyph: a.glyph, side: a.side, follow: newFollow })).readonly(),
      master: a.master,
    }),
  },
  (project, { bindings, master }) => {
    const [first] = bindings;
    if (!first) return refused('Choose a glyph to bind.');
    let current = project;
    let sentence = '';
    for (const binding of bindings) {
      const done = withRule(current, binding, master);
      if (!done.ok) return done;
      ({ project: current, sentence } = done);
    }
    const updated = updateFollows(current, {});
    const of = new Set(bindings.map((b) => b.glyph)).size;
    return edited(
      updated.ok ? updated.project : current,
      bindings.length === 1
        ? sentence
        : `${plural(bindings.length, 'side')} of ${plural(of, 'glyph')} follow ${project.glyphs[first.follow.glyph]?.name}`,
    );
  },
);

/** Binds a side to another glyph's side, or lets it go with no rule. */
export const setFollow = defineEdit(
  {
    name: 'setFollow',
    does: 'Lets a side follow another, or lets it go',
    reach: 'masters named',
    args: z.object({
      glyph: a.glyph,
      side: a.side,
      master: a.master,
      follow: newFollow.optional(),
      /** Lets the side go in this master only; a rule for every master stays in all others. */
      hereOnly: z.boolean().optional(),
    }),
  },
  (project, { glyph: id, side, master, follow, hereOnly = false }) => {
    if (follow) return setFollows(project, { bindings: [{ glyph: id, side, follow }], master });
    const glyph = glyphThere(project, id);
    const rules = glyph.follows[side];
    if (!followOf(glyph, side, master)) return refused('That side follows nothing.');
    const rest = hereOnly
      ? project.masters.flatMap((m) => {
          const rule = m.id === master ? undefined : followOf(glyph, side, m.id);
          return rule ? [{ ...rule, master: m.id }] : [];
        })
      : rules.filter((f) => f.master !== undefined && f.master !== master);
    return edited(
      withGlyph(project, { ...glyph, follows: { ...glyph.follows, [side]: rest } }),
      `Let the ${side} side of ${glyph.name} go free${hereOnly ? ` in ${project.masters.find((m) => m.id === master)?.name}` : ''}`,
    );
  },
);

/** How both sides of a glyph follow another: left by left and right by right, or as its mirror image. */
export type Both = 'same' | 'mirrored';

/** Rules for both sides of some glyphs after another glyph. */
export const bothSides = (glyphs: readonly GlyphId[], how: Both, follow: Omit<NewFollow, 'side'>): Binding[] =>
  glyphs.flatMap((glyph) =>
    (['left', 'right'] as const).map((side) => ({
      glyph,
      side,
      follow: { ...follow, side: (how === 'same') === (side === 'left') ? ('left' as const) : ('right' as const) },
    })),
  );

/** Letters that are another one with a stroke, which Unicode does not take apart. */
const STROKED: Readonly<Record<string, string>> = {
  ø: 'o',
  Ø: 'O',
  đ: 'd',
  Đ: 'D',
  ħ: 'h',
  Ħ: 'H',
  ł: 'l',
  Ł: 'L',
  ŧ: 't',
  Ŧ: 'T',
  ı: 'i',
  ȷ: 'j',
};

/**
 * Glyphs built on another that have outlines of their own: its accented and stroked letters, its small caps and alternates.
 * Those that hold it as their first part follow it by themselves and are left out.
 */
export function builtOn(project: Project, source: Glyph): GlyphId[] {
  const character = source.unicodes[0] === undefined ? undefined : String.fromCodePoint(source.unicodes[0]);
  return project.glyphOrder.filter((id) => {
    const glyph = project.glyphs[id]!;
    const own = Object.values(glyph.drawings).some(
      (d) => d.contours.length > 0 && d.components[0]?.glyph !== source.id,
    );
    if (!own || id === source.id) return false;
    if (glyph.name.startsWith(`${source.name}.`)) return true;
    const letter = glyph.unicodes[0] === undefined ? undefined : String.fromCodePoint(glyph.unicodes[0]);
    return (
      character !== undefined && letter !== undefined && (STROKED[letter] ?? letter.normalize('NFD')[0]) === character
    );
  });
}

/** A side that its rule would set otherwise: what it is and what it should be. */
export type OutOfDate = { glyph: GlyphId; side: SideName; master: MasterId; now: number; wanted: number };

const SIDES = ['left', 'right'] as const;

/** Sides in the order in which rules have to be worked out: what is followed first. */
function inOrder(project: Project, master: MasterId): Node[] {
  const out: Node[] = [];
  const seen = new Set<string>();
  const visit = (n: Node, depth: number) => {
    const key = `${n.glyph} ${n.side}`;
    if (seen.has(key) || depth > 1000) return;
    seen.add(key);
    const glyph = project.glyphs[n.glyph];
    const follow = glyph && followOf(glyph, n.side, master);
    if (!follow) return;
    visit({ glyph: follow.glyph, side: follow.side }, depth + 1);
    out.push(n);
  };
  for (const id of project.glyphOrder)
    for (const side of SIDES) if (project.glyphs[id]?.follows[side].length) visit({ glyph: id, side }, 0);
  return out;
}

function wantedFor(project: Project, n: Node, master: MasterId, sides: typeof sidesOf): OutOfDate | undefined {
  const glyph = project.glyphs[n.glyph];
  const follow = glyph && followOf(glyph, n.side, master);
  const source = follow && project.glyphs[follow.glyph];
  if (!glyph || !source) return undefined;
  const [own, theirs] = [sides(project, glyph, master), sides(project, source, master)];
  if (!('left' in own) || !('left' in theirs)) return undefined;
  const wanted = theirs[follow.side] + follow.offset;
  return Math.abs(own[n.side] - wanted) < 0.01
    ? undefined
    : { glyph: n.glyph, side: n.side, master, now: own[n.side], wanted };
}

/** Sides that no longer are what their rules say, in some masters; `sides` may know what was measured before. */
export const outOfDate = (
  project: Project,
  masters: readonly MasterId[] = project.masters.map((m) => m.id),
  sides = sidesOf,
): OutOfDate[] => {
  const following = project.glyphOrder.flatMap((glyph) =>
    SIDES.flatMap((side) => (project.glyphs[glyph]?.follows[side].length ? [{ glyph, side }] : [])),
  );
  return masters.flatMap((m) => following.flatMap((n) => wantedFor(project, n, m, sides) ?? []));
};

/** Sets every side to what its rule says, chains in their order. */
export const updateFollows = defineEdit(
  {
    name: 'updateFollows',
    does: 'Brings sides that follow up to date',
    reach: 'all masters',
    args: z.object({ masters: a.masters.optional() }),
  },
  (project, { masters = project.masters.map((m) => m.id) }): Outcome => {
    const sides = new ManySides(project);
    let count = 0;
    for (const master of masters) {
      for (const n of inOrder(sides.now, master)) {
        const off = wantedFor(sides.now, n, master, sidesOf);
        if (!off) continue;
        const fault = sides.set({ at: { glyph: n.glyph, master }, [n.side]: off.wanted });
        if (fault) return fault;
        count++;
      }
    }
    return count === 0
      ? refused('Every side is as its rule says.')
      : edited(sides.done(), `Updated ${plural(count, 'side')} that follow another`);
  },
);
