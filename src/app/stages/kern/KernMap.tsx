import { useMemo } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { kerningOf } from '../../../core/project/kerningLookup';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { choosePair, setMode } from './kernBench';

/** Groups by groups: how tight or open each pair of them is set. A cell opens its pair. */
export function KernMap() {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { rows, columns, values, most } = useMemo(() => {
    const master = masterOf(project, masterId)!;
    const of = (side: 'first' | 'second') =>
      project.groups.filter((g) => g.side === side && g.members.some((m) => project.glyphs[m]));
    const [rows, columns] = [of('first'), of('second')];
    const lead = (members: readonly string[]) => members.find((m) => project.glyphs[m])!;
    const values = rows.map((r) =>
      columns.map((c) => kerningOf(project, master, lead(r.members), lead(c.members))?.value ?? 0),
    );
    return { rows, columns, values, most: Math.max(1, ...values.flat().map(Math.abs)) };
  }, [project, masterId]);
  if (rows.length === 0 || columns.length === 0)
    return <p className="p-6 text-quiet">There are no groups yet. Make one of a glyph in the details of a pair.</p>;
  return (
    <div className="min-h-0 flex-1 overflow-auto px-5 pb-3">
      <table className="w-full table-fixed border-separate border-spacing-px text-[11px]">
        <thead>
          <tr>
            <th className="sticky left-0 w-20 bg-paper" aria-label="First" />
            {columns.map((c) => (
              <th key={c.id} scope="col" className="h-16 min-w-6 align-bottom font-normal text-quiet">
                <span className="mx-auto block max-h-16 rotate-180 truncate [writing-mode:vertical-rl]">{c.name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={r.id}>
              <th
                scope="row"
                className="sticky left-0 max-w-24 truncate bg-paper pr-2 text-right font-normal text-quiet"
              >
                {r.name}
              </th>
              {columns.map((c, k) => {
                const v = values[i]![k]!;
                return (
                  <td key={c.id} className="p-0">
                    <button
                      type="button"
                      title={`${r.name} · ${c.name}: ${v}`}
                      aria-label={`${r.name} with ${c.name}, ${v}`}
                      className={`relative block h-5 w-full overflow-hidden rounded-[3px] bg-panel text-center ${Math.abs(v) > most * 0.55 ? 'text-on-kelp' : 'text-ink'}`}
                      onClick={() => {
                        choosePair({
                          first: r.members.find((m) => project.glyphs[m])!,
                          second: c.members.find((m) => project.glyphs[m])!,
                        });
                        setMode('pairs');
                      }}
                    >
                      {v !== 0 && (
                        <span
                          className={`absolute inset-0 ${v < 0 ? 'bg-kelp' : 'bg-marigold'}`}
                          style={{ opacity: 0.2 + (0.8 * Math.abs(v)) / most }}
                        />
                      )}
                      {v !== 0 && <span className="relative">{shownNumber(v)}</span>}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-quiet">
        Green is tighter, amber is wider; the darker the more. Rows are first, columns second.
      </p>
    </div>
  );
}
