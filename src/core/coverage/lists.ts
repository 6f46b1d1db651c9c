import { parseGlyphList } from '../project/glyphEdits';

/** A list of one's own, read: what it asks for, line by line, and lines that could not be read. */
export type ReadList = {
  codes: readonly number[];
  /** Glyphs without a code point, by name. */
  names: readonly string[];
  faults: readonly { line: number; reason: string }[];
};

/** Lines beyond this are not read. */
const MOST_LINES = 20_000;

/**
 * Reads a list: characters, code points, ranges and glyph names, one a line or with commas or spaces between. Words that
 * could be a name or text are text, since lists are pasted from text; `/name` says that a name is meant.
 */
export function readList(text: string): ReadList {
  const codes = new Set<number>();
  const names = new Set<string>();
  const faults: { line: number; reason: string }[] = [];
  const lines = text.split(/\r\n?|\n/);
  for (const [i, line] of lines.slice(0, MOST_LINES).entries()) {
    const { requests, faults: wrong } = parseGlyphList(line, 'letters');
    for (const { name, unicodes } of requests) {
      if (unicodes.length === 0) names.add(name);
      for (const code of unicodes) codes.add(code);
    }
    for (const reason of wrong) faults.push({ line: i + 1, reason });
  }
  if (lines.length > MOST_LINES)
    faults.push({
      line: MOST_LINES + 1,
      reason: `The list has ${lines.length} lines; the first ${MOST_LINES} were read.`,
    });
  return { codes: [...codes], names: [...names], faults };
}
