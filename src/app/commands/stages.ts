import { stepOf } from '../../core/kerning/proposal';
import { KINDS, setKind } from '../stages/fit/fitBench';
import { MODES, setMode, useKernBench } from '../stages/kern/kernBench';
import { useBench } from '../state/bench';
import { openDialog } from '../state/dialogs';
import type { Command, Gesture } from './command';
import { hands } from './hands';
import { MOD } from './keys';

const kernStep = () => {
  const { settled } = useBench.getState();
  return settled ? stepOf(settled) : 5;
};

/** The sides by 1, by 5 with the command key, by 10 with Shift. */
const fitStep = (e?: KeyboardEvent) => (e?.shiftKey ? 10 : e?.ctrlKey || e?.metaKey ? 5 : 1);
const BY = `by 1; ${MOD} by 5; Shift by 10`;
const steps = (key: string, before = '') => [`${before}${key}`, `${before}$mod+${key}`, `${before}Shift+${key}`];
const signOf = (e?: KeyboardEvent) => (e?.key === 'ArrowLeft' || e?.key === 'ArrowDown' ? -1 : 1);

const fit = (id: string, title: string, shown: string, keys: readonly string[], run: Command['run']): Command => ({
  id,
  title,
  shown,
  keys,
  run,
  group: 'Fit',
  stage: 'fit',
  onlyKeys: true,
  can: () => hands.fit !== undefined && useBench.getState().glyph !== undefined,
});

export const FIT_COMMANDS: readonly Command[] = [
  fit('fit-left', `Left side ${BY}`, '← →', [...steps('ArrowLeft'), ...steps('ArrowRight')], (e) =>
    hands.fit?.sides(signOf(e) * fitStep(e), 0),
  ),
  fit(
    'fit-right',
    'Right side, in the same steps',
    'Alt ← →',
    [...steps('ArrowLeft', 'Alt+'), ...steps('ArrowRight', 'Alt+')],
    (e) => hands.fit?.sides(0, signOf(e) * fitStep(e)),
  ),
  fit('fit-both', 'Both sides, in the same steps', '↑ ↓', [...steps('ArrowUp'), ...steps('ArrowDown')], (e) =>
    hands.fit?.sides(signOf(e) * fitStep(e), signOf(e) * fitStep(e)),
  ),
  fit(
    'fit-within',
    'The letter within its width: one side gains what the other loses',
    'Alt ↑ ↓',
    [...steps('ArrowUp', 'Alt+'), ...steps('ArrowDown', 'Alt+')],
    (e) => hands.fit?.sides(signOf(e) * fitStep(e), -signOf(e) * fitStep(e)),
  ),
  fit('fit-walk', 'Next glyph in the line; the one before', 'Page down, up', ['PageDown', 'PageUp'], (e) =>
    hands.fit?.walk(e?.key === 'PageUp' ? -1 : 1),
  ),
  fit('fit-drop', 'Let go of the edge that is dragged', 'Esc', ['Escape'], () => hands.fit?.drop() ?? false),
  {
    id: 'fit-proposal',
    title: 'Propose sides from those that are set…',
    group: 'Fit',
    stage: 'fit',
    run: () => openDialog('fit-proposal'),
  },
  ...KINDS.map(
    (k): Command => ({
      id: `fit-lines-${k.value}`,
      title: `Lines of Fit: ${k.text.toLowerCase()}`,
      group: 'Fit',
      stage: 'fit',
      run: () => setKind(k.value),
    }),
  ),
];

const kern = (
  id: string,
  title: Command['title'],
  keys: readonly string[],
  run: Command['run'],
  shown?: string,
): Command => ({
  id,
  title,
  keys,
  run,
  group: 'Kern',
  stage: 'kern',
  onlyKeys: true,
  can: () => hands.kern !== undefined,
  ...(shown && { shown }),
});

export const KERN_COMMANDS: readonly Command[] = [
  kern(
    'kern-value',
    () => `The value by ${kernStep()}; Shift by 1`,
    ['ArrowLeft', 'ArrowRight', 'Shift+ArrowLeft', 'Shift+ArrowRight'],
    (e) => hands.kern?.change(signOf(e) * (e?.shiftKey ? 1 : kernStep())),
    '← →',
  ),
  kern(
    'kern-walk',
    'The pair before or after',
    ['ArrowUp', 'ArrowDown'],
    (e) => hands.kern?.go(e?.key === 'ArrowUp' ? -1 : 1),
    '↑ ↓',
  ),
  kern('kern-even', 'Take the even value and go on', ['Enter'], () => hands.kern?.takeEven()),
  kern('kern-skip', 'Skip', ['KeyS'], () => hands.kern?.go(1)),
  kern('kern-leave', 'Leave for good', ['KeyX'], () => hands.kern?.leave()),
  {
    ...kern(
      'kern-line',
      'Next line of the word list; Shift the one before',
      ['KeyN', 'Shift+KeyN'],
      (e) => hands.kern?.line(e?.shiftKey ? -1 : 1),
      'N',
    ),
    can: () => hands.kern !== undefined && useKernBench.getState().mode === 'words',
  },
  {
    ...kern('kern-before', 'Without kerning, while held', ['KeyB'], () => hands.kern?.before(true), 'B held'),
    release: () => hands.kern?.before(false),
  },
  {
    id: 'kern-proposal',
    title: 'Propose kerning for many pairs…',
    group: 'Kern',
    stage: 'kern',
    run: () => openDialog('kern-proposal'),
  },
  {
    id: 'kern-groups',
    title: 'Find kerning groups by shapes…',
    group: 'Kern',
    stage: 'kern',
    run: () => openDialog('kern-groups'),
  },
  ...MODES.map(
    (m): Command => ({
      id: `kern-${m.value}`,
      title: `${m.text} of Kern: ${m.hint.charAt(0).toLowerCase()}${m.hint.slice(1)}`,
      group: 'Kern',
      stage: 'kern',
      run: () => setMode(m.value),
    }),
  ),
];

export const CASE_COMMANDS: readonly Command[] = [
  {
    id: 'case-open',
    title: 'Draw the chosen glyph',
    group: 'Case',
    stage: 'case',
    keys: ['Enter'],
    can: () => hands.case !== undefined,
    run: () => hands.case?.open(),
  },
  {
    id: 'case-all',
    title: 'Choose all glyphs that are shown',
    group: 'Case',
    stage: 'case',
    keys: ['$mod+KeyA'],
    run: () => hands.case?.all(),
  },
  {
    id: 'case-remove',
    title: 'Remove the chosen glyphs…',
    group: 'Case',
    stage: 'case',
    keys: ['Delete', 'Backspace'],
    can: () => hands.case !== undefined,
    run: () => hands.case?.remove(),
  },
];

export const STAGE_GESTURES: readonly Gesture[] = [
  { how: 'Drag an edge', does: 'Sets a side; with Shift both', group: 'Fit' },
  { how: 'Drag the second letter', does: 'Kerns the pair', group: 'Kern' },
  { how: 'Double click', does: 'Opens a glyph in Draw', group: 'Case' },
  { how: 'Shift click', does: 'Adds to the choice', group: 'Case' },
  { how: 'Click a letter', does: 'Goes to that glyph', group: 'Galley' },
  { how: 'Wheel', does: 'Moves a text that is longer than the band', group: 'Galley' },
];
