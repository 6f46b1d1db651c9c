import { isSymbol } from '../../opentype/cmap';
import { type Os2, os2 } from '../../opentype/os2';
import { infoNumber } from '../info';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';
import { codePageBits, unicodeRangeBits } from '../unicodeRanges';

/** The code page bit of symbol fonts. */
const SYMBOL_PAGE = 0x80000000;

/** `OS/2`: classes, sizes of raised and lowered figures, ranges of characters, line metrics. Facts of the source win over the rule, what `said` over both. */
export function os2Table(
  { project, master, names, entries, characters }: CastPlan,
  lines: LineMetrics,
  said: Partial<Os2>,
): Uint8Array {
  const em = project.unitsPerEm;
  const codes = [...characters.keys()].sort((a, b) => a - b);
  const wide = entries.filter((e) => e.advance > 0);
  const [range1, range2, range3, range4] = unicodeRangeBits(codes);
  const [page1, page2] = isSymbol(characters) ? [SYMBOL_PAGE, 0] : codePageBits(new Set(codes));
  const slope = Math.tan((-master.italicAngle * Math.PI) / 180);
  const own = (key: string, rule: number) => infoNumber(master.info, `openTypeOS2${key}`) ?? Math.round(rule);
  const panose = master.info?.openTypeOS2Panose;
  const xHeight = Math.round(master.zones.xHeight.position);
  const fsType = master.info?.openTypeOS2Type;
  return os2.write({
    version: 4,
    xAvgCharWidth: wide.length === 0 ? 0 : Math.round(wide.reduce((sum, e) => sum + e.advance, 0) / wide.length),
    usWeightClass: names.weightClass,
    usWidthClass: names.widthClass,
    fsType: Array.isArray(fsType)
      ? fsType.reduce<number>((bits, b) => bits | (typeof b === 'number' ? 1 << b : 0), 0)
      : 0,
    ySubscriptXSize: own('SubscriptXSize', em * 0.65),
    ySubscriptYSize: own('SubscriptYSize', em * 0.6),
    ySubscriptXOffset: own('SubscriptXOffset', -slope * em * 0.075),
    ySubscriptYOffset: own('SubscriptYOffset', em * 0.075),
    ySuperscriptXSize: own('SuperscriptXSize', em * 0.65),
    ySuperscriptYSize: own('SuperscriptYSize', em * 0.6),
    ySuperscriptXOffset: own('SuperscriptXOffset', slope * em * 0.35),
    ySuperscriptYOffset: own('SuperscriptYOffset', em * 0.35),
    yStrikeoutSize: own('StrikeoutSize', infoNumber(master.info, 'postscriptUnderlineThickness') ?? em * 0.05),
    yStrikeoutPosition: own('StrikeoutPosition', xHeight * 0.6),
    sFamilyClass: 0,
    panose:
      Array.isArray(panose) && panose.length === 10
        ? panose.map((v) => (typeof v === 'number' ? v & 255 : 0))
        : new Array<number>(10).fill(0),
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
    usMaxContext: Object.keys(master.kerning).length > 0 ? 2 : 1,
    ...said,
  });
}
