import type { Command } from '../../keys/command';
import { hands } from '../../keys/hands';

/** What can be done in Preflight. */
export const PREFLIGHT_COMMANDS: readonly Command[] = [
  {
    id: 'preflight-next',
    title: 'Next finding',
    group: 'Preflight',
    stage: 'preflight',
    keys: ['ArrowDown'],
    can: () => hands.preflight !== undefined,
    run: () => hands.preflight?.walk(1),
  },
  {
    id: 'preflight-before',
    title: 'Finding before',
    group: 'Preflight',
    stage: 'preflight',
    keys: ['ArrowUp'],
    can: () => hands.preflight !== undefined,
    run: () => hands.preflight?.walk(-1),
  },
  {
    id: 'preflight-mend',
    title: 'Mend what is shown, the way that stands first',
    group: 'Preflight',
    stage: 'preflight',
    keys: ['Enter'],
    can: () => hands.finding !== undefined,
    run: () => hands.finding?.mend(),
  },
  {
    id: 'preflight-accept',
    title: 'Accept what is shown as meant',
    group: 'Preflight',
    stage: 'preflight',
    keys: ['KeyA'],
    can: () => hands.finding !== undefined,
    run: () => hands.finding?.accept(),
  },
  {
    id: 'preflight-open',
    title: 'Open what is shown where it is worked on',
    group: 'Preflight',
    stage: 'preflight',
    keys: ['KeyO'],
    can: () => hands.finding !== undefined,
    run: () => hands.finding?.open(),
  },
];
