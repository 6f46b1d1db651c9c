/** What a proof may show, in its order. */
export const PROOF_SECTIONS = [
  { key: 'waterfall', title: 'Waterfall', what: 'the text from 8 to 80 points' },
  { key: 'text', title: 'Text', what: 'paragraphs at sizes one reads' },
  { key: 'glyphs', title: 'Glyphs', what: 'every glyph with its name and character' },
  { key: 'languages', title: 'Languages', what: 'a sentence in each that the font can write' },
  { key: 'spacing', title: 'Spacing', what: 'every letter between straights and rounds' },
  { key: 'kerning', title: 'Kerning', what: 'the pairs that are kerned most' },
  { key: 'marks', title: 'Marks', what: 'every mark on letters of all widths' },
  { key: 'family', title: 'Family', what: 'the text in each of the files' },
] as const satisfies readonly { key: string; title: string; what: string }[];
export type ProofSection = (typeof PROOF_SECTIONS)[number]['key'];

/** Sizes of pages in points. */
export const PAGE_SIZES = {
  A4: { width: 595.28, height: 841.89 },
  A3: { width: 841.89, height: 1190.55 },
  Letter: { width: 612, height: 792 },
} as const;
export type PageSize = keyof typeof PAGE_SIZES;
