/** A number of 32 bits for a text (FNV-1a, Fowler, Noll and Vo); equal texts have equal ones. */
export function numberOfText(text: string, start = 0x811c9dc5): number {
  let h = start;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}
