type Fields = Readonly<Record<string, unknown>>;

const isFields = (v: unknown): v is Fields =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && !ArrayBuffer.isView(v);

/**
 * A value with every part that equals the one at the same place of an earlier value in its place, so that what is kept by
 * identity is known again; the earlier value itself where all is equal. Both are plain data without cycles.
 */
export function sharing<T>(before: unknown, after: T): T {
  return shared(before, after) as T;
}

function shared(before: unknown, after: unknown): unknown {
  if (Object.is(before, after)) return before;
  if (Array.isArray(before) && Array.isArray(after)) {
    const made = after.map((v, i) => shared(before[i], v));
    return made.length === before.length && made.every((v, i) => Object.is(v, before[i])) ? before : made;
  }
  if (ArrayBuffer.isView(before) && ArrayBuffer.isView(after)) return sameBytes(before, after) ? before : after;
  if (!isFields(before) || !isFields(after)) return after;
  const keys = Object.keys(after);
  const made = keys.map((key): [string, unknown] => [
    key,
    Object.hasOwn(before, key) ? shared(before[key], after[key]) : after[key],
  ]);
  const same =
    keys.length === Object.keys(before).length &&
    made.every(([key, value]) => Object.hasOwn(before, key) && Object.is(value, before[key]));
  return same ? before : Object.fromEntries(made);
}

const bytesOf = (v: ArrayBufferView): Uint8Array => new Uint8Array(v.buffer, v.byteOffset, v.byteLength);
/** Do two pieces of memory hold the same bytes? */
export function sameBytes(a: ArrayBufferView, b: ArrayBufferView): boolean {
  if (a.constructor !== b.constructor || a.byteLength !== b.byteLength) return false;
  const [x, y] = [bytesOf(a), bytesOf(b)];
  return x.every((v, i) => v === y[i]);
}

/** Do two lists hold the same things, one by one? */
export const sameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);
