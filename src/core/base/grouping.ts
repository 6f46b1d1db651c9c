/** Adds to the list that is held under a key; the first makes it. */
export function addTo<K, T>(lists: Map<K, T[]>, key: K, item: T): void {
  const list = lists.get(key);
  if (list) list.push(item);
  else lists.set(key, [item]);
}
