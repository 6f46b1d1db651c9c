import { proxy } from 'comlink';
import type { Result } from '../../core/base/result';
import type { FontProject } from '../../core/formats/projectFromFont';
import type { Project } from '../../core/project/model';
import { filesWorker } from '../../workers/clients';

/** Largest source file taken in; beyond this a browser tab cannot be trusted to hold it. */
const MOST_BYTES = 600 * 1024 * 1024;

/** Reads a project file, a zip with sources or a font of any kind in a worker. Nothing is kept unless the whole file is right. */
export async function readProject(file: File, progress: (done: number, total: number) => void = () => {}): Promise<Result<FontProject>> {
  if (file.size === 0) return { ok: false, reason: `${file.name} is empty.` };
  if (file.size > MOST_BYTES) return { ok: false, reason: `${file.name} is ${Math.round(file.size / 1048576)} MB; the most that can be opened is 600 MB.` };
  const { service, stop } = filesWorker();
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    return (await service.open(bytes, file.name, proxy(progress))) as Result<FontProject>;
  } catch {
    return { ok: false, reason: `${file.name} could not be read.` };
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
    download(await service.save(project), `${project.family.name.replace(/[^\w -]/g, '').trim() || 'project'}.wendril`, 'application/zip');
  } finally {
    stop();
  }
}
