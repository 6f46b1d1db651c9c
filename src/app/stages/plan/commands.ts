import type { Command } from '../../keys/command';
import { PLAN_VIEWS, showInPlan } from './planView';

/** What can be looked at in Plan. */
export const PLAN_COMMANDS: readonly Command[] = PLAN_VIEWS.map(({ value, title }) => ({
  id: `plan-${value}`,
  title,
  group: 'Go',
  stage: 'plan',
  run: () => showInPlan(value),
}));
