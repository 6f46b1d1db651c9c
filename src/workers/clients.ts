import { type Remote, wrap } from 'comlink';
import type { CompileService } from './compile';
import type { FilesService } from './files';
import type { NamesService } from './names';

/** The compile worker, started on first use and kept. */
let compiler: Remote<CompileService> | undefined;
export function compileWorker(): Remote<CompileService> {
  compiler ??= wrap<CompileService>(new Worker(new URL('./compile.worker.ts', import.meta.url), { type: 'module' }));
  return compiler;
}

/** A worker for one job on whole files; `stop` ends it at once, which is how a job is cancelled. */
export function filesWorker(): { service: Remote<FilesService & NamesService>; stop: () => void } {
  const worker = new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });
  return { service: wrap<FilesService & NamesService>(worker), stop: () => worker.terminate() };
}
