import { useMemo, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { type BesideRow, mastersBeside, setInMasters } from '../../../core/project/mastersBeside';
import { defaultMaster, glyphForCodePoint } from '../../../core/project/queries';
import { drawnAt } from '../../../core/variation/glyphAt';
import { stemAndCounter } from '../../../core/variation/rows';
import { chooseMaster, run, say, useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
import { readNumber } from '../../ui/number';
import { Choice, EntryField } from '../../ui/parts';

const GROUPS: Readonly<Record<BesideRow['group'], string>> = {
  lines: 'Lines',
  overshoots: 'Overshoots',
  facts: 'Facts set outright; empty where the rule holds',
  counted: 'Counted and measured',
};

/** Letters whose stems are measured. */
const STEMS = ['n', 'o', 'H', 'O'];

const shown = (v: number | undefined): string => (v === undefined ? '' : shownNumber(Math.round(v * 100) / 100));

/** What masters have of their own, side by side: what differs is marked, a change goes to one or to all. */
export function MastersView() {
  const project = useBench((s) => s.settled)!;
  const current = useBench((s) => s.master);
  const [reach, setReach] = useState<'one' | 'all'>('one');
  const { masters } = project;
  const main = masters.indexOf(defaultMaster(project));
  const rows = useMemo(() => [...mastersBeside(project), ...stemRows(project)], [project]);
  const letter = glyphForCodePoint(project, 0x61) ?? glyphForCodePoint(project, 0x6e);
  const set = (row: BesideRow, id: string, text: string) => {
    const value = readNumber(text);
    if (value === undefined && text.trim() !== '') {
      say(`“${text.trim()}” is no number.`);
      return;
    }
    const named = reach === 'all' ? masters.map((m) => m.id) : [id];
    run((p) => setInMasters(p, { masters: named, key: row.key, ...(value !== undefined && { value }) }));
  };
  return (
    <div className="min-h-0 flex-1 overflow-auto px-5 pb-5">
      {masters.length > 1 && (
        <div className="mb-3 flex items-center gap-3">
          <span className="text-quiet">A change goes to</span>
          <Choice
            label="A change goes to"
            value={reach}
            options={[
              { value: 'one' as const, text: 'The one master' },
              { value: 'all' as const, text: 'All masters' },
            ]}
            onChange={setReach}
          />
          <p className="text-quiet">What differs from {masters[main]!.name} is marked.</p>
        </div>
      )}
      <table aria-label="Masters" className="border-separate border-spacing-x-2 border-spacing-y-1">
        <thead>
          <tr>
            <td />
            {masters.map((m) => (
              <th key={m.id} scope="col" className="w-24 font-normal">
                <button
                  type="button"
                  aria-pressed={m.id === current}
                  className={`grid w-full justify-items-center rounded-lg border px-1 py-1 ${m.id === current ? 'border-kelp bg-kelp-tint' : 'border-line bg-panel hover:bg-paper'}`}
                  onClick={() => chooseMaster(m.id)}
                >
                  {letter && <GlyphShape project={project} glyph={letter} master={m.id} size={34} />}
                  <span className="w-full truncate text-center text-[12.5px]">{m.name}</span>
                </button>
              </th>
            ))}
          </tr>
        </thead>
        {(Object.keys(GROUPS) as BesideRow['group'][]).map((group) => (
          <tbody key={group}>
            <tr>
              <th scope="rowgroup" colSpan={masters.length + 1} className="pt-3 text-left font-semibold">
                {GROUPS[group]}
              </th>
            </tr>
            {rows
              .filter((r) => r.group === group)
              .map((row) => (
                <tr key={row.key} data-testid="beside-row" data-alike={row.alike}>
                  <th scope="row" className="pr-3 text-left font-normal text-quiet">
                    {row.title}
                  </th>
                  {masters.map((m, i) => {
                    const value = row.values[i];
                    const differs = value !== row.values[main];
                    const can = group !== 'counted' && !(row.key.startsWith('own:') && value === undefined);
                    return (
                      <td key={m.id}>
                        {can ? (
                          <EntryField
                            aria-label={`${row.title}${group === 'overshoots' ? ' overshoot' : ''}, ${m.name}`}
                            value={shown(value)}
                            className={`text-right tabular-nums ${differs ? '!border-marigold' : ''}`}
                            onApply={(text) => text !== shown(value) && set(row, m.id, text)}
                          />
                        ) : (
                          <span className="block px-2 text-right tabular-nums">{shown(value)}</span>
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
          </tbody>
        ))}
      </table>
    </div>
  );
}

/** Stems of letters as they are drawn in each master. */
function stemRows(project: Parameters<typeof mastersBeside>[0]): BesideRow[] {
  return STEMS.flatMap((c): BesideRow[] => {
    const glyph = glyphForCodePoint(project, c.codePointAt(0)!);
    if (!glyph) return [];
    const values = project.masters.map((m) => {
      const letter = drawnAt(project, glyph.id, m.place);
      return letter && stemAndCounter(letter).stem;
    });
    if (values.every((v) => v === undefined)) return [];
    return [
      {
        key: `stem:${c}`,
        title: `stem of ${c}`,
        group: 'counted',
        values,
        alike: values.every((v) => v === values[0]),
      },
    ];
  });
}
