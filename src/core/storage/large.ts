import { rest } from '../base/rest';
import { json } from './shelf';

/**
 * Records of very many changes. A store copies a record's objects one by one while the page waits; text it copies at once. So
 * the changes of a large record are kept as pieces of text, each made in a moment, with rests between.
 */

/** So many changes go into one piece. */
const PIECE = 80;

type Values = Readonly<Record<string, unknown>>;
const isValues = (v: unknown): v is Values => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Text holds neither bytes nor what is no number; such a list stays as it is. */
const canBeText = (list: readonly unknown[]): boolean =>
  list.every((c) => isValues(c) && !['pictures', 'kept'].includes(String((c.path as unknown[] | undefined)?.[0])));

/** A record with a long list under a name in pieces of text; as it is where the list is short or holds bytes. */
export async function folded<T extends object>(record: T, name: 'patch' | 'steps'): Promise<T> {
  const list = (record as Values)[name];
  if (!Array.isArray(list) || list.length <= PIECE || !canBeText(list)) return record;
  const pieces: string[] = [];
  for (let at = 0; at < list.length; at += PIECE) {
    if (at > 0) await rest();
    pieces.push(JSON.stringify(list.slice(at, at + PIECE)));
  }
  const { [name]: _, ...others } = record as Values;
  return { ...others, [`${name}Text`]: pieces } as unknown as T;
}

/** The record that {@link folded} made one of; anything else as it is, also what cannot be read. */
export function unfolded(record: unknown, name: 'patch' | 'steps'): unknown {
  if (!isValues(record)) return record;
  const { [`${name}Text`]: pieces, ...others } = record;
  if (!Array.isArray(pieces)) return record;
  const lists = pieces.map((p) => (typeof p === 'string' ? json(p) : undefined));
  return lists.every(Array.isArray) ? { ...others, [name]: lists.flat() } : record;
}
