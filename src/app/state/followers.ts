import type { Remote } from 'comlink';
import type { Project } from '../../core/project/model';
import { isEmptyPatch, patchBetween, stepsOf } from '../../core/project/patch';
import { type Started, startCompiler, startMeasurer } from '../../workers/clients';
import type { CompileService } from '../../workers/compile';
import type { DocumentService } from '../../workers/document';
import type { MeasureService } from '../../workers/measure';
import { packedProject, useBench } from './bench';

/**
 * A worker that follows the document: it gets it from storage's own text, or whole, and then only what changes. One that
 * has died, or was stopped, is started anew with the document the next time it is asked for.
 */
export class Follower<T extends DocumentService> {
  private running: { service: Remote<T>; stop: () => void } | undefined;
  private sent: { projectId: string; project: Project } | undefined;
  private queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly start: Started<T>) {}

  /** The service, with the document as it is shown now. */
  synced(): Promise<Remote<T>> {
    const next = this.queue.then(() => this.bring());
    this.queue = next.catch(() => {});
    return next;
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

  private async bring(): Promise<Remote<T>> {
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
    const patch = patchBetween(this.sent.project, project);
    if (!isEmptyPatch(patch)) await document.update(stepsOf(patch));
    this.sent = { projectId, project };
    return service;
  }
}

/** The font behind the galley, and what is measured and proposed over many glyphs. */
export const compiler = new Follower<CompileService>(startCompiler);
export const measurer = new Follower<MeasureService>(startMeasurer);
