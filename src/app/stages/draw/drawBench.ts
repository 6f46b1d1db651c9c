import { create } from 'zustand';
import type { ToolName } from '../../canvas/tools/tool';

export const DETAIL_TABS = [
  { name: 'shape', title: 'Shape', hint: 'Points, sides and contours' },
  { name: 'parts', title: 'Parts', hint: 'Other glyphs drawn in this one, guides' },
  { name: 'behind', title: 'Behind', hint: 'Pictures, other masters and glyphs behind the drawing' },
  { name: 'takes', title: 'Takes', hint: 'Kept versions of this drawing' },
] as const;
export type DetailTab = (typeof DETAIL_TABS)[number]['name'];

/** How the drawing bench is set up; none of it is part of the document. */
type DrawBench = {
  tool: ToolName;
  tab: DetailTab;
  /** The backdrop picture being traced, by its id. */
  tracing: string | undefined;
};

export const useDrawBench = create<DrawBench>(() => ({ tool: 'select', tab: 'shape', tracing: undefined }));

const set = useDrawBench.setState;
export const setTool = (tool: ToolName): void => set({ tool });
export const setTab = (tab: DetailTab): void => set({ tab });
export const setTracing = (tracing: string | undefined): void => set({ tracing });
