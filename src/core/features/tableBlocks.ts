import type { BaseAxis } from '../opentype/base';
import type { Os2 } from '../opentype/os2';
import { STYLE_FLAGS, type Style } from '../opentype/stat';
import { CODE_PAGES } from './codePages';
import { FeatureFault } from './cursor';
import type { Names } from './resolve';
import type { NameText, Statement, TableStatement } from './tree';

/** What blocks of tables say beside rules: single fields, baselines, places on axes with their names, vertical metrics. */
export type TablesSaid = {
  fontRevision?: number;
  hhea: { caretOffset?: number; ascender?: number; descender?: number; lineGap?: number };
  os2: Partial<Os2>;
  vhea?: { vertTypoAscender?: number; vertTypoDescender?: number; vertTypoLineGap?: number };
  /** Where lines that run down begin above a glyph, and how far they go on, by glyph. */
  vmtx?: { origins: Map<number, number>; advances: Map<number, number> };
  base: { horizontal?: BaseAxis; vertical?: BaseAxis };
  style?: Style;
};

type Block = Extract<Statement, { kind: 'table' }>;
/** Gives names a number in the name table. */
type Numbered = (names: readonly NameText[]) => number;

/** A field of one number: what it is called in the record, and what it may be. */
type Field = readonly [name: string, least: number, most: number];

const HHEA: Readonly<Record<string, Field>> = {
  CaretOffset: ['caretOffset', -32768, 32767],
  Ascender: ['ascender', -32768, 32767],
  Descender: ['descender', -32768, 32767],
  LineGap: ['lineGap', -32768, 32767],
};
const VHEA: Readonly<Record<string, Field>> = {
  VertTypoAscender: ['vertTypoAscender', -32768, 32767],
  VertTypoDescender: ['vertTypoDescender', -32768, 32767],
  VertTypoLineGap: ['vertTypoLineGap', -32768, 32767],
};
const OS2: Readonly<Record<string, Field>> = {
  FSType: ['fsType', 0, 65535],
  TypoAscender: ['sTypoAscender', -32768, 32767],
  TypoDescender: ['sTypoDescender', -32768, 32767],
  TypoLineGap: ['sTypoLineGap', -32768, 32767],
  winAscent: ['usWinAscent', 0, 65535],
  winDescent: ['usWinDescent', 0, 65535],
  XHeight: ['sxHeight', -32768, 32767],
  CapHeight: ['sCapHeight', -32768, 32767],
  WeightClass: ['usWeightClass', 1, 1000],
  WidthClass: ['usWidthClass', 1, 9],
  FamilyClass: ['sFamilyClass', 0, 65535],
};
/** Sizes are said in points and written in twentieths of them. */
const SIZES: Readonly<Record<string, keyof Os2>> = {
  LowerOpSize: 'usLowerOpticalPointSize',
  UpperOpSize: 'usUpperOpticalPointSize',
};
const TWENTIETHS = 20;

/** The one number of a line, from a range; whole unless it is a version. */
function number(line: TableStatement, least: number, most: number): number {
  const [value] = line.numbers;
  if (line.numbers.length !== 1 || value === undefined || !Number.isInteger(value) || value < least || value > most)
    throw new FeatureFault(`“${line.keyword}” has one whole number from ${least} to ${most}.`, line);
  return value;
}

function field(line: TableStatement, fields: Readonly<Record<string, Field>>): Record<string, number> {
  const [name, least, most] = fields[line.keyword]!;
  return { [name]: number(line, least, most) };
}

/** Takes in what a line says; throws a fault where it says something that the table cannot hold. */
export function tableLine(said: TablesSaid, tag: string, line: TableStatement, names: Names): void {
  switch (tag) {
    case 'head': {
      const [revision] = line.numbers;
      if (line.numbers.length !== 1 || revision === undefined || revision < 0 || revision >= 32768)
        throw new FeatureFault('“FontRevision” has one number, as 1.002.', line);
      said.fontRevision = revision;
      return;
    }
    case 'hhea':
      Object.assign(said.hhea, field(line, HHEA));
      return;
    case 'vhea':
      said.vhea = { ...said.vhea, ...field(line, VHEA) };
      return;
    case 'vmtx': {
      said.vmtx ??= { origins: new Map(), advances: new Map() };
      const isOrigin = line.keyword === 'VertOriginY';
      const value = number(line, isOrigin ? -32768 : 0, isOrigin ? 32767 : 65535);
      for (const set of line.sets)
        for (const g of names.glyphs(set)) said.vmtx[isOrigin ? 'origins' : 'advances'].set(g, value);
      return;
    }
    case 'OS/2':
      Object.assign(said.os2, os2Line(line));
  }
}

function os2Line(line: TableStatement): Partial<Os2> {
  const { keyword, numbers, words } = line;
  if (OS2[keyword]) return field(line, OS2);
  if (SIZES[keyword]) {
    const [size] = numbers;
    if (numbers.length !== 1 || size === undefined || size < 0 || size * TWENTIETHS > 65535)
      throw new FeatureFault(`“${keyword}” has one size in points, at most 3276.`, line);
    return { [SIZES[keyword]]: Math.round(size * TWENTIETHS) };
  }
  switch (keyword) {
    case 'Vendor': {
      const [vendor] = words;
      if (vendor === undefined || !/^[\x20-\x7e]{1,4}$/.test(vendor))
        throw new FeatureFault('“Vendor” has up to four plain letters in quotation marks.', line);
      return { achVendID: vendor.padEnd(4) };
    }
    case 'Panose':
      if (numbers.length !== 10 || numbers.some((n) => !Number.isInteger(n) || n < 0 || n > 255))
        throw new FeatureFault('“Panose” has ten whole numbers from 0 to 255.', line);
      return { panose: numbers };
    case 'UnicodeRange': {
      const ranges = bits(line, 4, (n) => (Number.isInteger(n) && n >= 0 && n < 128 ? n : undefined));
      return {
        ulUnicodeRange1: ranges[0]!,
        ulUnicodeRange2: ranges[1]!,
        ulUnicodeRange3: ranges[2]!,
        ulUnicodeRange4: ranges[3]!,
      };
    }
    default: {
      const pages = bits(line, 2, (n) => CODE_PAGES[n]);
      return { ulCodePageRange1: pages[0]!, ulCodePageRange2: pages[1]! };
    }
  }
}

/** Numbers of a line as bits of 32-bit words. */
function bits(line: TableStatement, words: number, bitOf: (n: number) => number | undefined): number[] {
  const out = new Array<number>(words).fill(0);
  for (const n of line.numbers) {
    const bit = bitOf(n);
    if (bit === undefined) throw new FeatureFault(`“${line.keyword}” has no ${n}.`, line);
    out[bit >> 5] = (out[bit >> 5]! | (1 << (bit & 31))) >>> 0;
  }
  return out;
}

/** A block of `STAT`: axes, and names of places on them. */
export function styleBlock(block: Block, numbered: Numbered): Style {
  const designs = block.body.filter((l) => l.keyword === 'DesignAxis');
  const tags = designs.map((l) => l.words[0]!);
  const twice = designs.find((l, i) => tags.indexOf(l.words[0]!) !== i);
  if (twice) throw new FeatureFault(`The axis ${twice.words[0]} stands here twice.`, twice);
  if (designs.length === 0) throw new FeatureFault('A STAT table has a DesignAxis at least.', block);
  const fallback = block.body.find((l) => l.keyword === 'ElidedFallbackName');
  const fallbackId = block.body.find((l) => l.keyword === 'ElidedFallbackNameID');
  return {
    axes: designs.map((l, i) => ({ tag: tags[i]!, nameID: numbered(named(l)), ordering: l.numbers[0] ?? i })),
    values: block.body
      .filter((l) => l.keyword === 'AxisValue')
      .map((l) => ({ nameID: numbered(named(l)), flags: flagsOf(l), places: placesOf(l, tags) })),
    elidedFallbackNameID: fallback ? numbered(named(fallback)) : fallbackId ? number(fallbackId, 0, 32767) : 2,
  };
}

function named(line: TableStatement): readonly NameText[] {
  if (line.names.length === 0) throw new FeatureFault(`“${line.keyword}” has a name.`, line);
  return line.names;
}

function flagsOf(line: TableStatement): number {
  let flags = 0;
  for (const w of line.words) {
    const flag = STYLE_FLAGS[w as keyof typeof STYLE_FLAGS];
    if (flag === undefined)
      throw new FeatureFault(`“${w}” is no flag of places; there are ${Object.keys(STYLE_FLAGS).join(', ')}.`, line);
    flags |= flag;
  }
  return flags;
}

function placesOf(line: TableStatement, tags: readonly string[]): Style['values'][number]['places'] {
  const places = line.places ?? [];
  if (places.length === 0) throw new FeatureFault('“AxisValue” has a location.', line);
  return places.map(({ axis, numbers }) => {
    const at = tags.indexOf(axis);
    if (at < 0) throw new FeatureFault(`The axis ${axis} has no DesignAxis in this table.`, line);
    const most = places.length > 1 ? 1 : 3;
    if (numbers.length < 1 || numbers.length > most)
      throw new FeatureFault(
        most === 1 ? 'Of several axes, each has one value.' : 'A location has one to three numbers.',
        line,
      );
    return { axis: at, numbers };
  });
}

/** Baselines that a `BASE` block says, along lines that run level and such that run down. */
export function baselines(block: Block): TablesSaid['base'] {
  const along = (direction: 'HorizAxis' | 'VertAxis'): BaseAxis | undefined => {
    const lines = block.body.filter((l) => l.keyword.startsWith(`${direction}.`));
    const of = (what: string) => lines.filter((l) => l.keyword === `${direction}.${what}`);
    if (lines.length === 0) return undefined;
    const written = of('BaseTagList').flatMap((l) => l.words);
    const tags = [...written].sort();
    const scripts = new Map<string, ScriptBases>();
    const script: ScriptOf = (tag) => scripts.get(tag) ?? scripts.set(tag, { extremes: [] }).get(tag)!;
    for (const line of of('BaseScriptList'))
      for (const { words, numbers } of line.parts ?? []) {
        const [tag, usual] = words;
        const own = usual === undefined ? -1 : tags.indexOf(usual);
        if (tag === undefined || own < 0 || numbers.length !== tags.length)
          throw new FeatureFault(
            `A script has its tag, one of the baselines ${written.join(' ')}, and ${written.length === 1 ? 'its place' : `${written.length} places`}.`,
            line,
          );
        script(tag).baselines = { usual: own, places: tags.map((t) => numbers[written.indexOf(t)]!) };
      }
    for (const line of of('MinMax')) extremes(line, script);
    return { tags, scripts: [...scripts].map(([tag, s]) => ({ tag, ...s })) };
  };
  const [horizontal, vertical] = [along('HorizAxis'), along('VertAxis')];
  return { ...(horizontal && { horizontal }), ...(vertical && { vertical }) };
}

type Bases = BaseAxis['scripts'][number];
type ScriptBases = { baselines?: NonNullable<Bases['baselines']>; extremes: Bases['extremes'][number][] };
type ScriptOf = (tag: string) => ScriptBases;

/** `latn dflt -200, 900, smcp -100, 600`: extremes of a script in a language, and of features in it. */
function extremes(line: TableStatement, script: ScriptOf): void {
  const [tag, language, ...features] = line.words.filter((w) => w !== ',');
  const pairs = line.numbers.length / 2;
  if (tag === undefined || language === undefined || pairs !== features.length + 1)
    throw new FeatureFault('“MinMax” has a script, a language, the least and the greatest place.', line);
  const at = (i: number) => ({ least: line.numbers[i * 2]!, most: line.numbers[i * 2 + 1]! });
  script(tag).extremes.push({
    language,
    own: at(0),
    features: features.map((f, i) => ({ tag: f, ...at(i + 1) })),
  });
}
