import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Finding } from '../../../core/preflight/finding';
import { kindOf } from '../../../core/preflight/kinds';
import { setFamily } from '../../../core/project/edits';
import type { Family } from '../../../core/project/model';
import { run, useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';
import { EntryField } from '../../ui/parts';

/** Data that every font should carry, asked for where it would otherwise lack at the end. */
const ASKED: readonly {
  key: 'name' | 'vendor' | 'copyright' | 'licence';
  label: string;
  kind: string;
  most: number;
}[] = [
  { key: 'name', label: 'Family name', kind: 'names/family', most: 200 },
  { key: 'copyright', label: 'Copyright notice', kind: 'names/rights', most: 2000 },
  { key: 'licence', label: 'Licence', kind: 'names/rights', most: 4000 },
  { key: 'vendor', label: 'Vendor tag, four characters', kind: 'names/vendor', most: 4 },
];

type Row = { kind: string; title: string; count: number; first: Finding };

const rowsOf = (findings: readonly Finding[], severity: 'error' | 'attention'): Row[] => {
  const rows = new Map<string, Row>();
  for (const f of findings) {
    const facts = kindOf(f.kind);
    // What is not drawn stands over the table of what will be made already.
    if (facts?.severity !== severity || f.kind === 'characters/empty') continue;
    const row = rows.get(f.kind);
    if (row) row.count++;
    else rows.set(f.kind, { kind: f.kind, title: facts.title, count: 1, first: f });
  }
  return [...rows.values()];
};

/** What stands in the way of a good font, what its readers would meet, and what data it still lacks. */
export function Standing() {
  const { standing, whole, share } = usePreflight();
  const project = useBench((s) => s.settled)!;
  const { errors, others } = useMemo(
    () => ({ errors: rowsOf(standing, 'error'), others: rowsOf(standing, 'attention') }),
    [standing],
  );
  const lacks = ASKED.filter((a) => !project.family[a.key]?.trim());
  if (errors.length + others.length + lacks.length === 0) return null;
  return (
    <section aria-label="Before casting" className="mt-5 max-w-[760px]" data-testid="standing">
      <h3 className="mb-1 text-[15px] font-semibold">Before casting</h3>
      {!whole && share !== undefined && <p className="text-[13px] text-quiet">Still looking through the project…</p>}
      {errors.length > 0 && <Rows heading="Stands in the way" className="text-brick" sign="■" rows={errors} />}
      {others.length > 0 && (
        <Rows heading="Readers or programs would meet" className="text-marigold" sign="▲" rows={others} />
      )}
      {lacks.length > 0 && (
        <div className="mt-2 grid gap-1.5">
          <p>Fonts should say whose they are. Not filled in yet:</p>
          {lacks.map((a) => (
            <label key={a.key} className="grid grid-cols-[190px_minmax(0,1fr)] items-center gap-2 text-[13.5px]">
              {a.label}
              <EntryField
                value={project.family[a.key] ?? ''}
                maxLength={a.most}
                onApply={(text) => text && run((p) => setFamily(p, { [a.key]: text } as Partial<Family>))}
              />
            </label>
          ))}
        </div>
      )}
    </section>
  );
}

function Rows({
  heading,
  sign,
  className,
  rows,
}: {
  heading: string;
  sign: string;
  className: string;
  rows: readonly Row[];
}) {
  const project = useBench((s) => s.settled)!;
  const nameOf = (f: Finding) => (f.glyph ? `${project.glyphs[f.glyph]?.name ?? ''}: ` : '');
  return (
    <div className="mb-1.5">
      <p className="text-[13px] text-quiet">{heading}</p>
      <ul aria-label={heading}>
        {rows.map((r) => (
          <li key={r.kind} className="flex min-w-0 items-baseline gap-2">
            <span className={`text-[11px] ${className}`}>{sign}</span>
            <Link
              relative="path"
              to={`../preflight?kind=${encodeURIComponent(r.kind)}`}
              className="min-w-0 truncate underline decoration-edge underline-offset-2 hover:decoration-ink"
            >
              {r.count === 1 ? `${nameOf(r.first)}${r.first.reason}` : `${r.title}: ${r.count}`}
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
