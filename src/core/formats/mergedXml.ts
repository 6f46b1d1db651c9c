import { elementText, indentedXml, parseXml, parseXmlWithComments, type XmlAttributes, type XmlElement } from './xml';

/**
 * A document as its source has it, with what was changed since. `was` is the source, `ours` what we made of it when it was
 * opened, `now` what we make of it now. Comments stay where they stand, but for those within a place, a rule or a lib that is another
 * now; the breaks of lines of an element are not kept.
 */
export function mergedXml(was: string, ours: string, now: string, file: string): string {
  const { root, before, after } = parseXmlWithComments(was, file);
  const declared = /^\ufeff?\s*<\?xml[^>]*\?>/.exec(was);
  const doctype = /<!DOCTYPE[^[>]*>/.exec(was.slice(0, 2000).replace(/<!--[\s\S]*?-->/g, ''));
  const comments = (list: readonly string[]) => list.map((text) => `<!--${text}-->\n`).join('');
  const head = [declared, doctype].map((found) => (found ? `${found[0]}\n` : '')).join('');
  const whole = indentedXml(element(root, parseXml(ours, file), parseXml(now, file)));
  return `${head}${comments(before)}${whole}${comments(after)}`;
}

function element(was: XmlElement, ours: XmlElement, now: XmlElement): XmlElement {
  const below = children(was, ours, now);
  const { location, ...others } = attributes(was.attributes, ours.attributes, now.attributes);
  // A place of its own takes the place of one that has a name.
  const named = location !== undefined && !below.some((e) => e.name === 'location');
  return {
    ...was,
    attributes: named ? attributes(was.attributes, ours.attributes, now.attributes) : others,
    text: ours.text.trim() === now.text.trim() ? was.text : now.text,
    children: below,
  };
}

function attributes(was: XmlAttributes, ours: XmlAttributes, now: XmlAttributes): XmlAttributes {
  const out: Record<string, string> = {};
  for (const key of new Set([...Object.keys(was), ...Object.keys(now)])) {
    const value = ours[key] === now[key] ? was[key] : now[key];
    if (value !== undefined) out[key] = value;
  }
  return out;
}

/** Elements that are taken as they are now where anything of them was changed: their parts mean nothing alone. */
const WHOLE: ReadonlySet<string> = new Set(['location', 'rule', 'lib']);

/** What tells an element from others of its kind. */
const KEYS: Readonly<Record<string, readonly string[]>> = {
  source: ['filename', 'layer'],
  axis: ['tag'],
  instance: ['stylename'],
  labelname: ['xml:lang'],
  map: ['input'],
  label: ['uservalue', 'name'],
};
const nameOf = (e: XmlElement): string =>
  [e.name, ...(KEYS[e.name] ?? ['name']).map((k) => `${e.attributes[k] ?? ''}`)].join('\n');

/** For each element of one list its like in another: by what names it, else by its place among those of its kind, each once. */
function likes(from: readonly XmlElement[], to: readonly XmlElement[]): Map<XmlElement, XmlElement> {
  const out = new Map<XmlElement, XmlElement>();
  const taken = new Set<XmlElement>();
  const pair = (e: XmlElement, like: XmlElement | undefined) => {
    if (!like || out.has(e) || taken.has(like)) return;
    out.set(e, like);
    taken.add(like);
  };
  const free = (e: XmlElement) => (t: XmlElement) => t.name === e.name && !taken.has(t);
  for (const e of from)
    pair(
      e,
      to.find((t) => free(e)(t) && nameOf(t) === nameOf(e)),
    );
  for (const e of from) {
    const kind = (list: readonly XmlElement[]) => list.filter((x) => x.name === e.name);
    if (!out.has(e) && kind(from).length === kind(to).length) pair(e, kind(to)[kind(from).indexOf(e)]);
  }
  return out;
}

function children(was: XmlElement, ours: XmlElement, now: XmlElement): XmlElement[] {
  // What was made of the source has its elements in their order.
  const made = likes(was.children, ours.children);
  const led = likes(ours.children, now.children);
  const out: XmlElement[] = [];
  const placed = new Map<XmlElement, XmlElement>();
  for (const w of was.children) {
    const o = made.get(w);
    const n = o && led.get(o);
    // What we made nothing of stays; what was taken away is gone.
    if (!o) out.push(w);
    else if (n) {
      const merged = elementText(o) === elementText(n) ? w : WHOLE.has(w.name) ? n : element(w, o, n);
      placed.set(n, merged);
      out.push(merged);
    }
  }
  const invented = new Set([...led].filter(([o]) => ![...made.values()].includes(o)).map(([, n]) => n));
  now.children.forEach((n, i) => {
    if (placed.has(n)) return;
    const o = [...led].find(([, x]) => x === n)?.[0];
    if (invented.has(n) && o && elementText(o) === elementText(n)) return;
    const before = now.children
      .slice(0, i)
      .reverse()
      .find((e) => placed.has(e));
    out.splice(before ? out.indexOf(placed.get(before)!) + 1 : out.length, 0, n);
    placed.set(n, n);
  });
  return out;
}
