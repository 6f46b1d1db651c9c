import { random } from '../fuzz/mutate';

export const RULE_GLYPHS = ['.notdef', ...Array.from({ length: 1000 }, (_, i) => `g${String(i).padStart(3, '0')}`)];

/** Rules of many kinds for a thousand glyphs, of about so many kilobytes. */
export function ruleText(kilobytes: number): string {
  const next = random(5);
  const glyph = () => RULE_GLYPHS[1 + Math.floor(next() * 1000)]!;
  const several = (n: number) => {
    const all = new Set<string>();
    while (all.size < n) all.add(glyph());
    return `[${[...all].join(' ')}]`;
  };
  const of = () => `@C${Math.floor(next() * 30)}`;
  const lines = ['languagesystem DFLT dflt;', 'languagesystem latn dflt;', 'languagesystem latn TRK;'];
  for (let i = 0; i < 30; i++) lines.push(`@C${i} = ${several(18)};`);
  for (let i = 1; i <= 20; i++) {
    const tag = `ss${String(i).padStart(2, '0')}`;
    lines.push(`feature ${tag} { sub ${several(20)} by ${several(20)}; } ${tag};`);
  }
  const seen = new Set<string>();
  let size = lines.join('\n').length;
  const [liga, calt, kern]: [string[], string[], string[]] = [[], [], []];
  while (size < kilobytes * 1024) {
    const parts = `${glyph()} ${glyph()}${next() < 0.5 ? '' : ` ${glyph()}`}`;
    if (seen.has(parts)) continue;
    seen.add(parts);
    const rules = [`sub ${parts} by ${glyph()};`, `pos ${glyph()} ${glyph()} ${-1 - Math.floor(next() * 90)};`];
    liga.push(rules[0]!);
    kern.push(rules[1]!);
    if (liga.length % 5 === 0) calt.push(`sub ${of()} ${glyph()}' ${of()} by ${glyph()};`);
    size += rules.join('\n').length + 8;
  }
  for (const [tag, body] of [
    ['liga', liga],
    ['calt', calt],
    ['kern', kern],
  ] as const)
    lines.push(`feature ${tag} {`, ...body, `} ${tag};`);
  return lines.join('\n');
}
