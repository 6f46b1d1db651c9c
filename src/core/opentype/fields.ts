import { Reader, Writer } from './binary';

/** The OpenType data types a field may have. */
export type FieldType = 'uint8' | 'int8' | 'uint16' | 'int16' | 'uint32' | 'fixed' | 'longDateTime' | 'tag' | 'bytes10';
type Value<T extends FieldType> = T extends 'tag' ? string : T extends 'bytes10' ? readonly number[] : number;

/** A table or record as an ordered list of the specification's field names and types. */
export type Fields = readonly (readonly [name: string, type: FieldType])[];
export type RecordOf<F extends Fields> = { -readonly [P in F[number] as P[0]]: Value<P[1]> };

/** Writes the fields in order. */
export function writeFields<F extends Fields>(fields: F, record: RecordOf<F>, out = new Writer()): Writer {
  for (const [name, type] of fields) {
    const value = (record as Record<string, unknown>)[name];
    if (type === 'tag') out.tag(value as string);
    else if (type === 'bytes10') out.raw(value as number[]);
    else out[type](value as number);
  }
  return out;
}

/** Reads the fields in order; a short table is refused. */
export function readFields<F extends Fields>(fields: F, from: Reader): RecordOf<F> {
  const record: Record<string, unknown> = {};
  for (const [name, type] of fields) {
    record[name] = type === 'bytes10' ? [...from.raw(10)] : from[type]();
  }
  return record as RecordOf<F>;
}

/** Both directions of a table that is nothing but its fields. */
export function plainTable<const F extends Fields>(tag: string, fields: F) {
  return {
    tag,
    write: (record: RecordOf<F>): Uint8Array => writeFields(fields, record).toBytes(),
    read: (bytes: Uint8Array): RecordOf<F> => readFields(fields, new Reader(bytes, tag)),
  };
}

/** What both metrics headers, horizontal and vertical, end with before their count: the caret, and what is reserved. */
export const CARET_FIELDS = [
  ['caretSlopeRise', 'int16'],
  ['caretSlopeRun', 'int16'],
  ['caretOffset', 'int16'],
  ['reserved1', 'int16'],
  ['reserved2', 'int16'],
  ['reserved3', 'int16'],
  ['reserved4', 'int16'],
  ['metricDataFormat', 'int16'],
] as const;

/** The reserved fields of a metrics header, and the only format of its metrics. */
export const RESERVED = { reserved1: 0, reserved2: 0, reserved3: 0, reserved4: 0, metricDataFormat: 0 } as const;
