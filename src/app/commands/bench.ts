import { directByNesting } from '../../core/drawing/edits';
import { removeOverlap } from '../../core/drawing/shapeEdits';
import type { DrawingPlace, Outcome } from '../../core/project/edit';
import { canRedo, canUndo } from '../../core/project/history';
import type { Project } from '../../core/project/model';
import type { Command } from '../keys/command';
import { redoEdit, run, stepGlyph, stepMaster, undoEdit, useBench } from '../state/bench';
import { openDialog } from '../state/dialogs';
import { homeNow, saveHome } from '../state/home';
import { setBenchLight } from '../state/light';
import { goToStage, goToStart } from '../state/navigation';
import { goToPartner } from '../state/partner';
import { saveToFile } from '../state/projectFiles';
import { STAGES, type StageKey } from '../state/stages';

const inThisGlyph = (edit: (p: Project, args: { at: DrawingPlace }) => Outcome) => () => {
  const { glyph, master } = useBench.getState();
  if (glyph) run((p) => edit(p, { at: { glyph, master } }));
};
const hasGlyph = () => useBench.getState().glyph !== undefined;

/** The ten stages of the work have the digits in their order; scripts, which serve all of them, the key beside those. */
const DIGITS = STAGES.filter((s) => s.key !== 'scripts').map((s) => s.key);
const keyOf = (stage: StageKey): string =>
  stage === 'scripts' ? 'Alt+Minus' : `Alt+Digit${(DIGITS.indexOf(stage) + 1) % 10}`;

/** What can be done in every stage. */
export const BENCH_COMMANDS: readonly Command[] = [
  {
    id: 'palette',
    title: 'Find a glyph or a command',
    group: 'Go',
    keys: ['$mod+KeyK'],
    whileTyping: true,
    onlyKeys: true,
    run: () => openDialog('palette'),
  },
  ...STAGES.map(
    (s): Command => ({
      id: s.key,
      title: `Go to ${s.title}`,
      group: 'Go',
      keys: [keyOf(s.key)],
      whileTyping: true,
      run: () => goToStage(s.key),
    }),
  ),
  { id: 'next-glyph', title: 'Next glyph', group: 'Go', keys: ['.'], run: () => stepGlyph(1) },
  { id: 'previous-glyph', title: 'Previous glyph', group: 'Go', keys: [','], run: () => stepGlyph(-1) },
  { id: 'next-master', title: 'Next master', group: 'Go', keys: [']'], run: () => stepMaster(1) },
  { id: 'previous-master', title: 'Previous master', group: 'Go', keys: ['['], run: () => stepMaster(-1) },
  {
    id: 'partner',
    title: 'Go to the same glyph in the partner',
    group: 'Go',
    keys: ['KeyY'],
    can: () => useBench.getState().settled?.settings.partner !== undefined,
    run: () => void goToPartner(),
  },
  {
    id: 'reweight',
    title: 'Reweight: new stems for this master, chosen glyphs or all…',
    group: 'Draw',
    keys: ['Shift+KeyW'],
    run: () => openDialog('reweight'),
  },
  { id: 'start', title: 'Go to the start page', group: 'Go', run: goToStart },
  {
    id: 'undo',
    title: 'Undo',
    group: 'Edit',
    keys: ['$mod+KeyZ'],
    can: () => canUndo(useBench.getState().history),
    run: undoEdit,
  },
  {
    id: 'redo',
    title: 'Do again',
    group: 'Edit',
    keys: ['$mod+Shift+KeyZ', '$mod+KeyY'],
    can: () => canRedo(useBench.getState().history),
    run: redoEdit,
  },
  {
    id: 'directions',
    title: 'Set directions by nesting in this glyph',
    group: 'Edit',
    can: hasGlyph,
    run: inThisGlyph(directByNesting),
  },
  {
    id: 'overlap',
    title: 'Remove overlap in this glyph',
    group: 'Edit',
    can: hasGlyph,
    run: inThisGlyph(removeOverlap),
  },
  {
    id: 'duplicate',
    title: 'Make a copy of this glyph…',
    group: 'Edit',
    keys: ['$mod+KeyD'],
    can: hasGlyph,
    run: () => openDialog('duplicate'),
  },
  { id: 'sheet', title: 'Get a sheet of lettering', group: 'Project', run: () => openDialog('sheet') },
  {
    id: 'save-home',
    title: () => `Save into the folder ${homeNow()?.handle.name ?? 'it came from'}: what was changed, and nothing else`,
    group: 'Project',
    keys: ['$mod+KeyS'],
    whileTyping: true,
    can: () => homeNow() !== undefined,
    run: () => saveHome(),
  },
  {
    id: 'save-file',
    title: 'Save the project to a file',
    group: 'Project',
    keys: ['$mod+KeyS', '$mod+Shift+KeyS'],
    whileTyping: true,
    run: () => {
      const { settled } = useBench.getState();
      if (settled) void saveToFile(settled);
    },
  },
  { id: 'copies', title: 'Dated copies of the project', group: 'Project', run: () => openDialog('copies') },
  { id: 'storage', title: 'What is stored in this browser', group: 'Project', run: () => openDialog('storage') },
  { id: 'light', title: 'Light bench', group: 'View', run: () => setBenchLight('light') },
  { id: 'dark', title: 'Dark bench', group: 'View', run: () => setBenchLight('dark') },
  { id: 'system-light', title: 'Bench as the system has it', group: 'View', run: () => setBenchLight('system') },
  {
    id: 'guide',
    title: 'Guide, at this stage',
    group: 'View',
    keys: ['F1'],
    whileTyping: true,
    run: () => openDialog('guide'),
  },
  {
    id: 'keys',
    title: 'Sheet of keys',
    group: 'View',
    keys: ['Shift+?', '?'],
    shown: '?',
    run: () => openDialog('keys'),
  },
];
