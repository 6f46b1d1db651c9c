// biome-ignore-all format: a row to a kind of letter.

/** Kerning groups: letters that have the same side. The first of a group stands for it when pairs are measured. */
export const FIRST: Readonly<Record<string, readonly string[]>> = {
  A: ['A'], L: ['L', 'Lslash'], T: ['T', 'Tbar'], W: ['W'], Y: ['Y'], P: ['P'], F: ['F'], K: ['K', 'X'], R: ['R'], O: ['O', 'D', 'Q', 'Oslash', 'Eth', 'Dcroat'], C: ['C', 'G'], S: ['S', 'B'], U: ['U', 'J'],
  a: ['a', 'h', 'm', 'n', 'u', 'i', 'dotlessi', 'hbar'], o: ['o', 'b', 'p', 'e', 'thorn', 'oslash', 'ae', 'oe'], c: ['c'], f: ['f', 'f_f', 'longs', 'longs_longs'], r: ['r'], v: ['v', 'y', 'w', 'y.ss03'], k: ['k', 'x', 'kgreenlandic'], t: ['t', 'tbar'], z: ['z'],
  period: ['period', 'comma', 'ellipsis', 'quotesinglbase', 'quotedblbase'], hyphen: ['hyphen', 'endash', 'emdash'], quote: ['quoteright', 'quotedblright'], quoteleft: ['quoteleft', 'quotedblleft', 'quotesingle', 'quotedbl'],
  guil: ['guilsinglright', 'guillemotright', 'guilsinglleft', 'guillemotleft'],
};
export const SECOND: Readonly<Record<string, readonly string[]>> = {
  A: ['A', 'AE'], T: ['T', 'Tbar'], W: ['W'], Y: ['Y'], X: ['X', 'Z'], O: ['O', 'C', 'G', 'Q', 'OE', 'Oslash'], S: ['S'], J: ['J'], U: ['U'],
  a: ['a', 'ae'], n: ['n', 'm', 'p', 'r', 'dotlessi', 'eng', 'kgreenlandic'], o: ['o', 'c', 'e', 'd', 'q', 'oe', 'g', 'eth', 'oslash', 'dcroat', 'a.ss01', 'g.ss02'], s: ['s'], u: ['u'], v: ['v', 'y', 'w', 'y.ss03'], x: ['x', 'z'], t: ['t', 'tbar'], f: ['f', 'f_f', 'f_i', 'f_l', 'f_f_i', 'f_f_l', 'longs', 'longs_longs', 'longs_i', 'longs_l', 'longs_t'],
  period: ['period', 'comma', 'ellipsis', 'quotesinglbase', 'quotedblbase'], hyphen: ['hyphen', 'endash', 'emdash'], quote: ['quoteright', 'quotedblright', 'quotesingle', 'quotedbl'], quoteleft: ['quoteleft', 'quotedblleft'],
  guil: ['guilsinglright', 'guillemotright', 'guilsinglleft', 'guillemotleft'],
};
