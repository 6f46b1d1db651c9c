/** Alphabets by their OpenType tags, and where their characters stand. */
const ALPHABETS: readonly (readonly [tag: string, first: number, last: number])[] = [
  ['latn', 0x41, 0x24f],
  ['grek', 0x370, 0x3ff],
  ['cyrl', 0x400, 0x52f],
  ['armn', 0x530, 0x58f],
  ['hebr', 0x590, 0x5ff],
  ['arab', 0x600, 0x6ff],
  ['thai', 0xe00, 0xe7f],
  ['geor', 0x10a0, 0x10ff],
];

/** The alphabet of the first letter of a text that belongs to one. */
export function alphabetOf(text: string): string | undefined {
  for (const c of text) {
    const code = c.codePointAt(0)!;
    if (!/\p{L}/u.test(c)) continue;
    return ALPHABETS.find(([, first, last]) => code >= first && code <= last)?.[0];
  }
  return undefined;
}

/** Is a script one of these alphabets? */
export const isAlphabet = (tag: string): boolean => ALPHABETS.some(([t]) => t === tag.trimEnd());

/** OpenType script tags of the alphabets that characters belong to. */
export function scriptsOf(codes: Iterable<number>): string[] {
  const list = [...codes];
  return ALPHABETS.filter(([, first, last]) => list.some((c) => c >= first && c <= last)).map(([tag]) => tag);
}

/** Systems of languages where rules name none: those of the project, else the alphabets of its characters. */
export const systemsFor = (
  codes: Iterable<number>,
  own: readonly (readonly string[])[],
): (readonly [script: string, language: string])[] =>
  own.length > 0
    ? own.map(([s, l]) => [s!.padEnd(4), l!.trim() === 'dflt' ? 'dflt' : l!.padEnd(4)] as const)
    : ['DFLT', ...scriptsOf(codes)].map((s) => [s, 'dflt'] as const);
