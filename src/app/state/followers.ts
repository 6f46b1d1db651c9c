import type { Remote } from 'comlink';
import type { Project } from '../../core/project/model';
import { patchBetween, type Step, stepsOf } from '../../core/project/patch';
import {
  type Started,
  startCompiler,
  startErrands,
  startMeasurer,
  startPreflight,
  startScripter,
} from '../../workers/clients';
import type { CompileService } from '../../workers/compile';
import type { DocumentService } from '../../workers/document';
import type { ErrandService } from '../../workers/errand';
import type { MeasureService } from '../../workers/measure';
import type { PreflightService } from '../../workers/preflight';
import type { ScriptService } from '../../workers/script';
import { packedProject, useBench } from './bench';

/** So many steps are sent in one message. */
const MANY_STEPS = 150;

/**
 * A worker that follows the document: it gets it from storage's own text, or whole, and then only what changes. One that
 * has died, or was stopped, is started anew with the document the next time it is asked for.
 */
export class Follower<T extends DocumentService> {
  private running: { service: Remote<T>; stop: () => void } | undefined;
  private sent: { projectId: string; project: Project } | undefined;
  private queue: Promise<unknown> = Promise.resolve();
  private borrowers = 0;

  constructor(private readonly start: Started<T>) {}

  /** The service, with the document as it is shown now. */
  synced(): Promise<Remote<T>> {
    return this.next(async () => {
      const { service, steps } = await this.bring();
      if (steps.length > 0) await (service as unknown as Remote<DocumentService>).update(steps);
      return service;
    });
  }

  /**
   * The service and what it has not heard of the document yet, for a caller that sends both in one message; nothing else
   * is sent to it in between.
   */
  askWith<R>(ask: (service: Remote<T>, steps: readonly Step[]) => Promise<R>): Promise<R> {
    return this.next(async () => {
      const { service, steps } = await this.bring();
      return ask(service, steps);
    });
  }

  /** The service for one errand; the worker ends when the last of those that have it is done. */
  async borrow<R>(work: (service: Remote<T>) => Promise<R>): Promise<R> {
    this.borrowers++;
    try {
      return await work(await this.synced());
    } finally {
      if (--this.borrowers === 0) this.stop();
    }
  }

  private next<R>(work: () => Promise<R>): Promise<R> {
    const next = this.queue.then(work);
    this.queue = next.catch(() => {});
    return next;
  }

  /** Tells the worker to leave off what it does between two steps; one that is not running has nothing to leave. */
  stopWork(): void {
    const service = this.running?.service as unknown as { stop?: () => unknown } | undefined;
    void service?.stop?.();
  }

  /** Ends whatever it does. */
  stop(): void {
    this.running?.stop();
    this.forget();
  }

  private forget(): void {
    this.running = undefined;
    this.sent = undefined;
  }

  /** Starts the worker and gives it the document where it has none; the steps that it still has to take. */
  private async bring(): Promise<{ service: Remote<T>; steps: readonly Step[] }> {
    const { projectId, project } = useBench.getState();
    if (!project) throw new Error('No project is open.');
    this.running ??= this.start(() => this.forget());
    const { service } = this.running;
    const document = service as unknown as Remote<DocumentService>;
    if (this.sent?.projectId !== projectId) {
      const packed = packedProject();
      if (packed && packed.segments.length > 0) await document.loadPacked(packed.parts, packed.segments);
      else await document.load(project);
      this.sent = { projectId, project: packed && packed.segments.length > 0 ? packed.base : project };
    }
    const steps = stepsOf(patchBetween(this.sent.project, project));
    this.sent = { projectId, project };
    // Very many are sent one part after the other: all at once would hold the page up.
    let at = 0;
    for (; steps.length - at > MANY_STEPS; at += MANY_STEPS) await document.update(steps.slice(at, at + MANY_STEPS));
    return { service, steps: at === 0 ? steps : steps.slice(at) };
  }
}

/** The font behind the galley, and what is measured and proposed over many glyphs. */
export const compiler = new Follower<CompileService>(startCompiler);
export const measurer = new Follower<MeasureService>(startMeasurer);
/** Scripts over the document. */
export const scripter = new Follower<ScriptService>(startScripter);
/** The check of the whole project. */
export const preflighter = new Follower<PreflightService>(startPreflight);
/** The document as a file, for dated copies. */
export const errands = new Follower<ErrandService>(startErrands);
