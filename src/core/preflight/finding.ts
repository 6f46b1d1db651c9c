import type { Severity } from '../base/result';
import type { GlyphId, MasterId } from '../project/model';

/** What findings are about; the order is that of a font's making. */
export const FAMILIES = {
  outlines: 'Outlines',
  heights: 'Heights and stems',
  parts: 'Parts and anchors',
  fitting: 'Fitting',
  kerning: 'Kerning',
  masters: 'Masters',
  characters: 'Characters',
  names: 'Names',
  lines: 'Lines of text',
  features: 'Features',
  files: 'Font files',
} as const;
export type Family = keyof typeof FAMILIES;

/** How strictly a kind is judged: a number that a project may set otherwise. */
export type Amount = {
  readonly label: string;
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
};

/** A kind of finding, declared once: what lists, settings, help and the command line say about it. */
export type KindFacts = {
  /** Family and name: `outlines/open`. */
  readonly kind: string;
  readonly family: Family;
  /** The heading over findings of the kind. */
  readonly title: string;
  /** An error stands in the way of a font; attention is what readers or other programs would meet; a note is for the designer. */
  readonly severity: Severity;
  /** Why it matters, in a sentence or two. */
  readonly why: string;
  readonly amount?: Amount;
  /** Where more than a quarter of the drawn glyphs have it, it is how the family is drawn, and told once. */
  readonly habit?: boolean;
  /** What is said then, of so many glyphs that have it; the usual sentence without it. */
  readonly habitSays?: (glyphs: number) => string;
  /** The same in several masters of a glyph is one finding. */
  readonly perMaster?: boolean;
  /** Mended one by one only: the mend adds something that is to be wanted first. */
  readonly oneByOne?: boolean;
  /** Looked for only where a project asks. */
  readonly onRequest?: boolean;
};

export type Spot = { readonly x: number; readonly y: number };

/** A way to mend: an edit by its name with its arguments. */
export type MendWay = {
  readonly edit: string;
  readonly args: unknown;
  /** What it does, as on a button. */
  readonly title: string;
};

/** One fault, where it is and how bad. */
export type Finding = {
  readonly kind: string;
  /** The sentence; the glyph is named beside it. */
  readonly reason: string;
  /** How bad among those of its kind, in the kind's own measure. */
  readonly bad: number;
  readonly glyph?: GlyphId;
  /** Other glyphs that it is about: the second of a pair, what follows another. */
  readonly others?: readonly GlyphId[];
  /** Masters (or waypoints) in which it is so, the worst first; none where it is not of a master. */
  readonly masters: readonly MasterId[];
  /** Contour and point, from 0 on. */
  readonly contour?: number;
  readonly point?: number;
  /** Places in the first of the masters, in font units. */
  readonly spots: readonly Spot[];
  /** A section of the rules, and the line in it. */
  readonly section?: string;
  readonly line?: number;
  /** Ways to mend it, the usual first; none where only a hand can. */
  readonly mends: readonly MendWay[];
  /** Of a habit: in how many places a machine can mend it. */
  readonly mendable?: number;
};

/** A finding of what is not one drawing's. */
export const finding = (
  kind: string,
  reason: string,
  more: Partial<Omit<Finding, 'kind' | 'reason'>> = {},
): Finding => ({ kind, reason, bad: 1, masters: [], spots: [], mends: [], ...more });

/** The numbers by which findings are judged: a kind's own amount, or the usual one. */
export type Amounts = (kind: string) => number;
