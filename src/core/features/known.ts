/** What features are for and when text uses them, by tag (OpenType, “Registered features”), for completion and for menus. */
const KNOWN: Readonly<Record<string, readonly [does: string, isUsual: boolean]>> = {
  aalt: ['All other forms of a glyph, to choose from', false],
  calt: ['Forms that depend on what stands beside, always on', true],
  case: ['Signs beside capitals', false],
  ccmp: ['Glyphs put together or taken apart, always first', true],
  clig: ['Ligatures that depend on what stands beside', true],
  cpsp: ['More room between capitals', false],
  curs: ['Joins of connected writing', true],
  c2sc: ['Small capitals for capitals', false],
  dlig: ['Ligatures on request', false],
  dnom: ['Figures below a fraction bar', false],
  fina: ['Forms at the end of a word', true],
  frac: ['Fractions', false],
  hist: ['Forms of earlier times', false],
  hlig: ['Ligatures of earlier times', false],
  init: ['Forms at the beginning of a word', true],
  isol: ['Forms that stand alone', true],
  kern: ['Room between pairs', true],
  liga: ['Ligatures, always on', true],
  lnum: ['Figures as tall as capitals', false],
  locl: ['Forms of single languages', true],
  mark: ['Marks on letters', true],
  medi: ['Forms within a word', true],
  mkmk: ['Marks on marks', true],
  numr: ['Figures above a fraction bar', false],
  onum: ['Figures with ascenders and descenders', false],
  ordn: ['Ordinals', false],
  pnum: ['Figures as wide as they need', false],
  rlig: ['Ligatures that must be', true],
  salt: ['Other forms', false],
  sinf: ['Figures of formulas', false],
  size: ['The size that a face is drawn for', false],
  smcp: ['Small capitals for small letters', false],
  subs: ['Inferiors', false],
  sups: ['Superiors', false],
  swsh: ['Swashes', false],
  titl: ['Forms for titles', false],
  tnum: ['Figures of one width', false],
  zero: ['Zero told from O', false],
};

/** What a feature is for; stylistic sets and character variants by their numbers. */
export function featureDoes(tag: string): string | undefined {
  const set = /^ss(\d\d)$/.exec(tag);
  if (set) return `Stylistic set ${Number(set[1])}`;
  const variant = /^cv(\d\d)$/.exec(tag);
  if (variant) return `Character variant ${Number(variant[1])}`;
  return KNOWN[tag]?.[0];
}

/** Does text use a feature without being asked? */
export const isUsual = (tag: string): boolean => KNOWN[tag]?.[1] ?? false;

export const knownFeatures = (): readonly string[] => [
  ...Object.keys(KNOWN),
  ...Array.from({ length: 20 }, (_, i) => `ss${String(i + 1).padStart(2, '0')}`),
];
