import type { Command, CommandGroup, Gesture } from '../keys/command';
import { CASE_COMMANDS, CASE_GESTURES } from '../stages/case/commands';
import { COMPOSE_COMMANDS, COMPOSE_GESTURES } from '../stages/compose/commands';
import { DRAW_COMMANDS, DRAW_GESTURES } from '../stages/draw/commands';
import { FEATURES_COMMANDS } from '../stages/features/commands';
import { FIT_COMMANDS, FIT_GESTURES } from '../stages/fit/commands';
import { KERN_COMMANDS, KERN_GESTURES } from '../stages/kern/commands';
import { MASTERS_COMMANDS } from '../stages/masters/commands';
import { PLAN_COMMANDS } from '../stages/plan/commands';
import { PREFLIGHT_COMMANDS } from '../stages/preflight/commands';
import { SCRIPTS_COMMANDS } from '../stages/scripts/commands';
import { goToStage, stageNow } from '../state/navigation';
import type { StageKey } from '../state/stages';
import { BENCH_COMMANDS } from './bench';

/** Every command there is. */
export const COMMANDS: readonly Command[] = [
  ...BENCH_COMMANDS,
  ...PLAN_COMMANDS,
  ...DRAW_COMMANDS,
  ...FIT_COMMANDS,
  ...KERN_COMMANDS,
  ...CASE_COMMANDS,
  ...COMPOSE_COMMANDS,
  ...FEATURES_COMMANDS,
  ...MASTERS_COMMANDS,
  ...PREFLIGHT_COMMANDS,
  ...SCRIPTS_COMMANDS,
];

export const GESTURES: readonly Gesture[] = [
  ...DRAW_GESTURES,
  ...FIT_GESTURES,
  ...KERN_GESTURES,
  ...CASE_GESTURES,
  ...COMPOSE_GESTURES,
  { how: 'Click a letter', does: 'Goes to that glyph', group: 'Galley' },
  { how: 'Wheel', does: 'Moves a text that is longer than the band', group: 'Galley' },
];

/** Headings of the sheet of keys, in order. */
export const GROUPS: readonly CommandGroup[] = [
  'Go',
  'Edit',
  'Project',
  'View',
  'Tools',
  'Draw',
  'Fit',
  'Kern',
  'Case',
  'Compose',
  'Features',
  'Masters',
  'Preflight',
  'Scripts',
  'Galley',
];

/** Commands that keys may run in a stage: its own first, then those of every stage. */
export const commandsIn = (stage: StageKey): readonly Command[] =>
  [...COMMANDS]
    .filter((c) => c.stage === stage || c.stage === undefined)
    .sort((a, b) => (a.stage ? 0 : 1) - (b.stage ? 0 : 1));

/** Runs a command from the palette: in its stage, gone to first where that is another. */
export function runFromAnywhere(command: Command): void {
  if (!command.stage || command.stage === stageNow()) {
    if (command.can?.() ?? true) command.run();
    return;
  }
  goToStage(command.stage);
  // The stage lays its deeds out when it has been drawn.
  setTimeout(() => command.run(), 350);
}
