import { shownNumber } from '../../../core/base/notation';
import type { Gauge } from '../../../core/drawing/gauge';
import type { PointKey } from '../../../core/drawing/points';
import type { Origin, TransformBy } from '../../../core/drawing/transform';
import type { DrawingPlace, Outcome } from '../../../core/project/edit';
import type { Drawing, Master, Project } from '../../../core/project/model';
import type { Brush } from '../useCanvas';

/** A pointer event in font units; `reach` is how far a hand may miss, in font units at this zoom. */
export type Hand = {
  x: number;
  y: number;
  shift: boolean;
  alt: boolean;
  mod: boolean;
  clicks: number;
  reach: number /** Snapping is held off. */;
  free?: boolean;
};

/** A number that matters in a running gesture, and where it stands in font units. */
export type Label = { x: number; y: number; text: string };

/** A picture's heights set by two clicks: where its baseline is, then where its x-height or cap height is. */
export type Levelling = { id: string; zone: 'xHeight' | 'capHeight'; base?: number };

/** What a change is about: how the drawing is built, or where its points and parts lie. */
export type ChangeKind = 'structure' | 'places';

/** What a tool may see and do. Edits are tried on the document by the bench; tools never change it themselves. */
export type Workplace = {
  project(): Project;
  master(): Master;
  /** The drawing at hand, with the masters that a change of this kind reaches too. */
  at(kind?: ChangeKind): DrawingPlace;
  drawing(): Drawing;
  /** The drawing without the running gesture. */
  settled(): Drawing;
  selection(): ReadonlySet<PointKey>;
  select(points: ReadonlySet<PointKey>): void;
  /** Shows an edit while the gesture runs. */
  preview(edit: (project: Project) => Outcome): void;
  /** Records an edit as one step. */
  commit(edit: (project: Project) => Outcome, merge?: string): boolean;
  /** Drops what is previewed. */
  cancel(): void;
  repaint(): void;
  /** Chosen parts (components), by their place in the drawing. */
  parts(): readonly number[];
  chooseParts(parts: readonly number[]): void;
  /** Anchors are shown, and can be grasped. */
  anchorsShown(): boolean;
  levelling(): Levelling | undefined;
  setLevelling(levelling: Levelling | undefined): void;
  /** Gauges laid over this glyph. */
  gauges(): readonly Gauge[];
  layGauges(gauges: readonly Gauge[]): void;
  /** The size that a click with the oval or the box draws. */
  typedSize(): { width: number; height: number };
  /** Keeps a transform, so that it can be done again. */
  remember(done: { by: TransformBy; origin: Origin; copy: boolean }): void;
};

/** A tool is a small state machine fed with pointer and key events; it paints only what is its own. */
export type Tool = {
  readonly name: ToolName;
  cursor(): string;
  down(hand: Hand): void;
  move(hand: Hand): void;
  up(hand: Hand): void;
  /** Returns true when the key was meant for the tool. */
  key(key: string, modifiers: { shift: boolean; alt: boolean; mod: boolean }): boolean;
  /** Ends whatever is going on, keeping what is recorded. */
  leave(): void;
  paint(brush: Brush): void;
  label?(): Label | undefined;
  /** What the keys do just now: key and deed, beside what the tool's own line says. */
  hints?(): readonly (readonly [string, string])[];
};

export type ToolName = 'select' | 'pen' | 'dots' | 'oval' | 'box' | 'blade' | 'gauge' | 'transform' | 'picture';

/** The nearest of level, upright and the diagonals for a step from a place. */
export function straightened(fromX: number, fromY: number, x: number, y: number): [number, number] {
  const dx = x - fromX;
  const dy = y - fromY;
  const eighth = Math.round(Math.atan2(dy, dx) / (Math.PI / 4));
  if (eighth % 4 === 0) return [x, fromY];
  if (eighth % 2 === 0) return [fromX, y];
  const step = (Math.abs(dx) + Math.abs(dy)) / 2;
  return [fromX + Math.sign(dx) * step, fromY + Math.sign(dy) * step];
}

/** A coordinate on the project's drawing grid. */
export const onGrid = (v: number, grid: number): number => (grid > 0 ? Math.round(v / grid) * grid : v);

/** A number for a label: whole tenths, a true minus. */
export const shortNumber = (v: number): string => shownNumber(v, 1);
