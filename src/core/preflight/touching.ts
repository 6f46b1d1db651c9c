import { shownNumber } from '../base/notation';
import { type Profile, profileOf } from '../fitting/profile';
import { distanceBetween } from '../kerning/collisions';
import { sideName } from '../project/kerningLookup';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { type PairSide, pairSides } from '../project/pairs';
import { type Amounts, type Finding, finding } from './finding';

/** How near to its edges a glyph's ink comes: before it and after it. */
type Edge = { profile: Profile; before: number; after: number };
const edges = new WeakMap<Float64Array, { before: number; farthest: number }>();

function edgeOf(project: Project, id: GlyphId, master: Master): Edge {
  const profile = profileOf(project, id, master.id, true);
  let known = edges.get(profile.left);
  if (!known) {
    let [before, farthest] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < profile.left.length; i++) {
      if (profile.left[i]! < before) before = profile.left[i]!;
      if (profile.right[i]! > farthest) farthest = profile.right[i]!;
    }
    known = { before, farthest };
    edges.set(profile.left, known);
  }
  return { profile, before: known.before, after: profile.advance - known.farthest };
}

/** The distance of two glyphs at a value, below nothing where they overlap; none where they do not, or do without kerning, as joining scripts and swashes do on purpose. */
function overlapOf(a: Edge, b: Edge, value: number): number | undefined {
  // Most pairs stand clear of each other by their sides alone.
  if (!(a.after + b.before + value < 0)) return undefined;
  const away = distanceBetween(a.profile, b.profile, value);
  return away < 0 && !(distanceBetween(a.profile, b.profile, 0) < 0) ? away : undefined;
}

/** A pair that its value draws together, by the glyphs that speak for its sides; `away` is below nothing where they overlap. */
type Pair = {
  readonly key: string;
  readonly first: GlyphId;
  readonly second: GlyphId;
  readonly value: number;
  away: number | undefined;
};
/** The pairs of a master, and which of them a glyph is in. */
type Pairs = {
  readonly of: readonly unknown[];
  readonly all: readonly Pair[];
  readonly by: ReadonlyMap<GlyphId, readonly Pair[]>;
  /** What the glyphs of the pairs looked like when they were measured. */
  readonly looks: Map<GlyphId, readonly unknown[]>;
};

/**
 * Kerned pairs whose ink meets, in each master; looked at for each group by one glyph of it. What was looked at is known again until one of the
 * two glyphs has changed.
 */
export class Touching {
  private readonly pairs = new Map<MasterId, Pairs>();
  private versions = new Map<GlyphId, object>();

  /** `version` gives of a glyph something that is another when its outline is. */
  findings(
    project: Project,
    amounts: Amounts,
    version: (id: GlyphId) => object = (id) => project.glyphs[id]!,
  ): Finding[] {
    const most = (amounts('kerning/touching') * project.unitsPerEm) / 1000;
    const now = new Map(project.glyphOrder.map((id) => [id, version(id)]));
    const changed = project.glyphOrder.filter((id) => now.get(id) !== this.versions.get(id));
    // A group is spoken for by another glyph once that one is drawn otherwise.
    const speaks = speakers(project);
    this.versions = now;
    const out = new Map<string, Finding>();
    for (const master of project.masters) {
      const pairs = this.pairsOf(project, master, speaks, changed);
      for (const { key, first, second, value, away } of pairs.all) {
        if (away === undefined || away >= -most) continue;
        const held = out.get(key);
        if (held) {
          out.set(key, { ...held, masters: [...held.masters, master.id], bad: Math.max(held.bad, -away) });
          continue;
        }
        const names = pairSides(key)!.map((s) => sideName(project, s));
        out.set(
          key,
          finding(
            'kerning/touching',
            `${names.join(' ')} overlap by ${Math.round(-away)} units at ${shownNumber(value)}.`,
            {
              glyph: first,
              others: [second],
              masters: [master.id],
              bad: -away,
            },
          ),
        );
      }
    }
    return [...out.values()];
  }

  /** The pairs of a master, those of changed glyphs measured anew. */
  private pairsOf(project: Project, master: Master, speaks: Speaks, changed: readonly GlyphId[]): Pairs {
    const of = [master.kerning, speaks.key, project.glyphOrder];
    const held = this.pairs.get(master.id);
    const known = new Map<GlyphId, Edge>();
    const edge = (id: GlyphId) => {
      const found = known.get(id) ?? edgeOf(project, id, master);
      known.set(id, found);
      return found;
    };
    const look = (pair: Pair) => {
      pair.away = overlapOf(edge(pair.first), edge(pair.second), pair.value);
    };
    if (held?.of.every((v, i) => v === of[i])) {
      // What was changed in another master is here as it was.
      const here = changed.filter((id) => {
        const [was, now] = [held.looks.get(id), looksOf(project, id, master.id)];
        if (held.by.has(id)) held.looks.set(id, now);
        return was?.length !== now.length || now.some((v, i) => v !== was[i]);
      });
      for (const pair of new Set(here.flatMap((id) => held.by.get(id) ?? []))) look(pair);
      return held;
    }
    // Other values or groups: what is as it was, and between glyphs that are as they were, need not be measured.
    const before = new Map(held?.all.map((p) => [p.key, p]));
    const other = new Set(changed);
    const by = new Map<GlyphId, Pair[]>();
    const all = Object.entries(master.kerning).flatMap(([key, value]) => {
      if (value >= 0) return [];
      const [first, second] = pairSides(key)?.map((s) => speaks.of(s)) ?? [];
      if (!first || !second) return [];
      const pair: Pair = { key, first, second, value, away: undefined };
      const was = before.get(key);
      if (
        was?.first === first &&
        was.second === second &&
        was.value === value &&
        !other.has(first) &&
        !other.has(second)
      )
        pair.away = was.away;
      else look(pair);
      for (const id of first === second ? [first] : [first, second]) {
        const own = by.get(id);
        if (own) own.push(pair);
        else by.set(id, [pair]);
      }
      return [pair];
    });
    const looks = new Map([...by.keys()].map((id) => [id, looksOf(project, id, master.id)]));
    const made = { of, all, by, looks };
    this.pairs.set(master.id, made);
    return made;
  }
}

/** The drawings that a glyph is seen by in a master: its own and those of its parts. */
function looksOf(project: Project, id: GlyphId, master: MasterId, depth = 0): readonly unknown[] {
  const drawing = project.glyphs[id]?.drawings[master];
  if (!drawing || drawing.components.length === 0 || depth > 16) return [drawing];
  return [drawing, ...drawing.components.flatMap((c) => looksOf(project, c.glyph, master, depth + 1))];
}

const drawnKnown = new WeakMap<Glyph, boolean>();

/** Is a glyph drawn, without parts, in every master? */
function isDrawn(glyph: Glyph): boolean {
  const known = drawnKnown.get(glyph) ?? Object.values(glyph.drawings).every((d) => d.components.length === 0);
  drawnKnown.set(glyph, known);
  return known;
}

type Speaks = { readonly key: string; readonly of: (side: PairSide) => GlyphId | undefined };

/** Of each group the member that is drawn, not put together: it is what the group is named for, mostly. `key` is the same while they are. */
function speakers(project: Project): Speaks {
  const drawn = (id: GlyphId) => isDrawn(project.glyphs[id]!);
  const by = new Map(
    project.groups.map(({ id, members: all }): [string, GlyphId | undefined] => {
      const members = all.filter((m) => project.glyphs[m]);
      return [id, members.find(drawn) ?? members[0]];
    }),
  );
  return {
    key: JSON.stringify([...by]),
    of: (side) => (side.kind === 'group' ? by.get(side.id) : project.glyphs[side.id] ? side.id : undefined),
  };
}
