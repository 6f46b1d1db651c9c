import type { TablesSaid } from '../../features/tableBlocks';
import { type Box, isEmptyBox } from '../../geometry/curve';
import { writeBase } from '../../opentype/base';
import { RESERVED } from '../../opentype/fields';
import { type HorizontalMetric, hmtx } from '../../opentype/hmtx';
import { writeStat } from '../../opentype/stat';
import { vhea } from '../../opentype/vhea';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';

type Facts = { boxes: readonly Box[]; lines: LineMetrics };

/** Tables that a font has only where its rules say them: baselines, names of places on axes, metrics of lines that run down. */
export function saidTables(plan: CastPlan, said: TablesSaid, facts: Facts): [string, Uint8Array][] {
  const { horizontal, vertical } = said.base;
  const base = horizontal || vertical ? writeBase(horizontal, vertical) : undefined;
  return [
    ...(base ? [['BASE', base] as [string, Uint8Array]] : []),
    ...(said.style ? [['STAT', writeStat(said.style)] as [string, Uint8Array]] : []),
    ...(said.vhea || said.vmtx ? verticalTables(plan, said, facts) : []),
  ];
}

/**
 * `vhea` and `vmtx`. What is not said follows from the em: a glyph takes one em down the line, from the ascender on
 * (OpenType, “vmtx”: the top side bearing is from there to the top of the outline).
 */
function verticalTables(
  plan: CastPlan,
  { vhea: own, vmtx }: TablesSaid,
  { boxes, lines }: Facts,
): [string, Uint8Array][] {
  const em = plan.project.unitsPerEm;
  let [top, bottom, extent] = [32767, 32767, -32768];
  const metrics = plan.entries.map(({ drawing }, i): HorizontalMetric => {
    const advance = vmtx?.advances.get(i) ?? Math.max(0, Math.round(drawing.verticalAdvance ?? em));
    const box = boxes[i]!;
    if (isEmptyBox(box)) return { advanceWidth: advance, lsb: 0 };
    const [yMin, yMax] = [Math.floor(box.yMin), Math.ceil(box.yMax)];
    const above = (vmtx?.origins.get(i) ?? lines.typoAscender) - yMax;
    top = Math.min(top, above);
    bottom = Math.min(bottom, advance - above - (yMax - yMin));
    extent = Math.max(extent, above + yMax - yMin);
    return { advanceWidth: advance, lsb: above };
  });
  const isDrawn = extent > -32768;
  return [
    [
      'vhea',
      vhea.write({
        majorVersion: 1,
        minorVersion: 0x1000,
        vertTypoAscender: Math.round(em / 2),
        vertTypoDescender: -Math.round(em / 2),
        vertTypoLineGap: 0,
        ...own,
        advanceHeightMax: metrics.reduce((a, m) => Math.max(a, m.advanceWidth), 0),
        minTopSideBearing: isDrawn ? top : 0,
        minBottomSideBearing: isDrawn ? bottom : 0,
        yMaxExtent: isDrawn ? extent : 0,
        caretSlopeRise: 0,
        caretSlopeRun: 1,
        caretOffset: 0,
        ...RESERVED,
        numOfLongVerMetrics: hmtx.count(metrics),
      }),
    ],
    // Built as `hmtx` is: advances and the bearings that they begin with.
    ['vmtx', hmtx.write(metrics)],
  ];
}
