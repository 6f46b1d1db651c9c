import { proxy } from 'comlink';
import { toast } from 'sonner';
import { create } from 'zustand';
import {
  chooseFolder,
  fileAt,
  filesBelow,
  type Home,
  homeOf,
  mayWrite,
  readAll,
  rememberHome,
  removeFile,
  type Stamp,
  stampOf,
  writeFile,
} from '../../browser/folders';
import { sameBytes } from '../../core/base/sharing';
import type { FontProject } from '../../core/formats/font/projectFromFont';
import { filesOfSource, sourceNames, sourcesIn } from '../../core/formats/sourceFolder';
import { filesWorker } from '../../workers/clients';
import { say, useBench } from './bench';
import { storeProject } from './library';

/** The folder that the open project came from and is saved into; undefined where it came from a file. */
export const useHome = create<{ projectId: string; home: Home | undefined }>(() => ({
  projectId: '',
  home: undefined,
}));

/** Looks up where the open project came from. */
export async function followHome(projectId: string): Promise<void> {
  const home = await homeOf(projectId).catch(() => undefined);
  useHome.setState({ projectId, home });
}

export const homeNow = (): Home | undefined => {
  const { projectId, home } = useHome.getState();
  return projectId === useBench.getState().projectId ? home : undefined;
};

/** A folder with what it may be opened as. */
export type FoundFolder = {
  readonly handle: FileSystemDirectoryHandle;
  readonly files: ReadonlyMap<string, FileSystemFileHandle>;
  readonly sources: readonly string[];
};

/** Asks for a folder, where none was dropped, and looks what is in it; undefined where none is chosen. */
export async function findFolder(dropped?: Promise<FileSystemDirectoryHandle>): Promise<FoundFolder | undefined> {
  const handle = await (dropped ?? chooseFolder());
  if (!handle) return undefined;
  const files = await filesBelow(handle);
  const sources = sourcesIn(files.keys());
  if (sources.length === 0) throw new Error(`${handle.name} holds neither a designspace nor a UFO.`);
  return { handle, files, sources };
}

/** Opens one source of a folder as a project; gives its id, and what is to be told. */
export async function openFolder(
  { handle, files }: FoundFolder,
  source: string,
  progress: (done: number, total: number) => void,
): Promise<{ id: string; notes: readonly string[] }> {
  const space = source.endsWith('.designspace') ? await (await files.get(source)!.getFile()).text() : '';
  const names = sourceNames(space);
  const wanted = new Map(filesOfSource(files.keys(), source, names).map((path) => [path, files.get(path)!]));
  const { bytes, stamps } = await readAll(wanted);
  // A UFO that is the folder itself goes by the folder's name.
  const whole = source === '' ? new Map([...bytes].map(([path, b]) => [`${handle.name}/${path}`, b])) : bytes;
  const { service, stop } = filesWorker();
  try {
    const label = source === '' ? handle.name : source.slice(source.lastIndexOf('/') + 1);
    const read = (await service.openTree(whole, label, proxy(progress))) as
      | { ok: true; value: FontProject }
      | { ok: false; reason: string };
    if (!read.ok) throw new Error(read.reason);
    const id = await storeProject(read.value.project);
    // What lies beside the designspace has another place in a project.
    const beside = names.find((name) => /(^|[/\\])\.\.[/\\]/.test(name));
    if (beside === undefined) await rememberHome(id, { handle, source, stamps });
    const notes =
      beside === undefined
        ? []
        : [
            `“${beside}” lies outside the folder of its designspace: what you change is saved to a file, not into the folder.`,
          ];
    return { id, notes: [...read.value.notes, ...notes] };
  } finally {
    stop();
  }
}

/** Where a file of the project lies in its folder; undefined for what does not belong there. */
function placeIn({ handle, source }: Home, path: string): string | undefined {
  const folder = source.includes('/') ? `${source.slice(0, source.lastIndexOf('/'))}/` : '';
  if (source.endsWith('.designspace')) return folder + path;
  const name = source === '' ? handle.name : source.slice(source.lastIndexOf('/') + 1);
  if (!path.startsWith(`${name}/`)) return undefined;
  return source === '' ? path.slice(name.length + 1) : folder + path;
}

const listed = (paths: readonly string[]): string =>
  `${paths.slice(0, 4).join(', ')}${paths.length > 4 ? ` and ${paths.length - 4} more` : ''}`;

/**
 * Writes what was changed into the folder that the project came from, and nothing else. Where another program changed one of
 * these files meanwhile, nothing is written until that is answered.
 */
export async function saveHome(over = false): Promise<void> {
  const home = homeNow();
  const { settled: project, projectId } = useBench.getState();
  if (!home || !project) return;
  if (!home.source.endsWith('.designspace') && project.masters.length > 1)
    return say('A UFO holds one master, and the project has more: save it to a file.');
  if (!(await mayWrite(home.handle))) return say(`The browser may not write into ${home.handle.name}.`);
  const { service, stop } = filesWorker();
  const stamps: Record<string, Stamp> = { ...home.stamps };
  // What was written is remembered also where the rest could not be.
  const remember = async () => {
    const kept = { ...home, stamps };
    useHome.setState({ projectId, home: kept });
    await rememberHome(projectId, kept);
  };
  try {
    say(`Comparing with ${home.handle.name}…`);
    const made = await service.tree(project);
    const wanted = new Map(
      [...made].flatMap(([path, bytes]) => {
        const place = placeIn(home, path);
        return place === undefined ? [] : [[place, bytes] as const];
      }),
    );
    const { writes, gone, foreign } = await difference(home, wanted);
    if (foreign.length > 0 && !over) {
      toast.error(`Changed in ${home.handle.name} by another program: ${listed(foreign)}. Nothing was written.`, {
        duration: 30_000,
        style: { pointerEvents: 'auto' },
        action: { label: 'Write over it', onClick: () => void saveHome(true) },
      });
      return;
    }
    for (const path of writes)
      stamps[path] = await writeFile((await fileAt(home.handle, path, true))!, wanted.get(path)!);
    for (const path of gone) {
      await removeFile(home.handle, path);
      delete stamps[path];
    }
    await remember();
    say(
      writes.length + gone.length === 0
        ? `${home.handle.name} is as the project has it; nothing was written.`
        : `Into ${home.handle.name}: ${listed([...writes, ...gone.map((p) => `${p} (removed)`)])}.`,
    );
  } catch (error) {
    await remember().catch(() => {});
    say(`${home.handle.name} could not be written whole: ${(error as Error).message}`);
  } finally {
    stop();
  }
}

/** What is to be written and taken away, and which of these files are not as they were read or written last. */
async function difference(home: Home, wanted: ReadonlyMap<string, Uint8Array>) {
  const writes: string[] = [];
  const gone: string[] = [];
  const foreign: string[] = [];
  const isForeign = (path: string, file: File): boolean => {
    const [was, is] = [home.stamps[path], stampOf(file)];
    return !was || was.changed !== is.changed || was.size !== is.size;
  };
  for (const [path, bytes] of wanted) {
    const file = await (await fileAt(home.handle, path))?.getFile();
    if (file && sameBytes(new Uint8Array(await file.arrayBuffer()), bytes)) continue;
    writes.push(path);
    if (file ? isForeign(path, file) : home.stamps[path]) foreign.push(path);
  }
  for (const path of Object.keys(home.stamps)) {
    // Only glyphs that were there and are no more; whatever else lies in the folder is not ours.
    if (wanted.has(path) || !path.endsWith('.glif')) continue;
    const file = await (await fileAt(home.handle, path))?.getFile();
    if (!file) continue;
    gone.push(path);
    if (isForeign(path, file)) foreign.push(path);
  }
  return { writes, gone, foreign };
}
