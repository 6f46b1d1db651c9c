import type { StageKey } from '../state/stages';

/** Where a command stands on the sheet of keys and in the palette. */
export type CommandGroup =
  | 'Go'
  | 'Edit'
  | 'Project'
  | 'View'
  | 'Tools'
  | 'Draw'
  | 'Fit'
  | 'Kern'
  | 'Case'
  | 'Compose'
  | 'Features'
  | 'Masters'
  | 'Preflight'
  | 'Scripts'
  | 'Galley';

/**
 * What can be done, declared once. Keys, the palette, the sheet of keys, tooltips and hints are made from this.
 */
export type Command = {
  readonly id: string;
  /** What it does, as one would ask for it; a function where that depends on the project. */
  readonly title: string | (() => string);
  readonly group: CommandGroup;
  /** The stage it belongs to; from elsewhere the palette goes there first. */
  readonly stage?: StageKey;
  /** In the notation of tinykeys; any of them runs it. */
  readonly keys?: readonly string[];
  /** How the keys are printed, where that is shorter than one by one. */
  readonly shown?: string;
  /** Can it run now? Keys of one that cannot go on to whatever else they mean. */
  readonly can?: () => boolean;
  /** Does it; `false` says that the key was not meant for it after all. */
  readonly run: (event?: KeyboardEvent) => unknown;
  /** For keys that are held: what letting go does. */
  readonly release?: () => void;
  /** Only for the hand on the keys; not listed in the palette. */
  readonly onlyKeys?: boolean;
  /** Works while a dialog is open, too. */
  readonly always?: boolean;
  /** Works while one types in a field, too. */
  readonly whileTyping?: boolean;
};

/** What the pointer does with a key held: told on the sheet of keys, not run from it. */
export type Gesture = { readonly how: string; readonly does: string; readonly group: CommandGroup };

export const titleOf = (c: Command): string => (typeof c.title === 'string' ? c.title : c.title());
