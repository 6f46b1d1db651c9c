import { create } from 'zustand';

export const KINDS = [
  { value: 'control', text: 'Control strings', hint: 'The selected glyph among straights and rounds of its kind' },
  { value: 'own', text: 'My lines', hint: 'Lines of your own, one below the other; _ stands for the selected glyph' },
  { value: 'beside', text: 'Beside', hint: 'The same lines in another font of your own, to compare' },
  {
    value: 'forms',
    text: 'Forms',
    hint: 'The forms of the selected letter side by side, then in the same words in turn',
  },
  { value: 'masters', text: 'All masters', hint: 'One control string in every master, one below the other' },
] as const;
export type LineKind = (typeof KINDS)[number]['value'];

/** What is looked at in Fit; none of it is part of the document. */
export const useFitBench = create<{ kind: LineKind; size: number }>(() => ({ kind: 'control', size: 108 }));
export const setKind = (kind: LineKind): void => useFitBench.setState({ kind });
export const setSize = (size: number): void => useFitBench.setState({ size });
