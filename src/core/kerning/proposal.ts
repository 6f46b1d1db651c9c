import { groupsByGlyph, kerningOf, membersOf, widestSides } from '../project/kerningLookup';
import type { GlyphId, Group, Master, MasterId, Project } from '../project/model';
import { type PairSide, pairKey, pairSides } from '../project/pairs';
import { drawingOf, glyphForCodePoint, isEmptyDrawing } from '../project/queries';
import { modelKerning } from './optical';
import frequencies from './pairFrequencies.json';

export type ProposalSettings = {
  least: number;
  step: number;
  most: number;
  /** Only what these pairs of glyphs get their kerning from; all when absent. */
  only?: readonly (readonly [GlyphId, GlyphId])[];
};
export const USUAL = { least: 4, step: 5, most: 1500 } as const satisfies ProposalSettings;

/** What kerning is stepped by in a project, in font units. */
export const stepOf = (project: Pick<Project, 'settings'>): number => project.settings.kerningStep ?? USUAL.step;

/** A pair that is proposed: its sides, its value, what it has now, and how many pairs of glyphs it moves. */
export type ProposedPair = { first: PairSide; second: PairSide; value: number; now: number; glyphs: number };

const rounded = (v: number, step: number): number => (step > 0 ? Math.round(v / step) * step : Math.round(v)) || 0;
const sideKey = (s: PairSide): string => `${s.kind}:${s.id}`;

/**
 * How far a pair may be from the value of its groups, in units, before it gets one of its own: little where it would come too near or
 * is of the plain alphabet, more where accented letters would only stand too open.
 */
const ALIKE = 12;
const OPEN_BUT_RARE = 36;
/** What text is made of: letters, figures and punctuation. Signs, marks and raised figures are kerned by hand. */
export const textGlyphs = (project: Project): GlyphId[] =>
  project.glyphOrder.filter((id) =>
    project.glyphs[id]!.unicodes.some(
      (c) =>
        /[\p{L}\p{Nd}\p{P}]/u.test(String.fromCodePoint(c)) && !/[\p{M}\p{Lm}\p{Pc}ªº]/u.test(String.fromCodePoint(c)),
    ),
  );

/** A side of the proposal: a group with those of its members that are asked for, or a glyph by itself. */
type Row = { side: PairSide; members: GlyphId[] };
type Own = { first: PairSide; second: PairSide; value: number; glyphs: number };

/** A value with how often text has its pair. */
type Weighed = { value: number; weight: number };

/** The value that half of the weight lies on either side of. */
function middleOf(values: readonly Weighed[]): number {
  const sorted = [...values].sort((p, q) => p.value - q.value);
  let rest = sorted.reduce((sum, v) => sum + v.weight, 0) / 2;
  for (const v of sorted) {
    rest -= v.weight;
    if (rest <= 0) return v.value;
  }
  return sorted[sorted.length - 1]?.value ?? 0;
}

/** What a pair counts that text has next to never; letters of the plain alphabet count more than accented ones. */
const RARE = 0.02;
const PLAIN = 8;

/**
 * The fewest values that serve all pairs of two sides: the one in the middle of what text has of them; one with the whole other side for a member that
 * differs from it, as ï beside T; one of their own for pairs that differ still.
 */
function ownValues(x: Row, y: Row, values: readonly (readonly Weighed[])[]): Own[] {
  const middle = middleOf(values.flat());
  const out: Own[] = [{ first: x.side, second: y.side, value: middle, glyphs: x.members.length * y.members.length }];
  const glyph = (id: GlyphId): PairSide => ({ kind: 'glyph', id });
  const differs = (value: number, from: number, weight: number) =>
    value - from > ALIKE || from - value > (weight < RARE * PLAIN * PLAIN ? OPEN_BUT_RARE : ALIKE);
  const weightIn = (of: readonly Weighed[]) => Math.max(...of.map((v) => v.weight));
  const rows = values.map((row) =>
    x.side.kind === 'group' && differs(middleOf(row), middle, weightIn(row)) ? middleOf(row) : undefined,
  );
  const columns = y.members.map((_, k) => {
    const own = values.map((row) => row[k]!);
    return y.side.kind === 'group' && differs(middleOf(own), middle, weightIn(own)) ? middleOf(own) : undefined;
  });
  rows.forEach((value, i) => {
    if (value !== undefined) out.push({ first: glyph(x.members[i]!), second: y.side, value, glyphs: y.members.length });
  });
  columns.forEach((value, k) => {
    if (value !== undefined) out.push({ first: x.side, second: glyph(y.members[k]!), value, glyphs: x.members.length });
  });
  if (x.side.kind === 'glyph' && y.side.kind === 'glyph') return out;
  // A first glyph with a second group is found before a first group with a second glyph.
  values.forEach((row, i) => {
    row.forEach(({ value, weight }, k) => {
      if (differs(value, rows[i] ?? columns[k] ?? middle, weight))
        out.push({ first: glyph(x.members[i]!), second: glyph(y.members[k]!), value, glyphs: 1 });
    });
  });
  return out;
}

/**
 * Kerning for all pairs of some glyphs: groups together where their members agree, glyph by glyph where they do not; values
 * below the least are left out, the others rounded to the step, the largest kept when there are more than may be.
 */
export function proposeKerning(
  project: Project,
  masterId: MasterId,
  firsts: readonly GlyphId[],
  seconds: readonly GlyphId[],
  { least, step, most, only }: ProposalSettings = USUAL,
  progress: (done: number, total: number) => void = () => {},
): ProposedPair[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const groups = groupsByGlyph(project);
  const drawn = (id: GlyphId) =>
    project.glyphs[id] !== undefined && !isEmptyDrawing(drawingOf(project.glyphs[id]!, masterId));
  const sidesFor = (ids: readonly GlyphId[], side: 'first' | 'second') => {
    const bySide = new Map<string, { side: PairSide; members: GlyphId[] }>();
    for (const id of ids.filter(drawn)) {
      const group = groups[side].get(id);
      const own: PairSide = group ? { kind: 'group', id: group.id } : { kind: 'glyph', id };
      const known = bySide.get(sideKey(own));
      if (known) known.members.push(id);
      else bySide.set(sideKey(own), { side: own, members: [id] });
    }
    return [...bySide.values()];
  };
  const [a, b] = [sidesFor(firsts, 'first'), sidesFor(seconds, 'second')];
  const asked = only && new Set(only.map(([x, y]) => pairKey(...widestSides(project, x, y))));
  const out: ProposedPair[] = [];
  const often = frequencyOf(project);
  const weightOf = (id: GlyphId) => ((project.glyphs[id]!.unicodes[0] ?? 0x80) < 0x80 ? PLAIN : 1);
  const add = ({ first, second, value: full, glyphs }: Own, exception: boolean) => {
    const wanted = rounded(full, step);
    // Too small to keep: no kerning, which takes away what is there now.
    const value = Math.abs(wanted) < Math.max(1, least) ? 0 : wanted;
    const stored = master.kerning[pairKey(first, second)];
    // An exception may be 0 where its groups are not.
    if (exception ? stored !== value : Math.abs(value - (stored ?? 0)) >= Math.max(1, least, step))
      out.push({ first, second, value, now: stored ?? 0, glyphs });
  };
  a.forEach((x, i) => {
    progress(i, a.length);
    for (const y of b) {
      if (asked && !asked.has(pairKey(x.side, y.side))) continue;
      const values = x.members.map((m) =>
        y.members.map((n) => ({
          value: modelKerning(project, master, m, n),
          weight: RARE * weightOf(m) * weightOf(n) + (often.get(`${m} ${n}`) ?? 0),
        })),
      );
      ownValues(x, y, values).forEach((own, k) => {
        add(own, k > 0);
      });
    }
  });
  const worth = new Map(
    out.map((p) => {
      const frequency = membersOf(project, p.first).reduce(
        (sum, a) => sum + membersOf(project, p.second).reduce((n, b) => n + (often.get(`${a} ${b}`) ?? 0), 0),
        0,
      );
      return [p, Math.abs(p.value - p.now) * (1 + Math.sqrt(frequency)) * p.glyphs ** 0.2];
    }),
  );
  return out.sort((p, q) => worth.get(q)! - worth.get(p)!).slice(0, most);
}

/** How often text has two glyphs in a row, per ten thousand pairs of letters, by both ids. */
function frequencyOf(project: Project): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (const [pair, n] of Object.entries(frequencies as Record<string, number>)) {
    const [a, b] = [...pair].map((c) => glyphForCodePoint(project, c.codePointAt(0)!)?.id);
    if (a && b) out.set(`${a} ${b}`, n);
  }
  return out;
}

/** A pair of glyphs worth a look: what it has, what the model would give, how far it strays, how often text has it. */
export type QueuedPair = {
  first: GlyphId;
  second: GlyphId;
  now: number;
  proposed: number;
  frequency: number;
  sides: readonly [PairSide, PairSide];
};

/** Pairs by how far they stray from even, frequent ones first; one for each pair of groups. Pairs that were left for good are out. */
export function kerningQueue(
  project: Project,
  masterId: MasterId,
  left: ReadonlySet<string> = new Set(),
  step = stepOf(project),
  least: number = USUAL.least,
): QueuedPair[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const best = new Map<string, QueuedPair>();
  for (const [pair, frequency] of Object.entries(frequencies as Record<string, number>)) {
    const [a, b] = [...pair].map((c) => glyphForCodePoint(project, c.codePointAt(0)!)?.id);
    if (!a || !b) continue;
    const sides = widestSides(project, a, b);
    const key = pairKey(...sides);
    if (left.has(key)) continue;
    const known = best.get(key);
    if (known) {
      best.set(key, { ...known, frequency: known.frequency + frequency });
      continue;
    }
    best.set(key, { ...pairFacts(project, master, a, b, step), frequency, sides });
  }
  const worth = (q: QueuedPair) => Math.abs(q.proposed - q.now) * Math.sqrt(1 + q.frequency);
  return [...best.values()].filter((q) => Math.abs(q.proposed - q.now) >= least).sort((p, q) => worth(q) - worth(p));
}

/** What a pair has and what the model would give it. */
export function pairFacts(
  project: Project,
  master: Master,
  first: GlyphId,
  second: GlyphId,
  step = stepOf(project),
): Omit<QueuedPair, 'frequency' | 'sides'> {
  return {
    first,
    second,
    now: kerningOf(project, master, first, second)?.value ?? 0,
    proposed: rounded(modelKerning(project, master, first, second), step),
  };
}

/** What is wrong with the kerning of a master, with the keys that a mend takes away, or the groups that it dissolves. */
export type KerningFault = { what: string; keys: readonly string[]; groups?: readonly Group['id'][] };

export function kerningFaults(project: Project, master: Master, least: number = USUAL.least): KerningFault[] {
  // What is small or needless here and not in another master holds the place between them.
  const inEvery = (holds: (m: Master) => boolean) =>
    holds(master) && project.masters.every((m) => m.id === master.id || holds(m));
  const isSmall = (key: string) => inEvery((m) => Math.abs(m.kerning[key] ?? 0) < least);
  const small: string[] = [];
  const missing: string[] = [];
  const needless: string[] = [];
  for (const key of Object.keys(master.kerning)) {
    const sides = pairSides(key);
    if (!sides || sides.some((s) => membersOf(project, s).length === 0)) {
      missing.push(key);
      continue;
    }
    const [first, second] = sides;
    if (first.kind === 'glyph' && second.kind === 'glyph') {
      const under = (m: Master) => kerningOf(project, m, first.id, second.id, key)?.value;
      if (inEvery((m) => under(m) !== undefined && (m.kerning[key] ?? under(m)) === under(m))) needless.push(key);
      else if (inEvery((m) => under(m) === undefined) && isSmall(key)) small.push(key);
    } else if (isSmall(key) && first.kind === second.kind) small.push(key);
  }
  const lonely = project.groups.filter((g) => g.members.filter((m) => project.glyphs[m]).length < 2);
  const count = (n: number) => (n === 1 ? 'One pair' : `${n} pairs`);
  return [
    ...(needless.length > 0
      ? [
          {
            what: `${count(needless.length)} of glyphs have the value that their groups give them anyway`,
            keys: needless,
          },
        ]
      : []),
    ...(small.length > 0 ? [{ what: `${count(small.length)} of less than ${least} units`, keys: small }] : []),
    ...(missing.length > 0
      ? [{ what: `${count(missing.length)} of glyphs or groups that are no longer there`, keys: missing }]
      : []),
    ...(lonely.length > 0
      ? [
          {
            what: `${lonely.length === 1 ? 'One group has' : `${lonely.length} groups have`} one glyph or none: ${lonely.map((g) => g.name).join(', ')}`,
            keys: [],
            groups: lonely.map((g) => g.id),
          },
        ]
      : []),
  ];
}
