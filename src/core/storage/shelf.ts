import { type KeyValue, recordsUnder } from './keyValue';

/** Names of a project's records, below its prefix. */
export const META = 'meta';
export const PARTS = 'parts';
export const KEPT = 'kept';
export const KERNING = 'kerning/';
export const PICTURE = 'picture/';
export const GLYPHS = 'glyphs/';
export const HISTORY = 'step/';
export const JOURNAL = 'log/';
/** Records as they were when the project was opened last, for those that were written since. */
export const BEFORE = 'before/';
/** Records that could not be read, as they were found. */
export const UNREAD = 'unread/';

/** Records of older forms, which a migration that was interrupted may have left. */
export const OLDER_FORMS = /^(part|glyph|history|journal)\/|^history-position$/;

export const number = (n: number) => String(n).padStart(9, '0');
/** Where the records of one project lie. */
export class Shelf {
  constructor(
    private readonly store: KeyValue,
    private readonly prefix: string,
  ) {}

  get = (key: string): Promise<unknown> => this.store.get(this.prefix + key);
  set = (key: string, value: unknown): Promise<void> => this.store.set(this.prefix + key, value);
  remove = (key: string): Promise<void> => this.store.remove(this.prefix + key);
  keys = async (): Promise<string[]> =>
    (await this.store.keys()).flatMap((k) => (k.startsWith(this.prefix) ? [k.slice(this.prefix.length)] : []));
  everything = (): Promise<Map<string, unknown>> => recordsUnder(this.store, this.prefix);

  /** Keeps what could not be read as it was found; what is kept already stays. */
  async keepUnread(key: string, value: unknown): Promise<void> {
    if (value !== undefined && (await this.get(UNREAD + key)) === undefined) await this.set(UNREAD + key, value);
  }
}

/** The value of a JSON text; undefined when it is none. */
export function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
