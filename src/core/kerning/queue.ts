import { kerningOf, widestSides } from '../project/kerningLookup';
import type { GlyphId, Master, MasterId, Project } from '../project/model';
import { type PairSide, pairKey } from '../project/pairs';
import { evennessOf } from './evenness';
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

/**
 * Pairs by how far they stray from even, frequent ones first; one for each pair of groups. Pairs that were left for good are out. What is
 * even is learned from the kerning there is: a face with kerning of its own is not held against another taste.
 */
export function kerningQueue(
  project: Project,
  masterId: MasterId,
  left: ReadonlySet<string> = new Set(),
  step = stepOf(project),
  least = kerningUnits(project, 'least'),
): QueuedPair[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const evenness = evennessOf(project, master);
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
    best.set(key, { ...pairFacts(project, master, a, b, step, evenness), frequency, sides });
  }
  const worth = (q: QueuedPair) => Math.abs(q.proposed - q.now) * Math.sqrt(1 + q.frequency);
  return [...best.values()]
    .filter((q) => Math.abs(q.proposed - q.now) >= Math.max(least, evenness.learned ? evenness.stray : 0))
    .sort((p, q) => worth(q) - worth(p));
}

/** What a pair has and what would make it as even as the others. */
export function pairFacts(
  project: Project,
  master: Master,
  first: GlyphId,
  second: GlyphId,
  step = stepOf(project),
  evenness = evennessOf(project, master),
): Omit<QueuedPair, 'frequency' | 'sides'> {
  return {
    first,
    second,
    now: kerningOf(project, master, first, second)?.value ?? 0,
    proposed: onStep(evenness.expected(first, second, modelKerning(project, master, first, second)), step),
  };
}
