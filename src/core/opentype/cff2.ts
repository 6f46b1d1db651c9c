import { Writer } from './binary';
import { OP, type Subroutines } from './cff';
import { HLINETO, HMOVETO, RLINETO, RMOVETO, RRCURVETO, VLINETO, VMOVETO } from './charstring';
import { writeItemStore } from './itemStore';
import type { AxisRegion } from './variations';

/** A whole number at the default, and what it differs by in each region of its set; none where it stays. */
export type Blended = { value: number; deltas: readonly number[] };
/** A contour of lines (2 numbers) and cubics (6), in places on the sheet. */
export type BlendedContour = { x: Blended; y: Blended; segments: readonly (readonly Blended[])[] };

const VSINDEX = 15;
const BLEND = 16;
/** In dictionaries. */
const DICT_BLEND = 23;
/** Operands that one operator may have on the stack, what its blends need among them (OpenType, “CFF2 CharString Format”: 513). */
const STACK = 500;

const minus = (a: Blended, b: Blended): Blended => ({
  value: a.value - b.value,
  deltas:
    a.deltas.length + b.deltas.length === 0
      ? []
      : Array.from(
          { length: Math.max(a.deltas.length, b.deltas.length) },
          (_, k) => (a.deltas[k] ?? 0) - (b.deltas[k] ?? 0),
        ),
});
const varies = (b: Blended): boolean => b.deltas.some((d) => d !== 0);
const isZero = (b: Blended): boolean => b.value === 0 && !varies(b);
const NOTHING: Blended = { value: 0, deltas: [] };

/** A number of a charstring or dictionary: whole, within 16 bits. */
function wholeNumber(out: Writer, v: number): void {
  if (v >= -107 && v <= 107) out.uint8(v + 139);
  else if (v >= 108 && v <= 1131) out.uint8(247 + ((v - 108) >> 8)).uint8((v - 108) & 255);
  else if (v >= -1131 && v <= -108) out.uint8(251 + ((-v - 108) >> 8)).uint8((-v - 108) & 255);
  else out.uint8(28).int16(v);
}

/** Operands; neighbours that vary are blended together, as many as the stack holds with all their deltas. */
function operands(out: Writer, args: readonly Blended[], regions: number, blend: number): void {
  for (let i = 0; i < args.length; ) {
    if (!varies(args[i]!)) {
      wholeNumber(out, args[i]!.value);
      i++;
      continue;
    }
    let run = 1;
    const room = Math.floor((STACK - i) / (regions + 1));
    while (run < room && i + run < args.length && varies(args[i + run]!)) run++;
    const own = args.slice(i, i + run);
    for (const a of own) wholeNumber(out, a.value);
    for (const a of own) for (let k = 0; k < regions; k++) wholeNumber(out, a.deltas[k] ?? 0);
    wholeNumber(out, run);
    out.uint8(blend);
    i += run;
  }
}

/** A charstring of an outline that varies in the regions of a set, `set` its number and `regions` how many it has. */
export function writeBlendedCharstring(
  contours: readonly BlendedContour[],
  { set, regions }: { set: number; regions: number },
): Uint8Array {
  const out = new Writer();
  if (set !== 0 && contours.some((c) => [c.x, c.y, ...c.segments.flat()].some(varies))) {
    wholeNumber(out, set);
    out.uint8(VSINDEX);
  }
  let waiting: { op: number; args: Blended[]; room: number } | undefined;
  const flush = () => {
    if (!waiting) return;
    operands(out, waiting.args, regions, BLEND);
    out.uint8(waiting.op);
    waiting = undefined;
  };
  const need = (args: readonly Blended[]) => args.reduce((sum, a) => sum + 1 + (varies(a) ? regions + 1 : 0), 0);
  const put = (op: number, args: Blended[], goesOn: boolean) => {
    const room = need(args);
    if (goesOn && waiting?.op === op && waiting.room + room <= STACK) {
      waiting.args.push(...args);
      waiting.room += room;
      return;
    }
    flush();
    waiting = { op, args: [...args], room };
  };
  let [x, y] = [NOTHING, NOTHING];
  for (const contour of contours) {
    const [dx, dy] = [minus(contour.x, x), minus(contour.y, y)];
    if (isZero(dy)) put(HMOVETO, [dx], false);
    else if (isZero(dx)) put(VMOVETO, [dy], false);
    else put(RMOVETO, [dx, dy], false);
    [x, y] = [contour.x, contour.y];
    for (const segment of contour.segments) {
      const args: Blended[] = [];
      for (let i = 0; i < segment.length; i += 2) {
        args.push(minus(segment[i]!, x), minus(segment[i + 1]!, y));
        [x, y] = [segment[i]!, segment[i + 1]!];
      }
      if (args.length === 6) put(RRCURVETO, args, true);
      else if (isZero(args[1]!)) put(HLINETO, [args[0]!], false);
      else if (isZero(args[0]!)) put(VLINETO, [args[1]!], false);
      else put(RLINETO, args, true);
    }
  }
  flush();
  return out.toBytes();
}

export type Cff2Info = {
  unitsPerEm: number;
  axisCount: number;
  regions: readonly AxisRegion[];
  /** Sets of regions that charstrings name, by the numbers of their regions; dictionaries vary by the first. */
  sets: readonly (readonly number[])[];
  /** Pairs of bottom and top of alignment zones, and standard stems. */
  blueValues: readonly Blended[];
  otherBlues: readonly Blended[];
  stdHW?: Blended | undefined;
  stdVW?: Blended | undefined;
};

/** A CFF2 table from charstrings in glyph order and what they share (OpenType, “CFF2”). */
export function writeCff2(
  info: Cff2Info,
  charstrings: readonly Uint8Array[],
  { global, local }: Subroutines = { global: [], local: [] },
): Uint8Array {
  const globalSubrs = writeIndex(global);
  const privateDict = writePrivate(info, local.length > 0);
  const store = writeItemStore(
    { regions: [...info.regions], data: info.sets.map((regions) => ({ regions, rows: [] })) },
    info.axisCount,
  );
  const matrix = new Writer();
  if (info.unitsPerEm !== 1000) {
    const scale = real(1 / info.unitsPerEm);
    matrix.raw(scale).raw([139, 139]).raw(scale).raw([139, 139]).uint16(OP.FontMatrix);
  }
  const topSize = matrix.length + 6 + 7 + 6;
  const storeAt = 5 + topSize + globalSubrs.length;
  const charStringsAt = storeAt + 2 + store.length;
  const charStrings = writeIndex(charstrings);
  const fontsAt = charStringsAt + charStrings.length;
  // One font dictionary of eleven bytes, in an index of one item: four of count, one of offset size, two of offsets.
  const privateAt = fontsAt + 7 + 11;
  const font = new Writer().uint8(29).uint32(privateDict.length).uint8(29).uint32(privateAt).uint8(OP.Private);
  const top = new Writer().raw(matrix.toBytes());
  top.uint8(29).uint32(charStringsAt).uint8(OP.CharStrings);
  top.uint8(29).uint32(fontsAt).uint16(OP.FDArray);
  top.uint8(29).uint32(storeAt).uint8(OP.vstore);
  return new Writer()
    .raw([2, 0, 5])
    .uint16(topSize)
    .raw(top.toBytes())
    .raw(globalSubrs)
    .uint16(store.length)
    .raw(store)
    .raw(charStrings)
    .raw(writeIndex([font.toBytes()]))
    .raw(privateDict)
    .raw(local.length > 0 ? writeIndex(local) : new Uint8Array())
    .toBytes();
}

function writePrivate({ blueValues, otherBlues, stdHW, stdVW, sets }: Cff2Info, hasSubroutines: boolean): Uint8Array {
  const out = new Writer();
  const regions = sets[0]?.length ?? 0;
  const row = (values: readonly Blended[], op: number) => {
    if (values.length === 0) return;
    const steps = values.map((v, i) => (i === 0 ? v : minus(v, values[i - 1]!)));
    operands(out, steps, regions, DICT_BLEND);
    out.uint8(op);
  };
  row(blueValues, OP.BlueValues);
  row(otherBlues, OP.OtherBlues);
  if (stdHW) row([stdHW], OP.StdHW);
  if (stdVW) row([stdVW], OP.StdVW);
  // Subroutines follow the dictionary; where, it says in its own last six bytes.
  if (hasSubroutines)
    out
      .uint8(29)
      .uint32(out.length + 5)
      .uint8(OP.Subrs);
  return out.toBytes();
}

/** A real number of a dictionary as packed decimal digits. */
function real(v: number): Uint8Array {
  const digits = [...v.toFixed(10).replace(/0+$/, '')].map((c) => (c === '.' ? 10 : Number(c)));
  digits.push(15);
  if (digits.length % 2) digits.push(15);
  const out = new Writer().uint8(30);
  for (let i = 0; i < digits.length; i += 2) out.uint8(digits[i]! * 16 + digits[i + 1]!);
  return out.toBytes();
}

/** An index whose count has 32 bits. */
function writeIndex(items: readonly Uint8Array[]): Uint8Array {
  const out = new Writer().uint32(items.length);
  if (items.length === 0) return out.toBytes();
  const total = items.reduce((sum, i) => sum + i.length, 1);
  const size = total < 256 ? 1 : total < 65536 ? 2 : total < 2 ** 24 ? 3 : 4;
  out.uint8(size);
  let offset = 1;
  for (const length of [0, ...items.map((i) => i.length)]) {
    offset += length;
    for (let shift = (size - 1) * 8; shift >= 0; shift -= 8) out.uint8((offset >>> shift) & 255);
  }
  for (const item of items) out.raw(item);
  return out.toBytes();
}
