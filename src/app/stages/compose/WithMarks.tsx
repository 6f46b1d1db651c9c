import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { takeApart } from '../../../core/composing/apart';
import { composeGlyphs, rebuildGlyphs } from '../../../core/composing/edits';
import { recipeOf } from '../../../core/composing/recipes';
import type { Groundwork } from '../../../core/composing/steps';
import { type ComposedCell, type ComposedState, recipeCodes } from '../../../core/composing/view';
import { needsOf } from '../../../core/coverage/coverage';
import { readList } from '../../../core/coverage/lists';
import type { Project } from '../../../core/project/model';
import { glyphForCodePoint, glyphNamed } from '../../../core/project/queries';
import { layHands } from '../../keys/hands';
import { chooseGlyph, say, useBench } from '../../state/bench';
import { runFar } from '../../state/far';
import { useLanguages } from '../../state/languages';
import { useJob } from '../../state/useJob';
import { Pick } from '../../ui/controls';
import { Button, Choice } from '../../ui/parts';
import { BuildReport, type Built, builtReport } from './BuildReport';
import { STATES } from './Cell';
import { ComposeDetails } from './ComposeDetails';
import { GridView, type Picking } from './GridView';
import { byBase, flat, keyOf, table } from './grid';
import { Steps } from './Steps';

const SCRIPTS = ['Latin', 'Greek', 'Cyrillic'] as const;
const ORDER: readonly ComposedState[] = ['can', 'built', 'hand', 'not'];
const LAYOUTS = [
  { value: 'rows', text: 'By base' },
  { value: 'table', text: 'Bases by marks' },
] as const;

/** What can be asked for: languages aimed at, lists of one’s own, whole scripts. */
function scopesOf(project: Project): { value: string; text: string }[] {
  return [
    { value: 'aimed', text: 'languages aimed at' },
    ...(project.settings.lists ?? []).map((l) => ({ value: `list:${l.name}`, text: `the list ${l.name}` })),
    ...SCRIPTS.map((s) => ({ value: s, text: `all of ${s}` })),
  ];
}

/** The letters asked for, by code point. */
function useWanted(scope: string): readonly number[] | undefined {
  const aimed = useBench((s) => s.settled!.settings.languages);
  const lists = useBench((s) => s.settled!.settings.lists);
  const { data } = useLanguages();
  return useMemo(() => {
    const script = SCRIPTS.find((s) => s === scope);
    if (script) return recipeCodes(script);
    if (scope.startsWith('list:'))
      return readList(lists?.find((l) => l.name === scope.slice(5))?.text ?? '').codes.filter((c) => recipeOf(c));
    if (!data) return undefined;
    const codes = new Set(data.all.filter((l) => aimed?.includes(l.code)).flatMap((l) => needsOf(l).letters));
    return [...codes].filter((c) => recipeOf(c));
  }, [scope, data, aimed, lists]);
}

/** How the letters asked for stand, and their groundwork; what was found for the project before stays in sight meanwhile. */
function useView(wanted: readonly number[] | undefined) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const { found, share, fault, start } = useJob<{ cells: ComposedCell[]; ground: Groundwork }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => {
    if (wanted) start((service) => service.composedView(wanted, master));
  }, [project, master, wanted]);
  const held = useRef<{ cells: ComposedCell[]; ground: Groundwork }>(undefined);
  if (found) held.current = found;
  return { view: held.current, isLooking: share !== undefined, fault };
}

/** The glyphs that cells stand for, where they are there. */
const idsOf = (project: Project, cells: readonly ComposedCell[]): string[] =>
  cells.flatMap((c) => (c.code >= 0 ? glyphForCodePoint(project, c.code) : glyphNamed(project, c.name))?.id ?? []);

/** Tells what was done, where something was. */
function done(did: boolean): boolean {
  if (did) say(useBench.getState().history.done.at(-1)?.sentence ?? '');
  // The button that was pressed may be gone: the letters take the keys.
  document.querySelector<HTMLElement>('[data-testid="letters"]')?.focus({ preventScroll: true });
  return did;
}

/** Letters put together from bases and marks: the work in its order, and how each letter stands. */
export function WithMarks({ views }: { views: ReactNode }) {
  const project = useBench((s) => s.settled)!;
  const navigate = useNavigate();
  const aimed = project.settings.languages?.length ?? 0;
  const scopes = scopesOf(project);
  const [asked, setScope] = useState<string>();
  const scope = scopes.some((s) => s.value === asked) ? asked! : aimed > 0 ? 'aimed' : 'Latin';
  const [only, setOnly] = useState<ComposedState>();
  const [layout, setLayout] = useState<'rows' | 'table'>('rows');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [current, setCurrent] = useState<string>();
  /** Where a range of the choice begins. */
  const anchor = useRef<string>(undefined);
  const wanted = useWanted(scope);
  const { view, isLooking, fault } = useView(wanted);
  const cells = view?.cells;
  const shown = useMemo(() => cells?.filter((c) => !only || c.state === only) ?? [], [cells, only]);
  const grid = useMemo(() => (layout === 'table' ? table(shown) : byBase(shown)), [layout, shown]);
  const count = (state: ComposedState) => cells?.filter((c) => c.state === state).length ?? 0;
  const can = cells?.filter((c) => c.state === 'can') ?? [];
  const picked = shown.filter((c) => chosen.has(keyOf(c)));
  const [report, setReport] = useState<Built>();
  const { data: languages } = useLanguages();
  const build = (list: readonly ComposedCell[]): true => {
    void made(list);
    return true;
  };
  const made = async (list: readonly ComposedCell[]) => {
    const codes = list.flatMap((c) => (c.code >= 0 ? [c.code] : []));
    const names = list.flatMap((c) => (c.code < 0 ? [c.name] : []));
    const before = useBench.getState().settled!;
    if (!done(await runFar(composeGlyphs, { codes, names }, { glyphs: list.length }))) return;
    // What of all that is asked for could not be is told as well, by the reason.
    const asked = list.length > 1 ? [...(wanted ?? []), ...names] : [...codes, ...names];
    setReport(builtReport(before, asked.length > 0 ? asked : codes, languages?.all ?? []));
  };
  const open = (cell: ComposedCell) => {
    const [id] = idsOf(project, [cell]);
    if (id === undefined) return false;
    chooseGlyph(id);
    void navigate(`../draw?glyph=${encodeURIComponent(project.glyphs[id]!.name)}`, { relative: 'path' });
    return true;
  };
  const pick = (cell: ComposedCell, how: Picking) => {
    const key = keyOf(cell);
    setCurrent(key);
    if (how === 'range') {
      const all = flat(grid).map(keyOf);
      const [from, to] = [all.indexOf(anchor.current ?? current ?? key), all.indexOf(key)];
      if (from >= 0) setChosen(new Set(all.slice(Math.min(from, to), Math.max(from, to) + 1)));
      anchor.current ??= current ?? key;
      return;
    }
    anchor.current = key;
    if (how === 'only') return setChosen(new Set([key]));
    const toggled = new Set(chosen);
    if (!toggled.delete(key)) toggled.add(key);
    setChosen(toggled);
  };
  const reach = { glyphs: picked.length };
  const anew = (): true => {
    void runFar(rebuildGlyphs, { glyphs: idsOf(project, picked) }, reach).then(done);
    return true;
  };
  const apart = (): true => {
    void runFar(takeApart, { glyphs: idsOf(project, picked) }, reach).then(done);
    return true;
  };
  useEffect(() =>
    layHands('compose', {
      enter: () => {
        const ready = picked.filter((c) => c.state === 'can');
        if (ready.length > 0) return build(ready);
        return picked.length === 1 && open(picked[0]!);
      },
      all: () => {
        setChosen(new Set(flat(grid).map(keyOf)));
        return true;
      },
      anew: () => picked.length > 0 && anew(),
      apart: () => picked.length > 0 && apart(),
    }),
  );
  const ready = picked.filter((c) => c.state === 'can');
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-2">
          {views}
          <span className="flex items-center gap-2">
            Letters of <Pick label="Letters of" className="w-48" value={scope} options={scopes} onChange={setScope} />
          </span>
          <Choice label="Laid out" value={layout} options={LAYOUTS} onChange={setLayout} />
          <Button
            kind="primary"
            className="ml-auto"
            disabled={can.length === 0}
            title="In all masters, from what is drawn; nothing that is drawn is touched"
            onClick={() => build(ready.length > 0 ? ready : can)}
          >
            {ready.length > 0 ? `Build ${ready.length} chosen` : `Build all ${can.length}`}
          </Button>
        </div>
        {view && <Steps ground={view.ground} cells={view.cells} onShow={setOnly} onBuild={() => build(can)} />}
        {report && <BuildReport report={report} onClose={() => setReport(undefined)} />}
        <div className="flex flex-wrap items-center gap-2 px-5 pb-2">
          {ORDER.map((state) => (
            <button
              key={state}
              type="button"
              aria-pressed={only === state}
              disabled={count(state) === 0 && only !== state}
              onClick={() => setOnly(only === state ? undefined : state)}
              className={`rounded-full border px-3 py-1 text-[13.5px] disabled:opacity-45 ${only === state ? 'border-kelp bg-kelp-tint font-semibold text-kelp' : 'border-edge bg-panel hover:bg-kelp-tint'}`}
            >
              {count(state)} {count(state) === 1 ? STATES[state].one : STATES[state].many}
            </button>
          ))}
          {isLooking && (
            <span role="status" className="text-quiet">
              Looking…
            </span>
          )}
        </div>
        {fault && (
          <p role="alert" className="px-5 text-brick">
            {fault}
          </p>
        )}
        {cells && shown.length === 0 && (
          <p className="px-5 py-4 text-quiet">
            {scope === 'aimed' && aimed === 0
              ? 'No language is aimed at yet: choose some in Plan, Languages.'
              : 'No letter answers to that.'}
          </p>
        )}
        {shown.length > 0 && (
          <GridView
            key={layout}
            grid={grid}
            chosen={chosen}
            current={current}
            onPick={pick}
            onOpen={(c) => void (c.state === 'can' ? build([c]) : open(c))}
          />
        )}
      </div>
      <ComposeDetails
        cells={picked}
        ids={idsOf(project, picked)}
        onBuild={build}
        onOpen={open}
        onAnew={anew}
        onApart={apart}
      />
    </div>
  );
}
