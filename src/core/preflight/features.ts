import { featuresView } from '../features/view';
import type { Project } from '../project/model';
import { defaultMaster, glyphNamed } from '../project/queries';
import { type Finding, finding, type KindFacts } from './finding';

export const FEATURE_KINDS: readonly KindFacts[] = [
  {
    kind: 'features/error',
    family: 'features',
    title: 'Rules that are not understood',
    severity: 'error',
    why: 'What is not understood is left out of the font, and what leans on it.',
  },
  {
    kind: 'features/warning',
    family: 'features',
    title: 'Rules that may not do what they say',
    severity: 'attention',
    why: 'The rules are in the font, but something in them has no effect or another than it seems.',
  },
  {
    kind: 'features/question',
    family: 'features',
    title: 'Questions to the rules',
    severity: 'note',
    why: 'Glyphs that no text reaches, ligatures in which no caret can stand, languages that lose features: mostly not meant.',
  },
  {
    kind: 'features/order',
    family: 'features',
    title: 'Rules that work elsewhere than they stand',
    severity: 'note',
    why: 'Lookups work in the order in which they are first written; a rule further down may come too early or too late.',
  },
  {
    kind: 'features/gone',
    family: 'features',
    title: 'Rules for what is gone',
    severity: 'attention',
    why: 'A list of the notebook names a glyph that is not in the project.',
  },
];

/** What is wrong with the rules, judged in the default master. */
export function featureFindings(project: Project): Finding[] {
  const view = featuresView(project, defaultMaster(project).id);
  const out: Finding[] = [];
  const asked = (q: (typeof view.questions)[number], section?: string) => {
    const ids = q.glyphs.flatMap((n) => glyphNamed(project, n)?.id ?? []);
    const systems = q.mend?.kind === 'systems' ? q.mend.systems : undefined;
    out.push(
      finding('features/question', q.reason, {
        ...(section && { section }),
        ...(ids.length > 0 && { others: ids }),
        bad: ids.length,
        mends: systems
          ? [{ edit: 'declareSystems', args: { systems }, title: systems.length === 1 ? 'Declare it' : 'Declare them' }]
          : [],
      }),
    );
  };
  for (const s of view.sections) {
    for (const f of s.faults)
      out.push(
        finding(f.severity === 'error' ? 'features/error' : 'features/warning', f.reason, {
          section: s.id,
          line: s.text.slice(0, f.from).split('\n').length,
        }),
      );
    for (const q of s.questions) asked(q, s.id);
    for (const sentence of s.order) out.push(finding('features/order', sentence, { section: s.id }));
  }
  for (const q of view.questions) asked(q);
  for (const [name, members] of Object.entries(project.features.classes)) {
    const gone = members.filter((m) => !glyphNamed(project, m));
    if (gone.length > 0)
      out.push(
        finding(
          'features/gone',
          `@${name.replace(/^@/, '')} names ${gone.slice(0, 5).join(', ')}${gone.length > 5 ? ` and ${gone.length - 5} more` : ''}, not in the project.`,
          { bad: gone.length },
        ),
      );
  }
  return out;
}
