import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { codePointForm } from '../../../core/base/notation';
import { composeGlyphs } from '../../../core/composing/edits';
import { recipeOf } from '../../../core/composing/recipes';
import { type ComposedCell, type ComposedState, recipeCodes } from '../../../core/composing/view';
import { needsOf } from '../../../core/coverage/coverage';
import { loadLanguages } from '../../../core/coverage/languages';
import { plural } from '../../../core/project/edit';
import { nameForCodePoint } from '../../../core/project/glyphNames';
import { glyphForCodePoint, masterOf } from '../../../core/project/queries';
import { chooseGlyph, run, say, useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button, Choice } from '../../ui/parts';

const SCOPES = [
  { value: 'aimed', text: 'Languages aimed at', hint: 'Chosen in Plan, Languages' },
  { value: 'Latin', text: 'All of Latin' },
  { value: 'Greek', text: 'Greek' },
  { value: 'Cyrillic', text: 'Cyrillic' },
] as const;
type Scope = (typeof SCOPES)[number]['value'];

const STATES: Readonly<Record<ComposedState, { one: string; many: string; looks: string }>> = {
  can: { one: 'can be built', many: 'can be built', looks: 'border-dashed border-kelp text-kelp' },
  built: { one: 'is built', many: 'are built', looks: 'border-line text-ink' },
  hand: { one: 'is drawn by hand', many: 'are drawn by hand', looks: 'border-marigold text-ink' },
  not: { one: 'is not possible yet', many: 'are not possible yet', looks: 'border-line text-quiet' },
};
const ORDER: readonly ComposedState[] = ['can', 'built', 'hand', 'not'];

/** The letters asked for, by code point. */
function useWanted(scope: Scope): readonly number[] | undefined {
  const aimed = useBench((s) => s.settled!.settings.languages);
  const { data } = useQuery({ queryKey: ['languages'], queryFn: loadLanguages, staleTime: Infinity });
  return useMemo(() => {
    if (scope !== 'aimed') return recipeCodes(scope);
    if (!data) return undefined;
    const codes = new Set(data.all.filter((l) => aimed?.includes(l.code)).flatMap((l) => needsOf(l).letters));
    return [...codes].filter((c) => recipeOf(c));
  }, [scope, data, aimed]);
}

/** Letters put together from bases and marks: how each stands, and one press for all that can be built. */
export default function Compose() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const aimed = project.settings.languages?.length ?? 0;
  const [asked, setScope] = useState<Scope>();
  const scope = asked ?? (aimed > 0 ? 'aimed' : 'Latin');
  const [only, setOnly] = useState<ComposedState>();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const wanted = useWanted(scope);
  const { found, share, fault, start } = useJob<ComposedCell[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => {
    if (wanted) start((service) => service.composedView(wanted, master));
  }, [project, master, wanted]);
  // What was found for the project before stays in sight until it is looked at anew.
  const held = useRef<ComposedCell[]>(undefined);
  if (found) held.current = found;
  const cells = held.current;
  const count = (state: ComposedState) => cells?.filter((c) => c.state === state).length ?? 0;
  const can = cells?.filter((c) => c.state === 'can') ?? [];
  const picked = can.filter((c) => chosen.has(c.code));
  const build = (codes: readonly number[]) => {
    if (!run((p) => composeGlyphs(p, { codes: [...codes] }))) return;
    say(useBench.getState().history.done.at(-1)?.sentence ?? '');
    setChosen(new Set());
  };
  const shown = useMemo(() => cells?.filter((c) => !only || c.state === only), [cells, only]);
  const last = [...chosen].at(-1);
  const current = cells?.find((c) => c.code === last);
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-2">
          <Choice label="Letters of" value={scope} options={SCOPES} onChange={setScope} />
          <Button
            kind="primary"
            className="ml-auto"
            disabled={can.length === 0}
            title="In all masters, from what is drawn; nothing that is drawn is touched"
            onClick={() => build((picked.length > 0 ? picked : can).map((c) => c.code))}
          >
            {picked.length > 0 ? `Build ${picked.length} chosen` : `Build all ${can.length}`}
          </Button>
        </div>
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
          {share !== undefined && (
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
        {shown?.length === 0 && (
          <p className="px-5 py-4 text-quiet">
            {scope === 'aimed' && aimed === 0
              ? 'No language is aimed at yet: choose some in Plan, Languages.'
              : 'No letter answers to that.'}
          </p>
        )}
        {shown && shown.length > 0 && <Bases cells={shown} chosen={chosen} onChoose={setChosen} />}
      </div>
      <ComposeDetails cell={current} many={chosen.size} onBuild={build} />
    </div>
  );
}

/** Rows by base: the letter itself, and all that is put together of it. */
function Bases({
  cells,
  chosen,
  onChoose,
}: {
  cells: readonly ComposedCell[];
  chosen: ReadonlySet<number>;
  onChoose: (chosen: ReadonlySet<number>) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const box = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => {
    const by = new Map<number, ComposedCell[]>();
    for (const c of cells) by.set(c.base, [...(by.get(c.base) ?? []), c]);
    return [...by].sort(([a], [b]) => a - b);
  }, [cells]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => 84,
    getItemKey: (i) => rows[i]![0],
    overscan: 3,
  });
  const { zones } = masterOf(project, master)!;
  const reach = {
    top: zones.capHeight.position + project.unitsPerEm * 0.4,
    bottom: zones.descender.position - project.unitsPerEm * 0.06,
  };
  return (
    <div ref={box} className="min-h-0 flex-1 overflow-y-auto px-5 pb-4">
      <ul aria-label="Letters by base" className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const [base, own] = rows[item.index]!;
          const glyph = glyphForCodePoint(project, base);
          return (
            <li
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              className="absolute right-0 left-0 flex items-start gap-3 border-b border-line py-2"
              style={{ top: item.start }}
            >
              <span className="w-14 shrink-0 text-center" title={nameForCodePoint(base)}>
                {glyph ? (
                  <GlyphShape project={project} glyph={glyph} master={master} size={54} reach={reach} />
                ) : (
                  <span className="text-[28px] text-quiet">{String.fromCodePoint(base)}</span>
                )}
              </span>
              <div className="flex flex-wrap gap-1">
                {own.map((c) => (
                  <Cell
                    key={c.code}
                    cell={c}
                    reach={reach}
                    chosen={chosen.has(c.code)}
                    onPick={(also) => {
                      const next = new Set(also ? chosen : []);
                      if (!next.delete(c.code)) next.add(c.code);
                      onChoose(next);
                    }}
                  />
                ))}
              </div>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function Cell({
  cell: c,
  reach,
  chosen,
  onPick,
}: {
  cell: ComposedCell;
  reach: { top: number; bottom: number };
  chosen: boolean;
  onPick: (also: boolean) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const glyph = glyphForCodePoint(project, c.code);
  const height = reach.top - reach.bottom;
  const told = `${String.fromCodePoint(c.code)} ${STATES[c.state].one}${c.why ? `: ${c.why}` : ''}`;
  return (
    <button
      type="button"
      title={told}
      aria-label={told}
      aria-pressed={chosen}
      data-testid="composed"
      data-state={c.state}
      onClick={(e) => onPick(e.shiftKey || e.ctrlKey || e.metaKey)}
      className={`flex size-15 items-center justify-center rounded-lg border bg-panel ${chosen ? 'border-kelp bg-kelp-tint' : STATES[c.state].looks}`}
    >
      {c.preview ? (
        <svg
          aria-hidden
          width={54}
          height={54}
          viewBox={`${c.preview.advance / 2 - height / 2} ${-reach.top} ${height} ${height}`}
        >
          <path d={c.preview.path} transform="scale(1 -1)" fill="currentColor" />
        </svg>
      ) : glyph && c.state !== 'not' ? (
        <GlyphShape project={project} glyph={glyph} master={master} size={54} reach={reach} />
      ) : (
        <span className="text-[24px]">{String.fromCodePoint(c.code)}</span>
      )}
    </button>
  );
}

/** What a letter is put together from, why it cannot be, and what can be done. */
function ComposeDetails({
  cell,
  many,
  onBuild,
}: {
  cell: ComposedCell | undefined;
  many: number;
  onBuild: (codes: readonly number[]) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const navigate = useNavigate();
  if (!cell)
    return (
      <Details heading="Compose" sub="Letters from bases and marks">
        <p className="mb-2 text-quiet">
          A letter is put together from its base and marks, in every master: each mark where its anchor meets the same
          one of the letter. Anchors that lack are placed by the shapes; move them in Draw, under Parts, and the letters
          follow.
        </p>
        <p className="text-quiet">Click a letter to see what it is made of; Shift or Ctrl chooses more.</p>
      </Details>
    );
  const recipe = recipeOf(cell.code)!;
  const glyph = glyphForCodePoint(project, cell.code);
  return (
    <Details
      heading={many > 1 ? plural(many, 'letter') : cell.name || nameForCodePoint(cell.code)}
      sub={`${String.fromCodePoint(cell.code)} · ${codePointForm(cell.code)}`}
    >
      <p className="mb-1">
        {nameForCodePoint(recipe.base)}
        {recipe.marks.map((m) => ` + ${markName(m.mark)} at ${m.anchor}`).join('')}
      </p>
      <p className={`mb-3 ${cell.state === 'not' ? 'text-brick' : 'text-quiet'}`}>
        It {STATES[cell.state].one}.{cell.why ? ` ${cell.why}` : ''}
      </p>
      <div className="flex flex-wrap gap-2">
        {cell.state === 'can' && (
          <Button kind="primary" onClick={() => onBuild([cell.code])}>
            Build it
          </Button>
        )}
        {glyph && (
          <Button
            onClick={() => {
              chooseGlyph(glyph.id);
              void navigate(`../draw?glyph=${encodeURIComponent(glyph.name)}`, { relative: 'path' });
            }}
          >
            Draw it
          </Button>
        )}
      </div>
    </Details>
  );
}

const markName = (code: number): string => `◌${String.fromCodePoint(code)}`;
