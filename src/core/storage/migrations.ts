import { type Refusal, refused } from '../base/result';
import { EMPTY_HISTORY, type Entry, type History } from '../project/history';
import { type Glyph, PART_NAMES, type Project } from '../project/model';
import { type Change, isEmptyPatch, patchBetween } from '../project/patch';

/** The form that records have now. A project stored in an older one is led here step by step when it is opened. */
export const STORED_VERSION = 2;

/** Records by key, as they lie in the store below the project's own prefix. */
export type Records = ReadonlyMap<string, unknown>;

/** What an older form comes to: parts, glyphs by id and a history, none of them held to the model yet. */
export type Migrated = {
  parts: Readonly<Record<string, unknown>>;
  glyphs: Readonly<Record<string, unknown>>;
  history: (project: Project) => History;
};

/** Which form records are in; undefined when there is no project in them. */
export function versionOf(records: { meta?: unknown; firstVersion?: unknown }): number | undefined {
  const meta = records.meta as { version?: unknown } | undefined;
  if (typeof meta?.version === 'number') return meta.version;
  return records.firstVersion === undefined ? undefined : 1;
}

export const newerVersion = (version: number): Refusal =>
  refused(
    `This project was stored by a newer Wendril (form ${version}; this one knows ${STORED_VERSION}). It is left as it is: open it with that one.`,
  );

/** How each older form is read. A form is added here when the next one takes its place, and never taken away. */
export const MIGRATIONS: Readonly<Record<number, (records: Records) => Migrated>> = { 1: fromVersion1 };

type Batch = readonly { key: string; value: unknown; gone: boolean }[];
type OldEntry = {
  sentence: string;
  patch: {
    glyphs: { id: string; before: Glyph | undefined; after: Glyph | undefined }[];
    parts: { name: string; before: unknown; after: unknown }[];
  };
};

/** Version 1: a record for each glyph, part and history entry; a journal of batches that a crash may have left. */
function fromVersion1(stored: Records): Migrated {
  const records = new Map(stored);
  for (const key of [...records.keys()].filter((k) => k.startsWith('journal/')).sort()) {
    const batch = records.get(key);
    if (!Array.isArray(batch)) continue;
    for (const { key: at, value, gone } of batch as Batch) {
      if (gone) records.delete(at);
      else records.set(at, value);
    }
  }
  const parts: Record<string, unknown> = {};
  for (const name of PART_NAMES) parts[name] = records.get(`part/${name}`);
  const entries: OldEntry[] = [];
  const glyphs: Record<string, unknown> = {};
  for (const key of [...records.keys()].sort()) {
    if (key.startsWith('glyph/')) glyphs[key.slice('glyph/'.length)] = records.get(key);
    if (key.startsWith('history/')) entries.push(records.get(key) as OldEntry);
  }
  const position = Number(records.get('history-position') ?? entries.length);
  return { parts, glyphs, history: (project) => historyOf(project, entries, position) };
}

/** Entries of whole records become entries of what changed in them; from the first that cannot be read on, none is kept. */
function historyOf(project: Project, entries: readonly OldEntry[], position: number): History {
  const made: Entry[] = [];
  for (const entry of entries) {
    if (typeof entry?.sentence !== 'string' || !Array.isArray(entry.patch?.glyphs)) return EMPTY_HISTORY;
    made.push({ sentence: entry.sentence, patch: patchOf(project, entry) });
  }
  return {
    done: made.slice(0, position),
    undone: made.slice(position).reverse(),
    position: Math.min(position, made.length),
    first: 1,
    last: made.length,
  };
}

function patchOf(project: Project, { patch: { glyphs, parts } }: OldEntry): Change[] {
  const side = (which: 'before' | 'after'): Project =>
    ({
      ...project,
      ...Object.fromEntries(parts.map((p) => [p.name, p[which]])),
      glyphs: Object.fromEntries(glyphs.flatMap((g) => (g[which] ? [[g.id, g[which]]] : []))),
    }) as Project;
  const patch = patchBetween(side('before'), side('after'));
  return isEmptyPatch(patch) ? [] : [...patch];
}
