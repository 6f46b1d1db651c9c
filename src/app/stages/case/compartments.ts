import { codePointsForName } from '../../../core/project/glyphNames';
import type { Glyph, MasterId, Project } from '../../../core/project/model';
import { glyphsInOrder } from '../../../core/project/queries';
import { type Reach, reachOf } from '../../ui/reach';

/** A compartment of the case: glyphs of one role, in cells of one size. What a text needs most lies largest. */
export type Compartment = { title: string; cell: number; glyphs: Glyph[]; reach: Reach };

const ROLES: readonly {
  title: string;
  cell: number;
  test: (character: string, glyph: Glyph, meant: string) => boolean;
}[] = [
  { title: 'Lowercase', cell: 92, test: (c) => /^[a-z]$/.test(c) },
  { title: 'Capitals', cell: 80, test: (c) => /^[A-Z]$/.test(c) },
  { title: 'Figures', cell: 72, test: (c, g) => /^\p{Nd}$/u.test(c) && !g.name.includes('.') },
  { title: 'Punctuation and spaces', cell: 64, test: (c) => /^[\p{P}\p{Z}]$/u.test(c) },
  { title: 'Accented lowercase', cell: 64, test: (c) => /^\p{Ll}$/u.test(c) },
  { title: 'Accented capitals', cell: 64, test: (c) => /^\p{Lu}$/u.test(c) },
  { title: 'Marks', cell: 64, test: (c, g) => g.category === 'mark' || /^[\p{M}\p{Lm}\p{Sk}]$/u.test(c) },
  { title: 'Symbols and currency', cell: 64, test: (c) => /^[\p{S}\p{Nl}\p{Co}]$/u.test(c) },
  { title: 'Other letters', cell: 64, test: (c) => /^\p{L}$/u.test(c) },
  { title: 'Figures of other sets', cell: 64, test: (_, _g, meant) => /^\p{N}$/u.test(meant) },
  { title: 'Small capitals', cell: 64, test: (_, g) => /\.(sc|smcp|c2sc)$/.test(g.name) },
  { title: 'Ligatures', cell: 64, test: (_, g, meant) => g.category === 'ligature' || [...meant].length > 1 },
  { title: 'Alternates', cell: 64, test: (_, g) => g.name.indexOf('.') > 0 },
];

const alphabets = new Intl.Collator('en', { caseFirst: 'lower' });
/** Scripts whose letters stand together, in this order; others by their code points. */
const SCRIPTS = [/\p{Script=Latin}/u, /\p{Script=Greek}/u, /\p{Script=Cyrillic}/u];

/** Glyphs by the alphabet of their script, those without a character after them in the order of the font. */
function inAlphabet(glyphs: readonly Glyph[], characterOf: (g: Glyph) => string): Glyph[] {
  const keyed = glyphs.map((glyph, at) => {
    const character = characterOf(glyph);
    const script = SCRIPTS.findIndex((s) => s.test(character));
    return { glyph, at, character, script: character === '' ? 99 : script < 0 ? 9 : script };
  });
  keyed.sort(
    (a, b) =>
      a.script - b.script ||
      (a.script < 9
        ? alphabets.compare(a.character, b.character)
        : a.character < b.character
          ? -1
          : a.character > b.character
            ? 1
            : 0) ||
      a.at - b.at,
  );
  return keyed.map((k) => k.glyph);
}

/** Sorts glyphs into compartments by what they stand for; alternates and ligatures come last. */
export function compartmentsOf(project: Project, master: MasterId, wanted: (g: Glyph) => boolean): Compartment[] {
  const buckets = [
    ...ROLES.map((r) => ({ title: r.title, cell: r.cell, glyphs: [] as Glyph[] })),
    { title: 'Others', cell: 64, glyphs: [] as Glyph[] },
  ];
  const keys = new Map<Glyph, string>();
  for (const glyph of glyphsInOrder(project)) {
    if (!wanted(glyph)) continue;
    const named = codePointsForName(glyph.name);
    const codes =
      glyph.unicodes.length > 0 ? glyph.unicodes : glyph.name.includes('.') || glyph.name.includes('_') ? [] : named;
    const character = codes[0] === undefined ? '' : String.fromCodePoint(codes[0]);
    const role = ROLES.findIndex((r) => r.test(character, glyph, character || String.fromCodePoint(...named)));
    keys.set(glyph, glyph.unicodes.length > 0 ? character : '');
    buckets[role < 0 ? ROLES.length : role]!.glyphs.push(glyph);
  }
  for (const b of buckets) b.glyphs = inAlphabet(b.glyphs, (g) => keys.get(g)!);
  return buckets.filter((b) => b.glyphs.length > 0).map((b) => ({ ...b, reach: reachOf(project, master, b.glyphs) }));
}

/** Rows for a virtual list: a heading, or cells of one compartment. */
export type CaseRow =
  | { kind: 'heading'; title: string; count: number; height: number }
  | { kind: 'cells'; cell: number; glyphs: Glyph[]; reach: Reach; height: number };

export function rowsOf(compartments: readonly Compartment[], width: number): CaseRow[] {
  return compartments.flatMap(({ title, cell, glyphs, reach }): CaseRow[] => {
    const across = Math.max(1, Math.floor(width / cell));
    const rows: CaseRow[] = [{ kind: 'heading', title, count: glyphs.length, height: 34 }];
    for (let i = 0; i < glyphs.length; i += across)
      rows.push({ kind: 'cells', cell, glyphs: glyphs.slice(i, i + across), reach, height: cell + 18 });
    return rows;
  });
}
