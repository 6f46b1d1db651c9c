import { addTo } from '../base/grouping';
import { attempt, type Result } from '../base/result';
import { Reader } from '../opentype/binary';
import { GPOS_EXTENSION } from '../opentype/gpos';
import { GSUB_EXTENSION } from '../opentype/gsub';
import { classDef } from '../opentype/layout/classDef';
import { part } from '../opentype/layout/codec';
import type { Context } from '../opentype/layout/contexts';
import { coverage } from '../opentype/layout/coverage';
import { type Layout, readLayout } from '../opentype/layout/lists';
import type { PairValue, Value } from '../opentype/layout/positions';
import { type AnchorPlace, type ReadPositions, readPosition } from '../opentype/layout/readPositions';
import { type ReadRules, readSubstitution } from '../opentype/layout/readRules';
import { featureDoes } from './known';
import { kerningThatMoves } from './movingPairs';
import type { KnownMarks } from './tables';
import { type NamesById, parameterLines } from './writtenNames';

/**
 * A piece of feature text made from tables, of which feature; `beside` where it stands beside what the project says by itself of that
 * feature, instead of replacing it.
 */
export type WrittenSection = { title: string; text: string; tag?: string; beside?: true };

/** Marks of a font by the classes and sets that lookups name. */
type MarkGroups = { classes: ReadonlyMap<number, readonly number[]>; sets: readonly (readonly number[])[] };

/** Longest line of a list of glyphs, in names. */
const IN_A_LINE = 12;

/**
 * The rules of a `GSUB` table as feature text: its lookups in their order, then each feature with its scripts and languages. What
 * compiles from it shapes the same. Refused where the table says what the language cannot.
 */
export function decompileSubstitutions(
  gsub: Uint8Array,
  gdef: Uint8Array | undefined,
  glyphs: readonly string[],
  namesOf: NamesById = () => [],
): Result<WrittenSection[]> {
  return attempt(() => {
    const layout = readLayout(gsub, 'GSUB', GSUB_EXTENSION);
    const rules = layout.lookups.map((l) => l.subtables.map((s) => readSubstitution(l.type, s, glyphs.length)));
    const marks = gdef ? marksOf(gdef) : NO_MARKS;
    return new Decompiler({
      layout,
      rules,
      marks,
      glyphs,
      prefix: 'lookup',
      wanted: () => true,
      takes: () => true,
      namesOf,
    }).sections('Lookups');
  });
}

/** Features that put marks on letters and on one another: plain ones are anchors elsewhere. */
export const MARK_FEATURES: ReadonlySet<string> = new Set(['mark', 'mkmk', 'abvm', 'blwm']);

/**
 * The rules of a `GPOS` table as feature text, but plain kerning and marks, which are read as pairs and anchors: joins of connected
 * writing, room between capitals, and others. Kerning by context stands beside the pairs; where a feature of marks has contexts,
 * all of them are rules, since what comes later holds. Numbers of device tables are left out.
 */
export function decompilePositions(
  gpos: Uint8Array,
  gdef: Uint8Array | undefined,
  glyphs: readonly string[],
  namesOf: NamesById = () => [],
): Result<WrittenSection[]> {
  return attempt(() => {
    const layout = readLayout(gpos, 'GPOS', GPOS_EXTENSION);
    const rules = layout.lookups.map((l) => l.subtables.map((s) => readPosition(l.type, s, glyphs.length)));
    const isContext = (lookup: number) => rules[lookup]?.some((r) => r.kind === 'context') ?? false;
    const byContext = new Set(layout.features.filter((f) => f.lookups.some(isContext)).map((f) => f.tag));
    const marksByContext = [...MARK_FEATURES].some((t) => byContext.has(t));
    const isPlain = (tag: string) => MARK_FEATURES.has(tag) && !marksByContext;
    const wanted = (tag: string) => !isPlain(tag);
    const moving = kerningThatMoves(rules);
    const takes = (tag: string, lookup: number) => tag !== 'kern' || isContext(lookup) || moving.has(lookup);
    const marks = gdef ? marksOf(gdef) : NO_MARKS;
    const kerned = layout.features.some((f) => f.tag === 'kern' && f.lookups.some((l) => takes('kern', l)));
    const written = new Decompiler({
      layout,
      rules,
      marks,
      glyphs,
      prefix: 'move',
      wanted: (tag) => wanted(tag) && (tag !== 'kern' || kerned),
      takes,
      namesOf,
    }).sections('Positions');
    return written.filter((s) => s.text !== '').map((s) => (s.tag === 'kern' ? { ...s, beside: true } : s));
  });
}

const NO_MARKS: MarkGroups = { classes: new Map(), sets: [] };

/** Classes and sets of marks in `GDEF`; none where it is damaged. */
export function marksOf(gdef: Uint8Array): MarkGroups {
  const read = attempt(() => readMarks(gdef));
  return read.ok ? read.value : NO_MARKS;
}

/** The same in the order of their numbers, for rules that refer to a table as it is. */
export function numberedMarks(gdef: Uint8Array): KnownMarks {
  const { classes, sets } = marksOf(gdef);
  const most = Math.max(0, ...classes.keys());
  return {
    attachmentClasses: Array.from({ length: most }, (_, i) => classes.get(i + 1) ?? []),
    filterSets: [...sets],
  };
}

function readMarks(gdef: Uint8Array): MarkGroups {
  const from = new Reader(gdef, 'GDEF');
  const [, minor, , , , attachment] = Array.from({ length: 6 }, () => from.uint16()) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const setsAt = minor >= 2 ? from.uint16() : 0;
  const classes = new Map<number, number[]>();
  const classTable = part(from, attachment);
  if (classTable) for (const [g, c] of classDef.read(classTable)) addTo(classes, c, g);
  const setTable = part(from, setsAt);
  if (!setTable) return { classes, sets: [] };
  setTable.uint16();
  const offsets = Array.from({ length: setTable.uint16() }, () => setTable.uint32());
  return { classes, sets: offsets.map((o) => [...coverage.read(part(setTable, o)!)]) };
}

type AnyRules = ReadRules | ReadPositions;

type Tables = {
  layout: Layout;
  /** Rules of each lookup, subtable by subtable. */
  rules: readonly (readonly AnyRules[])[];
  marks: MarkGroups;
  glyphs: readonly string[];
  /** What names of lookups begin with. */
  prefix: string;
  wanted: (tag: string) => boolean;
  /** Is a lookup of a feature told with it? */
  takes: (tag: string, lookup: number) => boolean;
  namesOf: NamesById;
};

class Decompiler {
  private readonly layout: Layout;
  private readonly rules: Tables['rules'];
  private readonly marks: MarkGroups;
  private readonly glyphs: readonly string[];
  private readonly prefix: string;
  private readonly wanted: Tables['wanted'];
  private readonly takes: Tables['takes'];
  private readonly namesOf: NamesById;
  /** Lookups that features name. */
  private readonly named: ReadonlySet<number>;
  private readonly written: string[] = [];
  private readonly done = new Set<string>();

  constructor({ layout, rules, marks, glyphs, prefix, wanted, takes, namesOf }: Tables) {
    this.layout = layout;
    this.rules = rules;
    this.marks = marks;
    this.glyphs = glyphs;
    this.prefix = prefix;
    this.wanted = wanted;
    this.takes = takes;
    this.namesOf = namesOf;
    this.named = new Set(
      layout.features.filter((f) => wanted(f.tag)).flatMap((f) => f.lookups.filter((l) => takes(f.tag, l))),
    );
  }

  sections(title: string): WrittenSection[] {
    this.layout.lookups.forEach((_, i) => {
      if (this.named.has(i)) this.lookup(i, `${this.prefix}${i}`);
    });
    const text = [...this.systemsOfAll(), ...this.written].join('\n\n');
    return [{ title, text }, ...this.features()];
  }

  private name(glyph: number): string {
    const name = this.glyphs[glyph] ?? `glyph${glyph}`;
    return KEYWORDS.has(name) ? `\\${name}` : name;
  }

  private list(glyphs: readonly number[]): string {
    if (glyphs.length === 1) return this.name(glyphs[0]!);
    const lines: string[] = [];
    for (let i = 0; i < glyphs.length; i += IN_A_LINE)
      lines.push(
        glyphs
          .slice(i, i + IN_A_LINE)
          .map((g) => this.name(g))
          .join(' '),
      );
    return `[${lines.join('\n    ')}]`;
  }

  /** Writes a lookup under a name, those that it calls before it; lookups that stand in features keep their order. */
  private lookup(index: number, name: string, depth = 0): void {
    if (this.done.has(name) || depth > 8) return;
    this.done.add(name);
    const lookup = this.layout.lookups[index];
    const rules = this.rules[index];
    if (!lookup || !rules) return;
    for (const r of rules)
      if (r.kind === 'context')
        for (const { lookup: called } of r.contexts.flatMap((c) => c.calls))
          this.lookup(called, this.calledName(called), depth + 1);
    const lines = this.lines(rules, name);
    // A lookup that does nothing keeps its place by a rule for no context.
    if (lines.length === 0) return;
    const flag = this.flag(lookup.flag, lookup.markFilteringSet);
    this.written.push(...this.markClasses(rules, name));
    this.written.push([`lookup ${name} {`, ...[...flag, ...lines].map((l) => `  ${l}`), `} ${name};`].join('\n'));
  }

  /** Lookups that features name too are written once more for those who call them, so that the order of the first stays. */
  private calledName = (index: number): string =>
    this.named.has(index) ? `${this.prefix}Called${index}` : `${this.prefix}${index}`;

  private flag(flag: number, set: number | undefined): string[] {
    const words = [
      ...(['RightToLeft', 'IgnoreBaseGlyphs', 'IgnoreLigatures', 'IgnoreMarks'] as const).filter(
        (_, i) => flag & (1 << i),
      ),
    ] as string[];
    const members = this.marks.classes.get(flag >> 8);
    if (flag >> 8 && members) words.push(`MarkAttachmentType ${this.list(members)}`);
    // A class without marks skips them all.
    else if (flag >> 8 && !words.includes('IgnoreMarks')) words.push('IgnoreMarks');
    const kept = set === undefined ? undefined : this.marks.sets[set];
    if (kept && kept.length > 0) words.push(`UseMarkFilteringSet ${this.list(kept)}`);
    else if (set !== undefined && !words.includes('IgnoreMarks')) words.push('IgnoreMarks');
    return words.length > 0 ? [`lookupflag ${words.join(' ')};`] : [];
  }

  private lines(rules: readonly AnyRules[], name: string): string[] {
    const seen = new Set<string>();
    /** Of subtables one after the other the first that has a glyph holds. */
    const fresh = (key: string): boolean => !seen.has(key) && Boolean(seen.add(key));
    const linesOf = (r: AnyRules, subtable: number): string[] => {
      switch (r.kind) {
        case 'single': {
          const pairs = [...r.by].filter(([g]) => fresh(String(g)));
          return pairs.length === 0
            ? []
            : pairs.length === 1
              ? [`sub ${this.name(pairs[0]![0])} by ${this.name(pairs[0]![1])};`]
              : [`sub ${this.list(pairs.map(([g]) => g))} by ${this.list(pairs.map(([, to]) => to))};`];
        }
        case 'multiple':
          return [...r.by].flatMap(([g, row]) =>
            fresh(String(g))
              ? [`sub ${this.name(g)} by ${row.length === 0 ? 'NULL' : row.map((t) => this.name(t)).join(' ')};`]
              : [],
          );
        case 'alternate':
          return [...r.by].flatMap(([g, row]) =>
            fresh(String(g)) && row.length > 0
              ? [`sub ${this.name(g)} from [${row.map((t) => this.name(t)).join(' ')}];`]
              : [],
          );
        case 'ligature':
          return r.ligatures.flatMap(({ parts, to }) =>
            fresh(parts.join(' ')) ? [`sub ${parts.map((p) => this.name(p)).join(' ')} by ${this.name(to)};`] : [],
          );
        case 'context':
          return r.contexts.map((c) => this.context(c));
        case 'move':
          return [...r.by].flatMap(([g, v]) => (fresh(String(g)) ? [`pos ${this.name(g)} ${written(v)};`] : []));
        case 'glyphPairs':
          return r.pairs.map((p) => this.pair(this.name(p.first), this.name(p.second), p.value));
        case 'classPairs':
          return r.pairs.map((p) => this.pair(bracketed(this.list(p.first)), bracketed(this.list(p.second)), p.value));
        case 'cursive':
          return [...r.by].flatMap(([g, { entry, exit }]) =>
            fresh(String(g)) ? [`pos cursive ${this.name(g)} ${anchored(entry)} ${anchored(exit)};`] : [],
          );
        case 'attach':
          return [...r.seats].flatMap(([g, seats]) => {
            const all = this.seats(seats, name, subtable);
            return all.length > 0 ? [`pos ${r.onto} ${this.name(g)} ${all.join(' ')};`] : [];
          });
        case 'attachParts':
          return [...r.parts].map(([g, parts]) => {
            const rows = parts.map((seats) => this.seats(seats, name, subtable).join(' ') || '<anchor NULL>');
            return `pos ligature ${this.name(g)} ${rows.join(' ligComponent ')};`;
          });
        case 'reverse':
          return r.rules.map(({ back, by, ahead }) => {
            const [from, to] = [this.list([...by.keys()]), this.list([...by.values()])];
            return `rsub ${[...this.around(back), `${from}'`, ...this.around(ahead)].join(' ')} by ${to};`;
          });
      }
    };
    // Pairs hold subtable by subtable: the first that speaks of a pair of glyphs decides.
    return rules.flatMap((r, i) => {
      const parted = i > 0 && (r.kind.endsWith('Pairs') || r.kind.startsWith('attach'));
      return parted ? ['subtable;', ...linesOf(r, i)] : linesOf(r, i);
    });
  }

  private className = (name: string, subtable: number, markClass: number): string =>
    `@${name}_${subtable}_${markClass}`;

  private seats = (seats: readonly (AnchorPlace | undefined)[], name: string, subtable: number): string[] =>
    seats.flatMap((a, c) => (a ? [`${anchored(a)} mark ${this.className(name, subtable, c)}`] : []));

  /** Classes of marks that a lookup speaks of, marks of one anchor together. */
  private markClasses(rules: readonly AnyRules[], name: string): string[] {
    const lines = rules.flatMap((r, i) => {
      if (r.kind !== 'attach' && r.kind !== 'attachParts') return [];
      const by = new Map<string, number[]>();
      for (const [g, { markClass, anchor }] of r.marks) {
        const key = `${anchored(anchor)} ${this.className(name, i, markClass)}`;
        addTo(by, key, g);
      }
      return [...by].map(([key, marks]) => `markClass ${this.list(marks)} ${key};`);
    });
    return lines.length > 0 ? [lines.join('\n')] : [];
  }

  private around = (sets: readonly (readonly number[])[]): string[] => sets.map((s) => this.list(s));

  private context({ back, input, ahead, calls }: Context): string {
    const at = input.map((set, i) => {
      const own = calls.filter((c) => c.at === i).map((c) => ` lookup ${this.calledName(c.lookup)}`);
      return `${this.list(set)}'${own.join('')}`;
    });
    const text = [...this.around(back), ...at, ...this.around(ahead)].join(' ');
    const word = this.prefix === 'move' ? 'pos' : 'sub';
    return calls.length === 0 ? `ignore ${word} ${text};` : `${word} ${text};`;
  }

  private pair(first: string, second: string, value: PairValue): string {
    const b = Object.keys(value.second).length > 0 ? ` ${record(value.second)}` : '';
    return b ? `pos ${first} ${record(value.first)} ${second}${b};` : `pos ${first} ${second} ${written(value.first)};`;
  }

  /** All systems that have `aalt`, which has none of its own: it stands in those that are named before all features. */
  private systemsOfAll(): string[] {
    const lines = this.layout.scripts.flatMap((s) =>
      [...(s.usual ? [{ tag: 'dflt', system: s.usual }] : []), ...s.languages].flatMap(({ tag, system }) =>
        this.wanted('aalt') && system.features.some((i) => this.layout.features[i]?.tag === 'aalt')
          ? [`languagesystem ${s.tag.trim()} ${tag.trim()};`]
          : [],
      ),
    );
    return lines.length > 0 ? [lines.join('\n')] : [];
  }

  private aalt(): WrittenSection {
    const lookups = [...new Set(this.layout.features.filter((f) => f.tag === 'aalt').flatMap((f) => [...f.lookups]))];
    const lines = lookups
      .sort((a, b) => a - b)
      .filter(this.wrote)
      .map((l) => `  lookup ${this.prefix}${l};`);
    return { title: 'All other forms', text: ['feature aalt {', ...lines, '} aalt;'].join('\n') };
  }

  private features(): WrittenSection[] {
    const tags = [...new Set(this.layout.features.map((f) => f.tag))].filter(this.wanted).sort();
    return tags.map((tag): WrittenSection => {
      if (tag === 'aalt') return { ...this.aalt(), tag };
      const says = this.layout.features.find((f) => f.tag === tag && f.says)?.says;
      const lines = says ? parameterLines(says, this.namesOf) : [];
      // The design size is of the whole font, and has no lookups.
      const scripts = tag === 'size' ? [] : this.layout.scripts;
      for (const script of scripts) {
        const systems = [
          ...(script.usual ? [{ tag: 'dflt', system: script.usual }] : []),
          ...script.languages.map((l) => ({ tag: l.tag, system: l.system })),
        ];
        let said = false;
        for (const { tag: language, system } of systems) {
          const own = (i: number | undefined) => i !== undefined && this.layout.features[i]?.tag === tag;
          const required = own(system.required);
          const found = [...(required ? [system.required!] : []), ...system.features.filter(own)];
          if (found.length === 0) continue;
          if (!said) lines.push(`script ${script.tag.trim()};`);
          said = true;
          if (language !== 'dflt')
            lines.push(`language ${language.trim()} exclude_dflt${required ? ' required' : ''};`);
          else if (required) lines.push('language dflt required;');
          const lookups = [...new Set(found.flatMap((i) => this.layout.features[i]!.lookups))]
            .filter((l) => this.takes(tag, l))
            .sort((a, b) => a - b);
          lines.push(...lookups.filter((l) => this.wrote(l)).map((l) => `lookup ${this.prefix}${l};`));
        }
      }
      const text = [`feature ${tag.trim()} {`, ...lines.map((l) => `  ${l}`), `} ${tag.trim()};`].join('\n');
      return { title: featureDoes(tag.trim()) ?? tag.trim(), text, tag };
    });
  }

  private wrote = (index: number): boolean =>
    (this.rules[index]?.length ?? 0) > 0 && this.lines(this.rules[index]!, '').length > 0;
}

const record = (v: Value): string =>
  `<${v.xPlacement ?? 0} ${v.yPlacement ?? 0} ${v.xAdvance ?? 0} ${v.yAdvance ?? 0}>`;

/** A value in its shortest form: the advance alone where there is nothing else. */
const written = (v: Value): string =>
  v.xPlacement || v.yPlacement || v.yAdvance ? record(v) : String(v.xAdvance ?? 0);

const anchored = (a: AnchorPlace | undefined): string => (a ? `<anchor ${a.x} ${a.y}>` : '<anchor NULL>');
/** A list even of one glyph: a class is meant. */
const bracketed = (list: string): string => (list.startsWith('[') ? list : `[${list}]`);

/** Words that a glyph cannot be called without a backslash where a rule is read. */
const KEYWORDS: ReadonlySet<string> = new Set(
  'by from lookup mark ligComponent contourpoint base NULL sub substitute pos position anchor feature script language ignore include table name parameters required enum enumerate subtable cursive device ligature rsub reversesub'.split(
    ' ',
  ),
);
