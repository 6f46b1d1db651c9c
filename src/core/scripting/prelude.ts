import type { Call, Owner } from './call';
import { callsOf } from './registry';

/** Members of an owner as script text: values as getters, methods as they are. */
const members = (of: Owner, self: string): string =>
  callsOf(of)
    .map((c) =>
      c.as === 'value'
        ? `get ${c.name}() { return ${of === 'Drawing' ? 'call' : 'known'}('${of}.${c.name}', ${self}, []); }`
        : `${c.name}(${c.takes.map((t) => t.name).join(', ')}) { return call('${of}.${c.name}', ${self}, [${c.takes.map((t) => t.name).join(', ')}]); }`,
    )
    .join('\n    ');

const global = (c: Call): string =>
  `G.${c.name} = (${c.takes.map((t) => t.name).join(', ')}) => call('global.${c.name}', null, [${c.takes.map((t) => t.name).join(', ')}]);`;

/**
 * The script text that stands before every script: objects over the border, made from the registry of calls. `__answer` is
 * the only thing of the host that can be reached, and takes and gives text.
 */
export function preludeFor(edits: readonly string[], chosen: readonly string[], masters: readonly string[]): string {
  return `'use strict';
(() => {
  const G = globalThis;
  const host = G.__answer;
  delete G.__answer;
  const { parse, stringify } = JSON;
  const { freeze, defineProperty } = Object;
  const isArray = Array.isArray;
  class Refused extends Error { get name() { return 'Refused'; } }
  const glyphs = new Map(), masters = new Map();
  const revive = (v) => {
    if (typeof v !== 'object' || v === null) return v;
    if (isArray(v)) {
      if (typeof v[0] === 'object') for (let i = 0; i < v.length; i++) v[i] = revive(v[i]);
      return v;
    }
    if (v.$g !== undefined) return glyph(v.$g);
    if (v.$m !== undefined) return master(v.$m);
    for (const k in v) v[k] = revive(v[k]);
    return v;
  };
  const raw = (name, self, args) => {
    const answer = parse(host(stringify([name, self, args])));
    if (answer.e !== undefined) throw new Refused(answer.e);
    return answer.v;
  };
  // Outlines hold no references: nothing in them is looked at twice.
  const PLAIN = new Set(['Drawing.contours', 'Drawing.outline', 'Glyph.at']);
  const KINDS = ['line', 'curve', 'qcurve', 'off'];
  const unflat = (f) => {
    const contours = [];
    for (let i = 0; i < f.length; ) {
      const closed = f[i] === 1, n = f[i + 1];
      i += 2;
      const points = [];
      for (let k = 0; k < n; k++, i += 3) {
        const t = f[i + 2], type = KINDS[t & 3];
        points.push(t < 4 ? { x: f[i], y: f[i + 1], type } : { x: f[i], y: f[i + 1], type, smooth: t < 8 });
      }
      contours.push({ closed, points });
    }
    return contours;
  };
  const call = (name, self, args) => {
    const v = raw(name, self, args);
    if (name === 'Drawing.contours' && v.flat) return unflat(v.flat);
    return PLAIN.has(name) ? v : revive(v);
  };
  // What is asked again before anything was changed has its answer already.
  const answers = new Map();
  const known = (name, self, args) => {
    const key = name + ' ' + self;
    if (!answers.has(key)) {
      const v = call(name, self, args);
      answers.set(key, isArray(v) ? freeze(v) : v);
    }
    return answers.get(key);
  };
  const edit = (name, args) => {
    answers.clear();
    return raw('edit', null, [name, args]);
  };
  class Drawing {
    #glyph; #master;
    constructor(glyph, master) { this.#glyph = glyph; this.#master = master; freeze(this); }
    get #self() { return [this.#glyph.toJSON().$g, this.#master.toJSON().$m]; }
    get glyph() { return this.#glyph; }
    get master() { return this.#master; }
    toJSON() { return { $d: this.#self }; }
    set advance(v) { edit('setSides', { at: this, advance: v }); }
    set left(v) { edit('setSides', { at: this, left: v }); }
    set right(v) { edit('setSides', { at: this, right: v }); }
    set contours(v) { edit('setContours', { at: this, contours: v }); }
    ${members('Drawing', 'this.#self')}
  }
  class Glyph {
    #id;
    constructor(id) { this.#id = id; freeze(this); }
    toJSON() { return { $g: this.#id }; }
    toString() { return this.name; }
    drawing(of = G.masters[0]) { return new Drawing(this, of); }
    ${members('Glyph', 'this.#id')}
  }
  class Master {
    #id;
    constructor(id) { this.#id = id; freeze(this); }
    toJSON() { return { $m: this.#id }; }
    toString() { return this.name; }
    ${members('Master', 'this.#id')}
  }
  const glyph = (id) => glyphs.get(id) ?? (glyphs.set(id, new Glyph(id)), glyphs.get(id));
  const master = (id) => masters.get(id) ?? (masters.set(id, new Master(id)), masters.get(id));
  G.font = freeze({
    ${members('font', 'null').replaceAll(/\}\n/g, '},\n')}
  });
  G.shapes = freeze({
    ${members('shapes', 'null').replaceAll(/\}\n/g, '},\n')}
  });
  G.edits = freeze({
    ${edits.map((e) => `${e}(args = {}) { return edit('${e}', args); }`).join(',\n    ')}
  });
  ${callsOf('global').map(global).join('\n  ')}
  const written = (v) => (typeof v === 'string' ? v : v instanceof Glyph || v instanceof Master ? v.name : typeof v === 'object' && v !== null ? stringify(v, (_, x) => (typeof x === 'object' && x !== null && '$g' in x ? glyph(x.$g).name : x)) : String(v));
  const say = G.say;
  G.say = (...parts) => say(parts.map(written).join(' '));
  G.ask = (fields) => revive(raw('ask', null, [fields]));
  G.chosen = freeze(${JSON.stringify(chosen)}.map(glyph));
  G.masters = freeze(${JSON.stringify(masters)}.map(master));
  Math.random = G.random;
  for (const key of ['font', 'shapes', 'edits', 'ask', 'chosen', 'masters', ${callsOf('global')
    .map((c) => `'${c.name}'`)
    .join(', ')}]) defineProperty(G, key, { writable: false, configurable: false });
})();
`;
}
