import { create } from 'zustand';

/** Dialogs that stand over the bench or a stage; one at a time, reached from buttons and from the palette. */
export type DialogName =
  | 'palette'
  | 'keys'
  | 'storage'
  | 'copies'
  | 'sheet'
  | 'tidy'
  | 'fit-proposal'
  | 'kern-proposal'
  | 'kern-groups'
  | 'remove-glyphs'
  | 'duplicate'
  | 'rename'
  | 'edges'
  | 'reweight'
  | 'guide';

export const useDialogs = create<{ open: DialogName | undefined }>(() => ({ open: undefined }));
export const openDialog = (open: DialogName): void => useDialogs.setState({ open });
export const closeDialog = (): void => useDialogs.setState({ open: undefined });
export const useDialog = (name: DialogName): boolean => useDialogs((s) => s.open === name);
