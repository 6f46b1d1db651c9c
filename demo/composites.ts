/** Which letters are put together from others, by Unicode's own decompositions and a few habits of lettering. */

/** Glyph names of the combining marks. */
export const MARK_NAMES: Readonly<Record<string, string>> = {
  '\u0300': 'gravecomb',
  '\u0301': 'acutecomb',
  '\u0302': 'circumflexcomb',
  '\u0303': 'tildecomb',
  '\u0304': 'macroncomb',
  '\u0306': 'brevecomb',
  '\u0307': 'dotaccentcomb',
  '\u0308': 'dieresiscomb',
  '\u030a': 'ringcomb',
  '\u030b': 'hungarumlautcomb',
  '\u030c': 'caroncomb',
  '\u0312': 'commaturnedabovecomb',
  '\u0326': 'commabelowcomb',
  '\u0327': 'cedillacomb',
  '\u0328': 'ogonekcomb',
};

/** Spacing accents, each made from its mark. */
export const SPACING: Readonly<Record<string, string>> = {
  grave: 'gravecomb',
  acute: 'acutecomb',
  circumflex: 'circumflexcomb',
  tilde: 'tildecomb',
  macron: 'macroncomb',
  breve: 'brevecomb',
  dotaccent: 'dotaccentcomb',
  dieresis: 'dieresiscomb',
  ring: 'ringcomb',
  hungarumlaut: 'hungarumlautcomb',
  caron: 'caroncomb',
  cedilla: 'cedillacomb',
  ogonek: 'ogonekcomb',
};

/** Latin of Europe: Latin-1, Latin Extended-A, and what Romanian, Welsh, Slovene poetry and romanised names add. */
const ACCENTED = [
  ...'ÀÁÂÃÄÅÇÈÉÊËÌÍÎÏÑÒÓÔÕÖÙÚÛÜÝàáâãäåçèéêëìíîïñòóôõöùúûüýÿ',
  ...'ĀāĂăĄąĆćĈĉĊċČčĎďĒēĔĕĖėĘęĚěĜĝĞğĠġĢģĤĥĨĩĪīĬĭĮįİĴĵĶķĹĺĻļĽľŃńŅņŇňŌōŎŏŐőŔŕŖŗŘřŚśŜŝŞşŠšŢţŤťŨũŪūŬŭŮůŰűŲųŴŵŶŷŸŹźŻżŽž',
  ...'ȘșȚțẀẁẂẃẄẅỲỳǦǧǨǩǪǫḂḃḊḋḞḟḠḡṀṁṖṗṠṡṪṫẼẽỸỹÆ\u0301æ\u0301Ø\u0301ø\u0301',
].filter((c) => c.normalize('NFD').length === 2 || 'ǾǿǼǽ'.includes(c));

export type Recipe = { code: number; base: string; mark: string };

/** Every accented letter with the letter and the mark it is made of. Accents above take the place of the dots of i and j. */
export function recipes(): Recipe[] {
  const all = [...ACCENTED, 'Ǿ', 'ǿ', 'Ǽ', 'ǽ'];
  return all.map((c) => {
    const [letter, combining] = [...c.normalize('NFD')] as [string, string];
    const upper = letter === letter.toUpperCase();
    const above = !['\u0326', '\u0327', '\u0328'].includes(combining);
    const names: Record<string, string> = { Ø: 'Oslash', ø: 'oslash', Æ: 'AE', æ: 'ae' };
    const base =
      letter === 'i' && above ? 'dotlessi' : letter === 'j' && above ? 'dotlessj' : (names[letter] ?? letter);
    return { code: c.codePointAt(0)!, base, mark: markFor(c, combining, upper) };
  });
}

/** Letters whose caron is set beside the stem, and Latvian letters whose cedilla is a comma. */
function markFor(letter: string, combining: string, upper: boolean): string {
  if ('ďľťĽ'.includes(letter)) return 'caronslovakcomb';
  if (letter === 'ģ') return 'commaturnedabovecomb';
  if ('ĢĶķĻļŅņŖŗ'.includes(letter)) return 'commabelowcomb';
  const name = MARK_NAMES[combining]!;
  return upper && !['commabelowcomb', 'cedillacomb', 'ogonekcomb'].includes(name) ? `${name}.case` : name;
}
