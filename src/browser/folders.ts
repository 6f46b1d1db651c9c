import { keyValue } from './stores';

/** Folders of one's disk, where the browser lets a page read and write them. */

/** So much is read of a folder. */
const MOST_FILES = 60_000;
const MOST_BYTES = 600 * 1024 * 1024;

/** When a file of the folder was changed last, and how long it is: what tells that another program wrote it. */
export type Stamp = { readonly changed: number; readonly size: number };

/** The folder a project was opened from, its designspace or UFO in it, and its files as they were last read or written. */
export type Home = {
  readonly handle: FileSystemDirectoryHandle;
  /** The path of the designspace or UFO; empty where the folder itself is the UFO. */
  readonly source: string;
  readonly stamps: Readonly<Record<string, Stamp>>;
};

const homes = keyValue('wendril-folders', 'folders');
export const homeOf = async (projectId: string): Promise<Home | undefined> =>
  (await homes.get(projectId)) as Home | undefined;
export const rememberHome = (projectId: string, home: Home): Promise<void> => homes.set(projectId, home);

type Picker = (options: { mode: 'readwrite' }) => Promise<FileSystemDirectoryHandle>;
const picker = (): Picker | undefined => (window as { showDirectoryPicker?: Picker }).showDirectoryPicker;

/** Can this browser open folders, and write them? */
export const opensFolders = (): boolean => picker() !== undefined;

/** Asks for a folder; undefined where none is chosen. */
export async function chooseFolder(): Promise<FileSystemDirectoryHandle | undefined> {
  try {
    return await picker()?.({ mode: 'readwrite' });
  } catch (error) {
    if ((error as Error).name === 'AbortError') return undefined;
    throw error;
  }
}

/** The folder of a drop; undefined where that holds files. To be asked for while the event lasts. */
export function droppedFolder(dropped: DataTransfer): Promise<FileSystemDirectoryHandle> | undefined {
  const item = dropped.items[0];
  if (!item?.webkitGetAsEntry?.()?.isDirectory) return undefined;
  const handle = (item as unknown as { getAsFileSystemHandle?(): Promise<FileSystemDirectoryHandle> })
    .getAsFileSystemHandle;
  return handle
    ? handle.call(item)
    : Promise.reject(new Error('This browser gives no folder that is dropped; open a zip of it, or a .ufoz.'));
}

/** Asks whether a folder may be written, where that is not known yet. */
export async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  const asked = folder as unknown as { requestPermission?(how: { mode: 'readwrite' }): Promise<string> };
  return !asked.requestPermission || (await asked.requestPermission({ mode: 'readwrite' })) === 'granted';
}

/** Every file of a folder by its path, hidden ones and what packages bring left out. */
export async function filesBelow(folder: FileSystemDirectoryHandle): Promise<Map<string, FileSystemFileHandle>> {
  const files = new Map<string, FileSystemFileHandle>();
  const visit = async (at: FileSystemDirectoryHandle, prefix: string): Promise<void> => {
    const entries = (at as unknown as { values(): AsyncIterable<FileSystemHandle> }).values();
    for await (const entry of entries) {
      if (entry.name.startsWith('.') || entry.name === 'node_modules') continue;
      if (entry.kind === 'directory') await visit(entry as FileSystemDirectoryHandle, `${prefix}${entry.name}/`);
      else files.set(prefix + entry.name, entry as FileSystemFileHandle);
      if (files.size > MOST_FILES)
        throw new Error(`${folder.name} holds more than ${MOST_FILES} files; open the folder that holds the source.`);
    }
  };
  await visit(folder, '');
  return files;
}

/** The bytes of files and when each was changed. */
export async function readAll(
  files: ReadonlyMap<string, FileSystemFileHandle>,
  progress: (done: number, total: number) => void = () => {},
): Promise<{ bytes: Map<string, Uint8Array>; stamps: Record<string, Stamp> }> {
  const bytes = new Map<string, Uint8Array>();
  const stamps: Record<string, Stamp> = {};
  let sum = 0;
  for (const [path, handle] of files) {
    const file = await handle.getFile();
    sum += file.size;
    if (sum > MOST_BYTES) throw new Error('The source is larger than 600 MB.');
    bytes.set(path, new Uint8Array(await file.arrayBuffer()));
    stamps[path] = stampOf(file);
    if (bytes.size % 100 === 0) progress(bytes.size, files.size);
  }
  return { bytes, stamps };
}

export const stampOf = (file: File): Stamp => ({ changed: file.lastModified, size: file.size });

/** The file at a path, and the folders on the way where `create` asks for them; undefined where it is not there. */
export async function fileAt(
  folder: FileSystemDirectoryHandle,
  path: string,
  create = false,
): Promise<FileSystemFileHandle | undefined> {
  const parts = path.split('/');
  let at = folder;
  try {
    for (const part of parts.slice(0, -1)) at = await at.getDirectoryHandle(part, { create });
    return await at.getFileHandle(parts[parts.length - 1]!, { create });
  } catch (error) {
    if (!create && (error as Error).name === 'NotFoundError') return undefined;
    throw error;
  }
}

/** Writes a file whole, or leaves it as it was. */
export async function writeFile(handle: FileSystemFileHandle, bytes: Uint8Array): Promise<Stamp> {
  const stream = await handle.createWritable();
  await stream.write(bytes as Uint8Array<ArrayBuffer>);
  await stream.close();
  return stampOf(await handle.getFile());
}

export async function removeFile(folder: FileSystemDirectoryHandle, path: string): Promise<void> {
  const parts = path.split('/');
  let at = folder;
  for (const part of parts.slice(0, -1)) at = await at.getDirectoryHandle(part);
  await at.removeEntry(parts[parts.length - 1]!);
}
