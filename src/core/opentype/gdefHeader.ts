/** Lengths of the header of definitions (GDEF) by minor version: 1.0 has four places, 1.2 mark sets, 1.3 a store of variations. */
const HEADERS: Readonly<Record<number, number>> = { 0: 12, 2: 14, 3: 18 };
/** Fonts of the first years have no place for classes of marks. */
const FIRST = 10;

/**
 * Definitions (GDEF) with a header that programs of today take: to one of the first years, without the place for classes of marks,
 * that place is added. Undefined where a place lies outside the table or within its header: such a table is refused, and the whole
 * font with it, by browsers. Source: the OpenType specification, “GDEF”.
 */
export function soundGdef(table: Uint8Array): Uint8Array | undefined {
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  const minor = table.length >= 4 && view.getUint16(0) === 1 ? view.getUint16(2) : -1;
  const header = HEADERS[minor];
  if (header === undefined) return undefined;
  const placesIn = (until: number): number[] => {
    const out: number[] = [];
    for (let at = 4; at < Math.min(until, 14); at += 2) out.push(view.getUint16(at));
    if (until === 18) out.push(view.getUint32(14));
    return out.filter((place) => place !== 0);
  };
  const holds = (until: number) =>
    table.length >= until && placesIn(until).every((place) => place >= until && place < table.length);
  if (holds(header)) return table;
  if (minor !== 0 || !holds(FIRST)) return undefined;
  const whole = new Uint8Array(table.length + 2);
  whole.set(table.subarray(0, FIRST));
  whole.set(table.subarray(FIRST), FIRST + 2);
  const out = new DataView(whole.buffer);
  for (let at = 4; at < FIRST; at += 2) {
    const place = view.getUint16(at);
    if (place !== 0) out.setUint16(at, place + 2);
  }
  return whole;
}
