import { useMemo, useState } from 'react';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
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
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(132px,1fr))] gap-1.5">
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
    </div>
  );
}

const names = (project: Project, ids: readonly GlyphId[]): string =>
  `${ids
    .slice(0, 12)
    .map((id) => project.glyphs[id]!.name)
    .join(' ')}${ids.length > 12 ? ' …' : ''}`;
