import { refuse } from '../base/result';
import { Reader } from './binary';

export type FvarAxis = {
  tag: string;
  minimum: number;
  default: number;
  maximum: number;
  hidden: boolean;
  nameID: number;
};
export type FvarInstance = { nameID: number; postScriptNameID: number | undefined; place: readonly number[] };

/** Axes and named instances of a variable font. */
export function readFvar(bytes: Uint8Array): { axes: FvarAxis[]; instances: FvarInstance[] } {
  const from = new Reader(bytes, 'fvar');
  const start = from.seek(4).uint16();
  const axisCount = from.seek(8).uint16();
  const axisSize = from.uint16();
  const instanceCount = from.uint16();
  const instanceSize = from.uint16();
  if (axisCount > 64 || axisSize < 20) refuse(`The fvar table says it has ${axisCount} axes.`);
  const axes = Array.from({ length: axisCount }, (_, i) => {
    from.seek(start + i * axisSize);
    const axis = {
      tag: from.tag(),
      minimum: from.fixed(),
      default: from.fixed(),
      maximum: from.fixed(),
      hidden: (from.uint16() & 1) !== 0,
      nameID: from.uint16(),
    };
    if (!(axis.minimum <= axis.default && axis.default <= axis.maximum))
      refuse(`The fvar table has the default of ${axis.tag} outside its range.`);
    return axis;
  });
  const instances = Array.from({ length: instanceCount }, (_, i) => {
    from.seek(start + axisCount * axisSize + i * instanceSize);
    const nameID = from.uint16();
    from.uint16();
    const place = axes.map(() => from.fixed());
    return { nameID, postScriptNameID: instanceSize >= 6 + axisCount * 4 ? from.uint16() : undefined, place };
  });
  return { axes, instances };
}

/** Per axis the points of its map between normalised places, -1 to 1; empty where there is none. */
export function readAvar(bytes: Uint8Array, axisCount: number): [from: number, to: number][][] {
  const from = new Reader(bytes, 'avar');
  from.seek(6);
  const count = from.uint16();
  return Array.from({ length: Math.min(count, axisCount) }, () =>
    Array.from({ length: from.uint16() }, (): [number, number] => [from.f2dot14(), from.f2dot14()]),
  );
}
