/** A part of the guide under one heading: its depth (2 a chapter, 3 within one) and its text, heading included. */
export type GuidePart = { title: string; depth: number; text: string };

/** The guide by its headings, in order; what stands before the first belongs to its own title. */
export function guideParts(guide: string): GuidePart[] {
  const out: GuidePart[] = [];
  for (const line of guide.split('\n')) {
    const heading = /^(#{1,3}) (.+)$/.exec(line);
    if (heading) out.push({ title: heading[2]!, depth: Math.max(2, heading[1]!.length), text: '' });
    const last = out[out.length - 1];
    if (last) last.text += `${line}\n`;
    // A chapter is read with the parts in it.
    const chapter = last?.depth === 3 ? out.findLast((p) => p.depth === 2) : undefined;
    if (chapter) chapter.text += `${line}\n`;
  }
  return out;
}

/** Parts in which all words of a search stand, wherever they stand; all parts where none is typed. */
export function partsWith(parts: readonly GuidePart[], typed: string): GuidePart[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return parts.filter((p) => words.every((w) => p.text.toLowerCase().includes(w)));
}
