import { X } from 'lucide-react';
import { addTo } from '../../../core/base/grouping';
import { composed } from '../../../core/composing/compose';
import { coverageOf, peopleOf } from '../../../core/coverage/coverage';
import { drawnCodes } from '../../../core/coverage/drawn';
import type { Language } from '../../../core/coverage/languages';
import { plural } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { IconButton } from '../../ui/parts';

/** What a build came to: how many were built and kept, why others were not, languages that can be written since. */
export type Built = {
  built: number;
  made: number;
  kept: number;
  reasons: readonly { why: string; letters: string }[];
  languages: readonly Language[];
};

/** What building some characters and glyphs in a project comes to, told against the languages known. */
export function builtReport(
  before: Project,
  wanted: readonly (number | string)[],
  languages: readonly Language[],
): Built {
  const { project: after, built, made, kept, notPossible } = composed(before, wanted);
  const [had, have] = [drawnCodes(before), drawnCodes(after)];
  const complete = (codes: ReadonlySet<number>) =>
    new Set(
      coverageOf(languages, (c) => codes.has(c)).flatMap((c) => (c.missing.length === 0 ? [c.language.code] : [])),
    );
  const was = complete(had);
  const is = complete(have);
  const reasons = new Map<string, string[]>();
  for (const { code, name, why } of notPossible)
    addTo(reasons, why, code === undefined ? name : String.fromCodePoint(code));
  return {
    built: built.length,
    made: made.length,
    kept: kept.length,
    reasons: [...reasons].map(([why, letters]) => ({ why, letters: letters.join(' ') })),
    languages: languages.filter((l) => is.has(l.code) && !was.has(l.code)).sort((a, b) => b.readers - a.readers),
  };
}

/** The report after a build, until it is closed. */
export function BuildReport({ report, onClose }: { report: Built; onClose: () => void }) {
  const { built, made, kept, reasons, languages } = report;
  const readers = languages.reduce((sum, l) => sum + l.readers, 0);
  return (
    <section
      aria-label="What the build came to"
      className="relative mx-5 mb-2.5 rounded-lg border border-kelp bg-panel px-3 py-2 pr-10"
    >
      <p>
        <b>{plural(built, 'letter')} built</b>
        {made > 0 && `, ${plural(made, 'mark or dotless letter', 'marks and dotless letters')} made on the way`}
        {kept > 0 && `; ${kept} kept as drawn`}.
        {languages.length > 0 &&
          ` Written since: ${languages
            .slice(0, 8)
            .map((l) => l.name)
            .join(
              ', ',
            )}${languages.length > 8 ? ` and ${languages.length - 8} more` : ''}${readers > 0 ? ` (${peopleOf(readers)} readers)` : ''}.`}
      </p>
      {reasons.length > 0 && (
        <ul aria-label="Why some were not built" className="mt-1 max-h-24 overflow-y-auto text-[13px] text-quiet">
          {reasons.map((r) => (
            <li key={r.why}>
              {r.letters}: {r.why}
            </li>
          ))}
        </ul>
      )}
      <span className="absolute top-1.5 right-1.5">
        <IconButton label="Close the report" onClick={onClose}>
          <X size={15} />
        </IconButton>
      </span>
    </section>
  );
}
