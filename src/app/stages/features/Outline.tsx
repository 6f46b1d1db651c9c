import { type RefObject, useContext, useDeferredValue, useMemo, useState } from 'react';
import { counted } from '../../../core/base/notation';
import { findIn } from '../../../core/features/find';
import type { FeaturesView } from '../../../core/features/view';
import { plural } from '../../../core/project/edit';
import { useBench } from '../../state/bench';
import { NotebookContext } from './SymbolBar';

/** The sections by name, to jump by; and a search in all of their texts. */
export function Outline({
  view,
  list,
  field,
}: {
  view: FeaturesView | undefined;
  /** What is scrolled. */
  list: RefObject<HTMLDivElement | null>;
  /** The field that a key leads to. */
  field: RefObject<HTMLInputElement | null>;
}) {
  const sections = useBench((s) => s.settled!.features.sections);
  const [wanted, setWanted] = useState('');
  return (
    <nav
      aria-label="Sections"
      className="flex w-48 shrink-0 flex-col overflow-y-auto border-r border-line px-2 py-3 max-[1100px]:w-36"
    >
      <input
        ref={field}
        type="search"
        aria-label="Find in all rules"
        placeholder="Find in all rules"
        value={wanted}
        spellCheck={false}
        onChange={(e) => setWanted(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Escape' || wanted === '') return;
          e.stopPropagation();
          setWanted('');
        }}
        className="mb-2 h-7.5 w-full shrink-0 [&::-webkit-search-cancel-button]:hidden rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
      />
      {wanted === '' ? (
        <ol aria-label="Sections">
          {sections.map((s, i) => (
            <li key={s.id}>
              <a
                href={`#section-${s.id}`}
                onClick={(e) => {
                  e.preventDefault();
                  const to = document.getElementById(`section-${s.id}`);
                  const box = list.current;
                  if (!to || !box) return;
                  box.scrollTop += to.getBoundingClientRect().top - box.getBoundingClientRect().top - 10;
                }}
                className="flex items-baseline gap-1.5 rounded-md px-2 py-1 text-[13px] hover:bg-kelp-tint"
              >
                <span className="min-w-0 flex-1 truncate">{s.title || s.automatic || `Section ${i + 1}`}</span>
                {(view?.sections[i]?.faults.length ?? 0) > 0 && <span className="text-brick">▲</span>}
                <span className="text-[12px] text-quiet">{view?.sections[i]?.tags.slice(0, 1).join('')}</span>
              </a>
            </li>
          ))}
        </ol>
      ) : (
        <Found wanted={wanted} />
      )}
    </nav>
  );
}

/** Where something stands in all sections; a press goes there. */
function Found({ wanted }: { wanted: string }) {
  const { texts, goTo } = useContext(NotebookContext);
  const asked = useDeferredValue(wanted);
  const [parts, setParts] = useState(false);
  const { places, count, whole } = useMemo(() => findIn(texts, asked, parts), [texts, asked, parts]);
  const titles = new Map(texts.map((t) => [t.id, t.title]));
  return (
    <div className="text-[12.5px]">
      <p role="status" className="mb-1 px-2 text-quiet">
        {count === 0 ? 'Nowhere in the rules.' : plural(count, whole ? 'whole name' : 'place')}
        {whole && (
          <>
            {' · '}
            <button type="button" className="text-kelp underline" onClick={() => setParts(true)}>
              in names too
            </button>
          </>
        )}
      </p>
      <ol aria-label="Places found">
        {places.map((p, i) => (
          <li key={`${p.id} ${p.from}`}>
            {p.id !== places[i - 1]?.id && (
              <p className="mt-1 truncate px-2 text-[13px] font-semibold">{titles.get(p.id)}</p>
            )}
            <button
              type="button"
              className="w-full rounded-md px-2 py-0.5 text-left break-words hover:bg-kelp-tint"
              onClick={() => goTo(p.id, p.from, p.to)}
            >
              <span className="text-quiet">{p.line}: </span>
              {p.before}
              <b className="text-kelp">{p.found}</b>
              {p.after}
            </button>
          </li>
        ))}
      </ol>
      {places.length < count && <p className="px-2 text-quiet">and {counted(count - places.length)} more</p>}
    </div>
  );
}
