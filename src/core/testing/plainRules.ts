/**
 * Layout rules as data, the text that says them, and a slow, plain interpreter of them, written from the OpenType
 * specification's words on each lookup type: what compiled tables are held against.
 */

/** A glyph by name; every set is a list of such. */
type Name = string;
/** What lookups skip: nothing, or all marks. */
export type Skips = 'nothing' | 'marks';

export type PlainLookup = { skips: Skips } & (
  | { kind: 'single'; rules: readonly { from: Name; to: Name }[] }
  | { kind: 'multiple'; rules: readonly { from: Name; to: readonly Name[] }[] }
  | { kind: 'alternate'; rules: readonly { from: Name; choice: readonly Name[] }[] }
  | { kind: 'ligature'; rules: readonly { from: readonly Name[]; to: Name }[] }
  | { kind: 'chain'; rules: readonly PlainContext[] }
  | { kind: 'reverse'; rules: readonly PlainReverse[] }
  | { kind: 'move'; rules: readonly { glyph: Name; value: PlainValue }[] }
  | { kind: 'pairs'; rules: readonly { first: Name; second: Name; value: number }[] }
  | { kind: 'classPairs'; firsts: Sets; seconds: Sets; values: readonly (readonly number[])[] }
  | { kind: 'marks'; marks: readonly PlainMark[]; bases: readonly { glyph: Name; x: number; y: number }[] }
);
type Sets = readonly (readonly Name[])[];
/** Moves and widens a glyph, in font units. */
export type PlainValue = { x: number; y: number; advance: number };
export type PlainMark = { glyph: Name; x: number; y: number };
/** A context: what stands behind, what is matched, what stands ahead; `calls` are lookups by number, one for each matched glyph. */
export type PlainContext = {
  back: Sets;
  input: Sets;
  ahead: Sets;
  calls: readonly (number | undefined)[];
  ignored: boolean;
};
export type PlainReverse = { back: Sets; input: readonly Name[]; ahead: Sets; to: readonly Name[] };
export type PlainFont = {
  /** Lookups in their order; those that only contexts call come first. */
  lookups: readonly PlainLookup[];
  /** Numbers of the lookups that the feature has. */
  used: readonly number[];
};

const FEATURE = 'test';
const set = (names: readonly Name[]): string => (names.length === 1 ? names[0]! : `[${names.join(' ')}]`);
const sets = (list: Sets): string => list.map(set).join(' ');

/** The feature text that says the rules. */
export function textOf({ lookups, used }: PlainFont): string {
  const blocks = lookups.map((l, i) => {
    const flag = l.skips === 'marks' ? '  lookupflag IgnoreMarks;\n' : '';
    return `lookup L${i} {\n${flag}${linesOf(l)
      .map((line) => `  ${line}\n`)
      .join('')}} L${i};`;
  });
  const classes = lookups.flatMap((l, i) =>
    l.kind === 'marks' ? l.marks.map((m) => `markClass ${m.glyph} <anchor ${m.x} ${m.y}> @M${i};`) : [],
  );
  return [
    ...classes,
    ...blocks,
    `feature ${FEATURE} {\n${used.map((i) => `  lookup L${i};\n`).join('')}} ${FEATURE};`,
  ].join('\n');

  function linesOf(l: PlainLookup): string[] {
    switch (l.kind) {
      case 'single':
        return l.rules.map((r) => `sub ${r.from} by ${r.to};`);
      case 'multiple':
        return l.rules.map((r) => `sub ${r.from} by ${r.to.join(' ') || 'NULL'};`);
      case 'alternate':
        return l.rules.map((r) => `sub ${r.from} from [${r.choice.join(' ')}];`);
      case 'ligature':
        return l.rules.map((r) => `sub ${r.from.join(' ')} by ${r.to};`);
      case 'chain':
        return l.rules.map((r) => {
          const input = r.input.map((s, i) => `${set(s)}'${r.calls[i] === undefined ? '' : ` lookup L${r.calls[i]}`}`);
          return `${r.ignored ? 'ignore ' : ''}sub ${sets(r.back)} ${input.join(' ')} ${sets(r.ahead)};`;
        });
      case 'reverse':
        return l.rules.map((r) => `rsub ${sets(r.back)} ${set(r.input)}' ${sets(r.ahead)} by ${set(r.to)};`);
      case 'move':
        return l.rules.map((r) => `pos ${r.glyph} <${r.value.x} ${r.value.y} ${r.value.advance} 0>;`);
      case 'pairs':
        return l.rules.map((r) => `pos ${r.first} ${r.second} ${r.value};`);
      case 'classPairs':
        return l.values.flatMap((row, i) =>
          row.map((v, k) => `pos [${l.firsts[i]!.join(' ')}] [${l.seconds[k]!.join(' ')}] ${v};`),
        );
      case 'marks':
        return l.bases.map((b) => `pos base ${b.glyph} <anchor ${b.x} ${b.y}> mark @M${lookups.indexOf(l)};`);
    }
  }
}

/** A glyph on its way through the rules; `on` is the glyph that a mark sits on, with how far its origin lies from that one's. */
type Item = { name: Name; x: number; y: number; advance: number; on?: { item: Item; x: number; y: number } };
export type PlainPlaced = { name: Name; x: number; y: number; advance: number };

/** Sets glyphs by rules: every lookup of the feature in its order, glyph by glyph, the first rule that fits. */
export function interpret(
  font: PlainFont,
  names: readonly Name[],
  { isMark, advanceOf, choice = 1 }: { isMark: (n: Name) => boolean; advanceOf: (n: Name) => number; choice?: number },
): PlainPlaced[] {
  let line: Item[] = names.map((name) => ({ name, x: 0, y: 0, advance: 0 }));
  const positions = new Set(['move', 'pairs', 'classPairs', 'marks']);
  const used = [...font.used].sort((a, b) => a - b);
  for (const i of used) if (!positions.has(font.lookups[i]!.kind)) run(font.lookups[i]!);
  for (const item of line) item.advance = advanceOf(item.name);
  for (const i of used) if (positions.has(font.lookups[i]!.kind)) run(font.lookups[i]!);
  // Marks take no room of their own once all is placed.
  let pen = 0;
  const at = new Map<Item, { x: number; y: number }>();
  return line.map((item) => {
    const base = item.on && at.get(item.on.item);
    const place = base
      ? { x: base.x + item.on!.x + item.x, y: base.y + item.on!.y + item.y }
      : { x: pen + item.x, y: item.y };
    at.set(item, place);
    const advance = isMark(item.name) ? 0 : item.advance;
    pen += advance;
    return { name: item.name, ...place, advance };
  });

  function skipped(lookup: PlainLookup, item: Item): boolean {
    return lookup.skips === 'marks' && isMark(item.name);
  }

  /** The place of the next glyph that the lookup sees, from `from` on in a direction; undefined at the end of the line. */
  function seen(lookup: PlainLookup, from: number, step: 1 | -1): number | undefined {
    for (let i = from; i >= 0 && i < line.length; i += step) if (!skipped(lookup, line[i]!)) return i;
    return undefined;
  }

  /** Places that match sets one after the other; undefined where one does not. */
  function matched(lookup: PlainLookup, list: Sets, from: number, step: 1 | -1): number[] | undefined {
    const out: number[] = [];
    let at: number | undefined = from;
    for (const s of list) {
      at = seen(lookup, at, step);
      if (at === undefined || !s.includes(line[at]!.name)) return undefined;
      out.push(at);
      at += step;
    }
    return out;
  }

  function run(lookup: PlainLookup): void {
    if (lookup.kind === 'reverse') {
      for (let i = line.length - 1; i >= 0; i--) if (!skipped(lookup, line[i]!)) reversed(lookup, i);
      return;
    }
    for (let i = 0; i < line.length; ) i = skipped(lookup, line[i]!) ? i + 1 : (apply(lookup, i) ?? i + 1);
  }

  function reversed(lookup: PlainLookup & { kind: 'reverse' }, i: number): void {
    const { name } = line[i]!;
    const rule = lookup.rules.find(
      (r) =>
        r.input.includes(name) &&
        matched(lookup, [...r.back].reverse(), i - 1, -1) &&
        matched(lookup, r.ahead, i + 1, 1),
    );
    if (rule) line[i]!.name = rule.to[rule.to.length === 1 ? 0 : rule.input.indexOf(name)]!;
  }

  /** Applies a lookup at a place; gives the place to go on from, undefined where no rule fits. */
  function apply(lookup: PlainLookup, i: number): number | undefined {
    const { name } = line[i]!;
    switch (lookup.kind) {
      case 'single': {
        const rule = lookup.rules.find((r) => r.from === name);
        if (!rule) return undefined;
        line[i] = { ...line[i]!, name: rule.to };
        return i + 1;
      }
      case 'multiple': {
        const rule = lookup.rules.find((r) => r.from === name);
        if (!rule) return undefined;
        line.splice(i, 1, ...rule.to.map((n) => ({ name: n, x: 0, y: 0, advance: 0 })));
        return i + rule.to.length;
      }
      case 'alternate': {
        const rule = lookup.rules.find((r) => r.from === name);
        if (!rule || choice > rule.choice.length) return undefined;
        line[i] = { ...line[i]!, name: rule.choice[choice - 1]! };
        return i + 1;
      }
      case 'ligature': {
        // Longer ones come before shorter ones that they begin with; of equal length the first.
        const rules = [...lookup.rules].sort((a, b) => b.from.length - a.from.length);
        for (const rule of rules) {
          const places = matched(
            lookup,
            rule.from.map((n) => [n]),
            i,
            1,
          );
          if (!places) continue;
          line[i] = { ...line[i]!, name: rule.to };
          const gone = new Set(places.slice(1));
          line = line.filter((_, k) => !gone.has(k));
          return places.at(-1)! + 1 - gone.size;
        }
        return undefined;
      }
      case 'chain':
        return context(lookup, i);
      case 'move': {
        const rule = lookup.rules.find((r) => r.glyph === name);
        if (!rule) return undefined;
        const item = line[i]!;
        item.x += rule.value.x;
        item.y += rule.value.y;
        item.advance += rule.value.advance;
        return i + 1;
      }
      case 'pairs': {
        const next = seen(lookup, i + 1, 1);
        const rule = lookup.rules.find((r) => r.first === name && next !== undefined && r.second === line[next]!.name);
        if (!rule) return undefined;
        line[i]!.advance += rule.value;
        return next;
      }
      case 'classPairs': {
        const next = seen(lookup, i + 1, 1);
        const first = lookup.firsts.findIndex((s) => s.includes(name));
        if (next === undefined || first < 0) return undefined;
        const second = lookup.seconds.findIndex((s) => s.includes(line[next]!.name));
        if (second >= 0) line[i]!.advance += lookup.values[first]![second]!;
        return next;
      }
      case 'marks': {
        const mark = lookup.marks.find((m) => m.glyph === name);
        let at = i - 1;
        while (at >= 0 && isMark(line[at]!.name)) at--;
        const base = at >= 0 ? lookup.bases.find((b) => b.glyph === line[at]!.name) : undefined;
        if (!mark || !base) return undefined;
        // Where it was put before no longer counts.
        Object.assign(line[i]!, { x: 0, y: 0, on: { item: line[at]!, x: base.x - mark.x, y: base.y - mark.y } });
        return i + 1;
      }
    }
    return undefined;
  }

  function context(lookup: PlainLookup & { kind: 'chain' }, i: number): number | undefined {
    for (const rule of lookup.rules) {
      const places = matched(lookup, rule.input, i, 1);
      if (!places || !matched(lookup, [...rule.back].reverse(), i - 1, -1)) continue;
      if (!matched(lookup, rule.ahead, places.at(-1)! + 1, 1)) continue;
      let end = places.at(-1)! + 1;
      if (rule.ignored) return end;
      let shift = 0;
      rule.calls.forEach((call, k) => {
        const place = places[k]! + shift;
        // Glyphs that an earlier call of this context took are no longer there.
        if (call === undefined || place >= end) return;
        const before = line.length;
        apply(font.lookups[call]!, place);
        shift += line.length - before;
        end += line.length - before;
      });
      return Math.max(end, i);
    }
    return undefined;
  }
}
