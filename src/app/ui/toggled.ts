/** A set with one member more, or without it where it was there. */
export function toggled<T>(set: ReadonlySet<T>, member: T): Set<T> {
  const next = new Set(set);
  if (!next.delete(member)) next.add(member);
  return next;
}
