import { create } from 'zustand';
import { recalled, remember } from '../../../browser/remembered';
import type { Gauge } from '../../../core/drawing/gauge';
import type { PointKey } from '../../../core/drawing/points';
import type { StrokeKind } from '../../../core/drawing/strokes';
import type { GlyphId } from '../../../core/project/model';
import type { Levelling, ToolName } from '../../canvas/tools/tool';
import type { View } from '../../canvas/view';

export const DETAIL_TABS = [
  { name: 'shape', title: 'Shape', hint: 'Points, sides and contours' },
  { name: 'parts', title: 'Parts', hint: 'Other glyphs drawn in this one, anchors, guides' },
  { name: 'behind', title: 'Behind', hint: 'Pictures, other masters and glyphs behind the drawing' },
  { name: 'takes', title: 'Takes', hint: 'Kept versions of this drawing' },
] as const;
export type DetailTab = (typeof DETAIL_TABS)[number]['name'];
export type Hints = readonly (readonly [string, string])[];

/** Which changes of a drawing are made in all masters that agree with it: none, those of how it is built, or all. */
export const REACHING = [
  { value: 'one', title: 'this master only', text: () => 'this master' },
  {
    value: 'structure',
    title: 'points, parts and cuts in all masters that agree, places in this one',
    text: (n: number) => (n === 1 ? 'all that agree: this one' : `${n} drawings, places here`),
  },
  {
    value: 'all',
    title: 'everything in all masters that agree',
    text: (n: number) => (n === 1 ? 'all that agree: this one' : `${n} masters, places too`),
  },
] as const;
export type Reaching = (typeof REACHING)[number]['value'];
const REACHING_KEY = 'wendril-reaching';

/** How the drawing bench is set up; none of it is part of the document. */
type DrawBench = {
  tool: ToolName;
  tab: DetailTab;
  /** The backdrop picture being traced, by its id. */
  tracing: string | undefined;
  /** The work on edges being looked at before it is done. */
  edges: StrokeKind | undefined;
  /** Chosen parts of the drawing. */
  parts: readonly number[];
  gauges: Readonly<Record<GlyphId, readonly Gauge[]>>;
  /** What a click with the oval or the box draws, in font units. */
  typedSize: { width: number; height: number };
  /** The point that giving a distance or an angle would move. */
  moving: PointKey | undefined;
  /** A picture's heights being set by clicks: the baseline first, then this line. */
  levelling: Levelling | undefined;
  combs: boolean;
  /** Widths of strokes are shown on the letter. */
  stems: boolean;
  reaching: Reaching;
  /** Words that keep the glyph company; empty for its neighbours in the galley. */
  company: string;
  /** What the keys do just now. */
  hints: Hints;
  /** Where font units lie on the canvas. */
  view: View | undefined;
};

export const useDrawBench = create<DrawBench>(() => ({
  tool: 'select',
  tab: 'shape',
  tracing: undefined,
  edges: undefined,
  parts: [],
  gauges: {},
  typedSize: { width: 100, height: 100 },
  moving: undefined,
  levelling: undefined,
  combs: false,
  stems: false,
  reaching: REACHING.find((r) => r.value === recalled(REACHING_KEY))?.value ?? 'structure',
  company: '',
  hints: [],
  view: undefined,
}));

const set = useDrawBench.setState;
export const setTool = (tool: ToolName): void => set({ tool });
export const setTab = (tab: DetailTab): void => set({ tab });
export const setTracing = (tracing: string | undefined): void => set({ tracing });
export const setEdges = (edges: StrokeKind | undefined): void => set({ edges });
const NONE: readonly never[] = [];
export const chooseParts = (parts: readonly number[]): void => set({ parts: parts.length === 0 ? NONE : parts });
export const layGauges = (glyph: GlyphId, gauges: readonly Gauge[]): void =>
  set((s) => ({ gauges: { ...s.gauges, [glyph]: gauges } }));
export const gaugesOf = (glyph: GlyphId): readonly Gauge[] => useDrawBench.getState().gauges[glyph] ?? NONE;
export const setTypedSize = (typedSize: DrawBench['typedSize']): void => set({ typedSize });
export const toggleStems = (): void => set((s) => ({ stems: !s.stems }));
export const toggleCombs = (): void => set((s) => ({ combs: !s.combs }));
export const setReaching = (reaching: Reaching): void => {
  remember(REACHING_KEY, reaching);
  set({ reaching });
};
export const setMoving = (moving: PointKey | undefined): void => set({ moving });
export const setLevelling = (levelling: Levelling | undefined): void => set({ levelling });
export const setCompany = (company: string): void => set({ company });
export const setHints = (hints: Hints): void => set({ hints });
export const setView = (view: View): void => set({ view });
/** Another drawing is on the bench: what was chosen or looked at in the last one is over. */
export const forgetDrawing = (): void =>
  set({ tracing: undefined, edges: undefined, parts: NONE, levelling: undefined });
