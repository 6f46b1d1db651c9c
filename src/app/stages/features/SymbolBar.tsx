import { createContext, useContext, useMemo, useState } from 'react';
import { renameSymbol } from '../../../core/features/edits';
import { lineAndColumn } from '../../../core/features/sections';
import { isSame, type SymbolPlace, symbolsIn } from '../../../core/features/symbols';
import { plural } from '../../../core/project/edit';
import { run } from '../../state/bench';
import { Button } from '../../ui/parts';

/** A stretch of a section’s text that is gone to; counted, so that one place can be gone to twice. */
export type Place = { section: string; from: number; to: number; count: number };
type Notebook = {
  /** The texts of all sections, as they stand. */
  texts: readonly { id: string; title: string; text: string; writesItself: boolean }[];
  goTo: (section: string, from: number, to?: number) => void;
};
/** What the parts of the notebook know of each other. */
export const NotebookContext = createContext<Notebook>({ texts: [], goTo: () => {} });

/** The class or lookup that the cursor stands on: where it is defined, how often it is used, and a new name for it. */
export function SymbolBar({ symbol }: { symbol: SymbolPlace }) {
  const { texts, goTo } = useContext(NotebookContext);
  const [to, setTo] = useState<string>();
  const found = useMemo(
    () =>
      texts.flatMap((t) =>
        symbolsIn(t.text)
          .filter((s) => isSame(s, symbol))
          .map((s) => ({ ...t, place: s })),
      ),
    [texts, symbol],
  );
  const home = found.find((f) => f.place.defines);
  const uses = found.filter((f) => !f.place.defines).length;
  const ours = found.some((f) => !f.writesItself);
  const rename = () => {
    if (to === undefined || to.trim() === symbol.name) return setTo(undefined);
    if (run((p) => renameSymbol(p, { kind: symbol.kind, name: symbol.name, to: to.trim() }))) setTo(undefined);
  };
  return (
    <section
      aria-label={`The ${symbol.kind} ${symbol.name}`}
      className="flex flex-wrap items-center gap-2 border-t border-line px-2 py-1 text-[13px]"
    >
      <b>{symbol.name}</b>
      <span className="flex-1 text-quiet">
        {home
          ? `${symbol.kind} of ${home.title}, line ${lineAndColumn(home.text, home.place.from).line}`
          : `no ${symbol.kind} is defined by this name`}
        , {uses === 0 ? 'not used' : `used in ${plural(uses, 'place')}`}
      </span>
      {to === undefined ? (
        <>
          {home && !(home.place.from === symbol.from && home.place.to === symbol.to && symbol.defines) && (
            <Button onClick={() => goTo(home.id, home.place.from, home.place.to)}>Go to it</Button>
          )}
          {ours && <Button onClick={() => setTo(symbol.name)}>Rename…</Button>}
        </>
      ) : (
        <>
          <input
            aria-label={`New name of ${symbol.name}`}
            // biome-ignore lint/a11y/noAutofocus: the field was asked for by the press that shows it.
            autoFocus
            value={to}
            spellCheck={false}
            onChange={(e) => setTo(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') rename();
              if (e.key === 'Escape') setTo(undefined);
              if (e.key === 'Enter' || e.key === 'Escape') e.stopPropagation();
            }}
            className="h-7 w-44 rounded-md border border-edge bg-panel px-2"
          />
          <Button kind="primary" onClick={rename}>
            Rename in {plural(found.filter((f) => !f.writesItself).length, 'place')}
          </Button>
        </>
      )}
    </section>
  );
}
