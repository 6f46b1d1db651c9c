import { useMemo } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { plural } from '../../../core/project/edit';
import { kerningOf } from '../../../core/project/kerningLookup';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
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
  const leadOf = (members: readonly string[]) => project.glyphs[members.find((m) => project.glyphs[m])!]!;
  if (rows.length === 0 || columns.length === 0)
    return <p className="p-6 text-quiet">There are no groups yet. Make one of a glyph in the details of a pair.</p>;
  return (
    <div className="min-h-0 flex-1 overflow-auto px-5 pb-3">
      <table
        aria-label="Kerning of groups with groups"
        className="w-full table-fixed border-separate border-spacing-px text-[11px]"
      >
        <thead>
          <tr>
            <th className="sticky left-0 w-20 bg-paper" aria-label="First" />
            {columns.map((c) => (
              <th key={c.id} scope="col" className="h-16 min-w-6 align-bottom font-normal text-quiet">
                <span
                  title={`${c.name} group, ${plural(c.members.length, 'glyph')}`}
                  className="mx-auto flex flex-col items-center text-ink"
                >
                  <GlyphShape project={project} glyph={leadOf(c.members)} master={masterId} size={26} />
                  <span className="block w-full truncate text-center text-[10.5px] text-quiet">{c.name}</span>
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={r.id}>
              <th scope="row" className="sticky left-0 max-w-24 bg-paper pr-2 text-right font-normal text-quiet">
                <span
                  title={`${r.name} group, ${plural(r.members.length, 'glyph')}`}
                  className="flex items-center justify-end gap-1"
                >
                  <span className="min-w-0 truncate text-[10.5px]">{r.name}</span>
                  <span className="text-ink">
                    <GlyphShape project={project} glyph={leadOf(r.members)} master={masterId} size={20} />
                  </span>
                </span>
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
