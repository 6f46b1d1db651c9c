/** The little a store must do; localForage in the browser, a map in tests. Each call is atomic on its own. */
export type KeyValue = {
  get(key: string): Promise<unknown>;
  set(key: string, value: unknown): Promise<void>;
  remove(key: string): Promise<void>;
  keys(): Promise<string[]>;
};

/** Every record under a prefix, by what follows it. */
export async function recordsUnder(store: KeyValue, prefix: string): Promise<Map<string, unknown>> {
  const keys = (await store.keys()).filter((k) => k.startsWith(prefix)).sort();
  const values = await Promise.all(keys.map((k) => store.get(k)));
  return new Map(keys.map((k, i) => [k.slice(prefix.length), values[i]]));
}
