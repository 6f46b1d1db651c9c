import { kerningOf } from '../project/kerningLookup';
import type { GlyphId, Master, MasterId, Project } from '../project/model';
import { CLEAR, distanceOf, modelKerning } from './optical';
import { glyphsOfPair, PAIR_FREQUENCIES } from './text';
import { kerningUnits } from './units';

/** What a master's own kerning says is even: what the model gives for a pair, brought to what its designer does. */
export type Evenness = {
  /** The value that a pair would have if it were like the others. */
  expected: (first: GlyphId, second: GlyphId, model: number) => number;
  /** How far a pair has to be from that, in units, to stand out from the others. */
  stray: number;
  /** There is enough kerning to learn from; else the model alone speaks. */
  learned: boolean;
};

/** A frequent pair: what the model gives it, what it has. */
type Sample = { first: GlyphId; second: GlyphId; model: number; own: number; weight: number };

/** Values of frequent pairs that are needed before kerning counts as a designer's own. */
const ENOUGH = 40;
/** A side's habit counts as if it had been seen this many times less. */
const DOUBT = 2;

const models = new WeakMap<Project['glyphs'], Map<MasterId, readonly Omit<Sample, 'own'>[]>>();

/** Frequent pairs with what the model gives them; worked out once for the same shapes. */
function modelled(project: Project, master: Master): readonly Omit<Sample, 'own'>[] {
  const byMaster = models.get(project.glyphs) ?? new Map<MasterId, readonly Omit<Sample, 'own'>[]>();
  models.set(project.glyphs, byMaster);
  let found = byMaster.get(master.id);
  if (!found) {
    found = PAIR_FREQUENCIES.flatMap(([pair, frequency]) => {
      const glyphs = glyphsOfPair(project, pair);
      if (!glyphs) return [];
      const [first, second] = glyphs;
      return [{ first, second, model: modelKerning(project, master, first, second), weight: Math.sqrt(1 + frequency) }];
    });
    byMaster.set(master.id, found);
  }
  return found;
}

const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** The model's value beyond what this designer lets pass, times how strongly they kern. */
const bent = (model: number, threshold: number, strength: number): number =>
  Math.sign(model) * Math.max(0, Math.abs(model) - threshold) * strength;

/** The threshold and the strength that come nearest to the kerning there is, by least squares. */
function habit(samples: readonly Sample[], em: number): { threshold: number; strength: number } {
  let best = { threshold: 0, strength: 1, error: Number.POSITIVE_INFINITY };
  for (let threshold = 0; threshold <= 0.06 * em; threshold += 0.005 * em) {
    let [mk, mm] = [0, 0];
    for (const s of samples) {
      const m = bent(s.model, threshold, 1);
      mk += s.weight * m * s.own;
      mm += s.weight * m * m;
    }
    const strength = mm > 0 ? Math.max(0, mk / mm) : 0;
    const error = samples.reduce((sum, s) => sum + s.weight * (s.own - bent(s.model, threshold, strength)) ** 2, 0);
    if (error < best.error) best = { threshold, strength, error };
  }
  return best;
}

/** How much more or less than the habit each glyph of a side gets, as a rule. */
function leanings(samples: readonly Sample[], rest: (s: Sample) => number, side: 'first' | 'second') {
  const sums = new Map<GlyphId, [sum: number, weight: number]>();
  for (const s of samples) {
    const known = sums.get(s[side]) ?? [0, 0];
    sums.set(s[side], [known[0] + rest(s), known[1] + 1]);
  }
  return new Map([...sums].map(([id, [sum, n]]) => [id, sum / (n + DOUBT)]));
}

/**
 * Learns evenness from a master's kerning of frequent pairs: how much unevenness its designer lets pass, how strongly they
 * kern, and what each glyph gets on each side beside that. Where there is next to none, the model is taken as it is.
 */
export function evennessOf(project: Project, master: Master): Evenness {
  const samples = modelled(project, master).map(
    (s): Sample => ({ ...s, own: kerningOf(project, master, s.first, s.second)?.value ?? 0 }),
  );
  const worth = kerningUnits(project, 'worth');
  if (samples.filter((s) => s.own !== 0).length < ENOUGH)
    return { expected: (_a, _b, model) => model, stray: worth, learned: false };
  const { threshold, strength } = habit(samples, project.unitsPerEm);
  const base = (s: Sample) => s.own - bent(s.model, threshold, strength);
  const first = leanings(samples, base, 'first');
  const second = leanings(samples, (s) => base(s) - (first.get(s.first) ?? 0), 'second');
  const clear = CLEAR * project.unitsPerEm;
  // However others stand, what would touch is set apart.
  const expected = (a: GlyphId, b: GlyphId, model: number) =>
    Math.max(
      bent(model, threshold, strength) + (first.get(a) ?? 0) + (second.get(b) ?? 0),
      clear - distanceOf(project, master, a, b),
    );
  const spread = middle(
    samples
      .filter((s) => s.own !== 0 || s.model !== 0)
      .map((s) => Math.abs(s.own - expected(s.first, s.second, s.model))),
  );
  return { expected, stray: Math.max(worth, 5 * spread), learned: true };
}
