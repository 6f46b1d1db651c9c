import { toDesign } from '../project/axes';
import type { GlyphId, Project } from '../project/model';
import { designEnds, type Place, wholePlace } from '../project/places';
import { drawnAt } from './glyphAt';
import { stemAndCounter } from './rows';

/** Rows of instances along the weight. */
type Instance = { name: string; place: Place; weightClass?: number };

/** Names of weights by the usual steps. */
const WEIGHTS: readonly (readonly [value: number, name: string])[] = [
  [100, 'Thin'],
  [200, 'Extra Light'],
  [300, 'Light'],
  [400, 'Regular'],
  [500, 'Medium'],
  [600, 'Semibold'],
  [700, 'Bold'],
  [800, 'Extra Bold'],
  [900, 'Black'],
];

/** Instances on the usual steps of weight that the axis reaches, at one place on all other axes, named behind `prefix`. */
export function weightRow(project: Project, others: Place, prefix: string): Instance[] {
  const axis = project.axes.find((x) => x.tag === 'wght');
  if (!axis) return [];
  return WEIGHTS.filter(([v]) => v >= axis.minimum && v <= axis.maximum).map(([v, called]) => ({
    name: [prefix, called === 'Regular' && prefix ? '' : called].filter(Boolean).join(' '),
    place: { ...wholePlace(project.axes, others), wght: toDesign(axis, v) },
    weightClass: v,
  }));
}

/** The stem of a glyph at a place, in units. */
export const stemAt = (project: Project, glyph: GlyphId, place: Place): number | undefined => {
  const letter = drawnAt(project, glyph, place);
  return letter && stemAndCounter(letter).stem;
};

/** How far a row’s stems have come after a share of its steps: straight at 0, slow at first below, fast at first above it. */
export const bentShare = (share: number, bend: number): number => share + bend * share * (1 - share);
/** Beyond this a curve would turn back. */
export const MOST_BEND = 0.95;

/** Bisections of the axis until a stem is met, to a whole number on an axis of a few thousand. */
const TURNS = 13;

/**
 * A row whose stems grow from that of its first instance to that of its last by even steps, or by a bent curve (see {@link bentShare}),
 * as a letter shows them; the first and last stay. The same row where the letter has no stem, or one that does not grow along it.
 */
export function spacedRow(project: Project, row: readonly Instance[], glyph: GlyphId, bend = 0): Instance[] {
  const [first, last] = [row[0], row.at(-1)];
  const axis = project.axes.find((x) => x.tag === 'wght');
  if (!axis || !first || !last || row.length < 3) return [...row];
  const stem = (wght: number) => stemAt(project, glyph, { ...first.place, wght });
  const [low, high] = [first.place.wght!, last.place.wght!];
  const [thin, fat] = [stem(low), stem(high)];
  if (thin === undefined || fat === undefined || fat <= thin) return [...row];
  const held = Math.max(-MOST_BEND, Math.min(MOST_BEND, bend));
  return row.map((instance, i) => {
    if (i === 0 || i === row.length - 1) return instance;
    const goal = thin + (fat - thin) * bentShare(i / (row.length - 1), held);
    let [from, to] = [low, high];
    for (let n = 0; n < TURNS; n++) {
      const middle = (from + to) / 2;
      if ((stem(middle) ?? 0) < goal) from = middle;
      else to = middle;
    }
    return { ...instance, place: { ...instance.place, wght: Math.round((from + to) / 2) } };
  });
}

/** Does an axis of weight reach over its design ends the right way round? */
export const hasWeight = (project: Project): boolean => {
  const axis = project.axes.find((x) => x.tag === 'wght');
  return axis !== undefined && designEnds(axis).least < designEnds(axis).most;
};
