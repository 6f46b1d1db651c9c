import { refuse } from '../base/result';
import { Reader, Writer } from './binary';

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

/** Axes and named instances of a variable font; places are in user units in the order of the axes. */
export function writeFvar(axes: readonly FvarAxis[], instances: readonly FvarInstance[]): Uint8Array {
  const named = instances.some((i) => i.postScriptNameID !== undefined);
  const out = new Writer().uint16(1).uint16(0).uint16(16).uint16(2).uint16(axes.length).uint16(20);
  out.uint16(instances.length).uint16(4 + axes.length * 4 + (named ? 2 : 0));
  for (const a of axes)
    out
      .tag(a.tag)
      .fixed(a.minimum)
      .fixed(a.default)
      .fixed(a.maximum)
      .uint16(a.hidden ? 1 : 0)
      .uint16(a.nameID);
  for (const { nameID, postScriptNameID, place } of instances) {
    out.uint16(nameID).uint16(0);
    for (const v of place) out.fixed(v);
    if (named) out.uint16(postScriptNameID ?? 0xffff);
  }
  return out.toBytes();
}

/** The maps of axes between normalised places; undefined where every axis runs straight. Each has -1, 0 and 1 among its points. */
export function writeAvar(maps: readonly (readonly (readonly [from: number, to: number])[])[]): Uint8Array | undefined {
  if (maps.every((m) => m.every(([from, to]) => from === to))) return undefined;
  const out = new Writer().uint16(1).uint16(0).uint16(0).uint16(maps.length);
  for (const map of maps) {
    out.uint16(map.length);
    for (const [from, to] of map) out.f2dot14(from).f2dot14(to);
  }
  return out.toBytes();
}
