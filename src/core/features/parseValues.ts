import type { Cursor } from './cursor';
import type { AnchorText, DeviceText, GlyphSet, Scalar, ValueText } from './tree';

const SMALL = 32768;
const MOST_VALUES = 4096;

/** A number, or values by places on the axes in brackets. */
export function scalar(c: Cursor, what: string): Scalar {
  if (!c.takes('(')) {
    const at = c.now;
    const value = c.number(what);
    if (Math.abs(value) > SMALL) c.fail(`${what} must lie from −${SMALL} to ${SMALL}.`, at);
    return value;
  }
  const out: { at: Record<string, number>; units?: Record<string, string>; value: number }[] = [];
  while (!c.is(')') && !c.isEnd && out.length < MOST_VALUES) {
    const place: Record<string, number> = {};
    const units: Record<string, string> = {};
    do {
      const axis = c.word('The tag of an axis').text;
      c.expect('=', 'A place on an axis');
      place[axis] = c.number('A place on an axis');
      if (c.now.kind === 'word' && /^[dun]$/.test(c.now.text)) units[axis] = c.take().text;
    } while (c.takes(','));
    c.expect(':', 'A value at a place');
    const value = c.number('A value at a place');
    out.push({ at: place, ...(Object.keys(units).length > 0 && { units }), value });
  }
  c.expect(')', 'Values by places');
  return out.length === 0 ? c.fail('There is no value between these brackets.') : out;
}

function device(c: Cursor): DeviceText | undefined {
  c.expect('<', 'A device table');
  if (!c.takes('device')) c.fail(`A device table begins with “device”${c.found()}.`);
  if (c.takes('NULL')) {
    c.expect('>', 'A device table');
    return undefined;
  }
  const out: [number, number][] = [];
  do out.push([c.integer('A size in pixels', 1, 65535), c.integer('A difference in pixels', -128, 127)]);
  while (c.takes(','));
  c.expect('>', 'A device table');
  return out;
}

/** A value record: `-20`, `<0 0 -20 0>`, `<NULL>`, `<NAME>`, with device tables behind the four numbers. */
export function value(c: Cursor): ValueText {
  const { from } = c.now;
  const end = () => ({ from, to: c.end });
  if (!c.takes('<')) {
    const advance = scalar(c, 'A value');
    return { kind: 'values', xPlacement: 0, yPlacement: 0, xAdvance: advance, yAdvance: 0, single: true, ...end() };
  }
  if (c.takes('NULL')) {
    c.expect('>', 'A value record');
    return { kind: 'null', ...end() };
  }
  if (c.now.kind === 'word') {
    const name = c.take().text;
    c.expect('>', 'A value record');
    return { kind: 'named', name, ...end() };
  }
  const first = scalar(c, 'A value');
  if (c.takes('>'))
    return { kind: 'values', xPlacement: 0, yPlacement: 0, xAdvance: first, yAdvance: 0, single: true, ...end() };
  const [y, advance, vertical] = [scalar(c, 'A value'), scalar(c, 'A value'), scalar(c, 'A value')];
  const devices: (DeviceText | undefined)[] = [];
  while (c.is('<') && devices.length < 4) devices.push(device(c));
  c.expect('>', 'A value record');
  return {
    kind: 'values',
    xPlacement: first,
    yPlacement: y,
    xAdvance: advance,
    yAdvance: vertical,
    ...(devices.length > 0 && { devices }),
    ...end(),
  };
}

export const startsValue = (c: Cursor): boolean =>
  c.now.kind === 'number' || c.is('(') || (c.is('<') && c.after.text !== 'anchor');

/** `<anchor 120 700>`, with a contour point or device tables, `<anchor NULL>`, `<anchor NAME>`. */
export function anchor(c: Cursor): AnchorText {
  const { from } = c.now;
  c.expect('<', 'An anchor');
  if (!c.takes('anchor')) c.fail(`An anchor is written <anchor x y>${c.found()}.`);
  const end = () => {
    c.expect('>', 'An anchor');
    return { from, to: c.end };
  };
  if (c.takes('NULL')) return { kind: 'null', ...end() };
  if (c.now.kind === 'word') return { kind: 'named', name: c.take().text, ...end() };
  return { ...place(c), ...end() };
}

/** What stands in an anchor, or in the definition of one. */
export function place(c: Cursor): Omit<Extract<AnchorText, { kind: 'place' }>, 'from' | 'to'> {
  const [x, y] = [scalar(c, 'The x of an anchor'), scalar(c, 'The y of an anchor')];
  if (c.takes('contourpoint')) return { kind: 'place', x, y, contourPoint: c.integer('A contour point', 0, 65535) };
  if (!c.is('<')) return { kind: 'place', x, y };
  const devices = [device(c), device(c)] as const;
  return { kind: 'place', x, y, devices };
}

/** Deepest lists in lists. */
const DEEPEST = 32;

/** One glyph, a class by its name, or a list in square brackets. */
export function glyphs(c: Cursor, depth = 0): GlyphSet {
  const { from } = c.now;
  const token = c.now;
  if (token.kind === 'class') {
    c.take();
    return { kind: 'class', name: token.text.slice(1), from, to: c.end };
  }
  if (c.takes('[')) {
    if (depth > DEEPEST) c.fail('Lists of glyphs stand too deep in one another.', token);
    const items: GlyphSet[] = [];
    while (!c.is(']')) {
      if (c.isEnd || c.is(';') || c.is('{') || c.is('}')) c.fail('This list of glyphs does not end.', token);
      const first = glyphs(c, depth + 1);
      if (c.is('-') && first.kind !== 'list') {
        c.take();
        const last = glyphs(c, depth + 1);
        items.push({ kind: 'range', first, last, from: first.from, to: last.to });
      } else items.push(first);
    }
    c.expect(']', 'A list of glyphs');
    return { kind: 'list', items, from, to: c.end };
  }
  if (token.kind === 'cid') {
    c.take();
    return { kind: 'cid', cid: Number(token.text.slice(1)), from, to: c.end };
  }
  if (token.kind === 'escaped') {
    c.take();
    return { kind: 'glyph', name: token.text.slice(1), escaped: true, from, to: c.end };
  }
  if (token.kind === 'word') {
    c.take();
    return { kind: 'glyph', name: token.text, from, to: c.end };
  }
  return c.fail(`A glyph, a class (@…) or a list […] is missing${c.found()}.`);
}

/** May a glyph, a class or a list begin here? */
export function startsGlyphs(c: Cursor): boolean {
  const { kind, text } = c.now;
  if (kind === 'word') return !STOPS.has(text);
  return kind === 'class' || kind === 'cid' || kind === 'escaped' || (kind === 'symbol' && text === '[');
}

/** Words that end a run of glyphs. */
const STOPS: ReadonlySet<string> = new Set([
  'by',
  'from',
  'lookup',
  'mark',
  'ligComponent',
  'contourpoint',
  'base',
  'NULL',
  'sub',
  'substitute',
  'pos',
  'position',
]);
