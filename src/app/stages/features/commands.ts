import { addSections } from '../../../core/features/edits';
import type { Command } from '../../keys/command';
import { hands } from '../../keys/hands';
import { run, useBench } from '../../state/bench';

/** What can be done in Features. */
export const FEATURES_COMMANDS: readonly Command[] = [
  {
    id: 'features-find',
    title: 'Find in all rules',
    group: 'Features',
    stage: 'features',
    keys: ['KeyF'],
    can: () => hands.features !== undefined,
    run: () => hands.features?.find(),
  },
  {
    id: 'features-trial',
    title: 'Trial of all rules, open or closed',
    group: 'Features',
    stage: 'features',
    keys: ['KeyT'],
    can: () => hands.features !== undefined,
    run: () => hands.features?.trial(),
  },
  {
    id: 'features-own',
    title: 'Add a section of rules of your own',
    group: 'Features',
    stage: 'features',
    can: () => useBench.getState().settled !== undefined,
    run: () => run((p) => addSections(p, { sections: [{ title: 'My rules', text: 'feature ss01 {\n} ss01;\n' }] })),
  },
];
