import { useMemo, useState } from 'react';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import type { ValueChange } from '../../../core/scripting/otherValues';
import { GlyphShape } from '../../ui/GlyphShape';
import { reachOf } from '../../ui/reach';
import { valuesChanged } from './values';

const AT_ONCE = 120;

/** Glyphs before and after, each with a tick, and what else would change. */
export function Changes({
  before,
  after,
  master,
  changed,
  added,
  removed,
  others,
  values,
  left,
  rest,
  onLeave,
  onRest,
}: {
  before: Project;
  after: Project;
  master: MasterId;
  changed: readonly GlyphId[];
  added: readonly GlyphId[];
  removed: readonly GlyphId[];
  others: readonly string[];
  values: readonly ValueChange[];
  left: ReadonlySet<GlyphId>;
  rest: boolean;
  onLeave: (id: GlyphId) => void;
  onRest: (taken: boolean) => void;
}) {
  const [count, setCount] = useState(AT_ONCE);
  const shown = changed.slice(0, count);
  const reach = useMemo(
    () =>
      reachOf(
        before,
        master,
        shown.map((id) => before.glyphs[id]!),
      ),
    [before, master, shown],
  );
  const more = [
    ...(added.length > 0 ? [`${added.length} new: ${names(after, added)}`] : []),
    ...(removed.length > 0 ? [`${removed.length} removed: ${names(before, removed)}`] : []),
    ...others,
  ];
  return (
    <div data-testid="script-changes">
      <ul aria-label="Glyphs that change" className="grid grid-cols-[repeat(auto-fill,minmax(132px,1fr))] gap-1.5">
        {shown.map((id) => {
          const [was, is] = [before.glyphs[id]!, after.glyphs[id]!];
          const taken = !left.has(id);
          return (
            <li key={id}>
              <label
                className={`flex flex-col items-center rounded-lg border px-1 pt-1 pb-0.5 ${taken ? 'border-kelp bg-panel' : 'border-line opacity-55'}`}
              >
                <span className="flex items-center gap-1">
                  <span className="text-quiet">
                    <GlyphShape project={before} glyph={was} master={master} size={50} reach={reach} />
                  </span>
                  <span aria-hidden className="text-quiet">
                    →
                  </span>
                  <GlyphShape project={after} glyph={is} master={master} size={50} reach={reach} />
                </span>
                <span className="flex max-w-full items-center gap-1.5 text-[12px] text-quiet">
                  <input
                    type="checkbox"
                    checked={taken}
                    onChange={() => onLeave(id)}
                    aria-label={`Take ${is.name}`}
                    className="accent-(--color-kelp)"
                  />
                  <span className="truncate">{is.name}</span>
                </span>
                <span className="w-full text-center text-[11.5px] text-quiet tabular-nums">
                  {valuesChanged(before, after, id, master).join(', ')}
                </span>
              </label>
            </li>
          );
        })}
      </ul>
      {changed.length > shown.length && (
        <button type="button" className="mt-1.5 text-kelp" onClick={() => setCount(count + AT_ONCE)}>
          {changed.length - shown.length} glyphs more
        </button>
      )}
      {more.length > 0 && (
        <label className="mt-2 flex items-start gap-2">
          <input
            type="checkbox"
            checked={rest}
            onChange={(e) => onRest(e.target.checked)}
            className="mt-1 accent-(--color-kelp)"
          />
          <span>
            {changed.length > 0 ? 'And ' : ''}
            {more.join('; ')}
          </span>
        </label>
      )}
      {added.length > 0 && (
        <div className="mt-1.5 flex flex-wrap items-end gap-1" data-testid="script-added">
          {added.slice(0, AT_ONCE).map((id) => (
            <span key={id} title={after.glyphs[id]!.name} className="rounded-md border border-line">
              <GlyphShape project={after} glyph={after.glyphs[id]!} master={master} size={44} />
            </span>
          ))}
          {added.length > AT_ONCE && <span className="text-quiet">and {added.length - AT_ONCE} more.</span>}
        </div>
      )}
      {values.length > 0 && <Values values={values} />}
    </div>
  );
}

/** What changes beside glyphs, each value before and after. */
function Values({ values }: { values: readonly ValueChange[] }) {
  const [count, setCount] = useState(AT_ONCE);
  return (
    <div className="mt-2 max-w-full overflow-x-auto" data-testid="script-values">
      <table aria-label="Values that change" className="border-collapse text-[12.5px] tabular-nums">
        <thead>
          <tr className="text-left text-quiet">
            <th className="py-0.5 pr-4 font-normal">what</th>
            <th className="py-0.5 pr-4 font-normal">before</th>
            <th className="py-0.5 font-normal">after</th>
          </tr>
        </thead>
        <tbody>
          {values.slice(0, count).map(({ what, before, after }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two masters may have one name; rows stay where they are.
            <tr key={i} className="border-t border-line align-top">
              <td className="min-w-[170px] py-0.5 pr-4">{what}</td>
              <td className="py-0.5 pr-4 break-words text-quiet">{before}</td>
              <td className="py-0.5 break-words">{after}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {values.length > count && (
        <button type="button" className="mt-1 text-kelp" onClick={() => setCount(count + AT_ONCE)}>
          {values.length - count} values more
        </button>
      )}
    </div>
  );
}

const names = (project: Project, ids: readonly GlyphId[]): string =>
  `${ids
    .slice(0, 12)
    .map((id) => project.glyphs[id]!.name)
    .join(' ')}${ids.length > 12 ? ' …' : ''}`;
