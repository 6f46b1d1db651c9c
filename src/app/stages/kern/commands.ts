import { stepOf } from '../../../core/kerning/units';
import type { Command, Gesture } from '../../keys/command';
import { hands } from '../../keys/hands';
import { signOf } from '../../keys/keys';
import { useBench } from '../../state/bench';
import { openDialog } from '../../state/dialogs';
import { MODES, setMode, useKernBench } from './kernBench';

const kernStep = () => {
  const { settled } = useBench.getState();
  return settled ? stepOf(settled) : 5;
};

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

/** What can be done in Kern. */
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

export const KERN_GESTURES: readonly Gesture[] = [
  { how: 'Drag the second letter', does: 'Kerns the pair', group: 'Kern' },
];
