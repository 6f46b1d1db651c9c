import { addTo } from '../base/grouping';
import { listed } from '../base/text';
import { isEmptyBox } from '../geometry/curve';
import type { GlyphId, Master, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphNamed } from '../project/queries';
import type { Compiled, CompiledTable } from './compile';
import type { DraftLookup } from './lookups';
import { reachedBy, replacements } from './reach';
import { isAlphabet, scriptsOf } from './scripts';
import type { SectionText } from './sections';

/** Something about rules that a designer may not have meant: what, where, which glyphs, and what would mend it. */
export type Question = {
  /** The section that it is about; none where it is about the rules as a whole. */
  section?: string;
  reason: string;
  /** Names of glyphs that it is about. */
  glyphs: readonly string[];
  mend?: { kind: 'systems'; systems: readonly (readonly [script: string, language: string])[] } | { kind: 'carets' };
};

type Asked = { project: Project; compiled: Compiled; sections: readonly SectionText[]; names: readonly string[] };

/**
 * What may not be meant in rules that compile: languages that lose features, glyphs that no text reaches, rules for such glyphs,
 * ligatures without carets, replacements that are oddly wider or stand oddly.
 */
export function questionsOf(asked: Asked): Question[] {
  const reached = reachedGlyphs(asked);
  return [
    ...lostFeatures(asked),
    ...unreached(asked, reached),
    ...neverMet(asked, reached),
    ...withoutCarets(asked),
    ...oddMeasures(asked),
  ];
}

const listedGlyphs = (names: readonly string[], most = 8): string => listed(names, most, ' ');

/** Systems whose features are fewer than those of their script, or of all scripts, though nobody said so. */
function lostFeatures(asked: Asked): Question[] {
  const { GSUB, GPOS } = asked.compiled;
  const concerns = concernsOf(asked);
  const has = new Map<string, Set<string>>();
  const note = (table: CompiledTable, script: string, language: string, features: readonly number[]) => {
    const key = `${script} ${language}`;
    const own = has.get(key) ?? new Set();
    has.set(key, own);
    for (const f of features) own.add(table.features[f]!.tag.trimEnd());
  };
  for (const table of [GSUB, GPOS])
    for (const s of table.scripts) {
      if (s.usual) note(table, s.tag, 'dflt', withRequired(s.usual));
      for (const l of s.languages) note(table, s.tag, l.tag.trimEnd(), withRequired(l.system));
    }
  const lost = new Map<string, { systems: string[]; tags: Set<string> }>();
  for (const [key, own] of has) {
    const [script, language] = key.split(' ') as [string, string];
    const model = language === 'dflt' ? (script === 'DFLT' ? undefined : 'DFLT dflt') : `${script} dflt`;
    const missing = [...((model && has.get(model)) ?? [])]
      .filter((t) => !own.has(t) && (language !== 'dflt' || concerns(t, script)))
      .sort();
    if (missing.length === 0) continue;
    const id = missing.join(' ');
    const held = lost.get(id) ?? { systems: [], tags: new Set(missing) };
    lost.set(id, held);
    held.systems.push(key);
  }
  return [...lost.values()].map(({ systems, tags }) => ({
    reason: `Text in ${listedGlyphs(systems.map(spoken), 6)} has no ${listedGlyphs([...tags])}: rules name ${systems.length === 1 ? 'it' : 'them'}, and only what is said there holds. Declared as language ${systems.length === 1 ? 'system' : 'systems'}, ${systems.length === 1 ? 'it gets' : 'they get'} all features.`,
    glyphs: [],
    mend: { kind: 'systems', systems: systems.map((s) => s.split(' ') as [string, string]) },
  }));
}

/** Does a feature do something to a letter of an alphabet? Of one without a table here it is taken to. */
function concernsOf({ project, compiled, names }: Asked): (tag: string, script: string) => boolean {
  const scripts = new Map<string, ReadonlySet<string>>();
  const touched = (tag: string): ReadonlySet<string> => {
    const held = scripts.get(tag);
    if (held) return held;
    const codes = compiled.drafts.flatMap((l) =>
      tagsOf(compiled, l).includes(tag)
        ? [...replacements(l)].flatMap(([from]) => from.flatMap((g) => glyphNamed(project, names[g]!)?.unicodes ?? []))
        : [],
    );
    const own = new Set(scriptsOf(codes));
    scripts.set(tag, own);
    return own;
  };
  return (tag, script) => touched(tag).has(script) || !isAlphabet(script);
}

const withRequired = (s: { required?: number; features: readonly number[] }): readonly number[] =>
  s.required === undefined ? s.features : [...s.features, s.required];

const spoken = (system: string): string => {
  const [script, language] = system.split(' ');
  return language === 'dflt' ? `the script ${script}` : `${language} (${script})`;
};

/** Glyphs that some text leads to, whatever features it is set with: those with characters, and what rules make of them. */
function reachedGlyphs({ project, compiled, names }: Asked): ReadonlySet<number> {
  const begun = names.flatMap((name, i) =>
    name !== '.notdef' && (glyphNamed(project, name)?.unicodes.length ?? 0) > 0 ? [i] : [],
  );
  return reachedBy(compiled.drafts, begun);
}

function unreached({ project, names }: Asked, reached: ReadonlySet<number>): Question[] {
  const parts = new Set(
    Object.values(project.glyphs).flatMap((g) =>
      Object.values(g.drawings).flatMap((d) => d.components.map((c) => c.glyph)),
    ),
  );
  const left = names.filter((name, i) => {
    const glyph = glyphNamed(project, name);
    // What stands for all that is missing is shown without being reached.
    return name !== '.notdef' && !reached.has(i) && glyph && !parts.has(glyph.id) && glyph.category !== 'component';
  });
  if (left.length === 0) return [];
  return [
    {
      reason: `${left.length === 1 ? 'One glyph is' : `${left.length} glyphs are`} in fonts and no text reaches ${left.length === 1 ? 'it' : 'them'}: no character, and no rule that makes ${left.length === 1 ? 'it' : 'them'}.`,
      glyphs: left,
    },
  ];
}

/** Rules of a section for glyphs that no text reaches. */
function neverMet({ compiled, sections, names }: Asked, reached: ReadonlySet<number>): Question[] {
  const by = new Map<number, Set<number>>();
  for (const l of compiled.drafts) {
    if (l.table !== 'GSUB' || l.source === undefined) continue;
    for (const [from] of replacements(l)) {
      const gone = from.filter((g) => !reached.has(g));
      if (gone.length === 0) continue;
      const own = by.get(l.source) ?? new Set();
      by.set(l.source, own);
      for (const g of gone) own.add(g);
    }
  }
  return [...by].flatMap(([source, glyphs]): Question[] => {
    const section = sections[source];
    const list = [...glyphs].map((g) => names[g]!);
    if (!section) return [];
    return [
      {
        section: section.id,
        reason: `Rules wait for ${listedGlyphs(list)}, which no text reaches; they never apply.`,
        glyphs: list,
      },
    ];
  });
}

const isCaret = (a: { name: string; role?: string | undefined }): boolean =>
  a.role === 'caret' || /^caret/.test(a.name);

/** Ligatures of letters in which the cursor cannot stand between them. */
function withoutCarets({ project, compiled, sections, names }: Asked): Question[] {
  const { carets, caretPoints } = compiled.definitions;
  const by = new Map<number, Map<string, Master[]>>();
  for (const l of compiled.drafts) {
    if (l.source === undefined) continue;
    for (const p of l.parts) {
      if (p.kind !== 'ligature') continue;
      for (const { parts, to } of p.ligatures) {
        const glyph = glyphNamed(project, names[to]!);
        const isText = parts.every((g) => isLetter(project, names[g]!));
        if (
          !glyph ||
          !isText ||
          carets.has(to) ||
          caretPoints.has(to) ||
          glyph.unicodes.some((c) => c < 0xfb00 && c > 0x7f)
        )
          continue;
        const lacking = project.masters.filter((m) => !drawingOf(glyph, m.id).anchors.some(isCaret));
        if (lacking.length === 0) continue;
        const own = by.get(l.source) ?? new Map<string, Master[]>();
        by.set(l.source, own.set(glyph.name, lacking));
      }
    }
  }
  return [...by].flatMap(([source, found]): Question[] => {
    const section = sections[source];
    if (!section) return [];
    const list = [...found.keys()];
    const some = [...new Set([...found.values()].flat())];
    const where = some.length < project.masters.length ? ` in ${some.map((m) => m.name).join(', ')}` : '';
    return [
      {
        section: section.id,
        reason: `${list.length === 1 ? `The ligature ${list[0]} has` : `${list.length} ligatures have`} no caret${where}: text cannot put the cursor between ${list.length === 1 ? 'its' : 'their'} letters.`,
        glyphs: list,
        mend: { kind: 'carets' },
      },
    ];
  });
}

function isLetter(project: Project, name: string): boolean {
  const code = glyphNamed(project, name)?.unicodes[0];
  return code !== undefined && /\p{Lu}|\p{Ll}|\p{Lo}/u.test(String.fromCodePoint(code));
}

/** Features whose forms are meant to be of another size or width. */
const OTHERWISE = new Set(
  'smcp c2sc sups subs sinf numr dnom ordn pnum tnum lnum onum swsh init medi fina isol titl'.split(' '),
);
/** Sides that change by more than this share of the em are odd, and widths by more than that. */
const ODD_SIDE = 0.15;
const ODD_WIDTH = 0.35;

/** Replacements that stand or space oddly beside what they replace, and figures of one width that are not of one. */
function oddMeasures({ project, compiled, sections, names }: Asked): Question[] {
  const out: Question[] = [];
  /** Forms, and what they replace, by section, oddity and masters. */
  const odd = new Map<string, Map<string, string>>();
  const em = project.unitsPerEm;
  const measured = project.masters.map((m) => measures(project, m));
  const inMasters = (which: readonly number[]) =>
    which.length === project.masters.length ? '' : ` in ${which.map((i) => project.masters[i]!.name).join(', ')}`;
  for (const l of compiled.drafts) {
    const section = l.table === 'GSUB' && l.source !== undefined ? sections[l.source] : undefined;
    const pairs = l.parts.flatMap((p) => (p.kind === 'single' ? [...p.by] : []));
    if (!section || pairs.length === 0) continue;
    const tags = tagsOf(compiled, l);
    const { id } = section;
    if (tags.includes('tnum')) {
      const to = pairs.map(([, g]) => names[g]!);
      measured.forEach((measure, i) => {
        const others = ofOtherWidth(to, (n) => measure(n)?.advance);
        if (others)
          out.push({
            section: id,
            reason: `Figures of one width are ${others.usual} wide${inMasters([i])}, but ${listedGlyphs(others.list.map(([n, w]) => `${n} ${w}`))}.`,
            glyphs: others.list.map(([n]) => n),
          });
      });
    }
    const alike = tags.length > 0 && !tags.some((t) => OTHERWISE.has(t));
    for (const [a, b] of pairs) {
      const [from, to] = [names[a]!, names[b]!];
      const how = measured.map((measure) => oddity(measure(from), measure(to), alike ? em : Number.POSITIVE_INFINITY));
      for (const said of new Set(how.filter((h) => h !== undefined))) {
        const where = inMasters(how.flatMap((h, i) => (h === said ? [i] : [])));
        const key = `${id}\n${said}\n${where}`;
        odd.set(key, (odd.get(key) ?? new Map()).set(to, from));
      }
    }
  }
  for (const [key, forms] of odd) {
    const [section, said, where] = key.split('\n') as [string, Oddity, string];
    const list = [...forms];
    out.push({
      section,
      reason:
        list.length === 1
          ? `${list[0]![0]}, in the place of ${list[0]![1]}, ${ODDITIES[said][0]}${where}.`
          : `${list.length} forms ${ODDITIES[said][1]} what they replace${where}: ${listedGlyphs(list.map(([to]) => to))}.`,
      glyphs: list.flatMap(([to, from]) => [from, to]),
    });
  }
  return out;
}

/** What is odd about a form, said of one and of several beside what they replace. */
const ODDITIES = {
  flat: ['has no width', 'have no width, unlike'],
  wide: ['has a width', 'have a width, unlike'],
  wider: ['is much wider', 'are much wider than'],
  narrower: ['is much narrower', 'are much narrower than'],
  'left+': [
    'stands much farther from its neighbour at the left',
    'stand much farther from their neighbours at the left than',
  ],
  'left-': [
    'stands much nearer to its neighbour at the left',
    'stand much nearer to their neighbours at the left than',
  ],
  'right+': [
    'stands much farther from its neighbour at the right',
    'stand much farther from their neighbours at the right than',
  ],
  'right-': [
    'stands much nearer to its neighbour at the right',
    'stand much nearer to their neighbours at the right than',
  ],
} as const;
type Oddity = keyof typeof ODDITIES;

const tagsOf = ({ GSUB }: Compiled, l: DraftLookup): string[] =>
  GSUB.features.filter((f) => l.index !== undefined && f.lookups.includes(l.index)).map((f) => f.tag.trimEnd());

/** Names whose width is not that of most; undefined where all are alike. */
function ofOtherWidth(list: readonly string[], widthOf: (name: string) => number | undefined) {
  const widths = new Map<number, string[]>();
  for (const n of list) {
    const w = widthOf(n);
    if (w !== undefined) addTo(widths, w, n);
  }
  const [most, ...others] = [...widths].sort((a, b) => b[1].length - a[1].length);
  if (!most || others.length === 0) return undefined;
  return { usual: most[0], list: others.flatMap(([w, own]) => own.map((n) => [n, w] as const)) };
}

type Measures = { advance: number; left: number; right: number };

/** What is odd about one glyph in the place of another. */
function oddity(from: Measures | undefined, to: Measures | undefined, em: number): Oddity | undefined {
  if (!from || !to) return undefined;
  if ((from.advance === 0) !== (to.advance === 0)) return to.advance === 0 ? 'flat' : 'wide';
  if (Math.abs(to.advance - from.advance) > ODD_WIDTH * em) return to.advance > from.advance ? 'wider' : 'narrower';
  for (const side of ['left', 'right'] as const)
    if (Math.abs(to[side] - from[side]) > ODD_SIDE * em) return `${side}${to[side] > from[side] ? '+' : '-'}`;
  return undefined;
}

/** Advance and sides of glyphs in a master, each worked out once; undefined where nothing is drawn. */
function measures(project: Project, master: Master) {
  const source = drawingsOf(project, master.id);
  const known = new Map<string, Measures | undefined>();
  return (name: string) => {
    if (known.has(name)) return known.get(name);
    const glyph = glyphNamed(project, name);
    const drawing = glyph && drawingOf(glyph, master.id);
    const box = drawing && drawingBounds(drawing, source);
    const own =
      drawing && box && !isEmptyBox(box)
        ? { advance: drawing.advance, left: box.xMin, right: drawing.advance - box.xMax }
        : undefined;
    known.set(name, own);
    return own;
  };
}

/** Ids of glyphs by their names, those that are there. */
export const idsOf = (project: Project, names: readonly string[]): GlyphId[] =>
  names.flatMap((n) => glyphNamed(project, n)?.id ?? []);
