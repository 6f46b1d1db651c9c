import { Packed } from './layout/packed';

/** Lowest and highest place of glyphs, font units. */
export type MinMax = { least: number; most: number };

/** Baselines along one direction of lines (“BASE: Axis table”): their tags, and their places by script. */
export type BaseAxis = {
  /** Tags of baselines, sorted. */
  tags: readonly string[];
  scripts: readonly {
    tag: string;
    /** The baseline that the script’s glyphs stand on, and the places of all. */
    baselines?: { usual: number; places: readonly number[] };
    /** Extremes by language (`dflt` for the script itself), and by feature within a language. */
    extremes: readonly { language: string; own: MinMax; features: readonly (MinMax & { tag: string })[] }[];
  }[];
};

const LARGEST = 0x7fff;

/** A place in font units. */
const coordinate = (at: number): Uint8Array => new Packed().number(1, Math.round(at)).toBytes();

/** Four letters of a tag as two 16-bit numbers. */
const letters = (tag: string): [number, number] => {
  const [a, b, c, d] = [...tag.padEnd(4)].map((x) => x.charCodeAt(0));
  return [(a! << 8) | b!, (c! << 8) | d!];
};

type Extremes = BaseAxis['scripts'][number]['extremes'][number];

function minMax({ own, features }: Extremes): Uint8Array {
  const table = new Packed().part(coordinate(own.least), coordinate(own.most)).number(features.length);
  for (const f of features) table.number(...letters(f.tag)).part(coordinate(f.least), coordinate(f.most));
  return table.toBytes();
}

function script({ baselines, extremes }: BaseAxis['scripts'][number]): Uint8Array {
  const usual = extremes.find((e) => e.language === 'dflt');
  const others = extremes.filter((e) => e !== usual).sort((a, b) => (a.language < b.language ? -1 : 1));
  const values = baselines
    ? new Packed()
        .number(baselines.usual, baselines.places.length)
        .part(...baselines.places.map(coordinate))
        .toBytes()
    : undefined;
  const table = new Packed().part(values, usual && minMax(usual)).number(others.length);
  for (const e of others) table.number(...letters(e.language)).part(minMax(e));
  return table.toBytes();
}

function axis({ tags, scripts }: BaseAxis): Uint8Array {
  const list = new Packed().number(tags.length);
  for (const t of tags) list.number(...letters(t));
  const sorted = [...scripts].sort((a, b) => (a.tag < b.tag ? -1 : 1));
  const own = new Packed().number(sorted.length);
  for (const s of sorted) own.number(...letters(s.tag)).part(script(s));
  return new Packed().part(tags.length > 0 ? list.toBytes() : undefined, own.toBytes()).toBytes();
}

/** Baselines of scripts; undefined where they do not fit the offsets of the table. */
export function writeBase(horizontal: BaseAxis | undefined, vertical: BaseAxis | undefined): Uint8Array | undefined {
  const [h, v] = [horizontal, vertical].map((a) => a && axis(a));
  if ((h?.length ?? 0) + (v?.length ?? 0) > LARGEST) return undefined;
  return new Packed().number(1, 0).part(h, v).toBytes();
}
