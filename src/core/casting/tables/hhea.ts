import type { TablesSaid } from '../../features/tableBlocks';
import { type Box, isEmptyBox } from '../../geometry/curve';
import { RESERVED } from '../../opentype/fields';
import { hhea } from '../../opentype/hhea';
import { type HorizontalMetric, hmtx } from '../../opentype/hmtx';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';

/** `hhea`: line metrics, extremes of all side bearings, the slope of the caret; `said` are fields that the rules say outright. */
export function hheaTable(
  { master }: CastPlan,
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
  const slope = Math.tan((-master.italicAngle * Math.PI) / 180);
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
    caretSlopeRise: slope === 0 ? 1 : 1000,
    caretSlopeRun: slope === 0 ? 0 : Math.round(slope * 1000),
    caretOffset: 0,
    ...RESERVED,
    numberOfHMetrics: hmtx.count(metrics),
    ...lines.said,
  });
}
