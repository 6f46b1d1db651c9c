import { useEffect, useMemo } from 'react';
import type { NavigateFunction } from 'react-router';
import { tinykeys } from 'tinykeys';
import { directByNesting } from '../../core/drawing/edits';
import { removeOverlap } from '../../core/drawing/shapeEdits';
import { openSheetDialog } from '../lettering/sheetDialog';
import { redoEdit, run, stepGlyph, stepMaster, undoEdit, useBench } from '../state/bench';
import { setBenchLight } from '../state/light';
import { saveToFile } from './projectFiles';
import { STAGES } from './stages';

/** A command: what the palette lists, the shortcut sheet prints and a key runs. */
export type Command = {
  id: string;
  title: string;
  group: 'Go' | 'Edit' | 'Project' | 'View';
  /** In tinykeys notation. */
  keys?: string;
  /** As printed. */
  shown?: string;
  run: () => void;
};

const mac = navigator.platform.startsWith('Mac');
export const MOD = mac ? '⌘' : 'Ctrl';

export function useCommands({
  projectId,
  navigate,
  openSheet,
  openPalette,
  openRoom,
}: {
  projectId: string;
  navigate: NavigateFunction;
  openSheet: () => void;
  openPalette: () => void;
  openRoom: () => void;
}): readonly Command[] {
  const commands = useMemo((): Command[] => {
    const glyphQuery = () => {
      const { project, glyph } = useBench.getState();
      const name = glyph ? project?.glyphs[glyph]?.name : undefined;
      return name ? `?glyph=${encodeURIComponent(name)}` : '';
    };
    return [
      {
        id: 'palette',
        title: 'Find a glyph or a command',
        group: 'Go',
        keys: '$mod+KeyK',
        shown: `${MOD} K`,
        run: openPalette,
      },
      ...STAGES.map(
        (s, i): Command => ({
          id: s.key,
          title: `Go to ${s.title}`,
          group: 'Go',
          keys: `Alt+Digit${i + 1}`,
          shown: `Alt ${i + 1}`,
          run: () => void navigate(`/p/${projectId}/${s.key}${glyphQuery()}`),
        }),
      ),
      { id: 'next-glyph', title: 'Next glyph', group: 'Go', keys: '.', shown: '.', run: () => stepGlyph(1) },
      { id: 'previous-glyph', title: 'Previous glyph', group: 'Go', keys: ',', shown: ',', run: () => stepGlyph(-1) },
      { id: 'next-master', title: 'Next master', group: 'Go', keys: ']', shown: ']', run: () => stepMaster(1) },
      {
        id: 'previous-master',
        title: 'Previous master',
        group: 'Go',
        keys: '[',
        shown: '[',
        run: () => stepMaster(-1),
      },
      { id: 'start', title: 'Go to the start page', group: 'Go', run: () => void navigate('/') },
      { id: 'undo', title: 'Undo', group: 'Edit', keys: '$mod+KeyZ', shown: `${MOD} Z`, run: undoEdit },
      { id: 'redo', title: 'Do again', group: 'Edit', keys: '$mod+Shift+KeyZ', shown: `${MOD} Shift Z`, run: redoEdit },
      {
        id: 'directions',
        title: 'Set directions by nesting in this glyph',
        group: 'Edit',
        run: () => {
          const { glyph, master } = useBench.getState();
          if (glyph) run((p) => directByNesting(p, { at: { glyph, master } }));
        },
      },
      {
        id: 'overlap',
        title: 'Remove overlap in this glyph',
        group: 'Edit',
        run: () => {
          const { glyph, master } = useBench.getState();
          if (glyph) run((p) => removeOverlap(p, { at: { glyph, master } }));
        },
      },
      { id: 'sheet', title: 'Get a sheet of lettering', group: 'Project', run: openSheetDialog },
      {
        id: 'save-file',
        title: 'Save the project to a file',
        group: 'Project',
        keys: '$mod+KeyS',
        shown: `${MOD} S`,
        run: () => {
          const { settled } = useBench.getState();
          if (settled) void saveToFile(settled);
        },
      },
      { id: 'storage', title: 'What is stored in this browser', group: 'Project', run: openRoom },
      { id: 'light', title: 'Light bench', group: 'View', run: () => setBenchLight('light') },
      { id: 'dark', title: 'Dark bench', group: 'View', run: () => setBenchLight('dark') },
      { id: 'system-light', title: 'Bench as the system has it', group: 'View', run: () => setBenchLight('system') },
      { id: 'shortcuts', title: 'Keyboard shortcuts', group: 'View', keys: 'Shift+?', shown: '?', run: openSheet },
    ];
  }, [projectId, navigate, openSheet, openPalette, openRoom]);

  useEffect(() => {
    const bindings = Object.fromEntries(
      commands.flatMap((c) =>
        c.keys === undefined
          ? []
          : [
              [
                c.keys,
                (e: KeyboardEvent) => {
                  const chord = /^(\$mod|Alt)\+/.test(c.keys!);
                  if (!chord && isTyping(e.target)) return;
                  // Typed text has its own undo.
                  if ((c.id === 'undo' || c.id === 'redo') && isTyping(e.target)) return;
                  if (document.querySelector('[role="dialog"]') && c.id !== 'palette') return;
                  e.preventDefault();
                  c.run();
                },
              ],
            ],
      ),
    );
    return tinykeys(window, bindings);
  }, [commands]);
  return commands;
}

/** Is the key meant for a text field? */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.tagName === 'TEXTAREA' ||
      target.tagName === 'SELECT' ||
      (target instanceof HTMLInputElement && !['checkbox', 'radio', 'range', 'button'].includes(target.type)))
  );
}
