import { SaxesParser } from 'saxes';
import { codePointHex } from '../../base/notation';
import { refuse } from '../../base/result';
import type { Affine } from '../../geometry/affine';
import type { Contour, Point, PointType } from '../../geometry/contour';
import { isCharacter, MOST_ADVANCE } from '../../project/limits';
import type { Anchor, Guide, Lib, LibValue } from '../../project/model';
import { LineCounter, scanTags, Tag } from '../tags';
import { escapeXml, numberText, refuseXml, type XmlElement } from '../xml';
import { readPlainPoints } from './glifPoints';
import { isDict, plistElement, plistValue } from './plist';

export type GlifImage = { fileName: string; transform: Affine; color?: string | undefined };
export type GlifComponent = { base: string; transform: Affine; identifier?: string | undefined };

/** A GLIF file's content (UFO 3, GLIF 2; GLIF 1 is read too). Components name their base. */
export type Glif = {
  name: string;
  unicodes: number[];
  advance: number;
  verticalAdvance?: number | undefined;
  contours: Contour[];
  components: GlifComponent[];
  anchors: Anchor[];
  guides: Guide[];
  image?: GlifImage | undefined;
  note?: string | undefined;
  lib?: Lib | undefined;
};

/** A glyph in which nothing is drawn. */
export const emptyGlif = (name: string): Glif => ({
  name,
  unicodes: [],
  advance: 0,
  contours: [],
  components: [],
  anchors: [],
  guides: [],
});

const TRANSFORM_KEYS = ['xScale', 'xyScale', 'yxScale', 'yScale', 'xOffset', 'yOffset'] as const;
const TRANSFORM_DEFAULTS: Affine = [1, 0, 0, 1, 0, 0];

/**
 * Reads one GLIF file; a fault is refused with file and line, but for what can be left out, which `tell` hears of where it is given. Sources have thousands of these, nearly all of plain tags,
 * which a fast scan reads; anything else goes through the full XML parser.
 */
export function readGlif(text: string, file: string, tell?: (fault: string) => void): Glif {
  const quick = new GlifReader(file, text, tell);
  if (scanTags(text, quick)) return quick.finish();
  return new GlifReader(file, text, tell).read();
}

class GlifReader {
  /** Where the reader is: an offset from the fast scan, a line from the full parser. */
  offset = 0;
  private line: number | undefined;
  private readonly glif: Glif = emptyGlif('');
  private points: Point[] | undefined;
  private move = false;
  private contourIdentifier: string | undefined;
  private format = 2;
  private note = '';
  private inNote = false;
  private depth = 0;
  private readonly libStack: XmlElement[] = [];
  private readonly lines: LineCounter;

  constructor(
    private readonly file: string,
    private readonly source: string,
    private readonly tell?: (fault: string) => void,
  ) {
    this.lines = new LineCounter(source);
  }

  read(): Glif {
    const parser = new SaxesParser();
    const current = new Tag();
    parser.on('error', (e) => refuseXml(e.message, this.file));
    parser.on('opentag', (tag) => {
      this.line = parser.line;
      const values = Object.values(tag.attributes as Record<string, string>);
      current.begin(tag.name, values.join(''));
      let at = 0;
      Object.keys(tag.attributes).forEach((key, i) => {
        current.add(key, at, at + values[i]!.length);
        at += values[i]!.length;
      });
      this.open(current);
    });
    parser.on('closetag', (tag) => this.close(tag.name));
    parser.on('text', (t) => this.text(t));
    parser.on('cdata', (t) => this.text(t));
    parser.write(this.source).close();
    return this.finish();
  }

  finish(): Glif {
    if (this.depth !== 0 || !this.glif.name) this.fail('the glyph is not complete.');
    if (this.note.trim()) this.glif.note = this.note.trim();
    return this.glif;
  }

  private fail(what: string): never {
    return refuse(`${this.file}, line ${this.line ?? this.lines.at(this.offset)}: ${what}`);
  }

  /** What can be left out: the rest of the glyph is read. */
  private mild(what: string): void {
    const said = `${this.file}, line ${this.line ?? this.lines.at(this.offset)}: ${what}`;
    if (this.tell) this.tell(said);
    else refuse(said);
  }

  private number(tag: Tag, key: string, fallback?: number): number {
    const v = tag.number(key);
    if (v === undefined) return fallback ?? this.fail(`<${tag.name}> has no ${key}.`);
    if (!Number.isFinite(v) || v > 1e6 || v < -1e6)
      this.fail(`${key}="${(tag.get(key) ?? '').slice(0, 40)}" of <${tag.name}> is not a number that fits.`);
    return v;
  }

  private transform(tag: Tag): Affine {
    return TRANSFORM_KEYS.map((key, i) => this.number(tag, key, TRANSFORM_DEFAULTS[i]!)) as unknown as Affine;
  }

  open(tag: Tag): void {
    if (this.libStack.length > 0) {
      this.openLib(tag);
      return;
    }
    const a = (key: string) => tag.get(key);
    const optional = (key: string) => (a(key) === undefined ? {} : { [key]: a(key) });
    if (this.depth++ === 0) {
      if (tag.name !== 'glyph') this.fail(`the file should begin with <glyph>, not <${tag.name}>.`);
      this.glif.name = a('name') ?? this.fail('the glyph has no name.');
      this.format = Number(a('format') ?? 1);
      return;
    }
    switch (tag.name) {
      case 'point':
        this.point(tag);
        break;
      case 'contour':
        this.points = [];
        this.move = false;
        this.contourIdentifier = a('identifier');
        break;
      case 'component':
        this.glif.components.push({
          base: a('base') ?? this.fail('<component> has no base.'),
          transform: this.transform(tag),
          ...optional('identifier'),
        });
        break;
      case 'advance':
        this.glif.advance = this.number(tag, 'width', 0);
        if (this.glif.advance < 0) {
          this.mild(`the advance width ${this.glif.advance} is negative; it counts as 0.`);
          this.glif.advance = 0;
        }
        if (this.glif.advance > MOST_ADVANCE) {
          this.mild(
            `the advance width ${this.glif.advance} is more than a font can hold; it counts as ${MOST_ADVANCE}.`,
          );
          this.glif.advance = MOST_ADVANCE;
        }
        if (a('height') !== undefined) this.glif.verticalAdvance = this.number(tag, 'height');
        break;
      case 'unicode': {
        const code = /^[0-9A-Fa-f]{1,6}$/.test(a('hex') ?? '') ? Number.parseInt(a('hex')!, 16) : -1;
        if (!isCharacter(code)) this.mild(`“${a('hex') ?? ''}” is not a code point of a character.`);
        else if (!this.glif.unicodes.includes(code)) this.glif.unicodes.push(code);
        break;
      }
      case 'anchor':
        this.glif.anchors.push({
          name: a('name') ?? '',
          x: this.number(tag, 'x'),
          y: this.number(tag, 'y'),
          ...optional('color'),
          ...optional('identifier'),
        });
        break;
      case 'guideline':
        this.glif.guides.push({
          x: this.number(tag, 'x', 0),
          y: this.number(tag, 'y', 0),
          angle: this.number(tag, 'angle', a('x') !== undefined && a('y') === undefined ? 90 : 0),
          ...optional('name'),
          ...optional('color'),
          ...optional('identifier'),
        });
        break;
      case 'image':
        this.glif.image = {
          fileName: a('fileName') ?? this.fail('<image> has no fileName.'),
          transform: this.transform(tag),
          color: a('color'),
        };
        break;
      case 'lib':
        this.openLib(tag);
        break;
      case 'note':
        this.inNote = true;
        break;
    }
  }

  private point(tag: Tag): void {
    const a = (key: string) => tag.get(key);
    const points = this.points ?? this.fail('<point> stands outside a contour.');
    const type = a('type') ?? 'offcurve';
    if (type === 'move') {
      if (points.length > 0) this.fail('a move point may only come first.');
      this.move = true;
    }
    const mapped = POINT_TYPES[type] ?? this.fail(`“${type}” is not a point type.`);
    const point: { -readonly [K in keyof Point]: Point[K] } = {
      x: this.number(tag, 'x'),
      y: this.number(tag, 'y'),
      type: mapped,
    };
    let others = tag.count - 2 - (tag.has('type') ? 1 : 0);
    if (others > 0 && tag.has('smooth')) {
      if (a('smooth') === 'yes') point.smooth = true;
      others--;
    }
    if (others > 0) {
      const name = a('name');
      if (name !== undefined) point.name = name;
      const identifier = a('identifier');
      if (identifier !== undefined) point.identifier = identifier;
    }
    points.push(point);
  }

  close(name: string): void {
    if (this.libStack.length > 0) {
      this.closeLib();
      return;
    }
    this.depth--;
    if (name === 'note') this.inNote = false;
    if (name !== 'contour' || !this.points) return;
    const points = this.points;
    this.points = undefined;
    const only = points[0];
    // GLIF 1 wrote an anchor as a contour of one named move point.
    if (this.format === 1 && points.length === 1 && this.move && only?.name) {
      this.glif.anchors.push({ name: only.name, x: only.x, y: only.y });
      return;
    }
    this.checkSegments(points);
    if (points.length > 0) {
      this.glif.contours.push({
        closed: !this.move,
        points,
        ...(this.contourIdentifier === undefined ? {} : { identifier: this.contourIdentifier }),
      });
    }
  }

  /** A cubic segment has no or two off-curve points (one is made two), a line none. */
  private checkSegments(points: Point[]): void {
    const n = points.length;
    for (let i = 0; i < n; i++) {
      const type = points[i]!.type;
      if (type !== 'line' && type !== 'curve') continue;
      let offs = 0;
      while (offs < n && points[(i - 1 - offs + 2 * n) % n]!.type === 'off') offs++;
      if (type === 'line' && offs > 0 && !(this.move && i === 0))
        this.fail('a line point has off-curve points before it.');
      if (type === 'curve' && offs > 2)
        this.fail(`a curve point has ${offs} off-curve points before it; a cubic has two.`);
      if (type === 'curve' && offs === 0) points[i] = { ...points[i]!, type: 'line' };
      if (type === 'curve' && offs === 1) points[i] = { ...points[i]!, type: 'qcurve' };
    }
  }

  private openLib(tag: Tag): void {
    const element: XmlElement = {
      name: tag.name,
      attributes: {},
      children: [],
      text: '',
      line: this.line ?? this.lines.at(this.offset),
    };
    this.libStack[this.libStack.length - 1]?.children.push(element);
    if (this.libStack.push(element) > 64) this.fail('the lib is nested more than 64 deep.');
  }

  private closeLib(): void {
    const element = this.libStack.pop()!;
    if (this.libStack.length > 0) return;
    this.depth--;
    const only = element.children[0];
    const value: LibValue = only ? plistValue(only, this.file) : {};
    if (!isDict(value)) this.fail('the lib should hold a dictionary.');
    this.glif.lib = value as Lib;
  }

  readOn(text: string, at: number): number {
    return this.points && this.libStack.length === 0 ? readPlainPoints(text, at, this.points) : at;
  }

  wantsText(): boolean {
    return this.inNote || this.libStack.length > 0;
  }

  text(t: string): void {
    const current = this.libStack[this.libStack.length - 1];
    if (current) current.text += t;
    else if (this.inNote) this.note += t;
  }
}

const POINT_TYPES: Record<string, PointType> = {
  move: 'line',
  line: 'line',
  curve: 'curve',
  qcurve: 'qcurve',
  offcurve: 'off',
};

const attribute = (key: string, value: string | undefined): string =>
  value === undefined ? '' : ` ${key}="${escapeXml(value)}"`;

function transformAttributes(t: Affine): string {
  return TRANSFORM_KEYS.map((key, i) => (t[i] === TRANSFORM_DEFAULTS[i] ? '' : ` ${key}="${numberText(t[i]!)}"`)).join(
    '',
  );
}

/** A GLIF 2 file. */
export function writeGlif(glif: Glif): string {
  const out: string[] = ['<?xml version="1.0" encoding="UTF-8"?>', `<glyph name="${escapeXml(glif.name)}" format="2">`];
  const height = glif.verticalAdvance === undefined ? '' : ` height="${numberText(glif.verticalAdvance)}"`;
  if (glif.advance !== 0 || height)
    out.push(`  <advance${height}${glif.advance === 0 ? '' : ` width="${numberText(glif.advance)}"`}/>`);
  for (const code of glif.unicodes) out.push(`  <unicode hex="${codePointHex(code)}"/>`);
  if (glif.note) out.push(`  <note>\n${escapeXml(glif.note)}\n  </note>`);
  if (glif.image) {
    out.push(
      `  <image fileName="${escapeXml(glif.image.fileName)}"${transformAttributes(glif.image.transform)}${attribute('color', glif.image.color)}/>`,
    );
  }
  for (const g of glif.guides) {
    out.push(
      `  <guideline x="${numberText(g.x)}" y="${numberText(g.y)}" angle="${numberText(g.angle)}"${attribute('name', g.name)}${attribute('color', g.color)}${attribute('identifier', g.identifier)}/>`,
    );
  }
  for (const a of glif.anchors) {
    out.push(
      `  <anchor x="${numberText(a.x)}" y="${numberText(a.y)}"${a.name === '' ? '' : ` name="${escapeXml(a.name)}"`}${attribute('color', a.color)}${attribute('identifier', a.identifier)}/>`,
    );
  }
  if (glif.contours.length + glif.components.length > 0) {
    out.push('  <outline>');
    for (const c of glif.contours) writeContour(out, c);
    for (const c of glif.components) {
      out.push(
        `    <component base="${escapeXml(c.base)}"${transformAttributes(c.transform)}${attribute('identifier', c.identifier)}/>`,
      );
    }
    out.push('  </outline>');
  }
  if (glif.lib && Object.keys(glif.lib).length > 0) out.push(`  <lib>\n${plistElement(glif.lib, '    ')}\n  </lib>`);
  out.push('</glyph>', '');
  return out.join('\n');
}

function writeContour(out: string[], contour: Contour): void {
  out.push(`    <contour${attribute('identifier', contour.identifier)}>`);
  contour.points.forEach((p, i) => {
    const type = !contour.closed && i === 0 ? 'move' : p.type;
    out.push(
      `      <point x="${numberText(p.x)}" y="${numberText(p.y)}"${type === 'off' ? '' : ` type="${type}"`}${p.smooth ? ' smooth="yes"' : ''}${attribute('name', p.name)}${attribute('identifier', p.identifier)}/>`,
    );
  });
  out.push('    </contour>');
}
