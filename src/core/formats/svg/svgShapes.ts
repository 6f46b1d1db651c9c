import { refuse } from '../../base/result';
import type { XmlElement } from '../xml';

/** Reads one length of an attribute; `whole` is what 100 % means. A missing one is undefined. */
export type LengthOf = (element: XmlElement, key: string, whole: number) => number | undefined;

/** The page a shape lies on, in its own units. */
export type Page = { x: number; y: number; width: number; height: number };

/** Pixels to one of each unit, as CSS has them. */
const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
};

/** Lengths of a file: numbers with an absolute unit or %, others are refused with their line. */
export const lengthsOf =
  (file: string): LengthOf =>
  (element, key, whole) => {
    const text = element.attributes[key]?.trim();
    if (text === undefined || text === '' || text === 'auto') return undefined;
    const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z]*|%)$/i.exec(text);
    const unit = match?.[2]?.toLowerCase() ?? '';
    const scale = unit === '%' ? whole / 100 : UNITS[unit];
    const value = match && scale !== undefined ? Number(match[1]) * scale : Number.NaN;
    if (!Number.isFinite(value) || Math.abs(value) > 1e6)
      refuse(
        `${file}, line ${element.line}: ${key}="${text.slice(0, 40)}" of <${element.name}> is not a length that fits.`,
      );
    return value;
  };

/**
 * Path data of a basic shape (SVG 2, Basic shapes), undefined for other elements and for shapes without extent. Rounded
 * corners and ovals are arcs.
 */
export function shapeData(e: XmlElement, length: LengthOf, page: Page): string | undefined {
  const x = (key: string) => length(e, key, page.width) ?? 0;
  const y = (key: string) => length(e, key, page.height) ?? 0;
  switch (e.name) {
    case 'path':
      return e.attributes.d;
    case 'rect':
      return rectangleData(e, length, page);
    case 'circle': {
      const r = length(e, 'r', Math.hypot(page.width, page.height) / Math.SQRT2) ?? 0;
      return r > 0 ? ovalData(x('cx'), y('cy'), r, r) : undefined;
    }
    case 'ellipse': {
      const [rx, ry] = radii(length(e, 'rx', page.width), length(e, 'ry', page.height));
      return rx > 0 && ry > 0 ? ovalData(x('cx'), y('cy'), rx, ry) : undefined;
    }
    case 'line':
      return `M${x('x1')} ${y('y1')}L${x('x2')} ${y('y2')}`;
    case 'polyline':
    case 'polygon': {
      const numbers = (e.attributes.points ?? '').trim();
      if (numbers === '') return undefined;
      return `M${numbers}${e.name === 'polygon' ? 'Z' : ''}`;
    }
    default:
      return undefined;
  }
}

/** A radius that is not given is as large as the other. */
const radii = (rx: number | undefined, ry: number | undefined): [number, number] => [rx ?? ry ?? 0, ry ?? rx ?? 0];

/** Four arcs, so that points lie at the extremes. */
const ovalData = (cx: number, cy: number, rx: number, ry: number): string => {
  const to = (x: number, y: number) => `A${rx} ${ry} 0 0 1 ${x} ${y}`;
  return `M${cx + rx} ${cy}${to(cx, cy + ry)}${to(cx - rx, cy)}${to(cx, cy - ry)}${to(cx + rx, cy)}Z`;
};

function rectangleData(e: XmlElement, length: LengthOf, page: Page): string | undefined {
  const width = length(e, 'width', page.width) ?? 0;
  const height = length(e, 'height', page.height) ?? 0;
  if (width <= 0 || height <= 0) return undefined;
  const left = length(e, 'x', page.width) ?? 0;
  const top = length(e, 'y', page.height) ?? 0;
  const [right, bottom] = [left + width, top + height];
  const [askedX, askedY] = radii(length(e, 'rx', page.width), length(e, 'ry', page.height));
  const rx = Math.min(Math.max(0, askedX), width / 2);
  const ry = Math.min(Math.max(0, askedY), height / 2);
  if (rx === 0 || ry === 0) return `M${left} ${top}H${right}V${bottom}H${left}Z`;
  const corner = (x: number, y: number) => `A${rx} ${ry} 0 0 1 ${x} ${y}`;
  return [
    `M${left + rx} ${top}H${right - rx}${corner(right, top + ry)}`,
    `V${bottom - ry}${corner(right - rx, bottom)}`,
    `H${left + rx}${corner(left, bottom - ry)}`,
    `V${top + ry}${corner(left + rx, top)}Z`,
  ].join('');
}
