import { type Box, isEmptyBox } from '../geometry/curve';
import type { Master } from '../project/model';

export type LineMetrics = {
  typoAscender: number;
  typoDescender: number;
  typoLineGap: number;
  hheaAscender: number;
  hheaDescender: number;
  hheaLineGap: number;
  winAscent: number;
  winDescent: number;
};

/** Farthest that outlines may carry ascender and descender beyond their lines, as shares of the em: signs and ornaments do not open the lines of a text. */
const BEYOND = { above: 0.3, below: 0.2 };

/**
 * The one rule for vertical metrics: typo ascender and descender are the zones, or as far beyond as outlines reach, so that
 * accents on capitals are not clipped and do not touch the line above; the line gap is 0, hhea equals typo, and win covers
 * every glyph (`USE_TYPO_METRICS` is set). `fontBox` is that of all masters, so that lines of a family agree. Each value may
 * be overridden.
 */
export function lineMetrics(master: Master, fontBox: Box, unitsPerEm: number): LineMetrics {
  const over = master.verticalMetrics;
  const { zones } = master;
  const ascender = Math.max(zones.ascender.position, zones.capHeight.position);
  const reach = isEmptyBox(fontBox) ? { yMax: ascender, yMin: zones.descender.position } : fontBox;
  const typoAscender =
    over.typoAscender ?? Math.max(ascender, Math.min(Math.ceil(reach.yMax), ascender + BEYOND.above * unitsPerEm));
  const typoDescender =
    over.typoDescender ??
    Math.min(
      zones.descender.position,
      Math.max(Math.floor(reach.yMin), zones.descender.position - BEYOND.below * unitsPerEm),
    );
  const typoLineGap = over.typoLineGap ?? 0;
  const top = isEmptyBox(fontBox) ? 0 : fontBox.yMax;
  const bottom = isEmptyBox(fontBox) ? 0 : fontBox.yMin;
  const round = (v: number) => Math.max(-32768, Math.min(32767, Math.round(v)));
  return {
    typoAscender: round(typoAscender),
    typoDescender: round(typoDescender),
    typoLineGap: round(typoLineGap),
    hheaAscender: round(over.hheaAscender ?? typoAscender),
    hheaDescender: round(over.hheaDescender ?? typoDescender),
    hheaLineGap: round(over.hheaLineGap ?? typoLineGap),
    winAscent: Math.max(0, round(over.winAscent ?? Math.ceil(Math.max(top, typoAscender)))),
    winDescent: Math.max(0, round(over.winDescent ?? Math.ceil(Math.max(-bottom, -typoDescender)))),
  };
}

/** Alignment zones for CFF from a master's zones: the baseline's first, then the heights; the descender's apart. */
export function alignmentZones(master: Master): { blueValues: number[]; otherBlues: number[] } {
  const span = (position: number, overshoot: number): [number, number] => [
    Math.round(position + Math.min(0, overshoot)),
    Math.round(position + Math.max(0, overshoot)),
  ];
  const { baseline, xHeight, capHeight, ascender, descender, own } = master.zones;
  const spans = [baseline, xHeight, capHeight, ascender, ...own.filter((z) => z.position > 0)]
    .map((z) => span(z.position, z.overshoot))
    .sort((a, b) => a[0] - b[0]);
  const blueValues: number[] = [];
  const base = span(baseline.position, baseline.overshoot);
  blueValues.push(...base);
  for (const [low, high] of spans) {
    // Zones must not touch; a nearer one than three units belongs to the zone before it.
    const last = blueValues[blueValues.length - 1]!;
    if (low > last + 3 && blueValues.length < 14) blueValues.push(low, high);
    else if (low > base[1] && high > last) blueValues[blueValues.length - 1] = high;
  }
  return { blueValues, otherBlues: span(descender.position, descender.overshoot) };
}
