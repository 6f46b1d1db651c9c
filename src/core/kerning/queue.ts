import { kerningOf, widestSides } from '../project/kerningLookup';
import type { GlyphId, Master, MasterId, Project } from '../project/model';
import { type PairSide, pairKey } from '../project/pairs';
import { modelKerning } from './optical';
import { glyphsOfPair, PAIR_FREQUENCIES } from './text';
import { kerningUnits, onStep, stepOf } from './units';

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
  least = kerningUnits(project, 'least'),
): QueuedPair[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const best = new Map<string, QueuedPair>();
  for (const [pair, frequency] of PAIR_FREQUENCIES) {
    const glyphs = glyphsOfPair(project, pair);
    if (!glyphs) continue;
    const [a, b] = glyphs;
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
    proposed: onStep(modelKerning(project, master, first, second), step),
  };
}
