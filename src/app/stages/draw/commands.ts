import { outlinePoints } from '../../../core/drawing/points';
import { drawingOf } from '../../../core/project/queries';
import { TOOLS } from '../../canvas/tools/registry';
import type { Command, Gesture } from '../../keys/command';
import { hands } from '../../keys/hands';
import { MOD } from '../../keys/keys';
import { select, useBench } from '../../state/bench';
import { openDialog } from '../../state/dialogs';
import { transformAgain } from './again';
import {
  DETAIL_TABS,
  REACHING,
  setEdges,
  setReaching,
  setTab,
  setTool,
  setTracing,
  toggleCombs,
  toggleStems,
  useDrawBench,
} from './drawBench';
import { keepTakeNow } from './takes';

/** Takes the Select tool with all points of the outline, whatever tool was at hand. */
function chooseAll(): void {
  const { project, glyph, master } = useBench.getState();
  const drawn = project && glyph ? project.glyphs[glyph] : undefined;
  if (!drawn) return;
  setTool('select');
  select(new Set(outlinePoints(drawingOf(drawn, master))));
}

const toTool = (e?: KeyboardEvent) => e !== undefined && (hands.draw?.key(e) ?? false);
const toolKey = (id: string, title: Command['title'], keys: readonly string[], shown?: string): Command => ({
  id,
  title,
  keys,
  group: 'Draw',
  stage: 'draw',
  onlyKeys: true,
  run: toTool,
  ...(shown && { shown }),
});
const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];

/** What can be done in Draw: tools, what their keys do, the sheet. */
export const DRAW_COMMANDS: readonly Command[] = [
  ...TOOLS.map(
    (t, i): Command => ({
      id: `tool-${t.name}`,
      title: `${t.title}: ${t.hint.charAt(0).toLowerCase()}${t.hint.slice(1)}`,
      group: 'Tools',
      stage: 'draw',
      keys: [`Digit${i + 1}`],
      run: () => setTool(t.name),
    }),
  ),
  toolKey(
    'nudge',
    () => {
      const [one, ten, hundred] = useBench.getState().settled?.settings.nudge ?? [1, 10, 100];
      return `Move what is chosen by ${one}; Shift by ${ten}; ${MOD} by ${hundred}`;
    },
    ARROWS.flatMap((a) => [a, `Shift+${a}`, `$mod+${a}`]),
    'Arrows',
  ),
  toolKey('delete', 'Delete what is chosen: points, keeping the shape; parts, gauges, dots; the Pen’s last point', [
    'Delete',
    'Backspace',
  ]),
  toolKey('corner', 'Corner or smooth', ['KeyC']),
  toolKey('line', 'Line or curve, for the segment under the pointer', ['KeyL']),
  toolKey('copy-box', 'Leave a copy while the transform box is dragged', ['KeyD']),
  toolKey(
    'next-point',
    'Next point or handle while some are chosen; Shift the one before',
    ['Tab', 'Shift+Tab'],
    'Tab',
  ),
  toolKey('first-point', 'First point of the drawing; the last', ['Home', 'End'], 'Home End'),
  {
    ...toolKey('let-go', 'Let go; end what the pen or the dots draw; leave a panel', ['Escape', 'Enter'], 'Esc'),
    run: (e) => {
      const { edges, tracing } = useDrawBench.getState();
      if (e?.key !== 'Escape' || !(edges || tracing)) return toTool(e);
      setEdges(undefined);
      setTracing(undefined);
      return true;
    },
  },
  {
    id: 'all-points',
    title: 'Choose all points',
    group: 'Draw',
    stage: 'draw',
    keys: ['$mod+KeyA'],
    run: (e) => toTool(e) || chooseAll(),
  },
  {
    id: 'again',
    title: 'The last transform again',
    group: 'Draw',
    stage: 'draw',
    keys: ['KeyR'],
    run: () => transformAgain(),
  },
  { id: 'take', title: 'Keep a take', group: 'Draw', stage: 'draw', keys: ['KeyT'], run: () => keepTakeNow() },
  { id: 'combs', title: 'Curvature combs', group: 'Draw', stage: 'draw', keys: ['KeyK'], run: () => toggleCombs() },
  {
    id: 'stems',
    title: 'Widths of strokes on the letter',
    group: 'Draw',
    stage: 'draw',
    keys: ['KeyW'],
    run: () => toggleStems(),
  },
  { id: 'tidy', title: 'Tidy outlines…', group: 'Draw', stage: 'draw', run: () => openDialog('tidy') },
  ...(['stroke', 'grow', 'hollow', 'frame'] as const).map(
    (kind): Command => ({
      id: `edges-${kind}`,
      title: {
        stroke: 'Stroke: make a path an outline',
        grow: 'Grow or shrink by a distance',
        hollow: 'Hollow: leave a wall inside the edge',
        frame: 'Frame: a box around the letter',
      }[kind],
      group: 'Draw',
      stage: 'draw',
      run: () => setEdges(kind),
    }),
  ),
  ...REACHING.map(
    (r): Command => ({
      id: `reaching-${r.value}`,
      title: `Changes reach ${r.title}`,
      group: 'Draw',
      stage: 'draw',
      can: () => (useBench.getState().settled?.masters.length ?? 1) > 1,
      run: () => setReaching(r.value),
    }),
  ),
  ...DETAIL_TABS.map(
    (t): Command => ({
      id: `tab-${t.name}`,
      title: `${t.title}: ${t.hint.charAt(0).toLowerCase()}${t.hint.slice(1)}`,
      group: 'View',
      stage: 'draw',
      run: () => setTab(t.name),
    }),
  ),
  {
    id: 'letters-only',
    title: 'Letters only, while held',
    group: 'Draw',
    stage: 'draw',
    keys: ['KeyQ'],
    shown: 'Q held',
    onlyKeys: true,
    run: () => hands.draw?.bare(true),
    release: () => hands.draw?.bare(false),
  },
  {
    id: 'no-snapping',
    title: 'No snapping, while held',
    group: 'Draw',
    stage: 'draw',
    keys: ['KeyF', 'Shift+KeyF', 'Alt+KeyF'],
    shown: 'F held',
    onlyKeys: true,
    run: () => hands.draw?.free(true),
    release: () => hands.draw?.free(false),
  },
  {
    id: 'grab',
    title: 'Move the sheet with the pointer, while held',
    group: 'Draw',
    stage: 'draw',
    keys: ['Space'],
    shown: 'Space held',
    onlyKeys: true,
    run: () => hands.draw?.grab(true) ?? false,
    release: () => hands.draw?.grab(false),
  },
  {
    id: 'fit-view',
    title: 'See the whole glyph',
    group: 'View',
    stage: 'draw',
    keys: ['0'],
    run: () => hands.draw?.fit(),
  },
  {
    id: 'zoom-in',
    title: 'Nearer',
    group: 'View',
    stage: 'draw',
    keys: ['+', 'Shift++', '='],
    run: () => hands.draw?.zoom(1.25),
  },
  {
    id: 'zoom-out',
    title: 'Farther away',
    group: 'View',
    stage: 'draw',
    keys: ['-', '−'],
    run: () => hands.draw?.zoom(0.8),
  },
];

/** What the pointer does on the sheet. */
export const DRAW_GESTURES: readonly Gesture[] = [
  ...TOOLS.flatMap((t) => (t.gestures ?? []).map((g): Gesture => ({ ...g, group: 'Draw' }))),
  { how: 'Wheel', does: 'Moves the sheet', group: 'Draw' },
  { how: 'Mod wheel', does: 'Zooms to the pointer', group: 'Draw' },
];
