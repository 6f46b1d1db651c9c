import type { MasterId, Project } from '../project/model';
import { automaticRules } from './automatic';
import { allTexts, isOff, projectGround } from './ground';
import { shownSections } from './shown';

/** So many letters tell what a feature does. */
const MOST = 3;

/** Some glyphs that each feature of the rules brings, by its tag: what one sees of it in a list. */
export function featureLetters(project: Project, master: MasterId): ReadonlyMap<string, readonly string[]> {
  const ground = projectGround(project, master);
  const sections = project.features.sections.filter((s) => !isOff(s));
  const out = new Map<string, string[]>();
  for (const { rules } of shownSections(allTexts(sections, automaticRules(ground)), ground.names))
    for (const r of rules) {
      if (r.feature === '' || r.kind === 'alone' || r.kind === 'move') continue;
      const own = out.get(r.feature) ?? [];
      out.set(r.feature, own);
      // What stands on as it was tells nothing.
      for (const name of r.after.slice(0, MOST))
        if (own.length < MOST && !own.includes(name) && !r.before.includes(name)) own.push(name);
    }
  return out;
}
