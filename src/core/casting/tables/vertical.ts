import type { TablesSaid } from '../../features/tableBlocks';
import { statedFields, VERTICAL_ORIGIN } from '../../fontfacts/stated';
import { type Box, isEmptyBox } from '../../geometry/curve';
import { RESERVED } from '../../opentype/fields';
import { type HorizontalMetric, hmtx } from '../../opentype/hmtx';
import { type Vhea, vhea } from '../../opentype/vhea';
import { writeVorg } from '../../opentype/vorg';
import type { Drawing } from '../../project/model';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';

const ownOrigin = (drawing: Drawing): number | undefined => {
  const v = drawing.lib?.[VERTICAL_ORIGIN];
  return typeof v === 'number' && Math.abs(v) <= 32767 ? Math.round(v) : undefined;
};

/** Are metrics of lines that run down stated by the source, or said by the rules? */
export const isVertical = ({ master }: CastPlan, { vhea: own, vmtx }: TablesSaid): boolean =>
  own !== undefined ||
  vmtx !== undefined ||
  (['vertTypoAscender', 'vertTypoDescender', 'vertTypoLineGap'] as const).some(
    (field) => statedFields<Vhea>(master.info, 'vhea')[field] !== undefined,
  );

/**
 * `vhea`, `vmtx` and, for CFF, `VORG`, of fonts that say metrics of lines that run down. What is not said follows from the em: a
 * glyph takes one em down the line, from the ascender on (OpenType, “vmtx”: the top side bearing is from there to the top of the
 * outline).
 */
export function verticalTables(
  plan: CastPlan,
  said: TablesSaid,
  { boxes, lines }: { boxes: readonly Box[]; lines: LineMetrics },
): [string, Uint8Array][] {
  if (!isVertical(plan, said)) return [];
  const em = plan.project.unitsPerEm;
  let [top, bottom, extent] = [32767, 32767, -32768];
  const origins = plan.entries.map(
    ({ drawing }, i) => said.vmtx?.origins.get(i) ?? ownOrigin(drawing) ?? lines.typoAscender,
  );
  const metrics = plan.entries.map(({ drawing }, i): HorizontalMetric => {
    const advance = said.vmtx?.advances.get(i) ?? Math.max(0, Math.round(drawing.verticalAdvance ?? em));
    const box = boxes[i]!;
    if (isEmptyBox(box)) return { advanceWidth: advance, lsb: 0 };
    const [yMin, yMax] = [Math.floor(box.yMin), Math.ceil(box.yMax)];
    const above = origins[i]! - yMax;
    top = Math.min(top, above);
    bottom = Math.min(bottom, advance - above - (yMax - yMin));
    extent = Math.max(extent, above + yMax - yMin);
    return { advanceWidth: advance, lsb: above };
  });
  const isDrawn = extent > -32768;
  const header = vhea.write({
    majorVersion: 1,
    minorVersion: 0x1000,
    vertTypoAscender: Math.round(em / 2),
    vertTypoDescender: -Math.round(em / 2),
    vertTypoLineGap: 0,
    caretSlopeRise: 0,
    caretSlopeRun: 1,
    caretOffset: 0,
    ...statedFields<Vhea>(plan.master.info, 'vhea'),
    ...said.vhea,
    advanceHeightMax: metrics.reduce((a, m) => Math.max(a, m.advanceWidth), 0),
    minTopSideBearing: isDrawn ? top : 0,
    minBottomSideBearing: isDrawn ? bottom : 0,
    yMaxExtent: isDrawn ? extent : 0,
    ...RESERVED,
    numOfLongVerMetrics: hmtx.count(metrics),
  });
  return [
    ['vhea', header],
    // Built as `hmtx` is: advances and the bearings that they begin with.
    ['vmtx', hmtx.write(metrics)],
    ...(plan.flavour === 'otf' ? [['VORG', writeVorg(origins)] as [string, Uint8Array]] : []),
  ];
}
