import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused } from '../project/edit';
import type { Project } from '../project/model';
import { defaultMaster } from '../project/queries';
import { trialSchema } from '../project/setting';
import { automaticRules } from './automatic';
import { allTexts, chosenForms, isOff, projectGround } from './ground';
import { mergedInto } from './merge';
import { MOST_SECTIONS, piecesOf } from './pieces';
import { systemsFor } from './scripts';
import { isSame, symbolsIn, withSymbol } from './symbols';
import { treeOf } from './trees';

/** Edits of the project’s rules: its sections, in the order in which they are compiled. */

type Section = Project['features']['sections'][number];

const MOST_TEXT = 2_000_000;
const text = z.string().max(MOST_TEXT);

const withSections = (project: Project, sections: readonly Section[], sentence: string): Outcome =>
  edited({ ...project, features: { ...project.features, sections } }, sentence);

const shownAs = (s: Section): string => s.title || s.automatic || 'the rules';

/** Changes one section; refuses where it is gone. */
function changed(
  project: Project,
  id: string,
  change: (s: Section) => Section,
  sentence: (s: Section) => string,
): Outcome {
  const { sections } = project.features;
  const section = sections.find((s) => s.id === id);
  if (!section) return refused('That section of rules is no longer in the project.');
  const next = change(section);
  return withSections(
    project,
    sections.map((s) => (s === section ? next : s)),
    sentence(next),
  );
}

/** Ids of sections are `f1`, `f2` …; the next that is free. */
function nextId(sections: readonly Section[]): string {
  const taken = new Set(sections.map((s) => s.id));
  let n = sections.length + 1;
  while (taken.has(`f${n}`)) n++;
  return `f${n}`;
}

/** Adds sections at the end, or behind another: of one’s own, or such as write themselves. */
export const addSections = defineEdit(
  {
    name: 'addSections',
    does: 'Adds sections of rules',
    reach: 'no master',
    args: z.object({
      sections: z.array(z.object({ title: a.text, text, automatic: a.text.optional() })).readonly(),
      after: z.string().optional(),
    }),
  },
  (project, { sections: wanted, after }) => {
    const { sections } = project.features;
    if (wanted.length === 0) return refused('There is nothing to add.');
    if (sections.length + wanted.length > MOST_SECTIONS)
      return refused(`A project has at most ${MOST_SECTIONS} sections of rules.`);
    const out = [...sections];
    const at = after === undefined ? out.length : out.findIndex((s) => s.id === after) + 1 || out.length;
    wanted.forEach(({ title, text: own, automatic }, i) => {
      const section: Section = {
        id: nextId(out),
        title,
        options: {},
        text: automatic === undefined ? own : '',
        ...(automatic !== undefined && { automatic }),
      };
      out.splice(at + i, 0, section);
    });
    return withSections(
      project,
      out,
      wanted.length === 1
        ? `Added the rules ${wanted[0]!.title}`
        : `Added ${plural(wanted.length, 'section')} of rules`,
    );
  },
);

/** Writes the text of a section; one that wrote itself is by hand from here on. */
export const setSectionText = defineEdit(
  {
    name: 'setSectionText',
    does: 'Writes the text of a section of rules',
    reach: 'no master',
    args: z.object({ id: z.string(), text }),
  },
  (project, { id, text: own }) =>
    changed(
      project,
      id,
      ({ automatic: _, ...s }) => ({ ...s, text: own }),
      (s) => `Wrote rules in ${shownAs(s)}`,
    ),
);

/** Gives a section back to the rule that writes it. */
export const giveSectionBack = defineEdit(
  {
    name: 'giveSectionBack',
    does: 'Has a section of rules write itself',
    reach: 'no master',
    args: z.object({ id: z.string(), automatic: a.text }),
  },
  (project, { id, automatic }) =>
    changed(
      project,
      id,
      (s) => ({ ...s, automatic, text: '' }),
      (s) => `${shownAs(s)} writes itself again`,
    ),
);

export const renameSection = defineEdit(
  {
    name: 'renameSection',
    does: 'Renames a section of rules',
    reach: 'no master',
    args: z.object({ id: z.string(), title: a.text }),
  },
  (project, { id, title }) =>
    changed(
      project,
      id,
      (s) => ({ ...s, title: title.trim().slice(0, 200) }),
      (s) => `Named the rules ${shownAs(s)}`,
    ),
);

/** Takes a section into fonts, or leaves it out of them. */
export const switchSection = defineEdit(
  {
    name: 'switchSection',
    does: 'Takes a section of rules into fonts or leaves it out',
    reach: 'no master',
    args: z.object({ id: z.string(), on: z.boolean() }),
  },
  (project, { id, on }) =>
    changed(
      project,
      id,
      (s) => {
        const { off: _, ...options } = s.options;
        return { ...s, options: on ? options : { ...options, off: true } };
      },
      (s) => `${shownAs(s)} is ${on ? 'in fonts' : 'left out of fonts'}`,
    ),
);

/** Lets forms take part in a section that writes itself, or leaves them out. */
export const takeForms = defineEdit(
  {
    name: 'takeForms',
    does: 'Says which glyphs take part in rules that write themselves',
    reach: 'no master',
    args: z.object({ id: z.string(), forms: z.array(a.text).readonly(), take: z.boolean() }),
  },
  (project, { id, forms, take }) => {
    if (forms.length === 0) return refused('No glyphs were named.');
    return changed(
      project,
      id,
      (s) => ({
        ...s,
        options: { ...s.options, forms: { ...chosenForms(s), ...Object.fromEntries(forms.map((f) => [f, take])) } },
      }),
      (s) => {
        const what = forms.length === 1 ? forms[0]! : `${forms.length} glyphs`;
        const verb = forms.length === 1 ? 'takes' : 'take';
        return take ? `${what} ${verb} part in ${shownAs(s)}` : `Left ${what} out of ${shownAs(s)}`;
      },
    );
  },
);

/** Gives a section another place in the order. */
export const moveSection = defineEdit(
  {
    name: 'moveSection',
    does: 'Gives a section of rules another place',
    reach: 'no master',
    args: z.object({ from: a.index, to: a.index }),
  },
  (project, { from, to }) => {
    const sections = [...project.features.sections];
    const [moved] = sections.splice(from, 1);
    if (!moved || to > sections.length) return refused('There is no such place for a section.');
    sections.splice(to, 0, moved);
    return withSections(project, sections, `Moved the rules ${shownAs(moved)}`);
  },
);

export const removeSection = defineEdit(
  {
    name: 'removeSection',
    does: 'Takes a section of rules away',
    reach: 'no master',
    args: z.object({ id: z.string() }),
  },
  (project, { id }) => {
    const gone = project.features.sections.find((s) => s.id === id);
    if (!gone) return refused('That section of rules is no longer in the project.');
    return withSections(
      project,
      project.features.sections.filter((s) => s !== gone),
      `Took the rules ${shownAs(gone)} away`,
    );
  },
);

/** Cuts a section by hand in two: before the statement that stands at a place of its text, or behind it where it is the first. */
export const splitSection = defineEdit(
  {
    name: 'splitSection',
    does: 'Cuts a section of rules in two',
    reach: 'no master',
    args: z.object({ id: z.string(), at: a.index }),
  },
  (project, { id, at }) => {
    const { sections } = project.features;
    const section = sections.find((s) => s.id === id);
    if (!section) return refused('That section of rules is no longer in the project.');
    if (section.automatic !== undefined) return refused('A section that writes itself is not cut.');
    const pieces = piecesOf(section.text);
    if (pieces.length < 2) return refused('A section is cut between two blocks or statements; this one has one only.');
    const piece = pieces.find((p) => at < p.to) ?? pieces.at(-1)!;
    const cut = piece === pieces[0] ? piece.to : piece.from;
    const [first, second] = [section.text.slice(0, cut).trimEnd(), section.text.slice(cut).trimStart()];
    const more: Section = { ...section, id: nextId(sections), title: `${section.title}, second part`, text: second };
    if (sections.length >= MOST_SECTIONS) return refused(`A project has at most ${MOST_SECTIONS} sections of rules.`);
    return withSections(
      project,
      sections.flatMap((s) => (s === section ? [{ ...s, text: first }, more] : [s])),
      `Cut the rules ${shownAs(section)} in two`,
    );
  },
);

/** Makes one section of two that follow one another. */
export const joinSections = defineEdit(
  {
    name: 'joinSections',
    does: 'Joins a section of rules with the next',
    reach: 'no master',
    args: z.object({ id: z.string() }),
  },
  (project, { id }) => {
    const { sections } = project.features;
    const at = sections.findIndex((s) => s.id === id);
    const [section, next] = [sections[at], sections[at + 1]];
    if (!section || !next) return refused('There is no section behind this one to join it with.');
    const auto = [section, next].find((s) => s.automatic !== undefined);
    if (auto) return refused(`${shownAs(auto)} writes itself; only sections by hand are joined.`);
    if (isOff(section) !== isOff(next))
      return refused('One of the two is in fonts and the other is not; they are joined when both are alike.');
    const text = [section.text.trimEnd(), next.text.trimStart()].filter(Boolean).join('\n\n');
    return withSections(
      project,
      sections.flatMap((s) => (s === section ? [{ ...s, text }] : s === next ? [] : [s])),
      `Joined the rules ${shownAs(section)} and ${shownAs(next)}`,
    );
  },
);

/** Declares systems of languages, so that rules without a language hold in them too. */
export const declareSystems = defineEdit(
  {
    name: 'declareSystems',
    does: 'Declares language systems in the rules',
    reach: 'no master',
    args: z.object({ systems: z.array(z.tuple([z.string().min(1).max(4), z.string().min(1).max(4)])).readonly() }),
  },
  (project, { systems }) => {
    const { sections } = project.features;
    const linesOf = (text: string) => treeOf(text).statements.filter((s) => s.kind === 'languagesystem');
    const declared = sections.flatMap((s) => linesOf(s.text));
    const has = ([script, language]: readonly [string, string]) =>
      declared.some((d) => d.script.trim() === script.trim() && d.language.trim() === language.trim());
    const codes = Object.values(project.glyphs).flatMap((g) => g.unicodes);
    // The first declaration ends what holds without any, so that is said too.
    const usual = declared.length > 0 ? [] : systemsFor(codes, project.features.languageSystems);
    const wanted = [...usual, ...systems].map(([s, l]) => [s.trim(), l.trim()] as const);
    const fresh = wanted.filter((w, i) => !has(w) && wanted.findIndex((o) => o[0] === w[0] && o[1] === w[1]) === i);
    if (fresh.length === 0) return refused('The rules declare these language systems already.');
    const lines = fresh.map(([script, language]) => `languagesystem ${script} ${language};`).join('\n');
    const sentence = `Declared ${plural(fresh.length, 'language system')}`;
    const home = sections.find((s) => s.automatic === undefined && linesOf(s.text).length > 0);
    if (!home)
      return withSections(
        project,
        [{ id: nextId(sections), title: 'Languages', options: {}, text: `${lines}\n` }, ...sections],
        sentence,
      );
    const { to } = linesOf(home.text).at(-1)!;
    const text = `${home.text.slice(0, to)}\n${lines}${home.text.slice(to)}`;
    return withSections(
      project,
      sections.map((s) => (s === home ? { ...s, text } : s)),
      sentence,
    );
  },
);

/** The text that all rules are tried in, and its two settings. */
export const setTrial = defineEdit(
  {
    name: 'setTrial',
    does: 'Sets the trial of all rules',
    reach: 'no master',
    args: z.object({ trial: trialSchema }),
  },
  (project, { trial }) => edited({ ...project, texts: { ...project.texts, trial } }, 'Changed the trial of the rules'),
);

/** Takes chosen things of a file of rules into the sections; see `mergedInto`. */
export const mergeRules = defineEdit(
  {
    name: 'mergeRules',
    does: 'Takes rules of a file into the sections',
    reach: 'no master',
    args: z.object({ title: a.text, text, take: z.array(z.string()).readonly() }),
  },
  (project, { title, text: theirs, take }) => {
    const { sections } = project.features;
    if (take.length === 0) return refused('Nothing of the file is chosen.');
    const texts = allTexts(sections, automaticRules(projectGround(project, defaultMaster(project).id)));
    const { changed, added } = mergedInto(texts, theirs, new Set(take), title);
    if (changed.length + added.length === 0) return refused('What is chosen is not in the file.');
    if (sections.length + added.length > MOST_SECTIONS)
      return refused(`A project has at most ${MOST_SECTIONS} sections of rules.`);
    const next = sections.map((s): Section => {
      const own = changed.find((c) => c.id === s.id);
      if (!own) return s;
      const { automatic: _, ...byHand } = s;
      return { ...byHand, text: own.text };
    });
    for (const { title: name, text: own, before } of added) {
      const at = before === undefined ? -1 : next.findIndex((s) => s.id === before);
      next.splice(at < 0 ? next.length : at, 0, { id: nextId(next), title: name, options: {}, text: own });
    }
    return withSections(project, next, `Took ${plural(take.length, 'thing')} of ${title} into the rules`);
  },
);

/** Names of classes and lookups: the letters that the language allows, and no more of them than it allows. */
const SYMBOL_NAME = { class: /^@[A-Za-z_][A-Za-z0-9_.-]{0,62}$/, lookup: /^[A-Za-z_][A-Za-z0-9_.]{0,62}$/ };

/** Names a class or a lookup otherwise, in every section by hand that has it. */
export const renameSymbol = defineEdit(
  {
    name: 'renameSymbol',
    does: 'Renames a class or a lookup in all rules',
    reach: 'no master',
    args: z.object({ kind: z.enum(['class', 'lookup']), name: z.string(), to: z.string() }),
  },
  (project, { kind, name, to }) => {
    const { sections, included } = project.features;
    if (!SYMBOL_NAME[kind].test(to))
      return refused(
        kind === 'class'
          ? `${to || 'Nothing'} can't name a class: an @, a letter, then letters, figures, dots, hyphens and underscores.`
          : `${to || 'Nothing'} can't name a lookup: a letter, then letters, figures, dots and underscores.`,
      );
    if (to === name) return refused(`It is called ${name} already.`);
    const has = (text: string, wanted: string) => symbolsIn(text).some((s) => isSame(s, { kind, name: wanted }));
    const texts = [...sections.map((s) => s.text), ...Object.values(included)];
    if (texts.some((text) => has(text, to))) return refused(`The rules have a ${kind} called ${to} already.`);
    const file = Object.keys(included).find((path) => has(included[path]!, name));
    if (file !== undefined) return refused(`${name} also stands in the included file ${file}, which is kept as it is.`);
    const next = sections.map((s) => {
      const written = s.automatic === undefined ? withSymbol(s.text, { kind, name }, to) : s.text;
      return written === s.text ? s : { ...s, text: written };
    });
    if (next.every((s, i) => s === sections[i])) return refused(`The rules have no ${kind} called ${name}.`);
    return withSections(project, next, `Renamed the ${kind} ${name} to ${to}`);
  },
);
