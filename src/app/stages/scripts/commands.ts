import { SHIPPED } from '../../../core/scripting/shipped/shipped';
import type { Command } from '../../keys/command';
import { hands } from '../../keys/hands';
import { useBench } from '../../state/bench';
import { runByKey } from './runNow';
import { openSheet } from './sheets';

/** What can be done in Scripts; those that come with Wendril are opened by name. */
export const SCRIPTS_COMMANDS: readonly Command[] = [
  {
    id: 'script-preview',
    title: 'Preview the script: what it would change',
    group: 'Scripts',
    stage: 'scripts',
    keys: ['$mod+Enter'],
    whileTyping: true,
    can: () => hands.scripts !== undefined,
    run: () => hands.scripts?.preview(),
  },
  {
    id: 'script-run',
    title: 'Run the script, as one step',
    group: 'Scripts',
    stage: 'scripts',
    keys: ['$mod+Shift+Enter'],
    whileTyping: true,
    can: () => hands.scripts !== undefined,
    run: () => hands.scripts?.run(),
  },
  ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map(
    (key): Command => ({
      id: `script-key-${key}`,
      title: `Run the script of the project that has the key ${key}`,
      group: 'Scripts',
      keys: [`Alt+Shift+Digit${key}`],
      onlyKeys: true,
      can: () => useBench.getState().settled?.scripts.some((s) => s.key === key) ?? false,
      run: () => runByKey(key),
    }),
  ),
  ...SHIPPED.map(
    (s): Command => ({
      id: `script-open-${s.key}`,
      title: `Script: ${s.title}`,
      group: 'Scripts',
      stage: 'scripts',
      run: () => openSheet(s.key),
    }),
  ),
];
