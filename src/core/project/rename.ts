import type { Project } from './model';

/** New names by those before. */
export type NewNames = ReadonlyMap<string, string>;

/** Characters that names are made of, in feature text, lists and lines. */
const IN_NAME = 'A-Za-z0-9._\\-';

const named = (names: NewNames, name: string): string => names.get(name) ?? name;

/** Lines of one’s own write a glyph’s name behind a slash. */
function inTexts(texts: Project['texts'], names: NewNames): Project['texts'] {
  const change = (text: string) =>
    text.replace(new RegExp(`/([${IN_NAME}]+)`, 'g'), (_, name: string) => `/${named(names, name)}`);
  const { galley, words, pairs } = texts;
  return { ...texts, galley: change(galley), words: words.map(change), pairs: pairs.map(change) };
}

/** Lists name glyphs with a slash or without one, as words; a single character is itself, not a name. */
function inList(text: string, names: NewNames): string {
  return text.replace(/[^\s,]+/g, (word) => {
    const name = word.startsWith('/') ? word.slice(1) : word;
    return [...name].length === 1 || !names.has(name)
      ? word
      : word.slice(0, word.length - name.length) + names.get(name);
  });
}

function inSettings(settings: Project['settings'], names: NewNames): Project['settings'] {
  const lists = settings.lists?.map((l) => ({ ...l, text: inList(l.text, names) }));
  const recipes = settings.recipes?.map((r) => ({
    glyph: named(names, r.glyph),
    base: named(names, r.base),
    parts: r.parts.map((p) => ({ ...p, glyph: named(names, p.glyph) })),
  }));
  const accepted = settings.preflight?.accepted?.map((each) =>
    each.glyph === undefined ? each : { ...each, glyph: named(names, each.glyph) },
  );
  const own = settings.deriving?.own;
  const derived =
    own &&
    Object.fromEntries(
      Object.entries(own).map(([name, o]) => [
        named(names, name),
        o.of === undefined ? o : { ...o, of: named(names, o.of) },
      ]),
    );
  const same =
    JSON.stringify(derived) === JSON.stringify(own) &&
    accepted?.every((each, i) => each.glyph === settings.preflight!.accepted![i]!.glyph) !== false &&
    lists?.every((l, i) => l.text === settings.lists![i]!.text) !== false &&
    JSON.stringify(recipes) === JSON.stringify(settings.recipes);
  const preflight = accepted && { ...settings.preflight, accepted };
  return same
    ? settings
    : {
        ...settings,
        ...(lists && { lists }),
        ...(recipes && { recipes }),
        ...(preflight && { preflight }),
        ...(derived && { deriving: { ...settings.deriving, own: derived } }),
      };
}

/**
 * Words of the feature language that a glyph may also be called; as a glyph’s name they are written with a backslash
 * (OpenType feature file specification, “Glyph names”).
 */
const KEYWORDS: ReadonlySet<string> = new Set(
  'anchor anchorDef anon anonymous by contourpoint cursive device enum enumerate exclude_dflt excludeDFLT feature from ignore IgnoreBaseGlyphs IgnoreLigatures IgnoreMarks include include_dflt includeDFLT language languagesystem lookup lookupflag mark MarkAttachmentType markClass nameid NULL parameters pos position required reversesub RightToLeft rsub script sub substitute subtable table useExtension UseMarkFilteringSet valueRecordDef'.split(
    ' ',
  ),
);

/** Names in feature text: words that are no keywords, classes, tags or numbers, outside comments and quoted words. */
export function renamedInFeatures(text: string, names: NewNames): string {
  return text.replace(
    new RegExp(
      `#[^\\n]*|"[^"]*"|(feature|lookup|script|language|languagesystem)\\s+[^;{]*|@[${IN_NAME}]+|\\\\?[A-Za-z_.][${IN_NAME}]*`,
      'g',
    ),
    (token, tagged: string | undefined) => {
      if (/^[#"@]/.test(token) || tagged) return token;
      if (token.startsWith('\\')) return `\\${named(names, token.slice(1))}`;
      if (KEYWORDS.has(token)) return token;
      const after = named(names, token);
      return after !== token && KEYWORDS.has(after) ? `\\${after}` : after;
    },
  );
}

/** Does feature text name a glyph? */
export const writesName = (text: string, name: string): boolean =>
  text.includes(name) && renamedInFeatures(text, new Map([[name, `${name}_`]])) !== text;

/** Everything of a project that writes glyph names as text, with new names: lines, lists, recipes, feature text and classes. */
export function withNamesWritten(project: Project, names: NewNames): Project {
  const { features } = project;
  const sections = features.sections.map((s) => {
    const text = renamedInFeatures(s.text, names);
    const { forms } = s.options;
    // Which forms take part is kept by their names.
    const inForms = typeof forms === 'object' && forms !== null && Object.keys(forms).some((f) => names.has(f));
    if (text === s.text && !inForms) return s;
    const renamed = inForms && Object.fromEntries(Object.entries(forms).map(([f, v]) => [named(names, f), v]));
    return { ...s, text, ...(renamed && { options: { ...s.options, forms: renamed } }) };
  });
  const changed = sections.some((s, i) => s !== features.sections[i]);
  const inClasses = Object.values(features.classes).some((members) => members.some((m) => names.has(m)));
  const classes = inClasses
    ? Object.fromEntries(Object.entries(features.classes).map(([k, all]) => [k, all.map((m) => named(names, m))]))
    : features.classes;
  return {
    ...project,
    texts: inTexts(project.texts, names),
    settings: inSettings(project.settings, names),
    features: changed || inClasses ? { ...features, sections, classes } : features,
  };
}
