/** Code points typed as characters or U+ numbers; undefined when something is neither. */
export function readCodePoints(text: string): number[] | undefined {
  const codes: number[] = [];
  for (const word of text.split(/[\s,]+/).filter(Boolean)) {
    const match = /^(?:(?:U\+|0x)([0-9a-f]{1,6})|([0-9a-f]{4,6}))$/i.exec(word);
    if (match) codes.push(Number.parseInt(match[1] ?? match[2]!, 16));
    else if ([...word].length === 1) codes.push(word.codePointAt(0)!);
    else return undefined;
  }
  return codes.every((c) => c <= 0x10ffff) ? [...new Set(codes)] : undefined;
}
