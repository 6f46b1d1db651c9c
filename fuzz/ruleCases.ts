import { compileFeatures } from '../src/core/features/compile';
import { parseFeatures } from '../src/core/features/parse';
import { writeRules } from '../src/core/features/write';
import { readLayout } from '../src/core/opentype/layout/lists';
import { CONSTRUCTS, CONSTRUCT_GLYPHS as GLYPHS } from '../src/core/testing/featureConstructs';
import { mutatedText, random } from './mutate';

/** Pieces of the language put where they may not belong. */
const PIECES = [
  '{',
  '}',
  ';',
  "'",
  '<',
  '>',
  '[',
  ']',
  'by',
  'from',
  'lookup x',
  '@',
  '"',
  '-',
  '(',
  'feature liga {',
  '} liga;',
  'anchor',
  '0x',
  '99999999999',
  'NULL',
  '\\0',
  '#',
];

/** Damaged feature text of one seed: several constructs, some bytes turned, pieces of the language thrown in. */
export function ruleText(seed: number): string {
  const next = random(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const text = Array.from({ length: 1 + Math.floor(next() * 4) }, () => pick(CONSTRUCTS)[1]).join('\n');
  const bytes = next() < 0.5 ? mutatedText(new TextEncoder().encode(text), seed) : new TextEncoder().encode(text);
  let out = new TextDecoder().decode(bytes);
  for (let i = 0; i < Math.floor(next() * 6); i++) {
    const at = Math.floor(next() * out.length);
    out = out.slice(0, at) + pick(PIECES) + out.slice(at + Math.floor(next() * 4));
  }
  return out;
}

/** What is wrong with how damaged text is taken: nothing, or a sentence. */
export function ruleFault(seed: number): string | undefined {
  const text = ruleText(seed);
  const started = performance.now();
  try {
    const tree = parseFeatures(text);
    const compiled = compileFeatures([{ tree }], { glyphs: GLYPHS });
    for (const f of compiled.faults) {
      if (f.reason === '' || f.reason.length > 300) return `the sentence is “${f.reason.slice(0, 100)}”`;
      if (!(f.from >= 0 && f.to >= f.from && f.to <= text.length))
        return `a fault at ${f.from} to ${f.to} of ${text.length}`;
    }
    for (const [tag, extension] of [
      ['GSUB', 7],
      ['GPOS', 9],
    ] as const) {
      const bytes = writeRules(compiled[tag], tag);
      const { lookups } = bytes ? readLayout(bytes, tag, extension) : { lookups: [] };
      if (lookups.length !== compiled[tag].lookups.length) return `${tag} reads back with ${lookups.length} lookups`;
    }
  } catch (error) {
    return (error as Error).stack?.split('\n').slice(0, 3).join(' | ') ?? String(error);
  }
  const took = performance.now() - started;
  return took > 2000 ? `took ${Math.round(took)} ms` : undefined;
}
