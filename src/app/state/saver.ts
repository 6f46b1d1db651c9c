import type { Entry } from '../../core/project/history';
import type { Project } from '../../core/project/model';
import type { Patch } from '../../core/project/patch';
import { recordsOf, storageSentence, touchProject } from './library';
import type { ProjectRecords } from './records';

export type SaveState = { kind: 'saved'; at: number } | { kind: 'saving' } | { kind: 'failed'; sentence: string };

type Write = {
  patch: Patch;
  direction: 'forwards' | 'backwards';
  position: number;
  entries: readonly { at: number; entry: Entry }[];
  project: Project;
};

/** Writes edits to the browser's storage one after another, in order; a failed write is kept and tried again with the next. */
export class Saver {
  private readonly records: ProjectRecords;
  private queue: Write[] = [];
  private running: Promise<void> | undefined;

  constructor(
    private readonly id: string,
    private readonly tell: (state: SaveState) => void,
  ) {
    this.records = recordsOf(id);
  }

  push(
    patch: Patch,
    direction: 'forwards' | 'backwards',
    position: number,
    entries: Write['entries'],
    project: Project,
  ): void {
    this.queue.push({ patch, direction, position, entries, project });
    this.tell({ kind: 'saving' });
    this.running ??= this.drain().finally(() => {
      this.running = undefined;
    });
  }

  private async drain(): Promise<void> {
    while (this.queue.length > 0) {
      const write = this.queue[0]!;
      try {
        await this.records.save(write.patch, write.direction, write.position, write.entries);
        this.queue.shift();
        if (this.queue.length === 0) await touchProject(this.id, write.project);
      } catch (error) {
        this.tell({ kind: 'failed', sentence: storageSentence(error) });
        return;
      }
    }
    this.tell({ kind: 'saved', at: Date.now() });
  }

  async finished(): Promise<void> {
    await this.running;
  }
}
