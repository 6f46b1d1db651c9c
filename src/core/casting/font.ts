import { attempt, type Result, refuse } from '../base/result';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { pairSides } from '../kerning/pairs';
import { writeCff } from '../opentype/cff';
import { cmap, isSymbol } from '../opentype/cmap';
import { joinGlyphs, writeCompositeGlyph } from '../opentype/glyf';
import { type KernInput, type KernPair, type KernSide, writeKernGpos } from '../opentype/gpos';
import { EPOCH_1904, head } from '../opentype/head';
import { hhea } from '../opentype/hhea';
import { type HorizontalMetric, hmtx } from '../opentype/hmtx';
import { maxp } from '../opentype/maxp';
import { name } from '../opentype/name';
import { os2 } from '../opentype/os2';
import { post } from '../opentype/post';
import { SFNT_CFF, SFNT_TRUETYPE, writeSfnt } from '../opentype/sfnt';
import { type Shared, shareSubroutines } from '../opentype/subroutines';
import { createProject } from '../project/create';
import type { Drawing, Glyph, GlyphId, Lib, Master, MasterId, Project } from '../project/model';
import { drawingsOf } from '../project/outline';
import { drawingOf, glyphsInOrder, masterOf } from '../project/queries';
import { CastCache } from './cache';
import { carriedTables } from './carried';
import { alignmentZones, lineMetrics } from './metrics';
import { nameRecords, type StyleNames, styleNames } from './names';
import { variationSequences } from './sequences';
import { type CompositeShape, roundedBox, type Sibling, type SimpleShape, type TrueTypeShape } from './shape';
import { standardWidth } from './stems';
import { codePageBits, unicodeRangeBits } from './unicodeRanges';
import { widthValues } from './widths';

export type Flavour = 'otf' | 'ttf';
export type CastOptions = {
  flavour: Flavour;
  master: MasterId;
  keepOverlaps?: boolean;
  /** Parts that charstrings share become subroutines: smaller files, a little later. */
  compact?: boolean;
  cache?: CastCache;
};
export type CastFont = {
  bytes: Uint8Array;
  names: StyleNames;
  /** Glyph ids in the font's order; index is the glyph index. */
  glyphIds: readonly GlyphId[];
  /** Largest cubic to quadratic error in units (0 for CFF). */
  quadraticError: number;
  /** Names of glyphs whose overlaps could not be removed and stayed as drawn. */
  overlapsKept: readonly string[];
  kerningPairs: number;
};

type Entry = { glyph: Glyph; drawing: Drawing; advance: number };

/** The glyphs a font is made of: `.notdef` first (drawn here if the project has none), then the cast ones in order. */
function castOrder(project: Project, master: MasterId): Entry[] {
  const all = glyphsInOrder(project).filter((g) => g.cast);
  const own = all.find((g) => g.name === '.notdef');
  const notdef =
    own ?? Object.values(createProject({ family: '', unitsPerEm: project.unitsPerEm, created: 0 }).glyphs)[0]!;
  const rest = all.filter((g) => g !== own);
  if (rest.length + 1 > 65535) refuse(`The project has ${rest.length + 1} glyphs; a font holds at most 65,535.`);
  return [notdef, ...rest].map((glyph) => {
    const drawing = glyph === notdef && !own ? drawingOf(glyph, 'm1') : drawingOf(glyph, master);
    return { glyph, drawing, advance: Math.max(0, Math.min(65535, Math.round(drawing.advance))) };
  });
}

/** Casts one master into an OpenType (CFF) or TrueType font file. The same project gives the same bytes. */
export function castFont(project: Project, options: CastOptions): Result<CastFont> {
  return attempt(() => cast(project, options));
}

function cast(
  project: Project,
  { flavour, master: masterId, keepOverlaps = false, compact = true, cache = new CastCache() }: CastOptions,
): CastFont {
  const master = masterOf(project, masterId) ?? refuse('That master is not in the project.');
  const entries = castOrder(project, masterId);
  const index = new Map(entries.map((e, i) => [e.glyph.id, i]));
  const names = styleNames(project, master);
  const characters = characterMap(entries);
  const outlines =
    flavour === 'otf'
      ? cffOutlines(project, master, entries, names, { keepOverlaps, compact }, cache)
      : trueTypeOutlines(project, master, entries, index, keepOverlaps, cache);
  const fontBox = outlines.boxes.reduce((box, b) => {
    if (!isEmptyBox(b)) {
      stretchBox(box, b.xMin, b.yMin);
      stretchBox(box, b.xMax, b.yMax);
    }
    return box;
  }, emptyBox());
  const metrics: HorizontalMetric[] = entries.map((e, i) => ({
    advanceWidth: e.advance,
    lsb: isEmptyBox(outlines.boxes[i]!) ? 0 : Math.floor(outlines.boxes[i]!.xMin),
  }));
  const tables = new Map(outlines.tables);
  const lines = lineMetrics(master, fontBox);
  tables.set('head', headTable(project, names, fontBox, outlines.indexToLocFormat));
  tables.set('hhea', hheaTable(master, metrics, outlines.boxes, lines));
  tables.set('hmtx', hmtx.write(metrics));
  tables.set('OS/2', os2Table(project, master, names, entries, characters, lines));
  tables.set(
    'cmap',
    cmap.write(
      characters,
      variationSequences(project, () => new Map(entries.map((e, i) => [e.glyph.name, i]))),
    ),
  );
  tables.set('name', name.write(nameRecords(project, names)));
  tables.set('post', postTable(project, master, entries, flavour));
  const kern = kernInput(project, master, index);
  const gpos = writeKernGpos(kern, scriptsOf(characters));
  if (gpos) tables.set('GPOS', gpos);
  for (const [tag, bytes] of carriedTables(
    project,
    entries.map((e) => e.glyph.name),
  ))
    tables.set(tag, bytes);
  return {
    bytes: writeSfnt(flavour === 'otf' ? SFNT_CFF : SFNT_TRUETYPE, tables),
    names,
    glyphIds: entries.map((e) => e.glyph.id),
    quadraticError: outlines.error,
    overlapsKept: outlines.overlapsKept,
    kerningPairs: kern.pairs.length,
  };
}

/** How many pairs a master's kerning is in the font, and the bytes that they cost there. */
export function kerningSize(project: Project, masterId: MasterId): { pairs: number; bytes: number } {
  const master = masterOf(project, masterId);
  const result = attempt(() => castOrder(project, masterId));
  if (!master || !result.ok) return { pairs: 0, bytes: 0 };
  const kern = kernInput(project, master, new Map(result.value.map((e, i) => [e.glyph.id, i])));
  return { pairs: kern.pairs.length, bytes: writeKernGpos(kern, scriptsOf(characterMap(result.value)))?.length ?? 0 };
}

/** Code point to glyph index; the first glyph in order that claims a code point gets it. */
function characterMap(entries: readonly Entry[]): Map<number, number> {
  const map = new Map<number, number>();
  entries.forEach((e, i) => {
    for (const code of e.glyph.unicodes) if (!map.has(code)) map.set(code, i);
  });
  return map;
}

/** The code page bit of symbol fonts. */
const SYMBOL_PAGE = 0x80000000;

const finalName = (g: Glyph): string => (g.productionName ?? g.name).replace(/[^\x21-\x7e]/g, '_').slice(0, 63);

type Outlines = {
  tables: [string, Uint8Array][];
  boxes: readonly Box[];
  indexToLocFormat: 0 | 1;
  error: number;
  overlapsKept: string[];
};

function cffOutlines(
  project: Project,
  master: Master,
  entries: readonly Entry[],
  names: StyleNames,
  { keepOverlaps, compact }: { keepOverlaps: boolean; compact: boolean },
  cache: CastCache,
): Outlines {
  const source = drawingsOf(project, master.id);
  const shapes = entries.map((e) => cache.cffShape(e.drawing, source, keepOverlaps, project.unitsPerEm));
  const { defaultWidthX, nominalWidthX } = widthValues(entries.map((e) => e.advance));
  const boxes = shapes.map((s) => s.box);
  const fontBox = roundedBox(
    boxes.reduce(
      (a, b) =>
        isEmptyBox(b)
          ? a
          : {
              xMin: Math.min(a.xMin, b.xMin),
              yMin: Math.min(a.yMin, b.yMin),
              xMax: Math.max(a.xMax, b.xMax),
              yMax: Math.max(a.yMax, b.yMax),
            },
      emptyBox(),
    ),
  );
  // Widths come before what is shared, so that glyphs alike but for their width share all.
  const bodies = shapes.map((s) => s.body);
  const shared: Shared = compact ? shareSubroutines(bodies) : { charstrings: bodies, global: [], local: [] };
  const charstrings = shared.charstrings.map((body, i) => {
    const { advance } = entries[i]!;
    return advance === defaultWidthX ? body : withWidth(body, advance - nominalWidthX);
  });
  // A stem the designer named is the standard one; else the commonest.
  const standard = (vertical: boolean) =>
    master.stems.find((s) => s.vertical === vertical)?.value ??
    standardWidth(shapes.map((s) => (vertical ? s.stems.vertical : s.stems.horizontal)));
  const cff = writeCff(
    {
      postScriptName: names.postScriptName,
      fullName: names.fullName,
      familyName: names.family,
      weight: names.style,
      version: `${project.family.versionMajor}.${project.family.versionMinor}`,
      notice: project.family.copyright ?? '',
      unitsPerEm: project.unitsPerEm,
      fontBBox: [fontBox.xMin, fontBox.yMin, fontBox.xMax, fontBox.yMax],
      ...alignmentZones(master),
      stdHW: standard(false),
      stdVW: standard(true),
      defaultWidthX,
      nominalWidthX,
    },
    entries.map((e) => finalName(e.glyph)),
    charstrings,
    shared,
  );
  return {
    tables: [
      ['CFF ', cff],
      ['maxp', maxp.write({ version: maxp.VERSION_CFF, numGlyphs: entries.length })],
    ],
    boxes,
    indexToLocFormat: 0,
    error: 0,
    overlapsKept: entries.filter((_, i) => shapes[i]!.overlapFailed).map((e) => e.glyph.name),
  };
}

/** A charstring's width stands before the arguments of its first operator. */
function withWidth(body: Uint8Array, width: number): Uint8Array {
  const number =
    width >= -107 && width <= 107
      ? [width + 139]
      : width >= 108 && width <= 1131
        ? [247 + ((width - 108) >> 8), (width - 108) & 255]
        : width <= -108 && width >= -1131
          ? [251 + ((-width - 108) >> 8), (-width - 108) & 255]
          : [28, (width >> 8) & 255, width & 255];
  const out = new Uint8Array(number.length + body.length);
  out.set(number);
  out.set(body, number.length);
  return out;
}

function trueTypeOutlines(
  project: Project,
  master: Master,
  entries: readonly Entry[],
  index: ReadonlyMap<GlyphId, number>,
  keepOverlaps: boolean,
  cache: CastCache,
): Outlines {
  const source = drawingsOf(project, master.id);
  const isCast = (id: GlyphId) => index.has(id);
  const others = keepOverlaps
    ? project.masters.filter((m) => m.id !== master.id).map((m) => ({ id: m.id, source: drawingsOf(project, m.id) }))
    : [];
  const siblings = (glyph: Glyph): Sibling[] =>
    others.flatMap(({ id, source: there }) => {
      const drawing = glyph.drawings[id];
      return drawing ? [{ drawing, source: there }] : [];
    });
  const shapes = entries.map((e) => cache.trueTypeShape(e.drawing, source, keepOverlaps, isCast, siblings(e.glyph)));
  const totals = compositeTotals(shapes, index);
  const records = shapes.map((s, i) =>
    s.kind === 'simple' ? s.record : compositeRecord(s, index, totals[i]!.box, keepOverlaps),
  );
  const { glyf, loca, indexToLocFormat } = joinGlyphs(records);
  const simple = shapes.filter((s): s is SimpleShape => s.kind === 'simple');
  const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), 0);
  const composites = totals.filter((t) => t.depth > 0);
  const prep = Uint8Array.of(0xb8, 0x01, 0xff, 0x85, 0xb0, 0x04, 0x8d);
  return {
    tables: [
      ['glyf', glyf],
      ['loca', loca],
      // One range: grid-fit and smooth at every size. The prep program turns dropout control on (SCANCTRL, SCANTYPE).
      ['gasp', Uint8Array.of(0, 1, 0, 1, 0xff, 0xff, 0, 0x0f)],
      ['prep', prep],
      [
        'maxp',
        maxp.write({
          version: maxp.VERSION_TRUETYPE,
          numGlyphs: entries.length,
          maxPoints: most(simple.map((s) => s.points)),
          maxContours: most(simple.map((s) => s.contours)),
          maxCompositePoints: most(composites.map((t) => t.points)),
          maxCompositeContours: most(composites.map((t) => t.contours)),
          maxZones: 1,
          maxTwilightPoints: 0,
          maxStorage: 0,
          maxFunctionDefs: 0,
          maxInstructionDefs: 0,
          maxStackElements: 1,
          maxSizeOfInstructions: 0,
          maxComponentElements: most(shapes.map((s) => (s.kind === 'composite' ? s.parts.length : 0))),
          maxComponentDepth: most(totals.map((t) => t.depth)),
        }),
      ],
    ],
    boxes: totals.map((t) => t.box),
    indexToLocFormat,
    error: most(simple.map((s) => s.error)),
    overlapsKept: entries
      .filter((_, i) => {
        const s = shapes[i]!;
        return s.kind === 'simple' && s.overlapFailed;
      })
      .map((e) => e.glyph.name),
  };
}

type Totals = { box: Box; points: number; contours: number; depth: number };

/** Box, points, contours and depth of every glyph with its components drawn out. */
function compositeTotals(shapes: readonly TrueTypeShape[], index: ReadonlyMap<GlyphId, number>): Totals[] {
  const done: (Totals | undefined)[] = shapes.map(() => undefined);
  const visit = (i: number): Totals => {
    const known = done[i];
    if (known) return known;
    const shape = shapes[i]!;
    if (shape.kind === 'simple') {
      const own = { box: shape.box, points: shape.points, contours: shape.contours, depth: 0 };
      done[i] = own;
      return own;
    }
    const total: Totals = { box: emptyBox(), points: 0, contours: 0, depth: 0 };
    for (const part of shape.parts) {
      const base = visit(index.get(part.base)!);
      total.points += base.points;
      total.contours += base.contours;
      total.depth = Math.max(total.depth, base.depth + 1);
      if (isEmptyBox(base.box)) continue;
      const [xx, xy, yx, yy] = part.scale;
      for (const [x, y] of [
        [base.box.xMin, base.box.yMin],
        [base.box.xMax, base.box.yMin],
        [base.box.xMin, base.box.yMax],
        [base.box.xMax, base.box.yMax],
      ] as const) {
        stretchBox(total.box, Math.round(xx * x + yx * y) + part.dx, Math.round(xy * x + yy * y) + part.dy);
      }
    }
    done[i] = total;
    return total;
  };
  return shapes.map((_, i) => visit(i));
}

function compositeRecord(
  shape: CompositeShape,
  index: ReadonlyMap<GlyphId, number>,
  box: Box,
  keepOverlaps: boolean,
): Uint8Array {
  const parts = shape.parts.map(({ base, ...rest }) => ({ ...rest, glyph: index.get(base)! }));
  return writeCompositeGlyph(parts, roundedBox(box), keepOverlaps);
}

function headTable(project: Project, names: StyleNames, fontBox: Box, indexToLocFormat: 0 | 1): Uint8Array {
  const date = project.created + EPOCH_1904;
  return head.write({
    majorVersion: 1,
    minorVersion: 0,
    fontRevision: project.family.versionMajor + project.family.versionMinor / 1000,
    checksumAdjustment: 0,
    magicNumber: 0x5f0f3cf5,
    // Baseline at y = 0; left side bearings at x = 0 in the outlines as stored.
    flags: 0b11,
    unitsPerEm: project.unitsPerEm,
    created: date,
    modified: date,
    ...roundedBox(fontBox),
    macStyle: names.macStyle,
    lowestRecPPEM: 6,
    fontDirectionHint: 2,
    indexToLocFormat,
    glyphDataFormat: 0,
  });
}

function hheaTable(
  master: Master,
  metrics: readonly HorizontalMetric[],
  boxes: readonly Box[],
  lines: ReturnType<typeof lineMetrics>,
): Uint8Array {
  let minLeft = 32767;
  let minRight = 32767;
  let extent = -32768;
  boxes.forEach((box, i) => {
    if (isEmptyBox(box)) return;
    const { advanceWidth, lsb } = metrics[i]!;
    const width = Math.ceil(box.xMax) - Math.floor(box.xMin);
    minLeft = Math.min(minLeft, lsb);
    minRight = Math.min(minRight, advanceWidth - lsb - width);
    extent = Math.max(extent, lsb + width);
  });
  const drawn = extent > -32768;
  const slope = Math.tan((-master.italicAngle * Math.PI) / 180);
  return hhea.write({
    majorVersion: 1,
    minorVersion: 0,
    ascender: lines.hheaAscender,
    descender: lines.hheaDescender,
    lineGap: lines.hheaLineGap,
    advanceWidthMax: metrics.reduce((a, m) => Math.max(a, m.advanceWidth), 0),
    minLeftSideBearing: drawn ? minLeft : 0,
    minRightSideBearing: drawn ? minRight : 0,
    xMaxExtent: drawn ? extent : 0,
    caretSlopeRise: slope === 0 ? 1 : 1000,
    caretSlopeRun: slope === 0 ? 0 : Math.round(slope * 1000),
    caretOffset: 0,
    reserved1: 0,
    reserved2: 0,
    reserved3: 0,
    reserved4: 0,
    metricDataFormat: 0,
    numberOfHMetrics: hmtx.count(metrics),
  });
}

const infoNumber = (info: Lib | undefined, key: string): number | undefined => {
  const v = info?.[key];
  return typeof v === 'number' && Math.abs(v) <= 32767 ? Math.round(v) : undefined;
};

function os2Table(
  project: Project,
  master: Master,
  names: StyleNames,
  entries: readonly Entry[],
  characters: ReadonlyMap<number, number>,
  lines: ReturnType<typeof lineMetrics>,
): Uint8Array {
  const em = project.unitsPerEm;
  const codes = [...characters.keys()].sort((a, b) => a - b);
  const wide = entries.filter((e) => e.advance > 0);
  const [range1, range2, range3, range4] = unicodeRangeBits(codes);
  const [page1, page2] = isSymbol(characters) ? [SYMBOL_PAGE, 0] : codePageBits(new Set(codes));
  const slope = Math.tan((-master.italicAngle * Math.PI) / 180);
  const own = (key: string, rule: number) => infoNumber(master.info, `openTypeOS2${key}`) ?? Math.round(rule);
  const panose = master.info?.openTypeOS2Panose;
  const xHeight = Math.round(master.zones.xHeight.position);
  const fsType = master.info?.openTypeOS2Type;
  return os2.write({
    version: 4,
    xAvgCharWidth: wide.length === 0 ? 0 : Math.round(wide.reduce((sum, e) => sum + e.advance, 0) / wide.length),
    usWeightClass: names.weightClass,
    usWidthClass: names.widthClass,
    fsType: Array.isArray(fsType)
      ? fsType.reduce<number>((bits, b) => bits | (typeof b === 'number' ? 1 << b : 0), 0)
      : 0,
    ySubscriptXSize: own('SubscriptXSize', em * 0.65),
    ySubscriptYSize: own('SubscriptYSize', em * 0.6),
    ySubscriptXOffset: own('SubscriptXOffset', -slope * em * 0.075),
    ySubscriptYOffset: own('SubscriptYOffset', em * 0.075),
    ySuperscriptXSize: own('SuperscriptXSize', em * 0.65),
    ySuperscriptYSize: own('SuperscriptYSize', em * 0.6),
    ySuperscriptXOffset: own('SuperscriptXOffset', slope * em * 0.35),
    ySuperscriptYOffset: own('SuperscriptYOffset', em * 0.35),
    yStrikeoutSize: own('StrikeoutSize', infoNumber(master.info, 'postscriptUnderlineThickness') ?? em * 0.05),
    yStrikeoutPosition: own('StrikeoutPosition', xHeight * 0.6),
    sFamilyClass: 0,
    panose:
      Array.isArray(panose) && panose.length === 10
        ? panose.map((v) => (typeof v === 'number' ? v & 255 : 0))
        : new Array<number>(10).fill(0),
    ulUnicodeRange1: range1,
    ulUnicodeRange2: range2,
    ulUnicodeRange3: range3,
    ulUnicodeRange4: range4,
    achVendID: (project.family.vendor ?? 'NONE')
      .replace(/[^\x20-\x7e]/g, ' ')
      .padEnd(4)
      .slice(0, 4),
    fsSelection: names.fsSelection,
    usFirstCharIndex: Math.min(0xffff, codes[0] ?? 0xffff),
    usLastCharIndex: Math.min(0xffff, codes[codes.length - 1] ?? 0),
    sTypoAscender: lines.typoAscender,
    sTypoDescender: lines.typoDescender,
    sTypoLineGap: lines.typoLineGap,
    usWinAscent: lines.winAscent,
    usWinDescent: lines.winDescent,
    ulCodePageRange1: page1,
    ulCodePageRange2: page2,
    sxHeight: xHeight,
    sCapHeight: Math.round(master.zones.capHeight.position),
    usDefaultChar: 0,
    usBreakChar: 32,
    usMaxContext: Object.keys(master.kerning).length > 0 ? 2 : 1,
  });
}

function postTable(project: Project, master: Master, entries: readonly Entry[], flavour: Flavour): Uint8Array {
  const advances = new Set(entries.filter((e) => e.advance > 0 && e.glyph.unicodes.length > 0).map((e) => e.advance));
  return post.write({
    version: flavour === 'ttf' ? 0x00020000 : 0x00030000,
    italicAngle: master.italicAngle,
    underlinePosition: infoNumber(master.info, 'postscriptUnderlinePosition') ?? Math.round(-project.unitsPerEm * 0.1),
    underlineThickness:
      infoNumber(master.info, 'postscriptUnderlineThickness') ?? Math.round(project.unitsPerEm * 0.05),
    isFixedPitch: advances.size === 1 && entries.length > 2 ? 1 : 0,
    minMemType42: 0,
    maxMemType42: 0,
    minMemType1: 0,
    maxMemType1: 0,
    glyphNames: uniqueNames(entries.map((e) => finalName(e.glyph))),
  });
}

/** Final names must differ; a repeated one gets a number. */
function uniqueNames(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((n) => {
    const times = seen.get(n) ?? 0;
    seen.set(n, times + 1);
    return times === 0 ? n : `${n}.dup${times}`;
  });
}

/** A master's kerning in glyph indices; groups keep the members that are cast, pairs that name nothing left go. */
function kernInput(project: Project, master: Master, index: ReadonlyMap<GlyphId, number>): KernInput {
  const groups = {
    first: project.groups.filter((g) => g.side === 'first'),
    second: project.groups.filter((g) => g.side === 'second'),
  };
  const numbers = new Map([
    ...groups.first.map((g, i) => [g.id, i] as const),
    ...groups.second.map((g, i) => [g.id, i] as const),
  ]);
  const members = (list: readonly { members: readonly GlyphId[] }[]) =>
    list.map((g) => g.members.flatMap((id) => index.get(id) ?? []));
  const side = (s: { kind: 'glyph' | 'group'; id: string }): KernSide | undefined => {
    const n = s.kind === 'glyph' ? index.get(s.id) : numbers.get(s.id);
    return n === undefined ? undefined : s.kind === 'glyph' ? { glyph: n } : { group: n };
  };
  const pairs: KernPair[] = [];
  for (const [key, value] of Object.entries(master.kerning)) {
    const sides = pairSides(key);
    const first = sides && side(sides[0]);
    const second = sides && side(sides[1]);
    const rounded = Math.max(-32768, Math.min(32767, Math.round(value)));
    if (!first || !second || (rounded === 0 && 'group' in first && 'group' in second)) continue;
    pairs.push({ first, second, value: rounded });
  }
  return { firstGroups: members(groups.first), secondGroups: members(groups.second), pairs };
}

/** OpenType script tags of the alphabets a font serves. */
function scriptsOf(characters: ReadonlyMap<number, number>): string[] {
  const tests: readonly (readonly [tag: string, first: number, last: number])[] = [
    ['latn', 0x41, 0x24f],
    ['grek', 0x370, 0x3ff],
    ['cyrl', 0x400, 0x52f],
    ['armn', 0x530, 0x58f],
    ['hebr', 0x590, 0x5ff],
    ['arab', 0x600, 0x6ff],
    ['thai', 0xe00, 0xe7f],
    ['geor', 0x10a0, 0x10ff],
  ];
  const codes = [...characters.keys()];
  return tests.filter(([, first, last]) => codes.some((c) => c >= first && c <= last)).map(([tag]) => tag);
}
