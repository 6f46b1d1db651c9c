import { create } from 'zustand';

/** Is “Get a sheet” open? It is reached from Draw, the Case and the command palette. */
export const useSheetDialog = create<{ open: boolean }>(() => ({ open: false }));
export const openSheetDialog = (): void => useSheetDialog.setState({ open: true });
export const closeSheetDialog = (): void => useSheetDialog.setState({ open: false });
