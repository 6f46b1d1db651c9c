import localforage from 'localforage';
import { Copies } from '../core/storage/copies';
import type { KeyValue } from '../core/storage/keyValue';
import { ProjectRecords } from '../core/storage/records';

/** The browser's storage: one database lists the projects, each project has one of its own. */

export const list = localforage.createInstance({ name: 'wendril', storeName: 'library' });
const stores = new Map<string, LocalForage>();
const databaseOf = (id: string) => `wendril-${id}`;

function storeOf(id: string): LocalForage {
  const store = stores.get(id) ?? localforage.createInstance({ name: databaseOf(id), storeName: 'records' });
  stores.set(id, store);
  return store;
}

const keyValue = (store: LocalForage): KeyValue => ({
  // A store says null for what is not there; a record is never null.
  get: async (key) => (await store.getItem(key)) ?? undefined,
  async set(key, value) {
    await store.setItem(key, value);
  },
  remove: (key) => store.removeItem(key),
  keys: () => store.keys(),
});

/** The dated copies of a project lie in a database of their own. */
export const copiesOf = (id: string): Copies => {
  const name = `${databaseOf(id)}-copies`;
  const store = stores.get(name) ?? localforage.createInstance({ name, storeName: 'copies' });
  stores.set(name, store);
  return new Copies(keyValue(store));
};

/** The records of a project. Whoever opens them goes on writing through the same object. */
export const recordsOf = (id: string): ProjectRecords => new ProjectRecords(keyValue(storeOf(id)), `project/${id}/`);

/** Drops a project's database whole. */
export async function dropStore(id: string): Promise<void> {
  for (const name of [databaseOf(id), `${databaseOf(id)}-copies`]) {
    stores.delete(name);
    await localforage.dropInstance({ name });
  }
  stores.delete(id);
}

/** Bytes that a project's records take, as text would. */
export async function bytesOf(id: string): Promise<number> {
  let bytes = 0;
  await storeOf(id).iterate((value) => {
    bytes += sizeOf(value);
  });
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
