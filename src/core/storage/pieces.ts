import { addTo } from '../base/grouping';
import type { KeyValue } from './keyValue';

/**
 * A store that lays records of very much text down in pieces, one call each, so that the page rests between them: a database copies what
 * it is given at once. Only lists of text are parted (what {@link folded} makes of long lists); the record itself is written last and
 * names its pieces, so that it is the old one or the new one whenever the writing breaks off.
 */

/** From so many characters on a record is laid down in pieces of at most as many. */
const MOST = 1 << 20;
/** Between the key of a record and the name of a piece of it. */
const MARK = '\u001f';
/** The field of a record that names its pieces. */
const PIECES = '\u001fpieces';

type Fields = Readonly<Record<string, unknown>>;
const isFields = (v: unknown): v is Fields =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && !ArrayBuffer.isView(v);
const isTexts = (v: unknown): v is readonly string[] => Array.isArray(v) && v.every((t) => typeof t === 'string');

/** A list of text within a record: the fields that lead to it. */
type Place = readonly string[];

/** Lists of text that a record, or a record within it, has. */
function listsOf(value: unknown, at: Place = []): { at: Place; texts: readonly string[] }[] {
  if (!isFields(value)) return [];
  return Object.entries(value).flatMap(([name, v]) =>
    isTexts(v) ? [{ at: [...at, name], texts: v }] : at.length === 0 ? listsOf(v, [name]) : [],
  );
}

/** A record with what stands at a place put in the place of what is there. */
function withAt(value: unknown, [name, ...rest]: Place, put: unknown): unknown {
  if (name === undefined) return put;
  const fields = isFields(value) ? value : {};
  return { ...fields, [name]: withAt(fields[name], rest, put) };
}

/** Texts in rows of no more characters than a piece has, in their order. */
function rowsOf(texts: readonly string[], most: number): string[][] {
  const rows: string[][] = [];
  let room = 0;
  for (const text of texts) {
    if (rows.length === 0 || text.length > room) {
      rows.push([]);
      room = most;
    }
    rows.at(-1)!.push(text);
    room -= text.length;
  }
  return rows;
}

/** What a parted record says of its pieces: how often it was laid down, and how many there are of each list. */
type Parted = { readonly turn: number; readonly lists: readonly { at: Place; count: number }[] };
const partedIn = (value: unknown): Parted | undefined =>
  isFields(value) && isFields(value[PIECES]) ? (value[PIECES] as unknown as Parted) : undefined;

const pieceKey = (key: string, turn: number, i: number) => `${key}${MARK}${turn}.${i}`;
const baseOf = (key: string): string | undefined => {
  const at = key.indexOf(MARK);
  return at < 0 ? undefined : key.slice(0, at);
};

export function inPieces(store: KeyValue, most = MOST): KeyValue {
  /** The keys of the pieces of each record, known once all keys were looked at; those of no record are cleared away. */
  let known: Promise<Map<string, string[]>> | undefined;
  const found = async (): Promise<Map<string, string[]>> => {
    const keys = await store.keys();
    const pieces = new Map<string, string[]>();
    const there = new Set(keys);
    for (const key of keys) {
      const base = baseOf(key);
      if (base === undefined) continue;
      if (there.has(base)) addTo(pieces, base, key);
      else await store.remove(key);
    }
    return pieces;
  };
  const piecesOf = (): Promise<Map<string, string[]>> => {
    known ??= found().catch((error) => {
      known = undefined;
      throw error;
    });
    return known;
  };

  /** Writes the pieces, then the record; under names that none of those before has. The keys of the pieces. */
  async function setParted(
    key: string,
    { value, lists, before }: { value: unknown; lists: ReturnType<typeof listsOf>; before: readonly string[] },
  ): Promise<string[]> {
    const turn = 1 + Math.max(0, ...before.map((k) => Number.parseInt(k.slice(key.length + 1), 10) || 0));
    const written: string[] = [];
    let head = value;
    const parted: { at: Place; count: number }[] = [];
    for (const { at, texts } of lists) {
      const rows = rowsOf(texts, most);
      for (const row of rows) {
        const piece = pieceKey(key, turn, written.length);
        await store.set(piece, row);
        written.push(piece);
      }
      head = withAt(head, at, 'in pieces');
      parted.push({ at, count: rows.length });
    }
    await store.set(key, { ...(head as Fields), [PIECES]: { turn, lists: parted } });
    return written;
  }

  /** Notes the pieces that a record has now, and removes those that it had before. */
  async function clear(key: string, now: readonly string[]): Promise<void> {
    const pieces = await piecesOf();
    const before = pieces.get(key) ?? [];
    if (now.length > 0) pieces.set(key, [...now]);
    else pieces.delete(key);
    for (const piece of before) if (!now.includes(piece)) await store.remove(piece);
  }

  return {
    async set(key, value) {
      const lists = listsOf(value);
      const length = lists.reduce((sum, { texts }) => sum + texts.reduce((n, t) => n + t.length, 0), 0);
      if (length <= most) {
        // At once, since a page may be left at any moment; pieces that it had before go after it, now or the next time.
        await store.set(key, value);
        await clear(key, []).catch(() => {});
        return;
      }
      const before = (await piecesOf()).get(key) ?? [];
      await clear(key, await setParted(key, { value, lists, before }));
    },
    async get(key) {
      const value = await store.get(key);
      const parted = partedIn(value);
      if (!parted) return value;
      const { [PIECES]: _, ...rest } = value as Fields;
      let whole: unknown = rest;
      let i = 0;
      for (const { at, count } of parted.lists) {
        const rows: unknown[] = [];
        for (let k = 0; k < count; k++) rows.push(await store.get(pieceKey(key, parted.turn, i++)));
        // Where a piece is gone the record is told as one that cannot be read.
        if (rows.every(isTexts)) whole = withAt(whole, at, rows.flat());
      }
      return whole;
    },
    async remove(key) {
      const pieces = await piecesOf();
      await store.remove(key);
      for (const piece of pieces.get(key) ?? []) await store.remove(piece);
      pieces.delete(key);
    },
    keys: async () => (await store.keys()).filter((key) => baseOf(key) === undefined),
  };
}
