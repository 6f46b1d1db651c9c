import { SHIPPED } from '../../../core/scripting/shipped/shipped';
import type { Command } from '../../keys/command';
import { hands } from '../../keys/hands';
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
