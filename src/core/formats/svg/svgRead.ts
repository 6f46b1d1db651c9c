import svgpath from 'svgpath';
import { attempt, type Result, refuse } from '../../base/result';
import { type Affine, compose, IDENTITY } from '../../geometry/affine';
import { type Contour, contourFromCurves, reverseContour, signedArea, transformContour } from '../../geometry/contour';
import type { Curve } from '../../geometry/curve';
import { withSmoothPoints } from '../../geometry/smooth';
import { tidy } from '../../geometry/tidy';
import { directedByNesting } from '../../geometry/winding';
import { parseXml, type XmlElement } from '../xml';
import { type LengthOf, lengthsOf, type Page, shapeData } from './svgShapes';

/** Where a picture's page goes: the em and the lines of the master, in font units. */
export type SvgPlace = { unitsPerEm: number; top: number; bottom: number };

/** What an SVG file holds for a glyph; `advance` is the page's width, `notes` say what was left out. */
export type SvgOutline = { contours: Contour[]; advance: number; title: string | undefined; notes: string[] };

/** Limits that no drawing of a glyph reaches. */
const MOST_CURVES = 100_000;
const MOST_ELEMENTS = 20_000;
const DEEPEST_USE = 12;

/**
 * Reads an SVG picture as outlines of a glyph. A page about as tall as the em (a quarter more or less) comes in one unit
 * to a pixel, any other is fitted to the line, bottom to top. A page that reaches above and below its y = 0 has its
 * baseline there, as pictures of glyphs that Wendril writes; any other stands with its foot at the bottom. Groups, transforms, basic shapes, arcs,
 * `use` and nested pages are followed; fills by the even-odd rule get directions that a non-zero fill shows alike.
 */
export function readSvg(text: string, file: string, place: SvgPlace): Result<SvgOutline> {
  return attempt(() => {
    const root = parseXml(text, file);
    if (localName(root) !== 'svg') refuse(`${file} is not an SVG picture; it begins with <${root.name}>.`);
    const reader = new Reader(file, root);
    const page = reader.pageOf(root, { x: 0, y: 0, width: 300, height: 150 });
    reader.walk(root, IDENTITY, page, EMPTY_STYLE, 0);
    const line = place.top - place.bottom;
    const oneToOne = Math.abs(page.height / place.unitsPerEm - 1) <= 0.25;
    const scale = oneToOne ? 1 : line / page.height;
    const hasBaseline = page.y < 0 && page.y + page.height > 0;
    const foot = hasBaseline ? 0 : place.bottom + (page.y + page.height) * scale;
    const toFont: Affine = [scale, 0, 0, -scale, -page.x * scale, foot];
    const title = root.children.find((c) => localName(c) === 'title')?.text.trim();
    return {
      contours: finished(reader.contours, toFont),
      advance: Math.round(page.width * scale),
      title: title || undefined,
      notes: reader.notes(),
    };
  });
}

/** Bare path data as an outline, one unit to a unit, its y = 0 at `top`. */
export function readPathData(data: string, top: number): Result<Contour[]> {
  return attempt(() => finished(alike(contoursOfPath(data, IDENTITY, true, 'The path')), [1, 0, 0, -1, 0, top]));
}

/** Whether text begins as SVG path data does. */
export const isPathData = (text: string): boolean => /^\s*[Mm]\s*[-+.\d]/.test(text);

/** Whether text begins as an SVG document does. */
export const isSvg = (text: string): boolean =>
  /^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]{0,2000}?-->\s*|<!DOCTYPE svg[^>[]*>\s*)*<([\w-]+:)?svg[\s>]/.test(text);

/** Outlines on the sheet: coordinates keep thousandths, joints that run on are smooth. */
const finished = (contours: readonly Contour[], t: Affine): Contour[] =>
  contours.map((contour) => {
    const moved = transformContour(contour, t);
    return withSmoothPoints({ ...moved, points: moved.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) });
  });

/** The contours of one shape, y down, turned so that on the sheet what is inked runs counter-clockwise: shapes then add up. */
function alike(contours: readonly Contour[]): readonly Contour[] {
  const area = contours.reduce((sum, c) => sum + (c.closed ? signedArea(c) : 0), 0);
  return area > 0 ? contours.map((c) => (c.closed ? reverseContour(c) : c)) : contours;
}

const localName = (e: XmlElement): string => e.name.replace(/^.*:/, '');

type Style = { hidden: boolean; filled: boolean; evenOdd: boolean; stroked: boolean };
const EMPTY_STYLE: Style = { hidden: false, filled: true, evenOdd: false, stroked: false };

/** Elements whose children are shown; those of others (definitions, clips, paints) are only shown by reference. */
const GROUPS = new Set(['svg', 'g', 'a', 'switch']);
const LEFT_OUT: Readonly<Record<string, string>> = { text: 'text', image: 'pictures', foreignObject: 'foreign parts' };

class Reader {
  readonly contours: Contour[] = [];
  private readonly length: LengthOf;
  private readonly byId = new Map<string, XmlElement>();
  private readonly left = new Map<string, number>();
  private elements = 0;
  private curves = 0;
  private lines = 0;

  constructor(
    private readonly file: string,
    root: XmlElement,
  ) {
    this.length = lengthsOf(file);
    const collect = (e: XmlElement): void => {
      if (e.attributes.id !== undefined && !this.byId.has(e.attributes.id)) this.byId.set(e.attributes.id, e);
      e.children.forEach(collect);
    };
    collect(root);
  }

  walk(e: XmlElement, outer: Affine, page: Page, inherited: Style, uses: number): void {
    if (++this.elements > MOST_ELEMENTS) refuse(`${this.file}: more than ${MOST_ELEMENTS} elements are shown.`);
    const style = styleOf(e, inherited);
    const own = transformOf(e, this.file);
    const here = compose(outer, own);
    if (style.hidden) return;
    for (const what of ['clip-path', 'mask'])
      if ((e.attributes[what] ?? 'none') !== 'none') this.leave('clips and masks');
    const name = localName(e);
    const leftOut = name === 'style' && e.text.includes('{') ? 'style sheets' : LEFT_OUT[name];
    const data = shapeData({ ...e, name }, this.length, page);
    if (leftOut) this.leave(leftOut);
    else if (name === 'use') this.use(e, here, page, style, uses);
    else if (data !== undefined) this.shape(data, here, style, e, name);
    else if (GROUPS.has(name)) for (const child of e.children) this.child(child, here, page, style, uses);
  }

  private child(child: XmlElement, here: Affine, page: Page, style: Style, uses: number): void {
    if (localName(child) === 'svg') this.nested(child, here, page, style, uses);
    else this.walk(child, here, page, style, uses);
  }

  private nested(svg: XmlElement, here: Affine, page: Page, style: Style, uses: number): void {
    const inner = this.pageOf(svg, page);
    this.walk(svg, compose(here, this.viewport(svg, inner, page)), inner, style, uses);
  }

  /** The page an `svg` or `symbol` element spans in its own units: its viewBox, or its width and height. */
  pageOf(e: XmlElement, around: Page): Page {
    const box = e.attributes.viewBox;
    const width = this.length(e, 'width', around.width);
    const height = this.length(e, 'height', around.height);
    if (box !== undefined) {
      const [x, y, w, h] = box
        .trim()
        .split(/[\s,]+/)
        .map(Number) as [number, number, number, number];
      const fits = [x, y, w, h].every((v) => Number.isFinite(v) && Math.abs(v) <= 1e6);
      if (!fits || w <= 0 || h <= 0)
        refuse(
          `${this.file}, line ${e.line}: viewBox="${box.slice(0, 60)}" is not four numbers with a width and a height.`,
        );
      return { x, y, width: w, height: h };
    }
    const page = { x: 0, y: 0, width: width ?? around.width, height: height ?? around.height };
    if (page.width <= 0 || page.height <= 0)
      refuse(`${this.file}, line ${e.line}: the picture has no width or height.`);
    return page;
  }

  /** From the units of a nested page to those around it (SVG 2, the viewBox fitted whole and centred unless told otherwise). */
  private viewport(e: XmlElement, inner: Page, around: Page): Affine {
    const left = this.length(e, 'x', around.width) ?? 0;
    const top = this.length(e, 'y', around.height) ?? 0;
    const width = this.length(e, 'width', around.width) ?? around.width;
    const height = this.length(e, 'height', around.height) ?? around.height;
    if (e.attributes.viewBox === undefined) return [1, 0, 0, 1, left, top];
    const fit = e.attributes.preserveAspectRatio?.trim() ?? 'xMidYMid meet';
    let [sx, sy] = [width / inner.width, height / inner.height];
    if (!fit.startsWith('none')) sx = sy = fit.includes('slice') ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = (mark: string) => (fit.includes(`${mark}Min`) ? 0 : fit.includes(`${mark}Max`) ? 1 : 0.5);
    const spareX = (width - inner.width * sx) * share('x');
    const spareY = (height - inner.height * sy) * share('Y');
    return [sx, 0, 0, sy, left + spareX - inner.x * sx, top + spareY - inner.y * sy];
  }

  private use(e: XmlElement, here: Affine, page: Page, style: Style, uses: number): void {
    const href = e.attributes.href ?? e.attributes['xlink:href'];
    const target = href?.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (uses >= DEEPEST_USE)
      refuse(`${this.file}, line ${e.line}: <use> leads more than ${DEEPEST_USE} steps on, or back to itself.`);
    const placed = compose(here, [
      1,
      0,
      0,
      1,
      this.length(e, 'x', page.width) ?? 0,
      this.length(e, 'y', page.height) ?? 0,
    ]);
    const name = target && localName(target);
    if (!target) this.leave('uses of what is not in the file');
    else if (name === 'symbol' || name === 'svg') this.nested(asPage(target, e), placed, page, style, uses + 1);
    else this.walk(target, placed, page, style, uses + 1);
  }

  private shape(data: string, here: Affine, style: Style, e: XmlElement, name: string): void {
    const filled = style.filled && name !== 'line';
    if (!filled && !style.stroked) return;
    const found = contoursOfPath(data, here, filled, `${this.file}, line ${e.line}: <${name}>`);
    this.curves += found.reduce((sum, c) => sum + c.points.length, 0);
    if (this.curves > MOST_CURVES) refuse(`${this.file}: the outlines have more than ${MOST_CURVES} points.`);
    if (!filled) this.lines += found.length;
    else if (style.stroked) this.leave('strokes around filled shapes');
    this.contours.push(...alike(style.evenOdd && filled ? directedByNesting(found) : found));
  }

  private leave(what: string): void {
    this.left.set(what, (this.left.get(what) ?? 0) + 1);
  }

  notes(): string[] {
    const notes = [...this.left].map(([what, count]) => `Left out: ${what} (${count}).`);
    if (this.lines > 0)
      notes.push(`${this.lines === 1 ? 'A stroke' : `${this.lines} strokes`} without fill came in as open contours.`);
    return notes;
  }
}

/** A symbol as a nested page at its place, as wide and tall as the `use` asks. */
function asPage(target: XmlElement, use: XmlElement): XmlElement {
  const { x: _x, y: _y, ...attributes } = target.attributes;
  const { width, height } = { ...attributes, ...use.attributes };
  return { ...target, name: 'svg', attributes: { ...attributes, ...(width && { width }), ...(height && { height }) } };
}

function styleOf(e: XmlElement, inherited: Style): Style {
  const inline = new Map(
    (e.attributes.style ?? '').split(';').map((part) => part.split(':', 2).map((s) => s.trim()) as [string, string]),
  );
  const read = (key: string) => inline.get(key) ?? e.attributes[key];
  const next = { ...inherited };
  const [fill, stroke, rule, visibility] = [read('fill'), read('stroke'), read('fill-rule'), read('visibility')];
  if (fill !== undefined && fill !== 'inherit') next.filled = fill !== 'none' && fill !== 'transparent';
  if (stroke !== undefined && stroke !== 'inherit') next.stroked = stroke !== 'none' && stroke !== 'transparent';
  if (rule !== undefined && rule !== 'inherit') next.evenOdd = rule === 'evenodd';
  if (read('display') === 'none' || visibility === 'hidden' || visibility === 'collapse') next.hidden = true;
  return next;
}

/** The transform of an element by way of the three points it moves. */
function transformOf(e: XmlElement, file: string): Affine {
  const text = e.attributes.transform;
  if (text === undefined || text.trim() === '') return IDENTITY;
  const plain = /^(\s*(matrix|translate|scale|rotate|skewX|skewY)\s*\([\s\d.,eE+-]*\)[\s,]*)+$/.test(text);
  const moved: number[] = [];
  if (plain && text.length < 4000) {
    svgpath('M0 0M1 0M0 1')
      .transform(text)
      .iterate((segment) => {
        moved.push(Number(segment[1]), Number(segment[2]));
      });
  }
  const [x, y, xx, xy, yx, yy] = moved;
  if (moved.length !== 6 || !moved.every((v) => Number.isFinite(v) && Math.abs(v) <= 1e7)) {
    return refuse(`${file}, line ${e.line}: transform="${text.slice(0, 60)}" of <${e.name}> cannot be read.`);
  }
  return [xx! - x!, xy! - y!, yx! - x!, yy! - y!, x!, y!];
}

/** Path data (SVG 2, Path data) through a transform; filled subpaths are closed, as filling closes them. */
function contoursOfPath(data: string, t: Affine, filled: boolean, what: string): Contour[] {
  if (data.length > 4_000_000) refuse(`${what} has path data of more than 4 MB.`);
  const path = svgpath(data);
  const fault = (path as unknown as { err?: string }).err;
  if (fault) refuse(`${what} has path data that cannot be read: ${fault.replace(/^SvgPath: /, '')}.`);
  const contours: Contour[] = [];
  let curves: Curve[] = [];
  let [startX, startY] = [0, 0];
  const finish = (closed: boolean, x: number, y: number) => {
    const whole = closed && (x !== startX || y !== startY) ? [...curves, [x, y, startX, startY]] : curves;
    if (whole.some((c) => c.some((v) => !Number.isFinite(v) || Math.abs(v) > 1e6)))
      refuse(`${what} has coordinates that do not fit.`);
    const contour = contourFromCurves(whole, closed);
    if (contour.points.length > 1) contours.push(contour);
    curves = [];
  };
  path
    .matrix([...t])
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _, x, y) => {
      const [command, ...n] = segment as [string, ...number[]];
      if (command === 'M') {
        finish(filled, x, y);
        [startX, startY] = n as [number, number];
      } else if (command === 'Z') finish(true, x, y);
      else if (command === 'H') curves.push([x, y, n[0]!, y]);
      else if (command === 'V') curves.push([x, y, x, n[0]!]);
      else curves.push([x, y, ...n]);
    });
  const last = curves[curves.length - 1];
  if (last) finish(filled, last[last.length - 2]!, last[last.length - 1]!);
  return contours;
}
