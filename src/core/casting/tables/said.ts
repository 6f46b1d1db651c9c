import type { TablesSaid } from '../../features/tableBlocks';
import type { Box } from '../../geometry/curve';
import { writeBase } from '../../opentype/base';
import { writeStat } from '../../opentype/stat';
import type { LineMetrics } from '../metrics';
import type { CastPlan } from '../plan';
import { verticalTables } from './vertical';

type Facts = { boxes: readonly Box[]; lines: LineMetrics };

/** Tables that a font has only where its rules say them: baselines, names of places on axes, metrics of lines that run down. */
export function saidTables(plan: CastPlan, said: TablesSaid, facts: Facts): [string, Uint8Array][] {
  const { horizontal, vertical } = said.base;
  const base = horizontal || vertical ? writeBase(horizontal, vertical) : undefined;
  return [
    ...(base ? [['BASE', base] as [string, Uint8Array]] : []),
    ...(said.style ? [['STAT', writeStat(said.style)] as [string, Uint8Array]] : []),
    ...verticalTables(plan, said, facts),
  ];
}
