import type { Reader } from '../binary';
import { Writer } from '../binary';

/** What a feature says beside its lookups (OpenType, “Feature Parameters”): numbers are those of the name table, 0 for none. */
export type FeatureParams =
  | { of: 'set'; name: number }
  | {
      of: 'variant';
      label: number;
      tooltip: number;
      sample: number;
      /** So many names of parameters, from the first on. */
      parameters: number;
      firstParameter: number;
      characters: readonly number[];
    }
  /** Sizes are in tenths of a point. */
  | { of: 'size'; design: number; subfamily: number; menu: number; start: number; end: number };

/** Has a feature of this tag parameters that are understood? */
const kindOf = (tag: string): FeatureParams['of'] | undefined =>
  /^ss(0[1-9]|1\d|20)$/.test(tag)
    ? 'set'
    : /^cv(0[1-9]|[1-9]\d)$/.test(tag)
      ? 'variant'
      : tag === 'size'
        ? 'size'
        : undefined;

export const featureParams = {
  read(tag: string, from: Reader): FeatureParams | undefined {
    const of = kindOf(tag);
    if (of === 'size') {
      const [design, subfamily, menu, start, end] = Array.from({ length: 5 }, () => from.uint16()) as Five;
      return { of, design, subfamily, menu, start, end };
    }
    if (of === undefined || from.uint16() !== 0) return undefined;
    if (of === 'set') return { of, name: from.uint16() };
    const [label, tooltip, sample, parameters, firstParameter] = Array.from({ length: 5 }, () => from.uint16()) as Five;
    const characters = Array.from({ length: from.uint16() }, () => from.uint24());
    return { of, label, tooltip, sample, parameters, firstParameter, characters };
  },
  write(p: FeatureParams): Uint8Array {
    const out = new Writer();
    if (p.of === 'set') out.uint16(0).uint16(p.name);
    else if (p.of === 'size') out.uint16(p.design).uint16(p.subfamily).uint16(p.menu).uint16(p.start).uint16(p.end);
    else {
      out.uint16(0).uint16(p.label).uint16(p.tooltip).uint16(p.sample);
      out.uint16(p.parameters).uint16(p.firstParameter).uint16(p.characters.length);
      for (const c of p.characters) out.uint24(c);
    }
    return out.toBytes();
  },
  /** The names that parameters refer to. */
  names(p: FeatureParams): number[] {
    const all =
      p.of === 'set'
        ? [p.name]
        : p.of === 'size'
          ? [p.menu]
          : [p.label, p.tooltip, p.sample, ...Array.from({ length: p.parameters }, (_, i) => p.firstParameter + i)];
    return all.filter((id) => id >= 256);
  },
};

type Five = [number, number, number, number, number];
