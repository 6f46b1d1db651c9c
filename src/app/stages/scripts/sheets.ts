import { create } from 'zustand';
import { drafts as store } from '../../../browser/stores';
import type { Project } from '../../../core/project/model';
import type { AskedValues } from '../../../core/scripting/asked';
import { SHIPPED } from '../../../core/scripting/shipped/shipped';
import { say } from '../../state/bench';

/** A script on the desk: one of the project, one that comes with Wendril, or one that is new. */
export type Sheet = {
  readonly id: string;
  readonly name: string;
  readonly text: string;
  readonly does?: string;
  /** Where it is from. */
  readonly of: 'project' | 'wendril' | 'new';
  /** Written since it was kept. */
  readonly newer: boolean;
};

/** What was written and is not kept with the project yet, by the id of the script. */
type Drafts = Readonly<Record<string, { readonly name: string; readonly text: string }>>;

type ScriptsBench = {
  projectId: string;
  drafts: Drafts;
  open: string;
  /** Values that were given, by script. */
  given: Readonly<Record<string, AskedValues>>;
};

export const useScriptsBench = create<ScriptsBench>(() => ({
  projectId: '',
  drafts: {},
  open: SHIPPED[0]!.key,
  given: {},
}));

let bringing: { of: string; done: Promise<void> } | undefined;

/** Brings back what was written for a project, as it was left; once, however often it is asked for. */
export function bringDrafts(projectId: string): Promise<void> {
  if (useScriptsBench.getState().projectId === projectId) return Promise.resolve();
  if (bringing?.of !== projectId) bringing = { of: projectId, done: bring(projectId) };
  return bringing.done;
}

async function bring(projectId: string): Promise<void> {
  type Held = { drafts: Drafts; given: ScriptsBench['given'] };
  const held = await store.get(projectId).then(
    (found) => found as Held | undefined,
    () => {
      tellUnkept();
      return undefined;
    },
  );
  useScriptsBench.setState({
    projectId,
    drafts: held?.drafts ?? {},
    given: held?.given ?? {},
    open: Object.keys(held?.drafts ?? {})[0] ?? SHIPPED[0]!.key,
  });
  bringing = undefined;
}

/** What is written is in the browser's storage as soon as it is typed. */
function keep(): void {
  const { projectId, drafts, given } = useScriptsBench.getState();
  if (!projectId) return;
  store.set(projectId, { drafts, given }).then(() => {
    unkept = false;
  }, tellUnkept);
}

let unkept = false;
/** Said once, until it can be stored again. */
function tellUnkept(): void {
  if (!unkept)
    say('What you write here cannot be stored in this browser now: keep it with the project or save it to a file.');
  unkept = true;
}

let told: Drafts = {};
/** Says on the way out what is newer than what the project holds; the same once only. */
export function tellNewer(project: Project | undefined): void {
  const { drafts, projectId } = useScriptsBench.getState();
  if (!project || projectId === '' || drafts === told) return;
  told = drafts;
  const newer = sheetsOf(project, drafts).filter((s) => s.newer && s.of !== 'wendril');
  if (newer.length === 0) return;
  const which = newer.map((s) => `“${s.name}”`).join(', ');
  say(
    `${which} ${newer.length === 1 ? 'is' : 'are'} kept in this browser only, until you keep ${newer.length === 1 ? 'it' : 'them'} with the project.`,
  );
}

export function write(id: string, name: string, text: string): void {
  useScriptsBench.setState((s) => ({ drafts: { ...s.drafts, [id]: { name, text } } }));
  keep();
}

/** Forgets what was written beyond what is kept. */
export function forget(id: string): void {
  useScriptsBench.setState(({ drafts: { [id]: _, ...drafts } }) => ({ drafts }));
  keep();
}

export function give(id: string, values: AskedValues): void {
  useScriptsBench.setState((s) => ({ given: { ...s.given, [id]: { ...s.given[id], ...values } } }));
  keep();
}

export const openSheet = (open: string): void => useScriptsBench.setState({ open });

/** A new sheet with a text. */
export function newSheet(name: string, text: string): string {
  const { drafts } = useScriptsBench.getState();
  let count = 1;
  while (Object.hasOwn(drafts, `new:${count}`)) count++;
  const id = `new:${count}`;
  write(id, name, text);
  openSheet(id);
  return id;
}

/** Every script there is: those of the project, new ones, those that come with Wendril. */
export function sheetsOf(project: Project, drafts: Drafts): Sheet[] {
  const own = project.scripts.map(({ id, name, text }): Sheet => {
    const draft = drafts[id];
    return { id, name: draft?.name ?? name, text: draft?.text ?? text, of: 'project', newer: draft !== undefined };
  });
  const known = new Set([...project.scripts.map((s) => s.id), ...SHIPPED.map((s) => s.key)]);
  const fresh = Object.entries(drafts).flatMap(([id, { name, text }]): Sheet[] =>
    known.has(id) ? [] : [{ id, name, text, of: 'new', newer: true }],
  );
  const shipped = SHIPPED.map(({ key, title, does, text }): Sheet => {
    const draft = drafts[key];
    return { id: key, name: title, text: draft?.text ?? text, does, of: 'wendril', newer: draft !== undefined };
  });
  return [...own, ...fresh, ...shipped];
}
