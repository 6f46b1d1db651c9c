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

const changeLine = (lines: readonly LetteredLine[], index: number, change: (line: LetteredLine) => LetteredLine): LetteredLine[] =>
  lines.map((l, i) => (i === index ? change(l) : l));

/** Moves one edge of a region; a region keeps at least a pixel each way. */
export function moveEdge(lines: readonly LetteredLine[], { line, region }: Place, edge: keyof Region, to: number): LetteredLine[] {
  return changeLine(lines, line, (l) => ({
    ...l,
    regions: l.regions.map((r, i) => {
      if (i !== region) return r;
      const next = { ...r, [edge]: Math.round(to) };
      return next.right > next.left && next.bottom > next.top ? next : r;
    }),
  }));
}

/** Puts a region and the one to its right together; it keeps its own character, the others move up. */
export function joinWithNext(lines: readonly LetteredLine[], { line, region }: Place): LetteredLine[] {
  return changeLine(lines, line, (l) => {
    const [a, b] = [l.regions[region], l.regions[region + 1]];
    if (!a || !b) return l;
    const regions = [...l.regions.slice(0, region), joined(a, b), ...l.regions.slice(region + 2)];
    return { ...l, regions, characters: [...l.characters, undefined].slice(0, regions.length) };
  });
}

/** Takes a region away; the characters after it move up. */
export function removeRegion(lines: readonly LetteredLine[], { line, region }: Place): LetteredLine[] {
  return changeLine(lines, line, (l) => ({
    ...l,
    regions: l.regions.filter((_, i) => i !== region),
    characters: l.characters.slice(0, -1),
  }));
}

/** Adds a region to the line whose baseline it is nearest to, in its place from left to right; a line of its own where there is none. */
export function addRegion(lines: readonly LetteredLine[], region: Region): LetteredLine[] {
  const own = { ...region };
  if (lines.length === 0) return [{ baseline: own.bottom, regions: [own], characters: [undefined] }];
  const nearest = lines.reduce((best, l, i) => (Math.abs(l.baseline - own.bottom) < Math.abs(lines[best]!.baseline - own.bottom) ? i : best), 0);
  return changeLine(lines, nearest, (l) => {
    const regions = [...l.regions, own].sort((a, b) => a.left - b.left);
    return { ...l, regions, characters: [...l.characters, undefined] };
  });
}

/** Moves the row that a line's letters stand on. */
export const moveBaseline = (lines: readonly LetteredLine[], line: number, to: number): LetteredLine[] => changeLine(lines, line, (l) => ({ ...l, baseline: Math.round(to) }));
