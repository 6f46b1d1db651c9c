const numbers = new WeakMap<object, number>();
let next = 1;

/** A number for an object of the immutable document: the same as long as it is the same object; a key for queries. */
export function identityOf(value: object): number {
  let n = numbers.get(value);
  if (n === undefined) {
    n = next++;
    numbers.set(value, n);
  }
  return n;
}
