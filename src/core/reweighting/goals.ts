/** Thickness of the strokes of a drawing, in font units: across upright ones, and across level ones. */
export type Stems = { readonly vertical: number; readonly horizontal: number };

/** Beyond this share of the usual thickness, what faces each other is no stroke. */
export const THICKEST = 1.9;
/** Contrast of thick and thin from which a thin stroke is told by its thickness, whatever its direction. */
const CONTRASTED = 1.3;

/** A stroke may be so much thicker than usual and is a stroke still: a round one. */
const ROUNDER = 1.15;

/** The thickness usual across a direction, the unit vector from edge to edge: between that of upright and of level strokes. */
export const usualAcross = ({ vertical, horizontal }: Stems, [x, y]: readonly [number, number]): number =>
  vertical * x * x + horizontal * y * y;

/**
 * What a stroke that is `width` thick becomes when `from` becomes `to`. It grows by the share that strokes of its direction
 * grow by; a thin stroke of a drawing with contrast (a diagonal's, an N's) as thin ones do; a dot, thicker than strokes
 * are, by as much as a stroke.
 */
export function goalFor(width: number, way: readonly [number, number], from: Stems, to: Stems): number {
  const usual = usualAcross(from, way);
  const goal = usualAcross(to, way);
  let ratio = goal / usual;
  const thin = Math.min(from.vertical, from.horizontal);
  const thinGoal = from.horizontal <= from.vertical ? to.horizontal / from.horizontal : to.vertical / from.vertical;
  if (usual > thin * CONTRASTED && width < usual) {
    const place = Math.min(1, Math.max(0, Math.log(width / thin) / Math.log(usual / thin)));
    ratio = thinGoal + (ratio - thinGoal) * place;
  }
  if (width <= usual) return width * ratio;
  // Rounds are a little thicker than straight strokes and keep their share; what is thicker still gains no more.
  const round = Math.min(width, usual * ROUNDER);
  return round * ratio + width - round;
}
