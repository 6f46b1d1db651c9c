import type { TablesSaid } from '../../features/tableBlocks';
import { statedFields } from '../../fontfacts/stated';
import { type Box, isEmptyBox } from '../../geometry/curve';
import { RESERVED } from '../../opentype/fields';
import { type Hhea, hhea } from '../../opentype/hhea';
import { type HorizontalMetric, hmtx } from '../../opentype/hmtx';
import type { Master } from '../../project/model';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';

/**
 * How the caret leans at a master: so far to the right for a thousand upwards; upright, one upwards, where no letters lean. In a
 * font that varies all masters have the same rise, so that the slope is right between them too.
 */
export function caretOf(
  { italicAngle }: Master,
  family: readonly Master[],
): { caretSlopeRise: number; caretSlopeRun: number } {
  const slope = Math.tan((-italicAngle * Math.PI) / 180);
  return family.every((m) => m.italicAngle === 0)
    ? { caretSlopeRise: 1, caretSlopeRun: 0 }
    : { caretSlopeRise: 1000, caretSlopeRun: Math.round(slope * 1000) };
}

/** `hhea`: line metrics, extremes of all side bearings, the slope of the caret; `said` are fields that the rules say outright. */
export function hheaTable(
  { master, varies }: CastPlan,
  metrics: readonly HorizontalMetric[],
  boxes: readonly Box[],
  lines: LineMetrics & { said: TablesSaid['hhea'] },
): Uint8Array {
  let minLeft = 32767;
  let minRight = 32767;
  let extent = -32768;
  boxes.forEach((box, i) => {
    if (isEmptyBox(box)) return;
    const { advanceWidth, lsb } = metrics[i]!;
    const width = Math.ceil(box.xMax) - Math.floor(box.xMin);
    minLeft = Math.min(minLeft, lsb);
    minRight = Math.min(minRight, advanceWidth - lsb - width);
    extent = Math.max(extent, lsb + width);
  });
  const drawn = extent > -32768;
  return hhea.write({
    majorVersion: 1,
    minorVersion: 0,
    ascender: lines.hheaAscender,
    descender: lines.hheaDescender,
    lineGap: lines.hheaLineGap,
    advanceWidthMax: metrics.reduce((a, m) => Math.max(a, m.advanceWidth), 0),
    minLeftSideBearing: drawn ? minLeft : 0,
    minRightSideBearing: drawn ? minRight : 0,
    xMaxExtent: drawn ? extent : 0,
    ...caretOf(master, varies ? varies.masters : [master]),
    caretOffset: 0,
    ...statedFields<Hhea>(master.info, 'hhea'),
    ...RESERVED,
    numberOfHMetrics: hmtx.count(metrics),
    ...lines.said,
  });
}
