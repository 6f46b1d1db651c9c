import {
  CircleCheck,
  Combine,
  FoldHorizontal,
  Grid3x3,
  type LucideIcon,
  MoveHorizontal,
  Package,
  PenLine,
  Ruler,
  ScrollText,
  Spline,
  Workflow,
} from 'lucide-react';

export type StageKey =
  | 'plan'
  | 'case'
  | 'draw'
  | 'compose'
  | 'fit'
  | 'kern'
  | 'features'
  | 'masters'
  | 'preflight'
  | 'scripts'
  | 'cast';
export type StageInfo = { key: StageKey; title: string; icon: LucideIcon; does: string };

/** The stages in the order of the work. */
export const STAGES: readonly StageInfo[] = [
  { key: 'plan', title: 'Plan', icon: Ruler, does: 'Names, em and vertical metrics' },
  { key: 'case', title: 'Case', icon: Grid3x3, does: 'All glyphs' },
  { key: 'draw', title: 'Draw', icon: PenLine, does: 'Outlines of one glyph' },
  { key: 'compose', title: 'Compose', icon: Combine, does: 'Letters from bases and marks' },
  { key: 'fit', title: 'Fit', icon: MoveHorizontal, does: 'Side bearings in control lines' },
  { key: 'kern', title: 'Kern', icon: FoldHorizontal, does: 'Pairs and their groups' },
  { key: 'features', title: 'Features', icon: Workflow, does: 'Rules of layout: ligatures, figures, alternates' },
  { key: 'masters', title: 'Masters', icon: Spline, does: 'Axes, masters, instances and whether they agree' },
  { key: 'scripts', title: 'Scripts', icon: ScrollText, does: 'What is done a hundred times, written once' },
  {
    key: 'preflight',
    title: 'Preflight',
    icon: CircleCheck,
    does: 'What is wrong, shown on the letter, with its mend',
  },
  { key: 'cast', title: 'Cast', icon: Package, does: 'Make font files' },
];

export const isStage = (key: string | undefined): key is StageKey => STAGES.some((s) => s.key === key);
