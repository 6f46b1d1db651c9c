/**
 * Text of a source in the form that its file had: indentation, order of attributes and of parts, declaration, line ends. What
 * one reads in version control is then what was changed, and nothing else.
 */

/** A property list in the form of another: how far dictionaries and keys stand in, what stands before the list, line ends. */
export function restyledPlist(text: string, original: string): string {
  const start = original.indexOf('<plist');
  const dict = /^([ \t]*)<dict>/m.exec(original)?.[1];
  const key = /^([ \t]*)<key>/m.exec(original)?.[1];
  let out = text;
  if (start > 0) out = original.slice(0, start) + out.slice(out.indexOf('<plist'));
  if (dict !== undefined && key?.startsWith(dict)) {
    const unit = key.slice(dict.length);
    out = indented(out, (depth) => (depth === 0 ? '' : dict + unit.repeat(depth - 1)));
  }
  return withLineEnds(withComments(out, original.slice(Math.max(0, start)), '</plist>'), original);
}

/** Lines that begin with a tag stand in by what `space` says for their depth; ours stand in by two spaces for each. */
const indented = (text: string, space: (depth: number) => string): string =>
  text.replace(/^( *)(?=<)/gm, (_, spaces: string) => space(spaces.length / 2));

function withLineEnds(text: string, original: string): string {
  const ended = original.endsWith('\n') ? text : text.replace(/\n$/, '');
  return original.includes('\r\n') ? ended.replace(/\r?\n/g, '\r\n') : ended;
}

const TAG = /<([A-Za-z]+)((?:\s+[\w:.-]+\s*=\s*(?:"[^"]*"|'[^']*'))+)\s*(\/?)>/g;
const ATTRIBUTE = /([\w:.-]+)\s*=\s*("[^"]*"|'[^']*')/g;

/** A glyph’s file in the form of another. */
export function restyledGlif(text: string, original: string): string {
  const body = (s: string) => s.slice(Math.max(0, s.indexOf('<glyph')));
  const head = original.slice(0, Math.max(0, original.indexOf('<glyph')));
  const before = body(original);
  const orders = attributeOrders(before);
  const close = / \/>/.test(before) ? ' />' : '/>';
  let out = withLostAttributes(partsInOrder(body(text), before), before);
  out = out.replace(TAG, (_, tag: string, attributes: string, closed: string) => {
    const own = [...attributes.matchAll(ATTRIBUTE)].map((m) => [m[1]!, m[2]!] as const);
    const order = orders.get(tag) ?? [];
    const at = (name: string) => (order.includes(name) ? order.indexOf(name) : order.length);
    const sorted = own.map((a, i) => ({ a, i })).sort((p, q) => at(p.a[0]) - at(q.a[0]) || p.i - q.i);
    return `<${tag}${sorted.map(({ a }) => ` ${a[0]}=${a[1]}`).join('')}${closed ? close : '>'}`;
  });
  const unit = /\n([ \t]*)<(?:advance|unicode|outline|note|image|guideline|anchor|lib)\b/.exec(before)?.[1];
  if (unit !== undefined) out = indented(out, (depth) => unit.repeat(depth));
  out = withComments(out, before, '</glyph>');
  return withLineEnds((head || text.slice(0, text.indexOf('<glyph'))) + out, original);
}

const COMMENTS = /<!--[\s\S]*?-->/g;

/**
 * Comments within a file as lines of the text that takes its place: before what they stood before, the second contour or a key of that
 * name; before its end where that is gone.
 */
function withComments(text: string, before: string, end: string): string {
  /** By the place of the line that they stand before. */
  const lines = new Map<number, string>();
  for (const comment of before.matchAll(COMMENTS)) {
    const upTo = before.slice(0, comment.index).replace(COMMENTS, '');
    const behind = before.slice(comment.index).replace(COMMENTS, '');
    const next = /<key>[^<]*<\/key>|<\/?[A-Za-z]+/.exec(behind)?.[0] ?? end;
    let at = -1;
    for (let left = upTo.split(next).length; left > 0; left--) {
      at = text.indexOf(next, at + 1);
      if (at < 0) break;
    }
    if (at < 0) at = text.lastIndexOf(end);
    if (at < 0) continue;
    const line = text.lastIndexOf('\n', at) + 1;
    const space = /(?<=\n)[ \t]*$/.exec(before.slice(0, comment.index)) ?? /^[ \t]*/.exec(text.slice(line))!;
    lines.set(line, `${lines.get(line) ?? ''}${space[0]}${comment[0]}\n`);
  }
  let out = '';
  let from = 0;
  for (const [line, comments] of [...lines].sort(([a], [b]) => a - b)) {
    out += text.slice(from, line) + comments;
    from = line;
  }
  return out + text.slice(from);
}

/** The order in which each kind of tag has its attributes. */
function attributeOrders(text: string): Map<string, string[]> {
  const orders = new Map<string, string[]>();
  for (const [, tag, attributes] of text.matchAll(TAG)) {
    const order = orders.get(tag!) ?? [];
    let last = -1;
    for (const [, name] of attributes!.matchAll(ATTRIBUTE)) {
      const at = order.indexOf(name!);
      if (at < 0) order.splice(++last, 0, name!);
      else last = at;
    }
    orders.set(tag!, order);
  }
  return orders;
}

/** What we do not know of a glyph’s head and of its picture is kept from the file as it was. */
function withLostAttributes(text: string, before: string): string {
  const first = (s: string, tag: string) => new RegExp(`<${tag}\\b[^>]*>`).exec(s)?.[0];
  const added = (out: string, tag: string, name: string) => {
    const [was, is] = [first(before, tag), first(out, tag)];
    const value = was && new RegExp(`\\s${name}\\s*=\\s*("[^"]*"|'[^']*')`).exec(was)?.[1];
    if (!was || !is || !value || new RegExp(`\\s${name}\\s*=`).test(is)) return out;
    return out.replace(is, is.replace(/\s*(\/?>)$/, ` ${name}=${value}$1`));
  };
  return added(added(text, 'glyph', 'formatMinor'), 'image', 'color');
}

/** The parts of a glyph in the order in which its file had them. */
function partsInOrder(text: string, before: string): string {
  const names = ['advance', 'unicode', 'note', 'image', 'guideline', 'anchor', 'outline', 'lib'];
  const place = (name: string) => before.search(new RegExp(`<${name}\\b`));
  const known = names.filter((n) => place(n) >= 0).sort((a, b) => place(a) - place(b));
  // A part that the file did not have follows the one that is before it in ours.
  const order = [...known];
  names.forEach((name, i) => {
    if (order.includes(name)) return;
    const previous = names
      .slice(0, i)
      .reverse()
      .find((n) => order.includes(n));
    order.splice(previous === undefined ? 0 : order.indexOf(previous) + 1, 0, name);
  });
  const lines = text.split('\n');
  const end = lines.lastIndexOf('</glyph>');
  const parts: { name: string; lines: string[] }[] = [];
  for (const line of lines.slice(1, end)) {
    const begins = /^ {2}<([a-z]+)\b/.exec(line)?.[1];
    const last = parts[parts.length - 1];
    if (begins && !line.startsWith(`  </`)) parts.push({ name: begins, lines: [line] });
    else if (last) last.lines.push(line);
    else return text;
  }
  const sorted = parts
    .map((p, i) => ({ p, i }))
    .sort((a, b) => order.indexOf(a.p.name) - order.indexOf(b.p.name) || a.i - b.i);
  return [lines[0]!, ...sorted.flatMap(({ p }) => p.lines), ...lines.slice(end)].join('\n');
}
