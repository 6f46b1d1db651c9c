import { useVirtualizer } from '@tanstack/react-virtual';
import { Target } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { markOf } from '../../../core/composing/marks';
import { recipeOf } from '../../../core/composing/recipes';
import { begunScripts, type Coverage, coverageOf, nextSteps, peopleOf } from '../../../core/coverage/coverage';
import { drawnCodes } from '../../../core/coverage/drawn';
import { aimAtLanguages } from '../../../core/coverage/edits';
import { findLanguages, type Language, type Languages } from '../../../core/coverage/languages';
import { plural } from '../../../core/project/edit';
import { run, useBench } from '../../state/bench';
import { useLanguages } from '../../state/languages';
import { Choice, IconToggle, TextField } from '../../ui/parts';
import { MissingGlyphs } from './MissingGlyphs';

const WHICH = [
  { value: 'all', text: 'All' },
  { value: 'near', text: 'Within reach', hint: 'Languages that lack at most 20 glyphs' },
  { value: 'complete', text: 'Complete' },
  { value: 'aimed', text: 'Aimed at', hint: 'Languages that this project is made for' },
] as const;
type Which = (typeof WHICH)[number]['value'];
const NEAR = 20;
const isNear = (c: Coverage): boolean => c.missing.length > 0 && c.missing.length <= NEAR;

/** Languages as sentences: what each lacks, how many read it, and the few glyphs that open most readers. */
export function LanguagesView() {
  const { data, error } = useLanguages();
  if (error) return <p className="p-6 text-brick">The languages could not be loaded; the connection may be gone.</p>;
  if (!data)
    return (
      <p role="status" className="p-6 text-quiet">
        Loading the languages…
      </p>
    );
  return <Loaded languages={data} />;
}

function Loaded({ languages }: { languages: Languages }) {
  const project = useBench((s) => s.settled)!;
  const [search, setSearch] = useState('');
  const [asked, setWhich] = useState<Which>();
  // Who looks for a language means any, however much of it lacks.
  const find = (text: string) => {
    setSearch(text);
    if (text !== '') setWhich('all');
  };
  const have = useMemo(() => drawnCodes(project), [project]);
  const coverage = useMemo(() => coverageOf(languages.all, (c) => have.has(c)), [languages, have]);
  const aimed = useMemo(() => new Set(project.settings.languages ?? []), [project.settings.languages]);
  const complete = coverage.filter((c) => c.missing.length === 0);
  const which = asked ?? (coverage.some(isNear) ? 'near' : 'all');
  const rows = useMemo(() => {
    const found = new Set(findLanguages(languages, search));
    const wanted = {
      all: () => true,
      near: isNear,
      complete: (c: Coverage) => c.missing.length === 0,
      aimed: (c: Coverage) => aimed.has(c.language.code),
    }[which];
    return coverage.filter((c) => found.has(c.language) && wanted(c));
  }, [languages, coverage, search, which, aimed]);
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pb-3">
      <p role="status" className="mb-3">
        {complete.length === 0
          ? 'No language is complete yet.'
          : `${plural(complete.length, 'language is', 'languages are')} complete, read by ${peopleOf(complete.reduce((n, c) => n + c.language.readers, 0))} people.`}
      </p>
      <Next coverage={coverage} have={have} />
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <div className="w-60">
          <TextField
            type="search"
            aria-label="Find a language"
            placeholder="language, region or script"
            value={search}
            onChange={(e) => find(e.target.value)}
          />
        </div>
        <Choice label="Languages shown" value={which} options={WHICH} onChange={setWhich} />
        <span className="ml-auto text-quiet">{plural(rows.length, 'language')}</span>
      </div>
      <Rows rows={rows} aimed={aimed} territories={languages.territoryNames} none={search !== '' || which !== 'all'} />
    </div>
  );
}

/** The few glyphs that open most readers, in scripts that are begun. */
function Next({ coverage, have }: { coverage: readonly Coverage[]; have: ReadonlySet<number> }) {
  const steps = useMemo(() => {
    // A letter whose base and marks, or accents of their shape, are drawn can be put together.
    const hasMark = (mark: number) => have.has(mark) || (markOf(mark)?.spacing.some((s) => have.has(s)) ?? false);
    const canCompose = (code: number) => {
      const recipe = recipeOf(code);
      return recipe !== undefined && have.has(recipe.base) && recipe.marks.every((m) => hasMark(m.mark));
    };
    return nextSteps(coverage, canCompose, { onlyScripts: begunScripts(coverage) });
  }, [coverage, have]);
  if (steps.length === 0) return null;
  return (
    <section aria-label="Next best steps" className="mb-4 grid gap-2 xl:grid-cols-3">
      {steps.map((s) => (
        <div key={s.codes.join()} className="rounded-xl border border-line bg-panel p-3" data-testid="next-step">
          <p className="mb-2">
            <b className="font-semibold">
              {s.languages
                .slice(0, 3)
                .map((l) => l.name)
                .join(', ')}
              {s.languages.length > 3 ? ` and ${s.languages.length - 3} more` : ''}
            </b>{' '}
            <span className="text-quiet">
              {peopleOf(s.readers)} readers
              {s.composed.length > 0
                ? `; ${s.composed.length === s.codes.length ? 'all' : `${s.composed.length} of ${s.codes.length}`} can be put together from what is drawn`
                : ''}
            </span>
          </p>
          <MissingGlyphs kind="primary" missing={s.codes} what={s.languages[0]!.name} />
        </div>
      ))}
    </section>
  );
}

function Rows({
  rows,
  aimed,
  territories,
  none,
}: {
  rows: readonly Coverage[];
  aimed: ReadonlySet<string>;
  territories: Readonly<Record<string, string>>;
  none: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => 64,
    getItemKey: (i) => rows[i]!.language.code,
    overscan: 6,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: other rows begin at the top.
  useEffect(() => {
    box.current?.scrollTo(0, 0);
  }, [rows.length]);
  const aim = (language: Language) => {
    const codes = new Set(aimed);
    if (!codes.delete(language.code)) codes.add(language.code);
    run((p) => aimAtLanguages(p, { languages: [...codes] }));
  };
  return (
    <div ref={box} className="min-h-[300px] flex-1 shrink-0 overflow-y-auto rounded-xl border border-line bg-panel">
      {rows.length === 0 && (
        <p className="p-5 text-quiet">{none ? 'No language answers to that.' : 'There are no languages.'}</p>
      )}
      <ul aria-label="Languages" className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const { language: l, missing, unpunctuated } = rows[item.index]!;
          const where = l.territories.slice(0, 4).map((t) => territories[t] ?? t);
          return (
            <li
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              data-testid="language"
              className="absolute right-0 left-0 grid grid-cols-[32px_minmax(150px,230px)_minmax(0,1fr)] items-start gap-3 border-b border-line px-3 py-2.5"
              style={{ top: item.start }}
            >
              <IconToggle
                label={aimed.has(l.code) ? `No longer aim at ${l.name}` : `Aim at ${l.name}`}
                pressed={aimed.has(l.code)}
                onPressed={() => aim(l)}
                className={`mt-0.5 rounded-md p-1.5 ${aimed.has(l.code) ? 'bg-kelp-tint text-kelp' : 'text-quiet hover:bg-kelp-tint'}`}
              >
                <Target size={15} />
              </IconToggle>
              <div className="min-w-0">
                <p className="font-semibold">
                  {l.name} {l.own && <span className="font-normal text-quiet">{l.own}</span>}
                </p>
                <p className="truncate text-[12.5px] text-quiet" title={where.join(', ')}>
                  {l.readers > 0 ? `${peopleOf(l.readers)} readers` : ''}
                  {l.readers > 0 && where.length > 0 ? ' · ' : ''}
                  {where.join(', ')}
                </p>
              </div>
              {missing.length === 0 ? (
                <div>
                  <p className="text-kelp">
                    {unpunctuated.length === 0 ? 'complete' : 'all letters; punctuation lacks'}
                  </p>
                  <MissingGlyphs missing={unpunctuated} what={`the punctuation of ${l.name}`} />
                </div>
              ) : (
                <div>
                  <p className="mb-1 text-quiet">{missing.length} missing</p>
                  <MissingGlyphs missing={missing} what={l.name} />
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
