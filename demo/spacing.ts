import { updateFollows } from '../src/core/fitting/follows';
import { type FitProposal, proposeFit, takeFit } from '../src/core/fitting/proposal';
import { kerningFaults } from '../src/core/kerning/faults';
import { proposeKerning } from '../src/core/kerning/proposal';
import { textGlyphs } from '../src/core/kerning/text';
import { groupsByGlyph, kerningOf, membersOf } from '../src/core/project/kerningLookup';
import type { Project } from '../src/core/project/model';
import { type PairSide, pairKey, pairSides } from '../src/core/project/pairs';
import { glyphNamed } from '../src/core/project/queries';
import data from './spacing.json';

/**
 * The spacing of the family, worked out by Wendril itself (see space.ts, which writes it): sides by master and glyph name, kerning
 * of groups by master.
 */
export type Spacing = {
  sides: Readonly<Record<string, Readonly<Record<string, readonly number[]>>>>;
  kerning: Readonly<Record<string, Readonly<Record<string, number>>>>;
};

/** Letters that the others are fitted by, and some whose tails and arms the drawing office set by eye. */
const KEPT = new Set(['n', 'o', 'H', 'O', 'l', 'l.ss01', 'L', 't', 'f']);
const LETTER = /^(?:[A-Za-z]|dotlessi|dotlessj)(?:\.\w+)?$/;

/** Sides for all letters, from n, o, H and O in every master. */
export function fitByModel(project: Project): Spacing['sides'] {
  const keep = new Set(
    project.glyphOrder.filter((id) => KEPT.has(project.glyphs[id]!.name) || !LETTER.test(project.glyphs[id]!.name)),
  );
  return Object.fromEntries(
    project.masters.map((m) => [
      m.id,
      Object.fromEntries(
        proposeFit(project, m.id, project.glyphOrder, keep).map(({ glyph, left, right }) => [
          project.glyphs[glyph]!.name,
          [left, right],
        ]),
      ),
    ]),
  );
}

/** Glyphs in no group that are kerned all the same. */
const ALONE = new Set(['V', 'slash']);

/** Values under this, in units, are not worth a pair, unless another master has it; nor is an exception that changes less. */
const LEAST = 6;
const EXCEPTION = 24;

/** Kerning of all groups, each master by its own controls, the same pairs in all of them; members that would touch have their own. */
export function kernByModel(project: Project): Spacing['kerning'] {
  const ids = textGlyphs(project);
  const found = project.masters.map((m) => {
    const pairs = proposeKerning(project, m.id, ids, ids, { least: 1, step: 2, most: 100_000 }).pairs.map(
      (p) => [pairKey(p.first, p.second), p] as const,
    );
    return { ...m, pairs: new Map(pairs), kerning: Object.fromEntries(pairs.map(([key, p]) => [key, p.value])) };
  });
  const groups = groupsByGlyph(project);
  /** Sides that are kerned as such: groups, and glyphs by themselves that are worth it. */
  const whole = (side: PairSide, as: 'first' | 'second') =>
    side.kind === 'group' || (!groups[as].has(side.id) && ALONE.has(project.glyphs[side.id]!.name));
  const keys = new Set<string>();
  for (const m of found)
    for (const [key, { first, second, value }] of m.pairs)
      if (whole(first, 'first') && whole(second, 'second') && Math.abs(value) >= LEAST) keys.add(key);
  for (const m of found) {
    const grouped = { kerning: Object.fromEntries(Object.entries(m.kerning).filter(([key]) => keys.has(key))) };
    for (const [key, { first, second, value }] of m.pairs) {
      if (keys.has(key)) continue;
      const under =
        kerningOf(project, grouped, membersOf(project, first)[0]!, membersOf(project, second)[0]!, key)?.value ?? 0;
      if (value - under >= EXCEPTION) keys.add(key);
    }
  }
  const sorted = [...keys].sort();
  const kerning = Object.fromEntries(
    found.map((m) => [
      m.id,
      Object.fromEntries(
        sorted.map((key) => {
          const [first, second] = pairSides(key)!;
          const plain = whole(first, 'first') && whole(second, 'second');
          // What the proposal leaves out is 0 for groups; an exception has what its groups have.
          return [
            key,
            m.kerning[key] ??
              (plain
                ? 0
                : (kerningOf(project, m, membersOf(project, first)[0]!, membersOf(project, second)[0]!)?.value ?? 0)),
          ];
        }),
      ),
    ]),
  );
  const result = withKerning(project, kerning);
  const needless = new Set(
    kerningFaults(result, result.masters[0]!).flatMap(
      (f) => (f.mend?.args as { keys?: readonly string[] } | undefined)?.keys ?? [],
    ),
  );
  return Object.fromEntries(
    Object.entries(kerning).map(([master, values]) => [
      master,
      Object.fromEntries(Object.entries(values).filter(([key]) => !needless.has(key))),
    ]),
  );
}

/** The family with its sides set, and those that follow them. */
export function withSides(project: Project, sides: Spacing['sides']): Project {
  let current = project;
  for (const [master, glyphs] of Object.entries(sides)) {
    const proposals = Object.entries(glyphs).map(
      ([name, [left, right]]): FitProposal => ({
        glyph: glyphNamed(project, name)!.id,
        left: left!,
        right: right!,
        now: { left: 0, right: 0 },
      }),
    );
    const done = takeFit(current, { master, proposals });
    if (done.ok) current = done.project;
  }
  const updated = updateFollows(current, {});
  return updated.ok ? updated.project : current;
}

export const withKerning = (project: Project, kerning: Spacing['kerning']): Project => ({
  ...project,
  masters: project.masters.map((m) => ({ ...m, kerning: kerning[m.id] ?? {} })),
});

/** The family as it is shipped. */
export const spaced = (project: Project): Project =>
  withKerning(withSides(project, (data as unknown as Spacing).sides), (data as unknown as Spacing).kerning);
