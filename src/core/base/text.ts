/**
 * The text of a file, whatever wrote it: UTF-16 by its mark or by its zero bytes, else UTF-8, else Windows Latin (1252); `note`
 * says so where it had to be guessed.
 */
export function textOf(bytes: Uint8Array, label: string): { text: string; note: string | undefined } {
  const [a, b] = bytes;
  const utf16 = (kind: 'utf-16le' | 'utf-16be') => ({ text: new TextDecoder(kind).decode(bytes), note: undefined });
  if (a === 0xff && b === 0xfe) return utf16('utf-16le');
  if (a === 0xfe && b === 0xff) return utf16('utf-16be');
  const sample = bytes.subarray(0, 4000);
  const zeros = [0, 1].map((from) => sample.filter((v, i) => i % 2 === from && v === 0).length);
  if (zeros[1]! > sample.length / 6) return utf16('utf-16le');
  if (zeros[0]! > sample.length / 6) return utf16('utf-16be');
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), note: undefined };
  } catch {
    const text = new TextDecoder('windows-1252').decode(bytes);
    return {
      text,
      note: `${label} is not UTF-8; it was read as Windows Latin. Look whether accented letters are right.`,
    };
  }
}

/** Names in a sentence, as many as a line holds and how many more there are: “a, b and 12 more”. */
export const listed = (names: readonly string[], most = 6, between = ', '): string =>
  names.length <= most ? names.join(between) : `${names.slice(0, most).join(between)} and ${names.length - most} more`;
