import { type Remote, wrap } from 'comlink';
import type { CompileService } from './compile';
import type { ErrandService } from './errand';
import type { FilesService } from './files';
import type { MeasureService } from './measure';
import type { NamesService } from './names';
import type { PreflightService } from './preflight';
import type { ScriptService } from './script';
import type { TracingService } from './tracing';
import type { TypingService } from './typing';

/** What is said when a worker ends in the middle of its work. */
const DIED = 'The work in the background broke off (out of memory, or a fault of ours).';

/**
 * A service in a worker. A call to a worker that dies, or is stopped, fails with a sentence instead of waiting for ever;
 * `onEnd` is told when it died by itself.
 */
function serviceOf<T>(worker: Worker, onEnd: () => void = () => {}): { service: Remote<T>; stop: () => void } {
  let fail: (error: Error) => void = () => {};
  const ended = new Promise<never>((_, reject) => {
    fail = reject;
  });
  // Nobody may be waiting when it ends.
  ended.catch(() => {});
  worker.addEventListener('error', (event) => {
    event.preventDefault();
    fail(new Error(DIED));
    worker.terminate();
    onEnd();
  });
  const remote = wrap<Record<string, (...args: unknown[]) => unknown>>(worker);
  const service = new Proxy(remote, {
    get: (target, name: string) =>
      // Whoever waits for the service itself must not take it for a promise.
      name === 'then' ? undefined : (...args: unknown[]) => Promise.race([target[name]!(...args), ended]),
  });
  return {
    service: service as unknown as Remote<T>,
    stop: () => {
      worker.terminate();
      fail(new Error('The work was stopped.'));
    },
  };
}

/** A worker that holds a copy of the document; `onEnd` is told when it has died, so that another is started. */
export type Started<T> = (onEnd: () => void) => { service: Remote<T>; stop: () => void };

export const startCompiler: Started<CompileService> = (onEnd) =>
  serviceOf(new Worker(new URL('./compile.worker.ts', import.meta.url), { type: 'module' }), onEnd);

export const startMeasurer: Started<MeasureService> = (onEnd) =>
  serviceOf(new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' }), onEnd);

export const startPreflight: Started<PreflightService> = (onEnd) =>
  serviceOf(new Worker(new URL('./preflight.worker.ts', import.meta.url), { type: 'module' }), onEnd);

/** Scripts, each run in an interpreter of its own. */
export const startScripter: Started<ScriptService> = (onEnd) =>
  serviceOf(new Worker(new URL('./script.worker.ts', import.meta.url), { type: 'module' }), onEnd);

/** The document as a file, for copies that are kept by themselves. */
export const startErrands: Started<ErrandService> = (onEnd) =>
  serviceOf(new Worker(new URL('./errand.worker.ts', import.meta.url), { type: 'module' }), onEnd);

/** Scripts looked at by types while they are written. */
export const typingWorker = (onEnd: () => void): { service: Remote<TypingService>; stop: () => void } =>
  serviceOf(new Worker(new URL('./typing.worker.ts', import.meta.url), { type: 'module' }), onEnd);

type FileWork = FilesService & NamesService;

/** A worker for one job on whole files or many glyphs; `stop` ends it at once, which is how a job is cancelled. */
export const filesWorker = (): { service: Remote<FileWork>; stop: () => void } =>
  serviceOf(new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }));

/** A worker for one sheet or one picture being traced; it keeps the picture between calls. */
export const tracingWorker = (): { service: Remote<TracingService>; stop: () => void } =>
  serviceOf(new Worker(new URL('./tracing.worker.ts', import.meta.url), { type: 'module' }));
