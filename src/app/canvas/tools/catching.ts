import { type Catch, catchesFor, type Snapped, snapped } from '../../../core/drawing/snapping';
import type { Drawing, Master } from '../../../core/project/model';
import { type Hand, onGrid, type Workplace } from './tool';

/** How much of a hand's reach a line or a point draws a place to itself. */
export const SNAP_REACH = 0.7;

const still = new WeakMap<Drawing, { master: Master; catches: readonly Catch[] }>();

/** All that a new point may catch on; the same for every move over the same drawing. */
function catchesOf(master: Master, drawing: Drawing): readonly Catch[] {
  const known = still.get(drawing);
  if (known?.master === master) return known.catches;
  const catches = catchesFor(master, drawing, new Set());
  still.set(drawing, { master, catches });
  return catches;
}

/** A place for a new point: caught by lines, edges, guides and points unless that is held off, else on the grid. */
export function caughtPlace(place: Workplace, x: number, y: number, hand: Hand): Snapped {
  const { grid } = place.project().settings;
  const found = hand.free
    ? { x, y, names: [], catches: [] }
    : snapped(catchesOf(place.master(), place.settled()), x, y, hand.reach * SNAP_REACH);
  return {
    ...found,
    x: found.x === x ? onGrid(x, hand.free ? 0 : grid) : found.x,
    y: found.y === y ? onGrid(y, hand.free ? 0 : grid) : found.y,
  };
}

/** Names of what a place is caught by, as a label goes on with them. */
export const namesOf = ({ names }: Snapped): string => (names.length > 0 ? ` · ${names.join(', ')}` : '');
