import { Plus } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { carriesSubstitutions, rulesFromFont } from '../../../core/features/adopt';
import { addSections, moveSection } from '../../../core/features/edits';
import { includedPaths } from '../../../core/features/includes';
import { sectionInWords } from '../../../core/features/inWords';
import { sectionsOf } from '../../../core/features/pieces';
import { plural } from '../../../core/project/edit';
import { layHands } from '../../keys/hands';
import { run, say, useBench } from '../../state/bench';
import { Details } from '../../ui/Details';
import { FileInput } from '../../ui/FileInput';
import { Button, Section } from '../../ui/parts';
import { SortableList } from '../../ui/SortableList';
import { readTextFile } from '../../ui/textFile';
import { MergeDialog } from './MergeDialog';
import { Outline } from './Outline';
import { Questions } from './Questions';
import { SectionCard } from './SectionCard';
import { NotebookContext, type Place } from './SymbolBar';
import { useView } from './useView';
import { WholeTrial } from './WholeTrial';

const NONE: readonly string[] = [];

/** A file with rules may be this large. */
const MOST_BYTES = 2_000_000;

/** The rules of layout: sections one below the other in the order in which they are compiled. */
export default function Features() {
  const sections = useBench((s) => s.settled!.features.sections);
  const carries = useBench((s) => carriesSubstitutions(s.settled!));
  const { view, fault } = useView();
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [place, setPlace] = useState<Place>();
  const list = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const [trial, setTrialOpen] = useState(false);
  useEffect(
    () =>
      layHands('features', {
        find: () => field.current?.select(),
        trial: () => setTrialOpen((was) => !was),
      }),
    [],
  );
  const offered = view?.offered ?? [];
  const addAll = () =>
    run((p) => addSections(p, { sections: offered.map(({ tag, title }) => ({ title, text: '', automatic: tag })) }));
  const toggle = useCallback((id: string) => {
    setOpen((was) => {
      const next = new Set(was);
      if (!next.delete(id)) next.add(id);
      return next;
    });
    setPlace(undefined);
  }, []);
  const notebook = useMemo(
    () => ({
      texts: sections.map((s, i) => ({
        id: s.id,
        title: s.title || s.automatic || `Section ${i + 1}`,
        text: s.automatic === undefined ? s.text : (view?.sections.find((v) => v.id === s.id)?.text ?? ''),
        writesItself: s.automatic !== undefined,
      })),
      goTo: (section: string, from: number, to = from) => {
        setOpen((was) => new Set(was).add(section));
        setPlace((was) => ({ section, from, to, count: (was?.count ?? 0) + 1 }));
      },
    }),
    [sections, view],
  );
  return (
    <div className="flex h-full">
      <NotebookContext value={notebook}>
        <Outline view={view} list={list} field={field} />
        <div className="flex min-w-0 flex-1 flex-col">
          <div ref={list} className="relative min-h-0 flex-1 overflow-y-auto px-4 pt-3 pb-8" data-testid="sections">
            {fault && (
              <p role="alert" className="mb-2 text-brick">
                {fault}
              </p>
            )}
            {carries && (
              <div role="note" className="mb-3 flex flex-wrap items-center gap-3 rounded-lg bg-marigold-tint px-3 py-2">
                <p className="min-w-0 flex-1">
                  The font that was opened has substitutions of its own. They are carried as they are, as long as its
                  glyphs stay; rules added here are left out meanwhile.
                </p>
                <Button
                  kind="primary"
                  title="Every lookup as text that compiles to the same; Undo brings the tables back"
                  onClick={() => run((p) => rulesFromFont(p, {}))}
                >
                  Turn them into rules
                </Button>
              </div>
            )}
            {sections.length === 0 && !carries && (
              <p className="mb-3 max-w-xl text-quiet">
                No rules yet. Rules replace glyphs while text is set: two letters by a ligature, figures by others, a
                letter by its small capital.{' '}
                {offered.length > 0
                  ? 'The names of your glyphs call for the ones at the right; they write themselves.'
                  : 'Give a glyph a name like f_i, a.sc or one.onum, and its rule is offered here.'}
              </p>
            )}
            <SortableList
              label="Sections of rules"
              count={sections.length}
              className="grid gap-3"
              onMove={(from, to) => run((p) => moveSection(p, { from, to }))}
              row={(i) => (
                <SectionCard
                  key={sections[i]!.id}
                  index={i}
                  section={sections[i]!}
                  view={view?.sections.find((v) => v.id === sections[i]!.id)}
                  isLast={i === sections.length - 1}
                  isOpen={open.has(sections[i]!.id)}
                  place={place?.section === sections[i]!.id ? place : undefined}
                  writable={view?.writable ?? NONE}
                  onToggle={toggle}
                />
              )}
            />
          </div>
          <WholeTrial view={view} isOpen={trial} onOpen={setTrialOpen} />
        </div>
      </NotebookContext>
      <Details
        heading="Features"
        sub={`${plural(sections.length, 'section')}${view ? ` · ${view.tags.join(' ')}` : ''}`}
      >
        {offered.length > 0 && (
          <Section title="Rules that write themselves">
            <p className="mb-2 text-quiet">From the names of glyphs; kept up to date as glyphs come and go.</p>
            <ul aria-label="Rules that write themselves" className="mb-2 grid grid-cols-[minmax(0,1fr)] gap-1">
              {offered.map((o) => (
                <li key={o.tag} className="flex items-center gap-2">
                  <span className="min-w-0 flex-1">{o.title}</span>
                  <span className="text-[12px] text-quiet">{o.count}</span>
                  <Button
                    onClick={() =>
                      run((p) => addSections(p, { sections: [{ title: o.title, text: '', automatic: o.tag }] }))
                    }
                  >
                    Add
                  </Button>
                </li>
              ))}
            </ul>
            <Button kind="primary" className="w-full" onClick={addAll}>
              Add all {offered.length}
            </Button>
          </Section>
        )}
        {view && view.questions.length > 0 && (
          <Section title="Asked of the rules">
            <Questions questions={view.questions} />
          </Section>
        )}
        <OwnRules />
      </Details>
    </div>
  );
}

/** Rules of one’s own: begun, from a form in words, or from a file. */
function OwnRules() {
  const file = useRef<HTMLInputElement>(null);
  const [second, setSecond] = useState<{ name: string; text: string }>();
  const add = (title: string, text: string) => run((p) => addSections(p, { sections: [{ title, text }] }));
  const take = async (chosen: File) => {
    const read = await readTextFile(chosen, 'a file of rules', MOST_BYTES);
    if (!read.ok) return say(read.reason);
    const { text, note } = read.value;
    if (note) say(note);
    if (!/\b(feature|lookup|languagesystem|table|@\w+\s*=)/.test(text))
      return say(`${chosen.name} has no feature, lookup or class in it.`);
    const included = includedPaths(text);
    if (included.length > 0)
      say(
        `${chosen.name} includes ${included.slice(0, 3).join(', ')}${included.length > 3 ? ' and others' : ''}; files beside it do not come with it. Open the folder or zip that holds them all.`,
      );
    if (useBench.getState().settled!.features.sections.length > 0) setSecond({ name: chosen.name, text });
    else run((p) => addSections(p, { sections: sectionsOf(text) }));
  };
  return (
    <Section title="Rules of your own">
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => add('My rules', 'feature ss01 {\n  \n} ss01;\n')}>
          <Plus size={14} /> A section
        </Button>
        <Button onClick={() => file.current?.click()}>From a file…</Button>
        <FileInput
          ref={file}
          name="feature-file"
          accept=".fea,.txt,text/plain"
          onFiles={([chosen]) => void take(chosen)}
        />
      </div>
      <InWords />
      {second && <MergeDialog {...second} onClose={() => setSecond(undefined)} />}
    </Section>
  );
}

/** A rule begun in words: what is replaced, by what, between what. It is written as text, which is the truth from then on. */
function InWords() {
  const [rule, setRule] = useState({ replace: '', by: '', before: '', after: '' });
  const field = (key: keyof typeof rule, label: string, hint: string) => (
    <label className="grid grid-cols-[76px_1fr] items-center gap-2">
      <span className="text-quiet">{label}</span>
      <input
        value={rule[key]}
        placeholder={hint}
        spellCheck={false}
        onChange={(e) => setRule({ ...rule, [key]: e.target.value })}
        className="h-7.5 w-full min-w-0 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
      />
    </label>
  );
  const project = useBench((s) => s.settled)!;
  const section = sectionInWords(project, rule);
  const write = () => {
    if (section && run((p) => addSections(p, { sections: [section] })))
      setRule({ replace: '', by: '', before: '', after: '' });
  };
  return (
    <fieldset className="mt-3 grid gap-1.5">
      <legend className="mb-1 font-semibold">In words</legend>
      {field('replace', 'Replace', 'f i')}
      {field('by', 'by', 'f_i')}
      {field('before', 'behind', 'any of these, or nothing')}
      {field('after', 'before', 'any of these, or nothing')}
      <Button disabled={!section} onClick={write}>
        Write the rule
      </Button>
    </fieldset>
  );
}
