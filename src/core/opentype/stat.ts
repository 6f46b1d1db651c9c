import { refuse } from '../base/result';
import { Reader } from './binary';

/** A named value along one axis (STAT, axis value formats 1, 2 and 3); user units. */
export type AxisValue = {
  tag: string;
  nameID: number;
  value: number;
  minimum?: number;
  maximum?: number;
  linked?: number;
  elidable: boolean;
  older: boolean;
};

const OLDER_SIBLING = 1;
const ELIDABLE = 2;

/** The style attributes table: named values of axes. Values of several axes at once (format 4) are not told. */
export function readStat(bytes: Uint8Array): AxisValue[] {
  const from = new Reader(bytes, 'STAT');
  const [axisSize, axisCount, axesAt] = [from.seek(4).uint16(), from.uint16(), from.uint32()];
  const [valueCount, valuesAt] = [from.uint16(), from.uint32()];
  if (axisCount > 0 && axisSize < 8) refuse(`The STAT table has axis records of ${axisSize} bytes.`);
  const tags = Array.from({ length: axisCount }, (_, i) => from.seek(axesAt + i * axisSize).tag());
  return Array.from({ length: valueCount }, (_, i) => from.seek(valuesAt + i * 2).uint16()).flatMap((offset) => {
    const format = from.seek(valuesAt + offset).uint16();
    if (format < 1 || format > 3) return [];
    const tag = tags[from.uint16()];
    const flags = from.uint16();
    const nameID = from.uint16();
    const value = from.fixed();
    if (tag === undefined) return [];
    const range = format === 2 ? { minimum: from.fixed(), maximum: from.fixed() } : {};
    const link = format === 3 ? { linked: from.fixed() } : {};
    return [
      {
        tag,
        nameID,
        value,
        ...range,
        ...link,
        elidable: (flags & ELIDABLE) !== 0,
        older: (flags & OLDER_SIBLING) !== 0,
      },
    ];
  });
}
