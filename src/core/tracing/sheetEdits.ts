import { joined, type Region, type SheetLine } from './regions';

/** Lines of a sheet with what each region is: a character, or nothing where it is not known. */
export type LetteredLine = SheetLine & { readonly characters: readonly (string | undefined)[] };

/** Characters of a typed line, composed, spaces left out. */
export const charactersOf = (text: string): string[] => [...text.normalize('NFC')].filter((c) => c.trim() !== '');

/** The line with its regions named from left to right by the characters of a text. */
export const lettered = (line: SheetLine, text: string): LetteredLine => {
  const characters = charactersOf(text);
  return { ...line, characters: line.regions.map((_, i) => characters[i]) };
};

type Place = { line: number; region: number };

const changeLine = (lines: readonly SheetLine[], index: number, change: (line: SheetLine) => SheetLine): SheetLine[] =>
  lines.map((l, i) => (i === index ? change(l) : l));

/** Moves one edge of a region; a region keeps at least a pixel each way. */
export function moveEdge(
  lines: readonly SheetLine[],
  { line, region }: Place,
  edge: keyof Region,
  to: number,
): SheetLine[] {
  return changeLine(lines, line, (l) => ({
    ...l,
    regions: l.regions.map((r, i) => {
      if (i !== region) return r;
      const next = { ...r, [edge]: Math.round(to) };
      return next.right > next.left && next.bottom > next.top ? next : r;
    }),
  }));
}

/** Puts a region and the one to its right together. */
export function joinWithNext(lines: readonly SheetLine[], { line, region }: Place): SheetLine[] {
  return changeLine(lines, line, (l) => {
    const [a, b] = [l.regions[region], l.regions[region + 1]];
    return a && b
      ? { ...l, regions: [...l.regions.slice(0, region), joined(a, b), ...l.regions.slice(region + 2)] }
      : l;
  });
}

/** Takes a region away. */
export const removeRegion = (lines: readonly SheetLine[], { line, region }: Place): SheetLine[] =>
  changeLine(lines, line, (l) => ({ ...l, regions: l.regions.filter((_, i) => i !== region) }));

/** Adds a region to the line whose baseline it is nearest to, in its place from left to right; a line of its own where there is none. */
export function addRegion(lines: readonly SheetLine[], region: Region): SheetLine[] {
  if (lines.length === 0) return [{ baseline: region.bottom, regions: [region] }];
  const nearest = lines.reduce(
    (best, l, i) => (Math.abs(l.baseline - region.bottom) < Math.abs(lines[best]!.baseline - region.bottom) ? i : best),
    0,
  );
  return changeLine(lines, nearest, (l) => ({ ...l, regions: [...l.regions, region].sort((a, b) => a.left - b.left) }));
}

/** Moves the row that a line's letters stand on. */
export const moveBaseline = (lines: readonly SheetLine[], line: number, to: number): SheetLine[] =>
  changeLine(lines, line, (l) => ({ ...l, baseline: Math.round(to) }));
