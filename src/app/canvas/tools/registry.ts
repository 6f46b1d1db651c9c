import type { Gesture } from '../../keys/command';
import { bladeTool } from './blade';
import { dotsTool } from './dots';
import { gaugeTool } from './gauge';
import { penTool } from './pen';
import { pictureTool } from './picture';
import { selectTool } from './select';
import { shapeTool } from './shape';
import type { Tool, ToolName, Workplace } from './tool';
import { transformTool } from './transform';

export type ToolInfo = {
  readonly name: ToolName;
  readonly title: string;
  readonly hint: string;
  readonly make: (place: Workplace) => Tool;
  /** What the pointer does with it that cannot be seen. */
  readonly gestures?: readonly Omit<Gesture, 'group'>[];
};

/** The tools of Draw in the order of the bar; a tool's key is its place, counted from 1. */
export const TOOLS: readonly ToolInfo[] = [
  {
    name: 'select',
    title: 'Select',
    hint: 'Choose and move points, handles and parts',
    make: selectTool,
    gestures: [
      { how: 'Double click', does: 'On a point: corner or smooth. On the outline: add a point' },
      { how: 'Shift drag', does: 'Keep to level, upright or 45°; keep proportions' },
      { how: 'Alt drag', does: 'Points: leave the handles. Whole contours: a copy. A handle: both alike' },
      { how: 'Mod drag', does: 'A point: glide. A handle: part it from the other' },
      { how: 'Drop an end', does: 'On another end: join them' },
    ],
  },
  {
    name: 'pen',
    title: 'Pen',
    hint: 'Corners by clicks, curves by drags',
    make: penTool,
    gestures: [{ how: 'Pen: click, drag', does: 'A corner; a smooth point with its handles' }],
  },
  { name: 'dots', title: 'Dots', hint: 'Place points only; a smooth curve goes through them', make: dotsTool },
  { name: 'oval', title: 'Oval', hint: 'An ellipse', make: (place) => shapeTool(place, 'oval') },
  { name: 'box', title: 'Box', hint: 'A rectangle', make: (place) => shapeTool(place, 'box') },
  { name: 'blade', title: 'Blade', hint: 'Cut outlines along a line', make: bladeTool },
  {
    name: 'transform',
    title: 'Transform',
    hint: 'Scale, turn, slant by a box',
    make: transformTool,
    gestures: [{ how: 'Transform: Mod drag', does: 'A side of the box: slant' }],
  },
  { name: 'gauge', title: 'Gauge', hint: 'Measure stems and counters', make: gaugeTool },
  { name: 'picture', title: 'Picture', hint: 'Place what stands behind the drawing', make: pictureTool },
];
