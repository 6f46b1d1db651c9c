import { proxy } from 'comlink';
import { type Result, refused } from '../../core/base/result';
import type { FontProject } from '../../core/formats/font/projectFromFont';
import type { Project } from '../../core/project/model';
import { filesWorker } from '../../workers/clients';

/** Largest source file taken in; beyond this a browser tab cannot be trusted to hold it. */
const MOST_BYTES = 600 * 1024 * 1024;

export type Opening = { face?: number; progress?: (done: number, total: number) => void; signal?: AbortSignal };

/**
 * Reads a project file, a zip with sources, an SVG picture or a font of any kind in a worker. Nothing is kept unless the
 * whole file is right. Of a collection the faces are told instead, until one is chosen; `signal` stops the reading.
 */
export async function readProject(
  file: File,
  { face, progress = () => {}, signal }: Opening = {},
): Promise<Result<FontProject> | { faces: string[] }> {
  if (file.size === 0) return refused(`${file.name} is empty.`);
  if (file.size > MOST_BYTES)
    return refused(`${file.name} is ${Math.round(file.size / 1048576)} MB; the most that can be opened is 600 MB.`);
  const { service, stop } = filesWorker();
  const stopped = new Promise<Result<FontProject>>((resolve) => {
    signal?.addEventListener('abort', () =>
      resolve(refused(`Opening ${file.name} was stopped; nothing was taken in.`)),
    );
  });
  const read = async (): Promise<Result<FontProject> | { faces: string[] }> => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const faces = face === undefined ? await service.faces(bytes, file.name) : [];
    if (faces.length > 1) return { faces };
    return (await service.open(bytes, file.name, face ?? 0, proxy(progress))) as Result<FontProject>;
  };
  try {
    return await Promise.race([read(), stopped]);
  } catch {
    return refused(`${file.name} could not be read.`);
  } finally {
    stop();
  }
}

/** Offers bytes to the user as a download. */
export function download(bytes: Uint8Array, name: string, type = 'application/octet-stream'): void {
  const url = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Saves the open project to a file. */
export async function saveToFile(project: Project): Promise<void> {
  const { service, stop } = filesWorker();
  try {
    download(
      await service.save(project),
      `${project.family.name.replace(/[^\w -]/g, '').trim() || 'project'}.wendril`,
      'application/zip',
    );
  } finally {
    stop();
  }
}
