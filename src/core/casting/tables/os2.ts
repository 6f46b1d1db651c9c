import { statedFields, statedNumber } from '../../fontfacts/stated';
import { codePageBits, unicodeRangeBits } from '../../fontfacts/unicodeRanges';
import { isSymbol } from '../../opentype/cmap';
import { type Os2, os2 } from '../../opentype/os2';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';

/** The code page bit of symbol fonts. */
const SYMBOL_PAGE = 0x80000000;

/**
 * `OS/2`: classes, sizes of raised and lowered figures, ranges of characters, line metrics. Facts of the source win over the
 * rule, what rules have `said` over both; `context` is how many glyphs a rule looks at.
 */
export function os2Table(
  { project, master, names, entries, characters }: CastPlan,
  lines: LineMetrics,
  { said, context }: { said: Partial<Os2>; context: number },
): Uint8Array {
  const em = project.unitsPerEm;
  const codes = [...characters.keys()].sort((a, b) => a - b);
  const wide = entries.filter((e) => e.advance > 0);
  const [range1, range2, range3, range4] = unicodeRangeBits(codes);
  const [page1, page2] = isSymbol(characters) ? [SYMBOL_PAGE, 0] : codePageBits(new Set(codes));
  const slope = Math.tan((-master.italicAngle * Math.PI) / 180);
  const xHeight = Math.round(master.zones.xHeight.position);
  return os2.write({
    version: 4,
    xAvgCharWidth: wide.length === 0 ? 0 : Math.round(wide.reduce((sum, e) => sum + e.advance, 0) / wide.length),
    usWeightClass: names.weightClass,
    usWidthClass: names.widthClass,
    fsType: 0,
    ySubscriptXSize: Math.round(em * 0.65),
    ySubscriptYSize: Math.round(em * 0.6),
    ySubscriptXOffset: Math.round(-slope * em * 0.075),
    ySubscriptYOffset: Math.round(em * 0.075),
    ySuperscriptXSize: Math.round(em * 0.65),
    ySuperscriptYSize: Math.round(em * 0.6),
    ySuperscriptXOffset: Math.round(slope * em * 0.35),
    ySuperscriptYOffset: Math.round(em * 0.35),
    yStrikeoutSize: Math.round(statedNumber(master.info, 'postscriptUnderlineThickness') ?? em * 0.05),
    yStrikeoutPosition: Math.round(xHeight * 0.6),
    sFamilyClass: 0,
    panose: new Array<number>(10).fill(0),
    ulUnicodeRange1: range1,
    ulUnicodeRange2: range2,
    ulUnicodeRange3: range3,
    ulUnicodeRange4: range4,
    achVendID: (project.family.vendor ?? 'NONE')
      .replace(/[^\x20-\x7e]/g, ' ')
      .padEnd(4)
      .slice(0, 4),
    fsSelection: names.fsSelection,
    usFirstCharIndex: Math.min(0xffff, codes[0] ?? 0xffff),
    usLastCharIndex: Math.min(0xffff, codes[codes.length - 1] ?? 0),
    sTypoAscender: lines.typoAscender,
    sTypoDescender: lines.typoDescender,
    sTypoLineGap: lines.typoLineGap,
    usWinAscent: lines.winAscent,
    usWinDescent: lines.winDescent,
    ulCodePageRange1: page1,
    ulCodePageRange2: page2,
    sxHeight: xHeight,
    sCapHeight: Math.round(master.zones.capHeight.position),
    usDefaultChar: 0,
    usBreakChar: 32,
    usMaxContext: context,
    ...statedFields<Os2>(master.info, 'OS/2'),
    ...said,
  });
}
