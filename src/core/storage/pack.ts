import { refuse } from '../base/result';
import type { Contour, Point } from '../geometry/contour';
import { isCoordinate } from '../project/limits';
import { type Drawing, type Glyph, glyphShellSchema, type Lib, type LibValue } from '../project/model';
import { wordsOf } from '../project/withinLimits';

/**
 * Glyphs as compact text: everything as in the document, but the points of a contour as one list of numbers (x, y and
 * kind of each point) and bytes in property lists as base 64. A thousand glyphs are read in some tens of milliseconds,
 * every number checked.
 */

const KINDS = ['line', 'curve', 'qcurve', 'off'] as const;
const KIND = { line: 0, curve: 1, qcurve: 2, off: 3 } as const;
/** Added to a point's kind: it is smooth; it says of itself that it is not. */
const SMOOTH = 4;
const CORNER = 8;

type Facts = { name?: string; identifier?: string };
type PackedContour = {
  /** 1 when closed. */
  c: 0 | 1;
  /** x, y, kind; x, y, kind; … */
  p: number[];
  /** Identifier of the contour. */
  i?: string;
  /** Names and identifiers of points, by their place. */
  n?: Record<string, Facts>;
};

function packedContour({ closed, points, identifier }: Contour): PackedContour {
  const numbers: number[] = [];
  const facts: Record<string, Facts> = {};
  for (let i = 0; i < points.length; i++) {
    const { x, y, type, smooth, name, identifier: id } = points[i]!;
    numbers.push(x, y, KIND[type] + (smooth === undefined ? 0 : smooth ? SMOOTH : CORNER));
    if (name !== undefined || id !== undefined)
      facts[i] = { ...(name !== undefined && { name }), ...(id !== undefined && { identifier: id }) };
  }
  return {
    c: closed ? 1 : 0,
    p: numbers,
    ...(identifier !== undefined && { i: identifier }),
    ...(Object.keys(facts).length > 0 && { n: facts }),
  };
}

function unpackedContour(packed: PackedContour): Contour {
  const numbers = packed?.p;
  if (!Array.isArray(numbers) || numbers.length % 3 !== 0) return refuse('the points of a contour are damaged');
  const points: Point[] = new Array(numbers.length / 3);
  for (let i = 0, k = 0; k < numbers.length; i++, k += 3) {
    const x = numbers[k]!;
    const y = numbers[k + 1]!;
    const kind = numbers[k + 2]!;
    const type = KINDS[kind & 3];
    if (!isCoordinate(x) || !isCoordinate(y) || !Number.isInteger(kind) || kind < 0 || kind > 11 || !type)
      return refuse(`point ${i + 1} of a contour is damaged`);
    points[i] = kind < SMOOTH ? { x, y, type } : { x, y, type, smooth: kind < CORNER };
  }
  for (const [place, { name, identifier }] of Object.entries(packed.n ?? {})) {
    const point = points[Number(place)];
    if (point)
      points[Number(place)] = {
        ...point,
        ...(typeof name === 'string' && { name }),
        ...(typeof identifier === 'string' && { identifier }),
      };
  }
  return { closed: packed.c === 1, points, ...(typeof packed.i === 'string' && { identifier: packed.i }) };
}

const BYTES = '$bytes';

/** Bytes become `{ $bytes: base 64 }`; a dictionary that has such a key of its own gets one sign more. */
function packedValue(value: LibValue): LibValue {
  if (typeof value !== 'object') return value;
  if (value instanceof Uint8Array) return { [BYTES]: base64Of(value) };
  if (Array.isArray(value)) return value.map(packedValue);
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => [key.endsWith(BYTES) ? `$${key}` : key, packedValue(v)]),
  );
}

function unpackedValue(value: LibValue): LibValue {
  if (typeof value !== 'object' || value === null || value instanceof Uint8Array) return value;
  if (Array.isArray(value)) return value.map(unpackedValue);
  const dictionary = value as Readonly<Record<string, LibValue>>;
  if (typeof dictionary[BYTES] === 'string') return bytesOf(dictionary[BYTES]);
  return Object.fromEntries(
    Object.entries(dictionary).map(([key, v]) => [key.endsWith(BYTES) ? key.slice(1) : key, unpackedValue(v)]),
  );
}

function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

const bytesOf = (text: string): Uint8Array => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

const hasLib = (v: { lib?: Lib | undefined }): boolean => v.lib !== undefined;
const packedLib = <T extends { lib?: Lib | undefined }>(v: T): T =>
  hasLib(v) ? { ...v, lib: packedValue(v.lib as LibValue) as Lib } : v;
const unpackedLib = <T extends { lib?: Lib | undefined }>(v: T): T =>
  hasLib(v) ? { ...v, lib: unpackedValue(v.lib as LibValue) as Lib } : v;

type PackedDrawing = Omit<Drawing, 'contours'> & { contours: PackedContour[] };
const packedDrawing = (d: Drawing): PackedDrawing => ({ ...packedLib(d), contours: d.contours.map(packedContour) });
/** A drawing of a packed one, its points checked; its other fields are checked with its glyph. */
export const unpackedDrawing = (d: PackedDrawing): Drawing => {
  if (!Array.isArray(d?.contours)) return refuse('the contours of a drawing are missing');
  return { ...unpackedLib(d as unknown as Drawing), contours: d.contours.map(unpackedContour) };
};

type Packed = Record<string, unknown> & {
  drawings: Record<string, PackedDrawing>;
  waypoints: { drawing: PackedDrawing }[];
  takes: { drawing: PackedDrawing }[];
};

/** A glyph as a value that goes through JSON and back without loss. */
export function packedGlyph(glyph: Glyph): unknown {
  return {
    ...packedLib(glyph),
    drawings: Object.fromEntries(Object.entries(glyph.drawings).map(([m, d]) => [m, packedDrawing(d)])),
    waypoints: glyph.waypoints.map((w) => ({ ...w, drawing: packedDrawing(w.drawing) })),
    takes: glyph.takes.map((t) => ({ ...t, drawing: packedDrawing(t.drawing) })),
  };
}

/** The glyph of a packed one. Refused, with what is wrong, where it is not as the document's model has it. */
export function unpackedGlyph(value: unknown): Glyph {
  const packed = value as Packed;
  if (typeof packed?.drawings !== 'object' || !Array.isArray(packed.waypoints) || !Array.isArray(packed.takes))
    return refuse('its record is damaged');
  const parsed = glyphShellSchema.safeParse({
    ...unpackedLib(packed as { lib?: Lib }),
    drawings: Object.fromEntries(Object.entries(packed.drawings).map(([m, d]) => [m, unpackedDrawing(d)])),
    waypoints: packed.waypoints.map((w) => ({ ...w, drawing: unpackedDrawing(w.drawing) })),
    takes: packed.takes.map((t) => ({ ...t, drawing: unpackedDrawing(t.drawing) })),
  });
  return parsed.success ? (parsed.data as Glyph) : refuse(wordsOf(parsed.error, 'its'));
}
