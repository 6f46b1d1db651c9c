import localforage from 'localforage';
import { Copies } from '../core/storage/copies';
import type { KeyValue } from '../core/storage/keyValue';
import { ProjectRecords } from '../core/storage/records';

/** The browser's storage: one database lists the projects, each project has one of its own. */

const LIBRARY = { name: 'wendril', storeName: 'library' } as const;
/** So long the browser has to open its storage, in milliseconds, before it is said that it does not answer. */
const PATIENCE_MS = 15_000;

/** A database of the browser, or a place in the page's memory where the browser has none to give. */
type Database = { readonly at: KeyValue; drop(): Promise<void> };

/** Does what is written stay when the tab is closed? `false` in windows and browsers that give no storage. */
export const keepsWhatIsStored: Promise<boolean> = opensDatabases();
// Whoever asks hears of it.
keepsWhatIsStored.catch(() => {});

async function opensDatabases(): Promise<boolean> {
  const probe = localforage.createInstance({ ...LIBRARY, driver: localforage.INDEXEDDB });
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const silent = new Promise<never>((_, reject) => {
    waiting = setTimeout(
      () => reject(new Error('it does not answer; close other tabs of Wendril and load this one anew')),
      PATIENCE_MS,
    );
  });
  const works = probe.keys().then(
    () => true,
    () => false,
  );
  return Promise.race([works, silent]).finally(() => clearTimeout(waiting));
}

const databases = new Map<string, Promise<Database>>();

function databaseOf(name: string, storeName: string): Promise<Database> {
  const found = databases.get(name) ?? opened(name, storeName);
  databases.set(name, found);
  return found;
}

async function opened(name: string, storeName: string): Promise<Database> {
  if (!(await keepsWhatIsStored)) return inMemory();
  const store = localforage.createInstance({ name, storeName, driver: localforage.INDEXEDDB });
  return {
    at: {
      // A store says null for what is not there; a record is never null.
      get: async (key) => (await store.getItem(key)) ?? undefined,
      async set(key, value) {
        await store.setItem(key, value);
      },
      remove: (key) => store.removeItem(key),
      keys: () => store.keys(),
    },
    drop: () => localforage.dropInstance({ name }),
  };
}

/** What is written is copied, as a database does. */
function inMemory(): Database {
  const records = new Map<string, unknown>();
  return {
    at: {
      get: async (key) => structuredClone(records.get(key)),
      async set(key, value) {
        records.set(key, structuredClone(value));
      },
      async remove(key) {
        records.delete(key);
      },
      keys: async () => [...records.keys()],
    },
    drop: async () => records.clear(),
  };
}

/** The database is opened when it is first asked for something. */
export function keyValue(name: string, storeName: string): KeyValue {
  const at = async () => (await databaseOf(name, storeName)).at;
  return {
    get: async (key) => (await at()).get(key),
    set: async (key, value) => (await at()).set(key, value),
    remove: async (key) => (await at()).remove(key),
    keys: async () => (await at()).keys(),
  };
}

/** The projects of this browser. */
export const list: KeyValue = keyValue(LIBRARY.name, LIBRARY.storeName);
/** Scripts as they are being written, by project. */
export const drafts: KeyValue = keyValue('wendril-scripts', 'drafts');

const nameOf = (id: string) => `wendril-${id}`;
const copiesNameOf = (id: string) => `wendril-${id}-copies`;
const recordStore = (id: string): KeyValue => keyValue(nameOf(id), 'records');

/** The dated copies of a project lie in a database of their own. */
export const copiesOf = (id: string): Copies => new Copies(keyValue(copiesNameOf(id), 'copies'));

/** The records of a project. Whoever opens them goes on writing through the same object. */
export const recordsOf = (id: string): ProjectRecords => new ProjectRecords(recordStore(id), `project/${id}/`);

/** Drops a project's databases whole. */
export async function dropStore(id: string): Promise<void> {
  for (const [name, storeName] of [
    [nameOf(id), 'records'],
    [copiesNameOf(id), 'copies'],
  ] as const) {
    const { drop } = await databaseOf(name, storeName);
    databases.delete(name);
    await drop();
  }
}

/** Bytes that a project's records and its dated copies take, as text would. */
export async function bytesOf(id: string): Promise<number> {
  let bytes = 0;
  const store = recordStore(id);
  for (const key of await store.keys()) bytes += sizeOf(await store.get(key));
  for (const copy of await copiesOf(id).list()) bytes += copy.bytes;
  return bytes;
}

function sizeOf(value: unknown): number {
  if (typeof value === 'string') return value.length;
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null) return 8;
  let sum = 16;
  for (const [key, v] of Object.entries(value)) sum += key.length + sizeOf(v);
  return sum;
}

/** A storage failure as a sentence. */
export function storageSentence(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  return name === 'QuotaExceededError' ? 'The browser’s storage is full.' : 'The browser could not store the change.';
}

/** Asks the browser to keep what is stored even when space runs short; undefined where it cannot be asked. */
export async function askToPersist(): Promise<boolean | undefined> {
  if (!navigator.storage?.persist) return undefined;
  return (await navigator.storage.persisted()) || navigator.storage.persist();
}
