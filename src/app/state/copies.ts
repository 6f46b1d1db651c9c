import { copiesOf } from '../../browser/stores';
import type { Project } from '../../core/project/model';
import { type Copy, isDue, saidOf } from '../../core/storage/copies';
import { entriesOf, useBench } from './bench';
import { errands } from './followers';
import { storeProject } from './library';
import { readProject } from './projectFiles';

/** How often is looked whether a copy is due, and how long after opening first, in milliseconds. */
const LOOK = 300_000;
const FIRST = 60_000;

/** Keeps a copy of the open project as it is stored now; nothing where one is not due, unless it is asked for. */
export async function keepCopy(asked = false): Promise<Copy | undefined> {
  const { projectId, settled, readOnly, save, history } = useBench.getState();
  if (!settled || readOnly || save.kind !== 'saved') return undefined;
  const copies = copiesOf(projectId);
  const there = await copies.list();
  const now = Date.now();
  const [last] = there;
  if (last?.position === history.position || (!asked && !isDue(there, history.position, now))) return undefined;
  const from = Math.max(history.first, Math.min(last?.position ?? history.position, history.position) + 1);
  const entries = last ? (await entriesOf(from, history.position)).filter((e) => e !== undefined) : [];
  const said = last && entries.length === 0 ? 'Steps taken back.' : saidOf(settled, entries);
  return errands.borrow(async (service) => {
    if (useBench.getState().settled !== settled) return undefined;
    const { bytes, glyphs } = await service.file();
    const copy = { at: now, position: history.position, glyphs, bytes: bytes.length, said };
    await copies.add(copy, bytes, now);
    return copy;
  });
}

/** Keeps copies by itself while a project is open; the result ends that. */
export function followCopies(): () => void {
  // Without room or without storage there is no copy; what is to be said of that is said where saving fails.
  const look = () => void keepCopy().catch(() => {});
  const first = setTimeout(look, FIRST);
  const timer = setInterval(look, LOOK);
  return () => {
    clearTimeout(first);
    clearInterval(timer);
  };
}

/** The project that a copy holds. Throws where its file is gone or cannot be read. */
export async function projectOf(projectId: string, copy: Copy): Promise<Project> {
  const bytes = await copiesOf(projectId).file(copy.at);
  if (!bytes) throw new Error('The file of this copy is gone.');
  const read = await readProject(new File([bytes as Uint8Array<ArrayBuffer>], 'copy.wendril'));
  if ('faces' in read || !read.ok) throw new Error('faces' in read ? 'It is no project.' : read.reason);
  return read.value.project;
}

/** A copy as a project of its own; gives its id. */
export async function bringBack(projectId: string, copy: Copy, name: string): Promise<string> {
  const project = await projectOf(projectId, copy);
  return storeProject({ ...project, family: { ...project.family, name } });
}
