import { TriangleAlert } from 'lucide-react';
import type { FontFacts } from '../../core/fontnames/facts';
import type { NamedFile } from '../../workers/names';

/** What each file says of itself now, a column for each thing that is said. */
const COLUMNS: readonly { title: string; of: (f: FontFacts) => string | number | undefined; number?: true }[] = [
  { title: 'Family', of: (f) => f.linkedFamily },
  { title: 'Subfamily', of: (f) => f.linkedStyle },
  { title: 'Full name', of: (f) => f.fullName },
  { title: 'PostScript', of: (f) => f.postScriptName },
  {
    title: 'Typographic',
    of: (f) => [f.typographicFamily, f.typographicStyle].filter(Boolean).join(' · ') || undefined,
  },
  { title: 'Weight', of: (f) => f.weightClass, number: true },
  { title: 'Width', of: (f) => f.widthClass, number: true },
  {
    title: 'Slope',
    of: (f) => (f.slope === 0 ? 'upright' : `${Math.abs(f.slope)}° ${f.slope < 0 ? 'right' : 'left'}`),
  },
  { title: 'Version', of: (f) => f.version },
];

/** All files at a glance as they are, those that contradict themselves or each other marked. */
export function NamesTable({ files }: { files: readonly NamedFile[] }) {
  return (
    <div className="mb-6 overflow-x-auto rounded-xl border border-line bg-panel">
      <table className="w-full text-[13px]" data-testid="names-table">
        <caption className="sr-only">What the files say they are now</caption>
        <thead>
          <tr className="border-b border-line text-left text-quiet">
            <th className="px-3 py-2 font-normal">As they are now</th>
            {COLUMNS.map((c) => (
              <th key={c.title} className={`px-3 py-2 font-normal ${c.number ? 'text-right' : ''}`}>
                {c.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {files.map(({ name, facts, contradictions }) => (
            <tr key={name}>
              <th scope="row" className="max-w-[190px] truncate px-3 py-1.5 text-left font-semibold" title={name}>
                {contradictions.length > 0 && (
                  <TriangleAlert
                    size={13}
                    aria-label={`${contradictions.length} contradictions`}
                    className="mr-1 inline -translate-y-px text-marigold"
                  />
                )}
                {name}
              </th>
              {COLUMNS.map((c) => {
                const value = c.of(facts);
                return (
                  <td
                    key={c.title}
                    title={String(value ?? '')}
                    className={`max-w-[150px] truncate px-3 py-1.5 ${c.number ? 'text-right tabular-nums' : ''} ${value === undefined ? 'text-quiet' : ''}`}
                  >
                    {value ?? '–'}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
