import { addSections } from '../../../core/features/edits';
import type { Command } from '../../keys/command';
import { run, useBench } from '../../state/bench';

/** What can be done in Features. */
export const FEATURES_COMMANDS: readonly Command[] = [
  {
    id: 'features-own',
    title: 'Add a section of rules of your own',
    group: 'Features',
    stage: 'features',
    can: () => useBench.getState().settled !== undefined,
    run: () => run((p) => addSections(p, { sections: [{ title: 'My rules', text: 'feature ss01 {\n} ss01;\n' }] })),
  },
];
