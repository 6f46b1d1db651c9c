import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Project } from '../project/model';
import type { Amounts, Finding } from './finding';
import { kindOf } from './kinds';

export type Accepted = NonNullable<NonNullable<Project['settings']['preflight']>['accepted']>[number];

/** Is a kind looked for in a project? */
export function isJudged(project: Project, kind: string): boolean {
  const own = project.settings.preflight?.kinds?.[kind]?.on;
  return own ?? kindOf(kind)?.onRequest !== true;
}

/** The number by which a kind is judged in a project, held within the kind's bounds. */
export const amountsOf =
  (project: Project): Amounts =>
  (kind) => {
    const facts = kindOf(kind)?.amount;
    if (!facts) return 0;
    const own = project.settings.preflight?.kinds?.[kind]?.amount;
    return own === undefined ? facts.usual : Math.min(facts.most, Math.max(facts.least, own));
  };

const acceptedKey = (kind: string, glyph: string | undefined): string => `${kind} ${glyph ?? ''}`;

/** Findings parted into those that stand and those that were accepted; one more of a kind than was accepted brings all of them back. */
export function parted(
  project: Project,
  findings: readonly Finding[],
): { standing: readonly Finding[]; accepted: readonly Finding[] } {
  const list = project.settings.preflight?.accepted ?? [];
  if (list.length === 0) return { standing: findings, accepted: [] };
  const most = new Map(list.map((each) => [acceptedKey(each.kind, each.glyph), each.count]));
  const keyOf = (f: Finding) => acceptedKey(f.kind, f.glyph && project.glyphs[f.glyph]?.name);
  const counts = new Map<string, number>();
  for (const f of findings) counts.set(keyOf(f), (counts.get(keyOf(f)) ?? 0) + 1);
  const isAccepted = (f: Finding) =>
    most.has(acceptedKey(f.kind, undefined)) || (most.get(keyOf(f)) ?? 0) >= counts.get(keyOf(f))!;
  return { standing: findings.filter((f) => !isAccepted(f)), accepted: findings.filter(isAccepted) };
}

/** Accepts findings of a kind, of one glyph or of all, with the reason; they are counted and shown again on request. */
export const acceptFindings = defineEdit(
  {
    name: 'acceptFindings',
    does: 'Accepts what was found as meant',
    reach: 'all masters',
    args: z.object({
      kind: z.string().max(80),
      /** The name of the glyph; without it all findings of the kind are accepted. */
      glyph: a.text.optional(),
      count: z.number().int().min(1).max(1_000_000),
      reason: z.string().trim().max(400),
    }),
  },
  (project, { kind, glyph, count, reason }) => {
    const facts = kindOf(kind);
    if (!facts) return refused(`There is no kind of finding “${kind}”.`);
    const before = project.settings.preflight?.accepted ?? [];
    const accepted: Accepted[] = [
      ...before.filter((each) => each.kind !== kind || (glyph !== undefined && each.glyph !== glyph)),
      { kind, count, reason, ...(glyph !== undefined && { glyph }) },
    ];
    return edited(
      { ...project, settings: { ...project.settings, preflight: { ...project.settings.preflight, accepted } } },
      `Accepted ${facts.title.toLowerCase()} in ${glyph ?? 'all glyphs'}`,
    );
  },
);

/** Takes back that findings were accepted. */
export const unacceptFindings = defineEdit(
  {
    name: 'unacceptFindings',
    does: 'Brings back findings that were accepted',
    reach: 'all masters',
    args: z.object({ kind: z.string().max(80), glyph: a.text.optional() }),
  },
  (project, { kind, glyph }) => {
    const before = project.settings.preflight?.accepted ?? [];
    const accepted = before.filter((each) => each.kind !== kind || each.glyph !== glyph);
    if (accepted.length === before.length) return refused('That was not accepted.');
    return edited(
      { ...project, settings: { ...project.settings, preflight: { ...project.settings.preflight, accepted } } },
      `Brought back ${plural(before.length - accepted.length, 'finding')} that ${glyph ? `${glyph} was` : 'were'} accepted for`,
    );
  },
);

/** Says which kinds are looked for, and how strictly; null gives a kind back to its usual measure. */
export const judgeKinds = defineEdit(
  {
    name: 'judgeKinds',
    does: 'Says what is looked for, and how strictly',
    reach: 'all masters',
    args: z.object({
      kinds: z.record(
        z.string().max(80),
        z.object({ on: z.boolean().optional(), amount: z.number().min(0).max(1e6).optional() }).nullable(),
      ),
    }),
  },
  (project, { kinds }) => {
    const next = { ...project.settings.preflight?.kinds };
    for (const [kind, how] of Object.entries(kinds)) {
      const facts = kindOf(kind);
      if (!facts) return refused(`There is no kind of finding “${kind}”.`);
      const { amount } = how ?? {};
      if (amount !== undefined && facts.amount && (amount < facts.amount.least || amount > facts.amount.most))
        return refused(`${facts.title}: ${facts.amount.least} to ${facts.amount.most} ${facts.amount.unit}.`);
      if (how === null) delete next[kind];
      else next[kind] = { ...next[kind], ...how };
    }
    return edited(
      { ...project, settings: { ...project.settings, preflight: { ...project.settings.preflight, kinds: next } } },
      'Changed how faults are judged',
    );
  },
);
