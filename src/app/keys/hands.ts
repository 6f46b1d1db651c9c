/**
 * What commands ask of the stage that is shown: the stage lays its deeds here while it stands, and takes them away when
 * it goes. Nothing happens where no such stage is shown.
 */
export type DrawHands = {
  fit(): void;
  zoom(by: number): void;
  /** Held keys: letters only, no snapping, the hand that moves the sheet. */
  bare(on: boolean): void;
  free(on: boolean): void;
  grab(on: boolean): boolean;
  /** Gives a key to the tool; false where it has no use for it. */
  key(event: KeyboardEvent): boolean;
};
export type FitHands = {
  sides(left: number, right: number): void;
  walk(by: 1 | -1): boolean;
  drop(): boolean;
};
export type KernHands = {
  change(by: number): boolean;
  go(by: 1 | -1): boolean;
  line(by: 1 | -1): boolean;
  takeEven(): boolean;
  leave(): boolean;
  before(on: boolean): void;
  /** Shows the pair with these glyphs; a side that is left out keeps its glyph. */
  show(pair: { first?: string; second?: string }): boolean;
};
export type CaseHands = { open(): boolean; remove(): boolean; all(): boolean };
export type LettersHands = { view(which: 'marks' | 'sets'): void };
export type ComposeHands = { enter(): boolean; all(): boolean; apart(): boolean; anew(): boolean };

export type FeaturesHands = { find(): void; trial(): void };

export type MastersView = 'plane' | 'agreement' | 'between';
export type MastersHands = { view(which: MastersView): void };
export type StripHands = { film(): void };

export type PreflightHands = { walk(by: 1 | -1): boolean };
/** Of the finding that is shown. */
export type FindingHands = { mend(): unknown; accept(): void; open(): void };

type Hands = {
  draw?: DrawHands;
  fit?: FitHands;
  kern?: KernHands;
  case?: CaseHands;
  compose?: ComposeHands;
  letters?: LettersHands;
  /** Shows what a script would change, or runs it. */
  scripts?: { preview(): void; run(): void };
  features?: FeaturesHands;
  masters?: MastersHands;
  strip?: StripHands;
  preflight?: PreflightHands;
  finding?: FindingHands;
  /** Keeps the chosen place in sight, or lets it go. */
  sight?: { watch: () => void };
};

export const hands: Hands = {};

/** Lays a stage's deeds out; the result takes them away again. */
export function layHands<K extends keyof Hands>(stage: K, deeds: Hands[K]): () => void {
  hands[stage] = deeds;
  return () => {
    if (hands[stage] === deeds) delete hands[stage];
  };
}
