import type { MasterId, Project } from '../project/model';
import { masterOf } from '../project/queries';
import { carriesSubstitutions } from './adopt';
import { automaticRules, type RuleShown } from './automatic';
import { allTexts, impliedSystems, isOff, projectGround } from './ground';
import { orderNotes } from './order';
import { type Question, questionsOf } from './questions';
import { systemsFor } from './scripts';
import { compileSections } from './sections';
import { type ShownSection, shownSections } from './shown';
import type { Fault } from './tree';

/** A section as the stage shows it: its text as it is now, what it says, what is wrong in it. */
export type SectionView = ShownSection & {
  id: string;
  text: string;
  faults: readonly Fault[];
  questions: readonly Question[];
  /** Where its rules work elsewhere than it stands, a sentence each. */
  order: readonly string[];
  /** Forms that may take part in what it writes by itself, or be left out. */
  forms: readonly RuleShown[];
};
/** All sections, and rules that the glyphs’ names call for and no section has. */
export type FeaturesView = {
  sections: readonly SectionView[];
  offered: readonly { tag: string; title: string; count: number }[];
  /** Tags of automatic rules that there are, whether a section has them or not. */
  writable: readonly string[];
  /** Features of the font in order, those that the project makes by itself among them. */
  tags: readonly string[];
  /** Questions about the rules as a whole. */
  questions: readonly Question[];
};

/** The rules of a project as the stage shows them, judged in a master. */
export function featuresView(project: Project, master: MasterId): FeaturesView {
  const ground = projectGround(project, master);
  const { names } = ground;
  const rules = automaticRules(ground);
  const { sections, included, languageSystems } = project.features;
  const texts = allTexts(sections, rules);
  const on = texts.map((t, i) => (isOff(sections[i]!) ? { ...t, text: '' } : t));
  const codes = Object.values(project.glyphs).flatMap((g) => g.unicodes);
  const implied = impliedSystems(sections, on, ground);
  const systems = implied.length > 0 ? implied : systemsFor(codes, languageSystems);
  const compiled = compileSections(on, included, {
    glyphs: names,
    systems,
    place: { axes: project.axes, at: masterOf(project, master)?.place ?? {} },
  });
  const { faults, tags } = compiled;
  // Tables that a font brought say the rest.
  const questions = carriesSubstitutions(project) ? [] : questionsOf({ project, compiled, sections: on, names });
  const shown = shownSections(texts, names);
  const order = orderNotes(on);
  const has = new Set(shown.flatMap((s) => s.tags));
  const offered = rules.filter((r) => !has.has(r.tag) && !sections.some((s) => s.automatic === r.tag));
  return {
    sections: texts.map((t, i) => ({
      id: t.id,
      text: t.text,
      ...shown[i]!,
      faults: faults.filter((f) => f.source === i),
      questions: questions.filter((q) => q.section === t.id),
      order: order[i]!,
      forms: rules.find((r) => r.tag === sections[i]!.automatic && r.isChosen)?.shown ?? [],
    })),
    questions: questions.filter((q) => q.section === undefined),
    offered: offered.map((r) => ({ tag: r.tag, title: r.title, count: Math.max(1, r.shown.length) })),
    writable: rules.map((r) => r.tag),
    tags: [...tags].sort(),
  };
}
