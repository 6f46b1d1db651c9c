import type { AnchorAt, Value } from '../opentype/layout/positions';
import type { Device } from '../opentype/layout/values';
import { FeatureFault } from './cursor';
import type { GlyphIndex } from './glyphIndex';
import type { AnchorText, DeviceText, GlyphSet, Scalar, Span, ValueText } from './tree';

/** Most glyphs that a class may list. */
const MOST_MEMBERS = 65_536;

/** The value of numbers that vary, at the place the font stands at. */
export type ValueAt = (values: Exclude<Scalar, number>) => number;

/** What names stand for, and the glyphs of sets; faults go to `fault`, once for each place. */
export class Names {
  readonly classes = new Map<string, readonly number[]>();
  readonly anchors = new Map<string, AnchorText>();
  readonly values = new Map<string, ValueText>();
  /** Marks by class: their anchors. */
  readonly markClasses = new Map<string, Map<number, AnchorAt>>();
  /** Names that rules speak of and the font lacks, with where they were met first. */
  readonly missing = new Map<string, Span>();

  constructor(
    private readonly index: GlyphIndex,
    private readonly valueAt: ValueAt,
    private readonly tell: (reason: string, at: Span, severity?: 'error' | 'attention') => void,
  ) {}

  /** Glyphs of a set in the order that they are written in; those that are missing are told and left out. */
  glyphs(set: GlyphSet): number[] {
    const out: number[] = [];
    this.collect(set, out);
    return out;
  }

  private readonly sorted = new WeakMap<readonly number[], number[]>();

  /** The glyphs of a class by their numbers, each once; worked out once for a class. */
  sortedClass(set: GlyphSet & { kind: 'class' }): number[] {
    const own = this.classes.get(set.name);
    const known = own && this.sorted.get(own);
    if (known) return known;
    const members = [...new Set(this.glyphs(set))].sort((a, b) => a - b);
    if (own) this.sorted.set(own, members);
    return members;
  }

  /** May a set hold several, as classes and lists do? One in a list is still a list. */
  isClass(set: GlyphSet): boolean {
    if (set.kind === 'glyph') return this.find(set) === undefined && this.hyphenated(set.name) !== undefined;
    return set.kind !== 'cid';
  }

  private find = (set: GlyphSet & { kind: 'glyph' }): number | undefined => this.index.find(set.name);

  private collect(set: GlyphSet, out: number[]): void {
    if (out.length > MOST_MEMBERS) throw new FeatureFault(`A class has more than ${MOST_MEMBERS} glyphs.`, set);
    switch (set.kind) {
      case 'glyph': {
        const found = this.find(set);
        if (found !== undefined) {
          out.push(found);
          return;
        }
        const range = this.hyphenated(set.name);
        if (range) out.push(...this.range(...range, set));
        else this.lacks(set.name, set);
        return;
      }
      case 'cid': {
        const name = `cid${String(set.cid).padStart(5, '0')}`;
        const found = this.index.find(name) ?? this.index.find(`cid${set.cid}`);
        if (found === undefined) this.lacks(name, set);
        else out.push(found);
        return;
      }
      case 'class': {
        const own = this.classes.get(set.name);
        const marks = this.markClasses.get(set.name);
        if (own) for (const g of own) out.push(g);
        else if (marks) for (const g of marks.keys()) out.push(g);
        else throw new FeatureFault(`The class @${set.name} is not defined before this place.`, set);
        return;
      }
      case 'list':
        for (const item of set.items) this.collect(item, out);
        return;
      case 'range': {
        const names = [set.first, set.last].map((s) =>
          s.kind === 'glyph' ? s.name : s.kind === 'cid' ? `cid${String(s.cid).padStart(5, '0')}` : undefined,
        );
        if (names[0] === undefined || names[1] === undefined)
          throw new FeatureFault('A range goes from one glyph to another.', set);
        out.push(...this.range(names[0], names[1], set));
      }
    }
  }

  private lacks(name: string, at: Span): void {
    if (this.missing.has(name)) return;
    this.missing.set(name, at);
    this.tell(this.index.missing(name), at, this.index.isWaiting(name) ? 'attention' : 'error');
  }

  /** A name with a hyphen as the two ends of a range, where both are glyphs. */
  private hyphenated(name: string): [string, string] | undefined {
    for (let i = name.indexOf('-'); i > 0; i = name.indexOf('-', i + 1)) {
      const ends: [string, string] = [name.slice(0, i), name.slice(i + 1)];
      if (ends.every((e) => this.index.find(e) !== undefined)) return ends;
    }
    return undefined;
  }

  /**
   * Glyphs of a range of names: the two differ in one letter, or in a number of up to three digits at the same place
   * (specification, “Glyph class”).
   */
  private range(first: string, last: string, at: Span): number[] {
    if (first.length !== last.length)
      throw new FeatureFault(`${first} and ${last} are not of one length; a range needs that.`, at);
    let [from, to] = [0, first.length];
    while (from < to && first[from] === last[from]) from++;
    while (to > from && first[to - 1] === last[to - 1]) to--;
    const [a, b] = [first.slice(from, to), last.slice(from, to)];
    const [head, tail] = [first.slice(0, from), first.slice(to)];
    const names: string[] = [];
    if (/^[A-Z]$/.test(a) && /^[A-Z]$/.test(b) && a <= b)
      for (let c = a.charCodeAt(0); c <= b.charCodeAt(0); c++) names.push(head + String.fromCharCode(c) + tail);
    else if (/^[a-z]$/.test(a) && /^[a-z]$/.test(b) && a <= b)
      for (let c = a.charCodeAt(0); c <= b.charCodeAt(0); c++) names.push(head + String.fromCharCode(c) + tail);
    else if (
      (/^\d{1,3}$/.test(a) || head.startsWith('cid')) &&
      /^\d+$/.test(b) &&
      /^\d+$/.test(a) &&
      Number(a) <= Number(b)
    )
      for (let n = Number(a); n <= Number(b); n++) names.push(head + String(n).padStart(a.length, '0') + tail);
    else if (a === '') names.push(first);
    else throw new FeatureFault(`${first} to ${last} is no range: names differ in one letter or in a number.`, at);
    return names.flatMap((n) => {
      const found = this.index.find(n);
      if (found === undefined) this.lacks(n, at);
      return found ?? [];
    });
  }

  private number = (s: Scalar): number => Math.round(typeof s === 'number' ? s : this.valueAt(s));

  value(text: ValueText, vertical: boolean): Value {
    if (text.kind === 'null') return {};
    if (text.kind === 'named') {
      const named = this.values.get(text.name);
      if (!named) throw new FeatureFault(`The value ${text.name} is not defined before this place.`, text);
      return this.value(named, vertical);
    }
    if (text.single) {
      const advance = this.number(text.xAdvance);
      return advance === 0 ? {} : vertical ? { yAdvance: advance } : { xAdvance: advance };
    }
    const fields = (['xPlacement', 'yPlacement', 'xAdvance', 'yAdvance'] as const).map(
      (k) => [k, this.number(text[k])] as const,
    );
    const devices = (text.devices ?? []).flatMap((d, i) => (d ? [[fields[i]![0], deviceOf(d)] as const] : []));
    return {
      ...Object.fromEntries(fields.filter(([, v]) => v !== 0)),
      ...(devices.length > 0 && { devices: Object.fromEntries(devices) }),
    };
  }

  anchor(text: AnchorText): AnchorAt | undefined {
    if (text.kind === 'null') return undefined;
    if (text.kind === 'named') {
      const named = this.anchors.get(text.name);
      if (!named) throw new FeatureFault(`The anchor ${text.name} is not defined before this place.`, text);
      return this.anchor(named);
    }
    const [xDevice, yDevice] = (text.devices ?? []).map((d) => d && deviceOf(d));
    return {
      x: this.number(text.x),
      y: this.number(text.y),
      ...(text.contourPoint !== undefined && { contourPoint: text.contourPoint }),
      ...(xDevice && { xDevice }),
      ...(yDevice && { yDevice }),
    };
  }
}

/** Differences at sizes as one row from the least size to the greatest. */
function deviceOf(text: DeviceText): Device {
  const by = new Map(text);
  const sizes = [...by.keys()];
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  return {
    kind: 'sizes',
    startSize: least,
    deltas: Array.from({ length: Math.min(most - least + 1, 4096) }, (_, i) => by.get(least + i) ?? 0),
  };
}
