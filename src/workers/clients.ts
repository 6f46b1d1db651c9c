import { type Remote, wrap } from 'comlink';
import type { CompileService } from './compile';
import type { FilesService } from './files';
import type { KerningService } from './kerning';
import type { NamesService } from './names';
import type { TidyService } from './tidy';
import type { TracingService } from './tracing';

/** The compile worker, started on first use and kept. */
let compiler: Remote<CompileService> | undefined;
export function compileWorker(): Remote<CompileService> {
  compiler ??= wrap<CompileService>(new Worker(new URL('./compile.worker.ts', import.meta.url), { type: 'module' }));
  return compiler;
}

type FileWork = FilesService & NamesService & TidyService & KerningService;

/** A worker for one job on whole files or many glyphs; `stop` ends it at once, which is how a job is cancelled. */
export function filesWorker(): { service: Remote<FileWork>; stop: () => void } {
  const worker = new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });
  return { service: wrap<FileWork>(worker), stop: () => worker.terminate() };
}

/** A worker for one sheet or one picture being traced; it keeps the picture between calls. */
export function tracingWorker(): { service: Remote<TracingService>; stop: () => void } {
  const worker = new Worker(new URL('./tracing.worker.ts', import.meta.url), { type: 'module' });
  return { service: wrap<TracingService>(worker), stop: () => worker.terminate() };
}
