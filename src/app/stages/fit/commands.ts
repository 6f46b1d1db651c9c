import type { Command, Gesture } from '../../keys/command';
import { hands } from '../../keys/hands';
import { MOD, signOf } from '../../keys/keys';
import { useBench } from '../../state/bench';
import { openDialog } from '../../state/dialogs';
import { KINDS, setKind } from './fitBench';

/** The sides by 1, by 5 with the command key, by 10 with Shift. */
const fitStep = (e?: KeyboardEvent) => (e?.shiftKey ? 10 : e?.ctrlKey || e?.metaKey ? 5 : 1);
const BY = `by 1; ${MOD} by 5; Shift by 10`;
const steps = (key: string, before = '') => [`${before}${key}`, `${before}$mod+${key}`, `${before}Shift+${key}`];

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

/** What can be done in Fit. */
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

export const FIT_GESTURES: readonly Gesture[] = [
  { how: 'Drag an edge', does: 'Sets a side; with Shift both', group: 'Fit' },
];
