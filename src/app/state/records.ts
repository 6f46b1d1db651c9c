import type { z } from 'zod';
import type { Entry, History } from '../../core/project/history';
import {
  type Glyph,
  glyphSchema,
  PART_NAMES,
  type PartName,
  type Project,
  partSchemas,
} from '../../core/project/model';
import type { Patch } from '../../core/project/patch';

/** The little a store must do; localForage in the browser, a map in tests. Each call is atomic on its own. */
export type KeyValue = {
  set(key: string, value: unknown): Promise<void>;
  remove(key: string): Promise<void>;
  /** Every record whose key begins with `prefix`. */
  all(prefix: string): Promise<Map<string, unknown>>;
};

/** One batch of the write-ahead journal: records to put, `undefined` to remove. */
type Batch = { readonly [key: string]: unknown };

const GLYPH = 'glyph/';
const PART = 'part/';
const HISTORY = 'history/';
const JOURNAL = 'journal/';
const POSITION = 'history-position';
const number = (n: number) => String(n).padStart(9, '0');

/**
 * A project as records: one per glyph, one per part, one per history entry. A write is journalled as a whole first, then
 * applied record by record, then the journal entry is removed; {@link ProjectRecords.open} replays what a crash left.
 */
export class ProjectRecords {
  private journalled = 0;
  private entries = 0;

  constructor(
    private readonly store: KeyValue,
    private readonly prefix: string,
  ) {}

  private async write(batch: Batch): Promise<void> {
    const journal = `${this.prefix}${JOURNAL}${number(this.journalled++)}`;
    const flat = Object.entries(batch).map(([key, value]) => ({ key, value, gone: value === undefined }));
    await this.store.set(journal, flat);
    await this.apply(flat);
    await this.store.remove(journal);
  }

  private async apply(flat: readonly { key: string; value: unknown; gone: boolean }[]): Promise<void> {
    await Promise.all(
      flat.map(({ key, value, gone }) =>
        gone ? this.store.remove(this.prefix + key) : this.store.set(this.prefix + key, value),
      ),
    );
  }

  /** Writes a whole project, for a new or opened one. */
  async create(project: Project): Promise<void> {
    const batch: Record<string, unknown> = { [POSITION]: 0 };
    for (const name of PART_NAMES) batch[PART + name] = project[name];
    for (const glyph of Object.values(project.glyphs)) batch[GLYPH + glyph.id] = glyph;
    await this.write(batch);
  }

  /**
   * Writes what an edit, an undo or a redo changed. `entries` are history entries to put at their places (the newest edit,
   * or none for undo and redo), `position` the number of entries that are done now.
   */
  async save(
    patch: Patch,
    direction: 'forwards' | 'backwards',
    position: number,
    entries: readonly { at: number; entry: Entry }[],
  ): Promise<void> {
    const batch: Record<string, unknown> = { [POSITION]: position };
    for (const g of patch.glyphs) batch[GLYPH + g.id] = direction === 'forwards' ? g.after : g.before;
    for (const p of patch.parts) batch[PART + p.name] = direction === 'forwards' ? p.after : p.before;
    for (const { at, entry } of entries) {
      batch[HISTORY + number(at)] = entry;
      for (let i = at + 1; i < this.entries; i++) batch[HISTORY + number(i)] = undefined;
      this.entries = at + 1;
    }
    await this.write(batch);
  }

  /** Reads the project and its history, replaying unfinished writes first. `undefined` when there is none. */
  async open(): Promise<{ project: Project; history: History } | { fault: string } | undefined> {
    let records = await this.store.all(this.prefix);
    const journals = [...records.keys()].filter((k) => k.startsWith(this.prefix + JOURNAL)).sort();
    for (const key of journals) {
      await this.apply(records.get(key) as { key: string; value: unknown; gone: boolean }[]);
      await this.store.remove(key);
    }
    if (journals.length > 0) records = await this.store.all(this.prefix);
    this.journalled = 0;
    return records.size === 0 ? undefined : this.assemble(records);
  }

  private assemble(records: ReadonlyMap<string, unknown>): { project: Project; history: History } | { fault: string } {
    const parts: Partial<Record<PartName, unknown>> = {};
    for (const name of PART_NAMES) {
      const parsed = (partSchemas[name] as z.ZodType<unknown>).safeParse(records.get(this.prefix + PART + name));
      if (!parsed.success) return { fault: `The stored ${name} of this project cannot be read.` };
      parts[name] = parsed.data;
    }
    const glyphs: Record<string, Glyph> = {};
    const entries: Entry[] = [];
    for (const key of [...records.keys()].sort()) {
      const rest = key.slice(this.prefix.length);
      if (rest.startsWith(HISTORY)) entries.push(records.get(key) as Entry);
      if (!rest.startsWith(GLYPH)) continue;
      const parsed = glyphSchema.safeParse(records.get(key));
      if (!parsed.success)
        return { fault: `The stored glyph ${rest.slice(GLYPH.length)} of this project cannot be read.` };
      glyphs[parsed.data.id] = parsed.data;
    }
    this.entries = entries.length;
    const position = Number(records.get(this.prefix + POSITION) ?? entries.length);
    const project = { ...(parts as object), glyphs } as Project;
    return { project, history: { done: entries.slice(0, position), undone: entries.slice(position).reverse() } };
  }
}
