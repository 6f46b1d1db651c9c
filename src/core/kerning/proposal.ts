import { groupsByGlyph, membersOf, widestSides } from '../project/kerningLookup';
import type { GlyphId, MasterId, Project } from '../project/model';
import { type PairSide, pairKey } from '../project/pairs';
import { drawingOf, isEmptyDrawing } from '../project/queries';
import { canMeet, textKind } from './meeting';
import { distanceOf, modelKerning } from './optical';
import { frequencyOf } from './text';
import { kerningUnits, onStep, stepOf } from './units';

export type ProposalSettings = {
  least: number;
  step: number;
  most: number;
  /** Only what these pairs of glyphs get their kerning from; all when absent. */
  only?: readonly (readonly [GlyphId, GlyphId])[];
};
/** Settings that serve most fonts, in units of the project. */
export const usualSettings = (project: Pick<Project, 'settings' | 'unitsPerEm'>): ProposalSettings => ({
  least: kerningUnits(project, 'least'),
  step: stepOf(project),
  most: 1500,
});

/** A pair that is proposed: its sides, its value, what it has now, and how many pairs of glyphs it moves. */
export type ProposedPair = { first: PairSide; second: PairSide; value: number; now: number; glyphs: number };

/** What is proposed, worth most first, and how many values more there would be than may be. */
export type ProposedKerning = { pairs: ProposedPair[]; cut: number };

const sideKey = (s: PairSide): string => `${s.kind}:${s.id}`;

/** A side of the proposal: a group with those of its members that are asked for, or a glyph by itself. */
type Row = { side: PairSide; members: GlyphId[] };
type Own = { first: PairSide; second: PairSide; value: number; glyphs: number };

/** A value with how often text has its pair, and how near the two stand without kerning. */
type Weighed = { value: number; weight: number; near: () => number };

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

/** Pairs of two sides up to which every one is looked at; of more, each member is held against the likeliest of the other side. */
const EACH = 400;
const LIKELIEST = 3;

/** Values of pairs of two sides: of the likeliest or of all, then of each member of the first, of each of the second. */
type Looked = {
  values: readonly (readonly Weighed[])[];
  byRow: readonly (readonly Weighed[])[];
  byColumn: readonly (readonly Weighed[])[];
  /** Every pair was looked at. */
  whole: boolean;
};

function looked(x: Row, y: Row, weighed: (m: GlyphId, n: GlyphId) => Weighed | undefined): Looked | undefined {
  const row = (m: GlyphId, seconds: readonly GlyphId[]) => seconds.flatMap((n) => weighed(m, n) ?? []);
  if (x.members.length * y.members.length <= EACH) {
    const values = x.members.map((m) => y.members.map((n) => weighed(m, n)));
    if (values.flat().every((v) => v !== undefined)) {
      const all = values as Weighed[][];
      return { values: all, byRow: all, byColumn: y.members.map((_, k) => all.map((r) => r[k]!)), whole: true };
    }
  }
  const [firsts, seconds] = [x.members.slice(0, LIKELIEST), y.members.slice(0, LIKELIEST)];
  const values = firsts.map((m) => row(m, seconds));
  if (values.flat().length === 0) return undefined;
  const usual = values.flat();
  // A member that text never has beside the others goes with them.
  const orUsual = (own: Weighed[]) => (own.length > 0 ? own : usual);
  return {
    values,
    byRow: x.members.map((m) => orUsual(row(m, seconds))),
    byColumn: y.members.map((n) => orUsual(firsts.flatMap((m) => weighed(m, n) ?? []))),
    whole: false,
  };
}

/**
 * The fewest values that serve all pairs of two sides: the one in the middle of what text has of them; one with the whole other side for a member that
 * differs from it, as ï beside T; one of their own for pairs that differ still.
 */
function ownValues(project: Project, x: Row, y: Row, { values, byRow, byColumn, whole }: Looked): Own[] {
  const [alike, openButRare, tooNear] = (['alike', 'openButRare', 'tooNear'] as const).map((what) =>
    kerningUnits(project, what),
  ) as [number, number, number];
  const middle = middleOf(values.flat());
  const out: Own[] = [{ first: x.side, second: y.side, value: middle, glyphs: x.members.length * y.members.length }];
  const glyph = (id: GlyphId): PairSide => ({ kind: 'glyph', id });
  const rare = (weight: number) => weight < RARE * PLAIN * PLAIN;
  const differs = (value: number, from: number, weight: number) =>
    value - from > alike || from - value > (rare(weight) ? openButRare : alike);
  // Two by themselves, which text next to never has, get a value of their own only where they would come too near.
  const differAlone = ({ value, weight, near }: Weighed, from: number) =>
    differs(value, from, weight) && (!rare(weight) || (value > from && near() + from < tooNear));
  const weightIn = (of: readonly Weighed[]) => Math.max(...of.map((v) => v.weight));
  const rows = byRow.map((row) =>
    x.side.kind === 'group' && differs(middleOf(row), middle, weightIn(row)) ? middleOf(row) : undefined,
  );
  const columns = byColumn.map((own) => {
    return y.side.kind === 'group' && differs(middleOf(own), middle, weightIn(own)) ? middleOf(own) : undefined;
  });
  rows.forEach((value, i) => {
    if (value !== undefined) out.push({ first: glyph(x.members[i]!), second: y.side, value, glyphs: y.members.length });
  });
  columns.forEach((value, k) => {
    if (value !== undefined) out.push({ first: x.side, second: glyph(y.members[k]!), value, glyphs: x.members.length });
  });
  if (x.side.kind === 'glyph' && y.side.kind === 'glyph') return out;
  if (!whole) return out;
  // A first glyph with a second group is found before a first group with a second glyph.
  values.forEach((row, i) => {
    row.forEach((own, k) => {
      const { value } = own;
      if (differAlone(own, rows[i] ?? columns[k] ?? middle))
        out.push({ first: glyph(x.members[i]!), second: glyph(y.members[k]!), value, glyphs: 1 });
    });
  });
  return out;
}

/**
 * Kerning for all pairs of some glyphs: groups together where their members agree, glyph by glyph where they do not; values
 * below the least are left out, the others rounded to the step, those worth most kept when there are more than may be. Only
 * pairs that text can hold are looked at, unless some are named.
 */
export function proposeKerning(
  project: Project,
  masterId: MasterId,
  firsts: readonly GlyphId[],
  seconds: readonly GlyphId[],
  { least, step, most, only }: ProposalSettings = usualSettings(project),
  progress: (done: number, total: number) => void = () => {},
): ProposedKerning {
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
    // The likeliest of a group first: what holds for n holds for ń.
    const weight = (id: GlyphId) => textKind(project.glyphs[id]!).weight;
    return [...bySide.values()].map((row) => ({ ...row, members: row.members.sort((m, n) => weight(n) - weight(m)) }));
  };
  const [a, b] = [sidesFor(firsts, 'first'), sidesFor(seconds, 'second')];
  const asked = only && new Set(only.map(([x, y]) => pairKey(...widestSides(project, x, y))));
  const out: ProposedPair[] = [];
  const often = frequencyOf(project);
  const weightOf = (id: GlyphId) => PLAIN * textKind(project.glyphs[id]!).weight;
  const add = ({ first, second, value: full, glyphs }: Own, exception: boolean) => {
    const wanted = onStep(full, step);
    // Too small to keep: no kerning, which takes away what is there now.
    const value = Math.abs(wanted) < Math.max(1, least) ? 0 : wanted;
    const stored = master.kerning[pairKey(first, second)];
    // An exception may be 0 where its groups are not.
    if (exception ? stored !== value : Math.abs(value - (stored ?? 0)) >= Math.max(1, least, step))
      out.push({ first, second, value, now: stored ?? 0, glyphs });
  };
  const weighed = (m: GlyphId, n: GlyphId): Weighed | undefined =>
    asked || canMeet(textKind(project.glyphs[m]!), textKind(project.glyphs[n]!))
      ? {
          value: modelKerning(project, master, m, n),
          weight: RARE * weightOf(m) * weightOf(n) + (often.get(`${m} ${n}`) ?? 0),
          near: () => distanceOf(project, master, m, n),
        }
      : undefined;
  a.forEach((x, i) => {
    progress(i, a.length);
    for (const y of b) {
      if (asked && !asked.has(pairKey(x.side, y.side))) continue;
      const found = looked(x, y, weighed);
      if (found)
        ownValues(project, x, y, found).forEach((own, k) => {
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
  const sorted = out.sort((p, q) => worth.get(q)! - worth.get(p)!);
  return { pairs: sorted.slice(0, most), cut: Math.max(0, sorted.length - most) };
}
