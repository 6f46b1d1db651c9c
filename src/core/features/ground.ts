import type { MasterId, Project } from '../project/model';
import { drawingOf, glyphsInOrder } from '../project/queries';
import { automaticRules, type Ground, type Rule, type Takes } from './automatic';
import { systemsFor } from './scripts';
import { type SectionText, tagsIn } from './sections';
import { treeOf } from './trees';

/** A glyph as rules see it: its name, its characters, its anchors. */
export type NamedGlyph = {
  readonly glyph: { readonly name: string; readonly unicodes: readonly number[] };
  readonly drawing: { readonly anchors: readonly { readonly name: string }[] };
};

/** Sections as a project keeps them: those that write themselves by the tag of their rule. */
export type Sections = readonly {
  readonly id: string;
  readonly title: string;
  readonly text: string;
  readonly automatic?: string | undefined;
  readonly options: Readonly<Record<string, unknown>>;
}[];

/** What automatic rules are made from: the glyphs, their characters, the marks that their anchors make. */
export function groundOf(glyphs: readonly NamedGlyph[], unitsPerEm: number): Ground {
  const codes = new Map(glyphs.map(({ glyph }) => [glyph.name, glyph.unicodes[0]] as const));
  const sitting = (...anchors: string[]) =>
    glyphs.flatMap((e) => (e.drawing.anchors.some((a) => anchors.includes(a.name)) ? [e.glyph.name] : []));
  return {
    names: glyphs.map((e) => e.glyph.name),
    unitsPerEm,
    codeOf: (name) => codes.get(name),
    above: sitting('_top'),
    below: sitting('_bottom', '_ogonek', '_cedilla'),
  };
}

/** What rules that write themselves are made from, in a master. */
export const projectGround = (project: Project, master: MasterId): Ground => ({
  ...groundOf(
    glyphsInOrder(project)
      .filter((g) => g.cast)
      .map((glyph) => ({ glyph, drawing: drawingOf(glyph, master) })),
    project.unitsPerEm,
  ),
  takes: takesOf(project.features.sections),
});

/** Which forms take part in a section that writes itself, where that was chosen: kept with its options, by their names. */
export const chosenForms = (section: Sections[number]): Readonly<Record<string, boolean>> => {
  const { forms } = section.options;
  const entries = typeof forms === 'object' && forms !== null ? Object.entries(forms) : [];
  return Object.fromEntries(entries.filter((e): e is [string, boolean] => typeof e[1] === 'boolean'));
};

export function takesOf(sections: Sections): Takes {
  const by = new Map(
    sections.flatMap((s) => (s.automatic === undefined ? [] : [[s.automatic, chosenForms(s)] as const])),
  );
  return (tag, form) => {
    const forms = by.get(tag);
    return forms && Object.hasOwn(forms, form) ? forms[form] : undefined;
  };
}

/** Is a section left out of the font? */
export const isOff = (section: { readonly options: Readonly<Record<string, unknown>> }): boolean =>
  section.options.off === true;

/** The text of every section, in order; of those that write themselves what `rules` write now. */
export function allTexts(sections: Sections, rules: readonly Rule[]): SectionText[] {
  const written = new Map(rules.map((r) => [r.tag, r.text]));
  return sections.map(({ id, title, text, automatic }) => ({
    id,
    title,
    text: automatic === undefined ? text : (written.get(automatic) ?? ''),
  }));
}

/** The text of every section that is on, in order; before them the language systems that they imply. */
export function sectionTexts(sections: Sections, ground: Ground): SectionText[] {
  const on = sections.filter((s) => !isOff(s));
  const texts = allTexts(
    on,
    on.some((s) => s.automatic !== undefined) ? automaticRules({ ...ground, takes: takesOf(sections) }) : [],
  );
  const systems = impliedSystems(on, texts, ground);
  if (systems.length === 0) return texts;
  const lines = systems.map(([script, language]) => `languagesystem ${script.trim()} ${language.trim()};`);
  return [{ id: 'languages', title: 'Languages', text: lines.join('\n') }, ...texts];
}

/**
 * Languages that rules which write themselves name, as language systems: without being declared, text in them would have these rules
 * alone. None where the text declares its systems itself. `texts` are those of the sections.
 */
export function impliedSystems(
  sections: Sections,
  texts: readonly SectionText[],
  ground: Ground,
): (readonly [script: string, language: string])[] {
  if (texts.some((t) => treeOf(t.text).statements.some((s) => s.kind === 'languagesystem'))) return [];
  const named = sections.flatMap((s, i) => (s.automatic === undefined ? [] : languagesIn(texts[i]!.text)));
  if (named.length === 0) return [];
  const codes = ground.names.flatMap((n) => ground.codeOf(n) ?? []);
  return [...systemsFor(codes, []), ...named];
}

/** Scripts and languages that the features of a text name. */
function languagesIn(text: string): (readonly [script: string, language: string])[] {
  const out = new Map<string, readonly [string, string]>();
  for (const s of treeOf(text).statements) {
    if (s.kind !== 'feature') continue;
    let script = 'DFLT';
    for (const line of s.body) {
      if (line.kind === 'script') script = line.tag;
      else if (line.kind === 'language') out.set(`${script} ${line.tag}`, [script, line.tag]);
    }
  }
  return [...out.values()].sort((a, b) => (String(a) < String(b) ? -1 : 1));
}

let made: { sections: Sections; signature: string; texts: SectionText[] } | undefined;

/**
 * The texts that a font is made with: where none has `ccmp`, dotless letters under marks write themselves before them. The same
 * again while neither sections nor glyphs change.
 */
export function fontTexts(sections: Sections, ground: Ground): SectionText[] {
  const signature = [ground.names, ground.above, ground.below].map((l) => l.join(' ')).join('|');
  if (made?.sections !== sections || made.signature !== signature)
    made = { sections, signature, texts: writtenTexts(sections, ground) };
  return made.texts;
}

function writtenTexts(sections: Sections, ground: Ground): SectionText[] {
  const texts = sectionTexts(sections, ground);
  if (sections.some((s) => s.automatic === 'ccmp') || tagsIn(texts.map((t) => t.text)).has('ccmp')) return texts;
  const ccmp = automaticRules(ground).find((r) => r.tag === 'ccmp');
  return ccmp ? [{ id: 'ccmp', title: ccmp.title, text: ccmp.text }, ...texts] : texts;
}

/** All texts as one, as other tools read it. */
export const wholeText = (texts: readonly SectionText[]): string =>
  texts
    .map((t) => t.text)
    .filter(Boolean)
    .join('\n\n');
