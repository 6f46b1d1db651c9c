import { useVirtualizer } from '@tanstack/react-virtual';
import { type ComponentProps, type KeyboardEvent, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { codePointForms } from '../../../core/base/notation';
import { placeAnchors } from '../../../core/composing/edits';
import { plural } from '../../../core/project/edit';
import { addGlyphs, parseGlyphList } from '../../../core/project/glyphEdits';
import type { Glyph } from '../../../core/project/model';
import { drawingOf, glyphsInOrder, isBlank, isEmptyDrawing } from '../../../core/project/queries';
import { removalFault } from '../../../core/project/removal';
import { layHands } from '../../keys/hands';
import { chooseGlyph, run, say, useBench } from '../../state/bench';
import { askCase, setChosen, useCaseBench, useShown } from '../../state/chosen';
import { openDialog, useDialog } from '../../state/dialogs';
import { runFarAndSay } from '../../state/far';
import { QUESTIONS } from '../../state/questions';
import { Pick } from '../../ui/controls';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button, Choice, Section } from '../../ui/parts';
import { compartmentsOf, rowsOf } from './compartments';
import { GlyphFacts } from './GlyphFacts';
import { RemoveGlyphs } from './RemoveGlyphs';
import { RenameDialog } from './RenameDialog';

const PADDING = 20;

function useWidth() {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const box = ref.current;
    if (!box) return;
    const observer = new ResizeObserver(() => setWidth(box.clientWidth - 2 * PADDING));
    observer.observe(box);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
}

/** Headings and rows of cells, of which only those in sight are drawn. */
function useRows(answers: (glyph: Glyph) => boolean, width: number, box: RefObject<HTMLDivElement | null>) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const current = useBench((s) => s.glyph);
  const compartments = useMemo(() => compartmentsOf(project, master, answers), [project, master, answers]);
  const rows = useMemo(() => rowsOf(compartments, width), [compartments, width]);

  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => rows[i]!.height,
    overscan: 4,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: sizes change with the rows.
  useEffect(() => virtual.measure(), [rows]);

  // A glyph chosen elsewhere (galley, palette, keys) is brought into sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new choice moves the case.
  useEffect(() => {
    const index = rows.findIndex((r) => r.kind === 'cells' && r.glyphs.some((g) => g.id === current));
    if (index >= 0) virtual.scrollToIndex(index, { align: 'auto' });
  }, [current]);
  return { rows, virtual };
}

/** Asks before glyphs go; what cannot go is said at once. */
function askToRemove(ids: readonly string[]): void {
  const { settled } = useBench.getState();
  const fault = settled && removalFault(settled, ids);
  if (fault) say(fault);
  else if (ids.length > 0) openDialog('remove-glyphs');
}

/** All glyphs, laid out like a type case: by role, what a text needs most largest. */
export default function Case() {
  const navigate = useNavigate();
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const current = useBench((s) => s.glyph);
  const { questions, question, further, day, answers, all: asksNothing } = useShown();
  const chosen = useCaseBench((s) => s.chosen);
  /** Where a range of the choice begins. */
  const anchor = useRef<string>(undefined);
  const removing = useDialog('remove-glyphs');
  const { ref, width } = useWidth();

  const { rows, virtual } = useRows(answers, width, ref);

  const selected = [...(chosen.size > 0 ? chosen : current ? [current] : [])].filter((id) => project.glyphs[id]);
  const openGlyph = (id: string) => {
    chooseGlyph(id);
    void navigate(`../draw?glyph=${encodeURIComponent(project.glyphs[id]!.name)}`, { relative: 'path' });
  };
  const pick = (id: string, how: Picking) => {
    // Cells come and go with scrolling; the case itself keeps the keys.
    ref.current?.focus({ preventScroll: true });
    const before = chosen.size > 0 ? chosen : new Set(current ? [current] : []);
    if (how === 'range') {
      const all = rows.flatMap((r) => (r.kind === 'cells' ? r.glyphs.map((g) => g.id) : []));
      const [from, to] = [all.indexOf(anchor.current ?? current ?? id), all.indexOf(id)];
      if (from >= 0 && to >= 0) setChosen(new Set(all.slice(Math.min(from, to), Math.max(from, to) + 1)));
      anchor.current ??= current;
      chooseGlyph(id);
      return;
    }
    anchor.current = id;
    chooseGlyph(id);
    if (how === 'only') return setChosen(new Set([id]));
    const next = new Set(before);
    if (next.has(id)) next.delete(id);
    else next.add(id);
    setChosen(next);
  };
  const isChosen = (id: string) => chosen.has(id) || (chosen.size === 0 && id === current);
  const keys = (e: KeyboardEvent) => {
    if (e.key.startsWith('Arrow'))
      moveFocus(
        e,
        rows.flatMap((r) => (r.kind === 'cells' ? [r.glyphs] : [])),
        current,
        (id) => pick(id, e.shiftKey ? 'range' : 'only'),
      );
  };
  useEffect(() =>
    layHands('case', {
      open: () => {
        if (current) openGlyph(current);
        return current !== undefined;
      },
      remove: () => {
        askToRemove(selected);
        return selected.length > 0;
      },
      all: () => {
        setChosen(new Set(rows.flatMap((r) => (r.kind === 'cells' ? r.glyphs.map((g) => g.id) : []))));
        return true;
      },
    }),
  );

  const all = glyphsInOrder(project);
  const undrawn = all.filter((g) => !isBlank(g) && isEmptyDrawing(drawingOf(g, master))).length;
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-1">
          <Choice label="Show" value={question} options={QUESTIONS} onChange={(q) => askCase({ question: q })} />
          <Pick
            label="And of them"
            className="w-52"
            value={further}
            options={questions}
            onChange={(f) => askCase({ further: f })}
          />
          {further === 'changed:day' && (
            <input
              type="date"
              aria-label="Changed since"
              value={day}
              onChange={(e) => e.target.value && askCase({ day: e.target.value })}
              className="h-7.5 rounded-lg border border-edge bg-paper px-2 text-[13.5px]"
            />
          )}
          <span className="ml-auto text-quiet">
            {asksNothing ? '' : `${rows.reduce((n, r) => n + (r.kind === 'cells' ? r.glyphs.length : 0), 0)} shown · `}
            {all.length - undrawn} of {all.length} drawn
          </span>
        </div>
        {/* biome-ignore lint/a11y/noStaticElementInteractions: arrow keys move among the buttons inside. */}
        <div
          ref={ref}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the case keeps the keys while cells come and go.
          tabIndex={0}
          className="min-h-0 flex-1 overflow-y-auto outline-none"
          data-testid="case"
          onKeyDown={keys}
        >
          {rows.length === 0 && (
            <p className="p-6 text-quiet">
              {question === 'undrawn' ? 'Everything is drawn.' : 'Nothing answers to that.'}
            </p>
          )}
          <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
            {virtual.getVirtualItems().map((item) => {
              const row = rows[item.index]!;
              return (
                <div
                  key={item.key}
                  style={{ position: 'absolute', top: item.start, left: PADDING, right: PADDING, height: row.height }}
                >
                  {row.kind === 'heading' ? (
                    <h3 className="flex h-full items-end gap-2 pb-1 font-semibold">
                      {row.title} <span className="font-normal text-quiet">{row.count}</span>
                    </h3>
                  ) : (
                    <div className="flex">
                      {row.glyphs.map((g) => (
                        <Cell key={g.id} glyph={g} row={row} chosen={isChosen(g.id)} onPick={pick} onOpen={openGlyph} />
                      ))}
                    </div>
                  )}
                </div>
              );
            })}
          </div>
        </div>
      </div>
      <CaseDetails
        selected={selected}
        openGlyph={openGlyph}
        remove={() => askToRemove(selected)}
        chooseAll={(ids) => {
          // What was just added is shown, whatever was asked before.
          askCase({ question: 'all', further: 'any' });
          if (ids[0]) chooseGlyph(ids[0]);
          setChosen(new Set(ids));
        }}
      />
      <RenameDialog chosen={selected} />
      <RemoveGlyphs ids={selected} open={removing} onRemoved={() => setChosen(new Set())} />
    </div>
  );
}

/** What a press does to the choice: only this glyph, this one too (or no longer), all from the last one to this. */
type Picking = 'only' | 'also' | 'range';

/** One glyph in its compartment: the letter, and its name under it. */
function Cell({
  glyph: g,
  row,
  chosen,
  onPick,
  onOpen,
}: {
  glyph: Glyph;
  row: { cell: number; reach: ComponentProps<typeof GlyphShape>['reach'] };
  chosen: boolean;
  onPick: (id: string, how: Picking) => void;
  onOpen: (id: string) => void;
}) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  return (
    <button
      type="button"
      data-glyph={g.name}
      title={g.name}
      aria-label={`${g.name}${isEmptyDrawing(drawingOf(g, master)) && !isBlank(g) ? ', not drawn yet' : ''}`}
      aria-pressed={chosen}
      onClick={(e) => onPick(g.id, e.shiftKey ? 'range' : e.metaKey || e.ctrlKey ? 'also' : 'only')}
      onDoubleClick={() => onOpen(g.id)}
      onKeyDown={(e) => e.key === 'Enter' && onOpen(g.id)}
      className={`-mr-px -mb-px flex flex-col items-center border ${chosen ? 'z-10 border-kelp bg-kelp-tint' : 'border-line bg-panel hover:bg-paper'}`}
      style={{ width: row.cell, height: row.cell + 19 }}
    >
      <GlyphShape project={project} glyph={g} master={master} size={row.cell - 8} reach={row.reach} />
      <span className="w-full truncate px-1 text-center text-[11px] leading-4 text-quiet">{g.name}</span>
    </button>
  );
}

/** Arrow keys walk the cells; up and down keep the column. */
function moveFocus(e: KeyboardEvent, lines: Glyph[][], current: string | undefined, pick: (id: string) => void): void {
  const row = lines.findIndex((l) => l.some((g) => g.id === current));
  if (row < 0) return;
  e.preventDefault();
  const column = lines[row]!.findIndex((g) => g.id === current);
  const flat = lines.flat();
  const at = flat.findIndex((g) => g.id === current);
  const up = lines[row + (e.key === 'ArrowUp' ? -1 : 1)];
  const target =
    e.key === 'ArrowLeft'
      ? flat[at - 1]
      : e.key === 'ArrowRight'
        ? flat[at + 1]
        : up?.[Math.min(column, up.length - 1)];
  if (!target) return;
  pick(target.id);
}

function CaseDetails({
  selected,
  openGlyph,
  remove,
  chooseAll,
}: {
  selected: string[];
  openGlyph: (id: string) => void;
  remove: () => void;
  chooseAll: (ids: string[]) => void;
}) {
  const project = useBench((s) => s.project)!;
  const [list, setList] = useState('');
  const [words, setWords] = useState<'names' | 'letters'>();
  const parsed = useMemo(() => parseGlyphList(list, words), [list, words]);
  const only = selected.length === 1 ? project.glyphs[selected[0]!] : undefined;
  const add = () => {
    const before = new Set(project.glyphOrder);
    if (!run((p) => addGlyphs(p, { requests: parsed.requests }))) return;
    setList('');
    setWords(undefined);
    chooseAll(useBench.getState().project!.glyphOrder.filter((id) => !before.has(id)));
  };
  return (
    <Details
      heading={only ? only.name : selected.length === 0 ? 'No glyph selected' : plural(selected.length, 'glyph')}
      sub={
        only
          ? codePointForms(only.unicodes)
          : selected.length === 0
            ? 'Click one; double click opens it in Draw'
            : 'Shift takes all between, Ctrl one more'
      }
    >
      {only && <GlyphFacts key={only.id} glyph={only} />}
      {selected.length > 0 && (
        <div className="mb-4 flex flex-wrap gap-2">
          {only && (
            <Button kind="primary" className="flex-1" onClick={() => openGlyph(only.id)}>
              Draw it
            </Button>
          )}
          {only && (
            <Button title="A copy with all masters, beside it" onClick={() => openDialog('duplicate')}>
              Copy…
            </Button>
          )}
          <Button title="Stroke, grow, hollow or frame them, or copies of them" onClick={() => openDialog('edges')}>
            Edges…
          </Button>
          <Button title="New stems for them, or for all of this master" onClick={() => openDialog('reweight')}>
            Reweight…
          </Button>
          {!only && (
            <Button
              title="Finds a piece of their names and puts another in its place"
              onClick={() => openDialog('rename')}
            >
              Names…
            </Button>
          )}
          {!only && (
            <Button
              title="Those that letters and marks lack, by their shapes, in all masters; those that are there stay"
              onClick={() => {
                void runFarAndSay(placeAnchors, { glyphs: selected }, { glyphs: selected.length });
              }}
            >
              Anchors
            </Button>
          )}
          <Button kind="danger" onClick={remove}>
            Remove
          </Button>
        </div>
      )}
      <Section title="Add glyphs">
        <textarea
          aria-label="Glyphs to add"
          value={list}
          rows={3}
          spellCheck={false}
          onChange={(e) => {
            setList(e.target.value);
            setWords(undefined);
          }}
          placeholder="ąęł  U+0100–U+017F  a.ss01"
          className="mb-1.5 w-full resize-y rounded-lg border border-edge bg-paper px-2 py-1.5 placeholder:text-quiet"
        />
        <p className="mb-2 text-[12.5px] text-quiet">
          {parsed.faults[0] ??
            (parsed.requests.length > 0
              ? `${parsed.requests.length}: ${parsed.requests
                  .slice(0, 6)
                  .map((r) => r.name)
                  .join(', ')}${parsed.requests.length > 6 ? '…' : ''}`
              : 'Characters, code points, ranges or names, any number.')}
        </p>
        {parsed.unclear.length > 0 && (
          <div role="alert" className="mb-2 rounded-lg bg-marigold-tint p-2 text-[13px]">
            <p className="mb-1.5">
              {parsed.unclear.slice(0, 5).join(', ')}
              {parsed.unclear.length > 5 ? '…' : ''}:{' '}
              {parsed.unclear.length === 1 ? 'a glyph of this name' : 'glyphs of these names'}, or the letters of the
              word?
            </p>
            <div className="flex gap-1.5">
              <Button onClick={() => setWords('names')}>{parsed.unclear.length === 1 ? 'A name' : 'Names'}</Button>
              <Button onClick={() => setWords('letters')}>Letters</Button>
            </div>
          </div>
        )}
        <Button
          className="w-full"
          disabled={parsed.requests.length === 0 || parsed.faults.length > 0 || parsed.unclear.length > 0}
          onClick={add}
        >
          Add
        </Button>
        <Button
          className="mt-2 w-full"
          title="Letters from a scanned sheet or a photograph, each to its glyph"
          onClick={() => openDialog('sheet')}
        >
          Get a sheet…
        </Button>
      </Section>
    </Details>
  );
}
