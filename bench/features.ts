import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { random } from '../fuzz/mutate';
import { compileSections } from '../src/core/features/sections';
import { writeRules } from '../src/core/features/write';
import { median, milliseconds, printTable } from './table';

const GLYPHS = ['.notdef', ...Array.from({ length: 1000 }, (_, i) => `g${String(i).padStart(3, '0')}`)];

/** Rules of many kinds for a thousand glyphs, of about so many kilobytes. */
export function ruleText(kilobytes: number): string {
  const next = random(5);
  const glyph = () => GLYPHS[1 + Math.floor(next() * 1000)]!;
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

const LIBRARY = `
import sys, time
sys.path.insert(0, 'src/core/testing')
from featureOracle import bare
from fontTools.feaLib.builder import addOpenTypeFeaturesFromString
glyphs = open(sys.argv[2]).read().split()
text = open(sys.argv[1]).read()
best = 1e9
for _ in range(3):
    font = bare(glyphs); start = time.time()
    addOpenTypeFeaturesFromString(font, text)
    for tag in ('GSUB', 'GPOS'): font[tag].compile(font)
    best = min(best, time.time() - start)
print(best * 1000)
`;

/** Rules compiled: parsed, compiled and written, warm, beside the general Python font library on the same text. */
export function benchFeatures(): void {
  const text = ruleText(60);
  let faults = 0;
  const ours = median(
    Array.from({ length: 15 }, (_, i) => {
      // Another comment each time, so that nothing is remembered.
      const start = performance.now();
      const compiled = compileSections([{ id: 'x', title: '', text: `${text}\n# ${i}` }], {}, { glyphs: GLYPHS });
      writeRules(compiled.GSUB, 'GSUB');
      writeRules(compiled.GPOS, 'GPOS');
      faults = compiled.faults.length;
      return performance.now() - start;
    }).slice(5),
  );
  const folder = mkdtempSync(join(tmpdir(), 'wendril-rules-'));
  const [fea, names] = [join(folder, 'rules.fea'), join(folder, 'glyphs.txt')];
  writeFileSync(fea, text);
  writeFileSync(names, GLYPHS.join(' '));
  const run = spawnSync('/usr/bin/python3', ['-c', LIBRARY, fea, names], { encoding: 'utf8' });
  const theirs = Number(run.stdout);
  printTable('Features', [
    {
      what: `${Math.round(text.length / 1024)} KB of rules for 1,000 glyphs, parsed, compiled, written (${faults} faults)`,
      budget: '20 ms',
      measured: milliseconds(ours),
      met: ours < 20 && faults === 0,
    },
    {
      what: 'the same by the general Python font library',
      budget: '–',
      measured:
        Number.isFinite(theirs) && theirs > 0
          ? `${milliseconds(theirs)}, ${(theirs / ours).toFixed(1)} times`
          : 'not there',
      met: true,
    },
  ]);
}
