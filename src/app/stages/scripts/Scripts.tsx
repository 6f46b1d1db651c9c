import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { plural } from '../../../core/project/edit';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import { applySteps } from '../../../core/project/patch';
import type { AskedFields } from '../../../core/scripting/asked';
import { dropScript, keepScript, setScriptKey } from '../../../core/scripting/edits';
import { USUAL_MEGABYTES } from '../../../core/scripting/limits';
import type { ScriptTerms } from '../../../core/scripting/session';
import type { ScriptFault, ScriptRan, ScriptService } from '../../../workers/script';
import type { TypeFault } from '../../../workers/typing';
import { layHands } from '../../keys/hands';
import { useLatest } from '../../keys/useLatest';
import { chooseGlyph, chooseMaster, run, say, useBench } from '../../state/bench';
import { useCaseBench, useShownGlyphs } from '../../state/chosen';
import { scripter } from '../../state/followers';
import { download } from '../../state/projectFiles';
import { takeMade } from '../../state/steps';
import { useJobOn } from '../../state/useJob';
import { Bar, Pick, Radios } from '../../ui/controls';
import { Details } from '../../ui/Details';
import { Button, NumberField, Section, TextField } from '../../ui/parts';
import { toggled } from '../../ui/toggled';
import { AskForm } from './AskForm';
import { Changes } from './Changes';
import { Reports } from './Reports';
import { ScriptEditor } from './ScriptEditor';
import { ScriptList } from './ScriptList';
import {
  bringDrafts,
  forget,
  give,
  openSheet,
  type Sheet,
  sheetsOf,
  tellNewer,
  useScriptsBench,
  write,
} from './sheets';
import { takenOf } from './taken';
import { askTyping } from './typed';
import { bringWords } from './words';

type Ran = { ok: true; value: ScriptRan } | ScriptFault;
type Scope = 'all' | 'shown' | 'chosen';

/** Scripts: what is done a hundred times, written once, looked at before it is done, and one step in the history. */
export default function Scripts() {
  const project = useBench((s) => s.settled)!;
  const projectId = useBench((s) => s.projectId)!;
  const { drafts, open, projectId: brought } = useScriptsBench();
  const [search, setSearch] = useSearchParams();
  useEffect(() => {
    void bringWords();
    void bringDrafts(projectId).then(() => {
      const wanted = search.get('script');
      if (!wanted) return;
      openSheet(wanted);
      // Said once: what is opened afterwards stays open.
      const rest = new URLSearchParams(search);
      rest.delete('script');
      setSearch(rest, { replace: true });
    });
  }, [projectId, search, setSearch]);
  // While it is on its way out, the document may have gone already.
  const last = useLatest(project);
  useEffect(() => () => tellNewer(last.current), [last]);
  const sheets = useMemo(() => sheetsOf(project, drafts), [project, drafts]);
  const sheet = sheets.find((s) => s.id === open) ?? sheets.find((s) => s.of === 'wendril')!;
  if (brought !== projectId) return <p className="p-6 text-quiet">Opening the scripts…</p>;
  return (
    <div className="flex h-full">
      <ScriptList sheets={sheets} open={sheet.id} />
      <Desk key={sheet.id} project={project} sheet={sheet} sheets={sheets} />
    </div>
  );
}

const NONE: readonly TypeFault[] = [];

/** What does not fit in a text by its type, looked at while one goes on writing. */
function useMisfits(text: string): readonly TypeFault[] {
  const [found, setFound] = useState<{ text: string; misfits: readonly TypeFault[] }>();
  useEffect(() => {
    let own = true;
    const wait = window.setTimeout(async () => {
      const misfits = await askTyping((s) => s.faults(text));
      if (own) setFound({ text, misfits: misfits ?? NONE });
    }, 250);
    return () => {
      own = false;
      window.clearTimeout(wait);
    };
  }, [text]);
  return found?.text === text ? found.misfits : NONE;
}

/** A question to the worker that is answered while one goes on writing. */
function useAsked(text: string, terms: ScriptTerms) {
  const [asked, setAsked] = useState<AskedFields>({});
  const [fault, setFault] = useState<{ line: number | undefined; reason: string }>();
  const round = useRef(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it runs on changes nothing of what it asks for.
  useEffect(() => {
    const own = ++round.current;
    const wait = window.setTimeout(async () => {
      try {
        const service = await scripter.synced();
        const unread = await service.faultIn(text);
        if (own !== round.current) return;
        setFault(unread && { line: unread.line, reason: unread.reason });
        if (unread) return;
        const fields = await service.askedBy(text, terms);
        if (own === round.current) setAsked(fields);
      } catch {
        // Another run has ended the worker: the next change asks again.
      }
    }, 250);
    return () => window.clearTimeout(wait);
  }, [text]);
  return { asked, fault };
}

function Desk({ project, sheet, sheets }: { project: Project; sheet: Sheet; sheets: readonly Sheet[] }) {
  const master = useBench((s) => s.master);
  const chosen = useCaseBench((s) => s.chosen);
  const current = useBench((s) => s.glyph);
  const given = useScriptsBench((s) => s.given[sheet.id]) ?? {};
  const navigate = useNavigate();
  const some = useMemo(() => {
    const wanted = chosen.size > 0 ? chosen : new Set(current ? [current] : []);
    return project.glyphOrder.filter((id) => wanted.has(id));
  }, [project, chosen, current]);
  const shown = useShownGlyphs();
  const [wanted, setScope] = useState<Scope>(chosen.size > 1 ? 'chosen' : shown ? 'shown' : 'all');
  const scope = wanted === 'shown' && !shown ? 'all' : wanted;
  const [reach, setReach] = useState<'all' | 'one'>('all');
  const [seconds, setSeconds] = useState(20);
  const [megabytes, setMegabytes] = useState(USUAL_MEGABYTES);
  const [left, setLeft] = useState<ReadonlySet<GlyphId>>(new Set());
  const [rest, setRest] = useState(true);
  const terms: ScriptTerms = {
    chosen: scope === 'all' ? project.glyphOrder : scope === 'shown' ? shown! : some,
    masters: reach === 'all' ? project.masters.map((m) => m.id) : [master],
    given,
  };
  const { asked, fault: unread } = useAsked(sheet.text, terms);
  const misfits = useMisfits(sheet.text);
  const { share, found, fault, start, stop, clear } = useJobOn<
    ScriptService,
    { ran: Ran; on: Project; taken: boolean }
  >(scripter);
  const from = useRef(project);
  const go = (taking: boolean) => {
    from.current = project;
    setLeft(new Set());
    setRest(true);
    start(async (service, progress) => {
      const known = Object.fromEntries(Object.entries(given).filter(([k]) => Object.hasOwn(asked, k)));
      const ran = (await service.run(
        { name: sheet.name, text: sheet.text, terms: { ...terms, given: known }, seconds, megabytes },
        progress,
      )) as Ran;
      if (taking && ran.ok && ran.value.steps.length > 0 && takeMade(from.current, ran, 'run it again.'))
        say(ran.value.sentence);
      return { ran, on: from.current, taken: taking };
    });
  };
  const ran = found?.ran;
  const done = ran?.ok ? ran.value : undefined;
  const failed = ran && !ran.ok ? ran : undefined;
  const after = useMemo(
    () => (done && found && !found.taken ? applySteps(found.on, done.steps) : undefined),
    [done, found],
  );
  const stale = found !== undefined && !found.taken && found.on !== project;
  const take = () => {
    if (!found || !done || !after) return;
    const part = takenOf(found.on, after, done, left, rest);
    const made = part.ok ? { ok: true as const, value: { steps: part.value.steps, sentence: done.sentence } } : part;
    if (takeMade(found.on, made, 'look at it again.')) {
      say(done.sentence);
      clear();
    }
  };
  const keep = () => {
    const id = sheet.of === 'project' ? sheet.id : undefined;
    const name = sheet.of === 'wendril' ? freeName(project, sheet.name) : sheet.name;
    if (!run((p) => keepScript(p, { ...(id !== undefined && { id }), name, text: sheet.text }))) return;
    const kept = useBench.getState().settled!.scripts.find((s) => s.name === name.trim());
    forget(sheet.id);
    if (kept) openSheet(kept.id);
    say(`“${name.trim()}” is kept with the project.`);
  };
  const openGlyph = (id: GlyphId, at?: MasterId) => {
    chooseGlyph(id);
    if (at !== undefined && project.masters.some((m) => m.id === at)) chooseMaster(at);
    void navigate('../draw', { relative: 'path' });
  };
  useEffect(() => layHands('scripts', { preview: () => go(false), run: () => go(true) }));
  const lineFault = failed ? { line: failed.line, reason: failed.reason } : unread;
  const nothing = done && done.steps.length === 0;
  const reports = done?.outputs ?? failed?.outputs ?? [];
  return (
    <>
      <div className="flex min-w-0 flex-1 flex-col gap-2 px-4 py-3">
        <div className="hidden max-[760px]:block">
          <Pick
            label="Which script"
            value={sheet.id}
            options={sheets.map((s) => ({ value: s.id, text: s.name || 'without a name' }))}
            onChange={openSheet}
          />
        </div>
        <div className="flex flex-wrap items-center gap-2">
          {sheet.of === 'wendril' ? (
            <span className="font-semibold">{sheet.name}</span>
          ) : (
            <span className="w-64">
              <TextField
                aria-label="Name of the script"
                value={sheet.name}
                onChange={(e) => write(sheet.id, e.target.value, sheet.text)}
              />
            </span>
          )}
          {sheet.newer && <span className="text-[13px] text-quiet">not kept with the project yet</span>}
          <span className="ml-auto flex gap-2">
            {sheet.newer && sheet.of !== 'new' && (
              <Button title="As it was kept" onClick={() => forget(sheet.id)}>
                Back to what was kept
              </Button>
            )}
            {(sheet.newer || sheet.of === 'wendril') && (
              <Button title="With the project, in one step" onClick={keep}>
                Keep it
              </Button>
            )}
            <Button title="As a text file" onClick={() => saveScript(sheet)}>
              Save to a file
            </Button>
            {sheet.of !== 'wendril' && (
              <Button
                onClick={() => {
                  if (sheet.of === 'project' && !run((p) => dropScript(p, { id: sheet.id }))) return;
                  forget(sheet.id);
                  openSheet('');
                }}
              >
                Remove
              </Button>
            )}
          </span>
        </div>
        <div className="min-h-[130px] flex-1">
          <ScriptEditor
            text={sheet.text}
            label="The script"
            fault={lineFault}
            misfits={misfits}
            onChange={(text) => write(sheet.id, sheet.name, text)}
          />
        </div>
        {share !== undefined && (
          <div className="flex items-center gap-3">
            <span className="flex-1">
              <Bar label={`Running ${sheet.name}`} share={share} />
            </span>
            <Button onClick={stop}>Stop</Button>
          </div>
        )}
        {(fault || lineFault) && share === undefined && (
          <p role="alert" className="text-brick">
            {fault ?? `${lineFault!.line === undefined ? '' : `Line ${lineFault!.line}: `}${lineFault!.reason}`}
          </p>
        )}
        {misfits.length > 0 && !fault && !lineFault && share === undefined && <Misfits misfits={misfits} />}
        {(done || reports.length > 0) && (
          <div
            data-testid="script-came"
            className="max-h-[46%] min-h-[90px] overflow-auto rounded-lg border border-line bg-panel p-3"
          >
            {done && after && !nothing && (
              <div className="mb-3">
                <div className="mb-2 flex flex-wrap items-center gap-3">
                  <span className="font-semibold">{done.sentence}</span>
                  <Button kind="primary" className="ml-auto" disabled={stale} onClick={take}>
                    {left.size === 0 && rest ? 'Take it over' : 'Take what is ticked'}
                  </Button>
                </div>
                {stale && <p className="mb-2 text-brick">The project was changed since: look at it again.</p>}
                <Changes
                  before={found!.on}
                  after={after}
                  master={master}
                  changed={done.changed}
                  added={done.added}
                  removed={done.removed}
                  others={done.others}
                  values={done.values}
                  left={left}
                  rest={rest}
                  onLeave={(id) => setLeft(toggled(left, id))}
                  onRest={setRest}
                />
              </div>
            )}
            {nothing && <p className="mb-2 text-quiet">It changes nothing.</p>}
            {found?.taken && done && !nothing && (
              <p className="mb-2 font-semibold">{done.sentence}. One undo takes it back.</p>
            )}
            <Reports outputs={reports} onOpen={openGlyph} />
          </div>
        )}
      </div>
      <Details
        heading={sheet.name}
        sub={sheet.does ?? (sheet.of === 'new' ? 'A script of your own' : 'Kept with the project')}
      >
        <AskForm asked={asked} given={given} onGive={(values) => give(sheet.id, values)} />
        <Section title="It runs on">
          <Radios
            label="Which glyphs"
            value={scope}
            options={[
              { value: 'all', text: `All ${plural(project.glyphOrder.length, 'glyph')}` },
              ...(shown ? [{ value: 'shown', text: `${plural(shown.length, 'glyph')} that the Case shows` }] : []),
              {
                value: 'chosen',
                text:
                  some.length === 1
                    ? `Only ${project.glyphs[some[0]!]!.name}`
                    : `${plural(some.length, 'chosen glyph')}`,
              },
            ]}
            onChange={(v) => setScope(v as Scope)}
          />
          {project.masters.length > 1 && (
            <div className="mt-2">
              <Radios
                label="Which masters"
                value={reach}
                options={[
                  { value: 'all', text: `All ${project.masters.length} masters` },
                  { value: 'one', text: `Only ${project.masters.find((m) => m.id === master)?.name ?? 'this one'}` },
                ]}
                onChange={(v) => setReach(v as 'all' | 'one')}
              />
            </div>
          )}
          <div className="mt-2">
            <NumberField
              label="Seconds at most"
              value={seconds}
              onChange={(v) => v >= 1 && v <= 600 && setSeconds(v)}
            />
          </div>
          <div className="mt-1.5">
            <NumberField
              label="Megabytes at most"
              value={megabytes}
              onChange={(v) => v >= 16 && v <= 1024 && setMegabytes(v)}
            />
          </div>
        </Section>
        {sheet.of === 'project' && (
          <Section title="Its key">
            <Pick
              label="Key that runs it"
              value={String(project.scripts.find((s) => s.id === sheet.id)?.key ?? 'none')}
              options={[
                { value: 'none', text: 'none' },
                ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((k) => ({ value: String(k), text: `Alt Shift ${k}` })),
              ]}
              onChange={(k) => run((p) => setScriptKey(p, { id: sheet.id, ...(k !== 'none' && { key: Number(k) }) }))}
            />
          </Section>
        )}
        <div className="grid gap-2">
          <Button kind="primary" disabled={share !== undefined} onClick={() => go(false)}>
            Preview
          </Button>
          <Button disabled={share !== undefined} onClick={() => go(true)}>
            Run
          </Button>
        </div>
        <Button
          className="mt-2"
          title="Everything that a script can name, for completion and checks in a code editor of your own"
          onClick={async () => {
            const text = await (await scripter.synced()).declarations();
            download(new TextEncoder().encode(text), 'wendril-scripts.d.ts', 'text/typescript');
          }}
        >
          Save the declarations
        </Button>
        <p className="mt-3 text-quiet">
          A preview changes nothing: it shows what would come of it, glyph by glyph. A run is one step in the history. A
          script sees the project and nothing else: no network, no files, no clock.
        </p>
      </Details>
    </>
  );
}

/** The first of what does not fit, in words; the others are marked in the text. */
function Misfits({ misfits }: { misfits: readonly TypeFault[] }) {
  const [first] = misfits;
  return (
    <p data-testid="script-misfits" className="text-quiet">
      Line {first!.line} may not do what is meant: {first!.reason}
      {misfits.length > 1 &&
        ` ${plural(misfits.length - 1, 'place')} more ${misfits.length === 2 ? 'is' : 'are'} marked.`}
    </p>
  );
}

const saveScript = ({ name, text }: Sheet): void => {
  const file = `${name.replace(/[^\p{L}\p{N}]+/gu, '-') || 'script'}.js`;
  download(new TextEncoder().encode(text), file, 'text/javascript');
};

function freeName(project: Project, name: string): string {
  let free = name;
  for (let i = 2; project.scripts.some((s) => s.name === free); i++) free = `${name} ${i}`;
  return free;
}
