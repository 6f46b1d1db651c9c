import { storageSentence } from '../../browser/stores';
import type { History } from '../../core/project/history';
import type { Project } from '../../core/project/model';
import type { ProjectRecords, Write } from '../../core/storage/records';
import { touchProject } from './library';

/** `waiting` is how many steps are not on disk yet. */
export type SaveState =
  | { kind: 'saved'; at: number }
  | { kind: 'saving' }
  | { kind: 'failed'; sentence: string; waiting: number };

type State = { project: Project; history: History };

/** The records are brought up to date when the hand has rested this long, in milliseconds, or after so many steps. */
const REST_MS = 1200;
const MOST_BEHIND = 200;
/** A failed write is tried again after this long, then after twice that, up to the longest. */
const RETRY_MS = 2000;
const LONGEST_RETRY_MS = 30_000;

/**
 * Writes edits to the browser's storage in order: each as one small record at once, the rest when the hand rests. What
 * could not be written is kept and tried again, by itself and with the next edit. A project that finds itself gone from
 * storage is written whole.
 */
export class Saver {
  private queue: Write[] = [];
  private latest: State | undefined;
  private running: Promise<void> | undefined;
  private behind = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private retrying: ReturnType<typeof setTimeout> | undefined;
  private retryMs = RETRY_MS;
  private stopped = false;

  constructor(
    private readonly id: string,
    readonly records: ProjectRecords,
    private readonly tell: (state: SaveState) => void,
  ) {}

  push(write: Write, state: State): void {
    if (this.stopped) return;
    this.queue.push(write);
    this.latest = state;
    this.tell({ kind: 'saving' });
    this.begin();
  }

  /** Another tab has the project now: nothing more is written from here. */
  stop(): void {
    this.stopped = true;
    clearTimeout(this.resting);
    clearTimeout(this.retrying);
  }

  private begin(): void {
    clearTimeout(this.retrying);
    this.running ??= this.drain().finally(() => {
      this.running = undefined;
    });
  }

  private async drain(): Promise<void> {
    try {
      while (this.queue.length > 0 && !this.stopped) {
        if (!(await this.records.isThere())) {
          await this.writeWhole();
          break;
        }
        await this.records.journal(this.queue[0]!);
        this.queue.shift();
        this.behind++;
      }
      if (this.stopped) return;
      this.retryMs = RETRY_MS;
      this.tell({ kind: 'saved', at: Date.now() });
      this.restSoon();
      if (this.behind >= MOST_BEHIND) await this.checkpoint();
    } catch (error) {
      this.failed(error);
    }
  }

  /** The project was removed under our hands: it is stored anew as it is. */
  private async writeWhole(): Promise<void> {
    const { project, history } = this.latest!;
    const counted = this.queue.length;
    await this.records.create(project, history);
    await touchProject(this.id, project);
    this.queue.splice(0, counted);
  }

  private failed(error: unknown): void {
    this.tell({ kind: 'failed', sentence: storageSentence(error), waiting: this.queue.length });
    clearTimeout(this.retrying);
    this.retrying = setTimeout(() => this.begin(), this.retryMs);
    this.retryMs = Math.min(LONGEST_RETRY_MS, this.retryMs * 2);
  }

  private restSoon(after = REST_MS): void {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => void this.rest(), after);
  }

  private async rest(): Promise<void> {
    await this.running;
    if (this.behind === 0 || this.queue.length > 0 || this.stopped) return;
    // What the journal holds is stored; the records follow as soon as they can.
    this.running = this.checkpoint().catch(() => this.restSoon(LONGEST_RETRY_MS));
    await this.running;
    this.running = undefined;
    if (this.queue.length > 0) this.begin();
  }

  private async checkpoint(): Promise<void> {
    const { project } = this.latest!;
    const done = this.behind;
    await this.records.checkpoint(project);
    this.behind -= done;
    await touchProject(this.id, project);
  }

  /** Tries at once what waits. */
  async tryAgain(): Promise<void> {
    this.begin();
    await this.running;
  }

  /** Everything is on disk, or the last try has failed. Resolves with whether it is. */
  async finished(): Promise<boolean> {
    await this.running;
    if (this.queue.length > 0) await this.tryAgain();
    clearTimeout(this.resting);
    await this.rest();
    return this.queue.length === 0;
  }
}
