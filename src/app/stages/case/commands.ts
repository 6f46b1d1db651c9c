import type { Command, Gesture } from '../../keys/command';
import { hands } from '../../keys/hands';
import { useBench } from '../../state/bench';
import { openDialog } from '../../state/dialogs';

/** What can be done in the Case. */
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
    id: 'case-edges',
    title: 'Stroke, grow, hollow or frame the chosen glyphs…',
    group: 'Case',
    stage: 'case',
    can: () => useBench.getState().glyph !== undefined,
    run: () => openDialog('edges'),
  },
  {
    id: 'case-rename',
    title: 'Find and replace in glyph names…',
    group: 'Case',
    stage: 'case',
    run: () => openDialog('rename'),
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

export const CASE_GESTURES: readonly Gesture[] = [
  { how: 'Double click', does: 'Opens a glyph in Draw', group: 'Case' },
  { how: 'Shift click', does: 'Chooses all from the last one to this', group: 'Case' },
  { how: 'Mod click', does: 'Adds to the choice, or takes away', group: 'Case' },
];
