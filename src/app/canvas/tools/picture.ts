import { levelBackdrop, scaledAbout, setBackdrop } from '../../../core/drawing/backdrops';
import { type Catch, catchesFor, type Snapped, snapped } from '../../../core/drawing/snapping';
import type { Affine } from '../../../core/geometry/affine';
import type { Outcome } from '../../../core/project/edit';
import type { Backdrop, Project } from '../../../core/project/model';
import { paintCatches } from '../paint/gestures';
import { cornersOf } from '../paint/pictures';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY } from '../view';
import { SNAP_REACH } from './catching';
import { type Hand, onGrid, shortNumber, type Tool, type Workplace } from './tool';

type Edit = (project: Project) => Outcome;
type Place = readonly [number, number];
/** A picture in hand: where it was taken, and by which corner where it is scaled. */
type Grasp = { id: string; from: Hand; start: Affine; corners: readonly Place[]; corner: number | undefined };
type Now = { transform: Affine; caught: Snapped | undefined; text: string };

const edge = (corners: readonly Place[], axis: 0 | 1, pick: (...v: number[]) => number): number =>
  pick(...corners.map((c) => c[axis]));

/** How far a moved picture goes on to the nearest line, by any of its four edges. */
function caughtMove(catches: readonly Catch[], corners: readonly Place[], reach: number): Snapped | undefined {
  const sides = [
    [edge(corners, 0, Math.min), edge(corners, 1, Math.min)],
    [edge(corners, 0, Math.max), edge(corners, 1, Math.max)],
  ] as const;
  let best: (Snapped & { far: number }) | undefined;
  for (const [x, y] of sides) {
    const found = snapped(catches, x, y, reach);
    if (found.catches.length === 0) continue;
    const by = { x: found.x - x, y: found.y - y };
    const far = Math.hypot(by.x, by.y);
    if (!best || far < best.far) best = { ...found, ...by, far };
  }
  return best;
}

/**
 * Places pictures behind the drawing: a drag moves one, its edges catching on the lines of the metrics; a corner scales it in
 * proportion, with Alt about its middle; arrows move it. Locked ones stay. Two clicks set it by its own heights.
 */
export function pictureTool(place: Workplace): Tool {
  let grasp: Grasp | undefined;
  let now: Now | undefined;
  let hover: Hand | undefined;
  /** The picture that arrows move: the last that was in hand. */
  let held: string | undefined;

  const loose = (): Backdrop[] => place.drawing().backdrops.filter((b) => b.visible && !b.locked && !b.outline);
  const corners = (b: Backdrop): readonly Place[] => {
    const picture = place.project().pictures[b.picture];
    return picture ? cornersOf(b, picture.width, picture.height) : [];
  };
  const inside = (b: Backdrop, hand: Hand): boolean => {
    const c = corners(b);
    const turns = c.map(([x, y], i) => {
      const [nx, ny] = c[(i + 1) % 4]!;
      return Math.sign((nx - x) * (hand.y - y) - (ny - y) * (hand.x - x));
    });
    // On the same side of all four edges, also where the picture is mirrored.
    return c.length === 4 && (turns.every((t) => t <= 0) || turns.every((t) => t >= 0));
  };
  const lines = () => catchesFor(place.master(), place.drawing(), new Set());

  const movedBy = (g: Grasp, hand: Hand): Now => {
    const grid = hand.free ? 0 : place.project().settings.grid;
    let dx = hand.x - g.from.x;
    let dy = hand.y - g.from.y;
    if (hand.shift) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
    const shifted = g.corners.map(([x, y]) => [x + dx, y + dy] as const);
    const caught = hand.free ? undefined : caughtMove(lines(), shifted, hand.reach * SNAP_REACH);
    const along = (by: number, on: number | undefined) => (on ? by + on : onGrid(by, grid));
    const [x, y] = [along(dx, caught?.x), along(dy, caught?.y)];
    const [a, b, c, d, e, f] = g.start;
    const text = [`${shortNumber(x)}, ${shortNumber(y)}`, ...(caught?.names ?? [])].join(' · ');
    return { transform: [a, b, c, d, e + x, f + y], caught, text };
  };
  const scaledBy = (g: Grasp, hand: Hand): Now => {
    const own = g.corners[g.corner!]!;
    const opposite = g.corners[(g.corner! + 2) % 4]!;
    const fixed: Place = hand.alt ? [(own[0] + opposite[0]) / 2, (own[1] + opposite[1]) / 2] : opposite;
    const [ux, uy] = [own[0] - fixed[0], own[1] - fixed[1]];
    const share = (x: number, y: number) => ((x - fixed[0]) * ux + (y - fixed[1]) * uy) / (ux * ux + uy * uy || 1);
    let factor = Math.max(0.02, share(hand.x, hand.y));
    const at: Place = [fixed[0] + ux * factor, fixed[1] + uy * factor];
    const levels = lines().filter((c) => c.kind === 'level');
    const caught = hand.free ? undefined : snapped(levels, at[0], at[1], hand.reach * SNAP_REACH);
    if (caught && caught.catches.length > 0 && Math.abs(uy) > 1e-6) factor = Math.max(0.02, (caught.y - fixed[1]) / uy);
    return {
      transform: scaledAbout(g.start, factor, ...fixed),
      caught,
      text: [`${shortNumber(factor * 100)} %`, ...(caught?.names ?? [])].join(' · '),
    };
  };
  const edit = (id: string, transform: Affine): Edit => {
    const at = place.at();
    return (p) => setBackdrop(p, { at, id, change: { transform } });
  };

  const drop = () => {
    if (grasp) place.cancel();
    grasp = undefined;
    now = undefined;
  };

  return {
    name: 'picture',
    cursor: () => (place.levelling() ? 'crosshair' : grasp ? 'grabbing' : 'grab'),
    down(hand) {
      const levelling = place.levelling();
      if (levelling) {
        const at = place.at();
        const { id, zone, base } = levelling;
        if (base === undefined) place.setLevelling({ ...levelling, base: hand.y });
        else {
          place.setLevelling(undefined);
          place.commit((p) => levelBackdrop(p, { at, id, base, line: hand.y, zone }));
        }
        return place.repaint();
      }
      for (const b of loose().reverse()) {
        const c = corners(b);
        const near = c.findIndex(([x, y]) => Math.hypot(x - hand.x, y - hand.y) <= hand.reach * 1.6);
        if (near < 0 && !inside(b, hand)) continue;
        grasp = { id: b.id, from: hand, start: b.transform, corners: c, corner: near < 0 ? undefined : near };
        held = b.id;
        return;
      }
    },
    move(hand) {
      hover = hand;
      if (!grasp) {
        if (place.levelling()) place.repaint();
        return;
      }
      now = grasp.corner === undefined ? movedBy(grasp, hand) : scaledBy(grasp, hand);
      place.preview(edit(grasp.id, now.transform));
    },
    up() {
      const done = grasp && now && edit(grasp.id, now.transform);
      grasp = undefined;
      now = undefined;
      if (done) place.commit(done);
      place.repaint();
    },
    key(key, { shift, mod }) {
      if (key === 'Escape') {
        if (!grasp && !place.levelling()) return false;
        place.setLevelling(undefined);
        drop();
        return true;
      }
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[key];
      const all = loose();
      const b = all.find((o) => o.id === held) ?? all[0];
      if (!step || !b) return false;
      const [one, ten, hundred] = place.project().settings.nudge;
      const by = mod ? hundred : shift ? ten : one;
      const [xx, xy, yx, yy, dx, dy] = b.transform;
      place.commit(edit(b.id, [xx, xy, yx, yy, dx + step[0]! * by, dy + step[1]! * by]), `nudge picture ${b.id}`);
      return true;
    },
    hints: () => (place.levelling() ? LEVELLING : HINTS),
    label() {
      const levelling = place.levelling();
      if (levelling && hover) {
        const { name } = place.master().zones[levelling.base === undefined ? 'baseline' : levelling.zone];
        return { x: hover.x, y: hover.y, text: `click the picture’s ${name}` };
      }
      return now && hover ? { x: hover.x, y: hover.y, text: now.text } : undefined;
    },
    leave() {
      drop();
      place.setLevelling(undefined);
    },
    paint(brush) {
      if (now?.caught && hover) paintCatches(brush, { ...now.caught, x: hover.x, y: hover.y });
      for (const b of loose()) paintFrame(brush, corners(b));
      const levelling = place.levelling();
      if (!levelling) return;
      if (levelling.base !== undefined) paintLevel(brush, levelling.base);
      if (hover) paintLevel(brush, hover.y);
    },
  };
}

/** A level line over the whole sheet. */
function paintLevel({ context, view, width, inks }: Brush, y: number): void {
  context.strokeStyle = inks.violet;
  context.lineWidth = 1.25;
  context.beginPath();
  context.moveTo(0, toPxY(view, y));
  context.lineTo(width, toPxY(view, y));
  context.stroke();
}

function paintFrame({ context, view, inks }: Brush, c: readonly Place[]): void {
  if (c.length < 4) return;
  context.strokeStyle = inks.sea;
  context.lineWidth = 1.25;
  context.beginPath();
  c.forEach(([x, y], i) => {
    if (i === 0) context.moveTo(toPxX(view, x), toPxY(view, y));
    else context.lineTo(toPxX(view, x), toPxY(view, y));
  });
  context.closePath();
  context.stroke();
  for (const [x, y] of c) {
    context.beginPath();
    context.arc(toPxX(view, x), toPxY(view, y), 6, 0, Math.PI * 2);
    context.fillStyle = inks.panel;
    context.fill();
    context.stroke();
  }
}

const HINTS = [
  ['Drag', 'moves the picture; its edges catch on lines'],
  ['Drag a corner', 'scales it in proportion'],
  ['Alt', 'about its middle'],
  ['Arrows', 'move it'],
  ['Esc', 'lets go'],
] as const;
const LEVELLING = [
  ['Click', 'the baseline on the picture, then the other height'],
  ['Esc', 'leaves it as it is'],
] as const;
