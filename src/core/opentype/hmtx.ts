import { Reader, Writer } from './binary';

export type HorizontalMetric = { advanceWidth: number; lsb: number };

/** Horizontal metrics; a run of equal advances at the end is written once. */
export const hmtx = {
  tag: 'hmtx',
  /** How many full records the table has: what `hhea.numberOfHMetrics` must say. */
  count(metrics: readonly HorizontalMetric[]): number {
    let n = metrics.length;
    while (n > 1 && metrics[n - 2]!.advanceWidth === metrics[n - 1]!.advanceWidth) n--;
    return n;
  },
  write(metrics: readonly HorizontalMetric[]): Uint8Array {
    const full = hmtx.count(metrics);
    const out = new Writer();
    metrics.forEach((m, i) => {
      if (i < full) out.uint16(m.advanceWidth);
      out.int16(m.lsb);
    });
    return out.toBytes();
  },
  read(bytes: Uint8Array, numberOfHMetrics: number, numGlyphs: number): HorizontalMetric[] {
    const from = new Reader(bytes, 'hmtx');
    const metrics: HorizontalMetric[] = [];
    let advanceWidth = 0;
    for (let i = 0; i < numGlyphs; i++) {
      if (i < numberOfHMetrics) advanceWidth = from.uint16();
      metrics.push({ advanceWidth, lsb: from.int16() });
    }
    return metrics;
  },
};
