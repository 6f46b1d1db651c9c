import type { AnchorAt, Value } from '../opentype/layout/positions';
import type { Device } from '../opentype/layout/values';
import { FeatureFault } from './cursor';
import type { GlyphIndex } from './glyphIndex';
import { type Listener, NameTable } from './nameTable';
import type { AnchorText, DeviceText, GlyphSet, Scalar, Span, ValueText } from './tree';

/**
 * Names of a range: the two differ in one letter, or in a number of up to three digits at the same place (specification, “Glyph
 * class”). A sentence where they are no range.
 */
export function namesOfRange(first: string, last: string): string[] | string {
  if (first.length !== last.length) return `${first} and ${last} are not of one length; a range needs that.`;
  let [from, to] = [0, first.length];
  while (from < to && first[from] === last[from]) from++;
  while (to > from && first[to - 1] === last[to - 1]) to--;
  const [a, b] = [first.slice(from, to), last.slice(from, to)];
  const [head, tail] = [first.slice(0, from), first.slice(to)];
  const names: string[] = [];
  const letters = [/^[A-Z]$/, /^[a-z]$/].some((r) => r.test(a) && r.test(b));
  const isNumber = /^\d{1,3}$/.test(a) || (head.startsWith('cid') && /^\d+$/.test(a));
  if (a === '') names.push(first);
  else if (letters && a <= b)
    for (let c = a.charCodeAt(0); c <= b.charCodeAt(0); c++) names.push(head + String.fromCharCode(c) + tail);
  else if (isNumber && /^\d+$/.test(b) && Number(a) <= Number(b))
    for (let n = Number(a); n <= Number(b); n++) names.push(head + String(n).padStart(a.length, '0') + tail);
  else return `${first} to ${last} is no range: names differ in one letter or in a number.`;
  return names;
}

/** Most glyphs that a class may list. */
const MOST_MEMBERS = 65_536;

/** The value of numbers that vary, at the place the font stands at. */
export type ValueAt = (values: Exclude<Scalar, number>, at: Span) => number;
/** What numbers vary by, in a font that does; nothing in one of a place. */
export type DeviceOfValues = (values: Exclude<Scalar, number>, at: Span) => Device | undefined;

/** Classes by the numbers of their glyphs, each once: worked out once for a class. */
const sortedClasses = new WeakMap<readonly number[], number[]>();

const signatures = new WeakMap<ReadonlyMap<number, AnchorAt>, { size: number; text: string }>();
/** Marks and their anchors in a text; a class only grows. */
export function signatureOf(marks: ReadonlyMap<number, AnchorAt>): string {
  const known = signatures.get(marks);
  if (known?.size === marks.size) return known.text;
  const text = JSON.stringify([...marks]);
  signatures.set(marks, { size: marks.size, text });
  return text;
}

/** What names stand for, and the glyphs of sets; those that are missing go to `lacks`. */
export class Names {
  readonly listener: Listener = {};
  readonly classes = new NameTable<readonly number[]>('class', this.listener);
  readonly anchors = new NameTable<AnchorText>('anchor', this.listener);
  readonly values = new NameTable<ValueText>('value', this.listener);
  /** Marks by class: their anchors. */
  readonly markClasses = new NameTable<Map<number, AnchorAt>>('marks', this.listener, signatureOf);
  /** Names that rules speak of and the font lacks, with where they were met first. */
  readonly missing = new Map<string, Span>();

  constructor(
    private readonly index: GlyphIndex,
    private readonly numbers: { valueAt: ValueAt; deviceOfValues?: DeviceOfValues },
    private readonly lacks: (name: string, at: Span) => void,
  ) {}

  /** A glyph is not there: the sentence that says so and how bad it is; nothing where it was told before. */
  lacking(name: string, at: Span): [reason: string, severity: 'error' | 'attention'] | undefined {
    if (this.missing.has(name) || this.index.isAway(name)) return undefined;
    this.missing.set(name, at);
    return [this.index.missing(name), this.index.isWaiting(name) ? 'attention' : 'error'];
  }

  /** Glyphs of a set in the order that they are written in; those that are missing are told and left out. */
  glyphs(set: GlyphSet): number[] {
    const out: number[] = [];
    this.collect(set, out);
    return out;
  }

  /** The glyphs of a class by their numbers, each once; worked out once for a class. */
  sortedClass(set: GlyphSet & { kind: 'class' }): number[] {
    const own = this.classes.get(set.name);
    const known = own && sortedClasses.get(own);
    if (known) return known;
    const members = [...new Set(this.glyphs(set))].sort((a, b) => a - b);
    if (own) sortedClasses.set(own, members);
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

  /** A name with a hyphen as the two ends of a range, where both are glyphs of the project. */
  private hyphenated(name: string): [string, string] | undefined {
    for (let i = name.indexOf('-'); i > 0; i = name.indexOf('-', i + 1)) {
      const ends: [string, string] = [name.slice(0, i), name.slice(i + 1)];
      if (ends.every(this.index.isKnown)) return ends;
    }
    return undefined;
  }

  private range(first: string, last: string, at: Span): number[] {
    const names = namesOfRange(first, last);
    if (typeof names === 'string') throw new FeatureFault(names, at);
    return names.flatMap((n) => {
      const found = this.index.find(n);
      if (found === undefined) this.lacks(n, at);
      return found ?? [];
    });
  }

  private number = (s: Scalar, at: Span): number => {
    if (typeof s === 'number') return Math.round(s);
    // The next font may stand at another place.
    this.listener.asked?.spoil();
    return Math.round(this.numbers.valueAt(s, at));
  };

  /** What a number varies by, where the font does. */
  private varied = (s: Scalar, at: Span): Device | undefined =>
    typeof s === 'number' ? undefined : this.numbers.deviceOfValues?.(s, at);

  value(text: ValueText, vertical: boolean): Value {
    if (text.kind === 'null') return {};
    if (text.kind === 'named') {
      const named = this.values.get(text.name);
      if (!named) throw new FeatureFault(`The value ${text.name} is not defined before this place.`, text);
      return this.value(named, vertical);
    }
    if (text.single) {
      const advance = this.number(text.xAdvance, text);
      const by = this.varied(text.xAdvance, text);
      const field = vertical ? 'yAdvance' : 'xAdvance';
      return { ...(advance !== 0 && { [field]: advance }), ...(by && { devices: { [field]: by } }) };
    }
    const fields = (['xPlacement', 'yPlacement', 'xAdvance', 'yAdvance'] as const).map(
      (k) => [k, this.number(text[k], text)] as const,
    );
    const devices = fields.flatMap(([k], i) => {
      const told = text.devices?.[i];
      const by = told ? deviceOf(told) : this.varied(text[k], text);
      return by ? [[k, by] as const] : [];
    });
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
    const [xSaid, ySaid] = text.devices ?? [];
    const xDevice = xSaid ? deviceOf(xSaid) : this.varied(text.x, text);
    const yDevice = ySaid ? deviceOf(ySaid) : this.varied(text.y, text);
    return {
      x: this.number(text.x, text),
      y: this.number(text.y, text),
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
