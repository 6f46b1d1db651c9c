/** Windows language identifiers of language tags (OpenType, “name”: Windows language IDs), each language’s usual country. */
const IDS: Readonly<Record<string, number>> = {
  af: 0x436,
  ar: 0x401,
  az: 0x42c,
  be: 0x423,
  bg: 0x402,
  bn: 0x445,
  bs: 0x141a,
  ca: 0x403,
  cs: 0x405,
  cy: 0x452,
  da: 0x406,
  de: 0x407,
  el: 0x408,
  en: 0x409,
  es: 0xc0a,
  et: 0x425,
  eu: 0x42d,
  fa: 0x429,
  fi: 0x40b,
  fo: 0x438,
  fr: 0x40c,
  ga: 0x83c,
  gl: 0x456,
  he: 0x40d,
  hi: 0x439,
  hr: 0x41a,
  hu: 0x40e,
  hy: 0x42b,
  id: 0x421,
  is: 0x40f,
  it: 0x410,
  ja: 0x411,
  ka: 0x437,
  kk: 0x43f,
  ko: 0x412,
  lb: 0x46e,
  lt: 0x427,
  lv: 0x426,
  mk: 0x42f,
  ms: 0x43e,
  mt: 0x43a,
  nb: 0x414,
  nl: 0x413,
  nn: 0x814,
  pl: 0x415,
  pt: 0x816,
  'pt-BR': 0x416,
  ro: 0x418,
  ru: 0x419,
  sk: 0x41b,
  sl: 0x424,
  sq: 0x41c,
  sr: 0xc1a,
  sv: 0x41d,
  sw: 0x441,
  ta: 0x449,
  th: 0x41e,
  tr: 0x41f,
  uk: 0x422,
  ur: 0x420,
  vi: 0x42a,
  zh: 0x804,
  'zh-Hant': 0x404,
};
const TAGS = new Map(Object.entries(IDS).map(([tag, id]) => [id, tag]));
/** Primary languages of the identifiers, in their lower ten bits: German of Austria is German. */
const PRIMARY = new Map(Object.entries(IDS).flatMap(([tag, id]) => (tag.includes('-') ? [] : [[id & 0x3ff, tag]])));

export const ENGLISH = 0x409;

/** The Windows language identifier of a language tag; a longer tag has its shorter one’s. Undefined where there is none. */
export function languageIdOf(tag: string): number | undefined {
  const parts = tag.replace(/_/g, '-').split('-');
  for (let n = parts.length; n > 0; n--) {
    const wanted = parts.slice(0, n).join('-').toLowerCase();
    const found = Object.entries(IDS).find(([own]) => own.toLowerCase() === wanted);
    if (found) return found[1];
  }
  return undefined;
}

/** The language tag of a Windows language identifier; one of another country has its language’s. Undefined where none is known. */
export const languageTagOf = (id: number): string | undefined => TAGS.get(id) ?? PRIMARY.get(id & 0x3ff);
