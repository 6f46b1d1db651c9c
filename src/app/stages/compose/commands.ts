import type { Command, Gesture } from '../../keys/command';
import { hands } from '../../keys/hands';

/** What can be done in Compose. */
export const COMPOSE_COMMANDS: readonly Command[] = [
  {
    id: 'compose-marks',
    title: 'Letters with marks',
    group: 'Compose',
    stage: 'compose',
    keys: ['KeyM'],
    run: () => hands.letters?.view('marks'),
  },
  {
    id: 'compose-sets',
    title: 'Sets from letters: small capitals, figures, fractions',
    group: 'Compose',
    stage: 'compose',
    keys: ['KeyS'],
    run: () => hands.letters?.view('sets'),
  },
  {
    id: 'compose-enter',
    title: 'Build the chosen letters, or open what is built in Draw',
    group: 'Compose',
    stage: 'compose',
    keys: ['Enter'],
    can: () => hands.compose !== undefined,
    run: () => hands.compose?.enter(),
  },
  {
    id: 'compose-all',
    title: 'Choose all letters that are shown',
    group: 'Compose',
    stage: 'compose',
    keys: ['$mod+KeyA'],
    run: () => hands.compose?.all(),
  },
  {
    id: 'compose-anew',
    title: 'Make the chosen letters anew by their recipes',
    group: 'Compose',
    stage: 'compose',
    can: () => hands.compose !== undefined,
    run: () => hands.compose?.anew(),
  },
  {
    id: 'compose-apart',
    title: 'Take the chosen letters apart to outlines',
    group: 'Compose',
    stage: 'compose',
    can: () => hands.compose !== undefined,
    run: () => hands.compose?.apart(),
  },
];

export const COMPOSE_GESTURES: readonly Gesture[] = [
  { how: 'Arrows', does: 'Walk from letter to letter; with Shift they choose all between', group: 'Compose' },
  { how: 'Shift click', does: 'Chooses all from the last one to this', group: 'Compose' },
  { how: 'Mod click', does: 'Adds to the choice, or takes away', group: 'Compose' },
];
