import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { RULE_GLYPHS, ruleText } from './ruleText';
import { milliseconds, printTable } from './table';

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
  const folder = mkdtempSync(join(tmpdir(), 'wendril-rules-'));
  // As it is shipped: bundled.
  const script = join(folder, 'warm.mjs');
  buildSync({ entryPoints: ['bench/featuresWarm.ts'], outfile: script, bundle: true, platform: 'node', format: 'esm' });
  const {
    whole: ours,
    typed,
    faults,
    stays,
    letters,
  } = JSON.parse(execFileSync(process.execPath, [script], { encoding: 'utf8' })) as {
    whole: number;
    typed: number;
    faults: number;
    stays: number;
    letters: number;
  };
  const [fea, names] = [join(folder, 'rules.fea'), join(folder, 'glyphs.txt')];
  writeFileSync(fea, text);
  writeFileSync(names, RULE_GLYPHS.join(' '));
  const run = spawnSync('/usr/bin/python3', ['-c', LIBRARY, fea, names], { encoding: 'utf8' });
  const theirs = Number(run.stdout);
  printTable('Features', [
    {
      what: `${Math.round(text.length / 1024)} KB of rules for 1,000 glyphs, parsed, compiled, written (${faults} faults)`,
      budget: '20 ms where the library takes 155',
      measured: milliseconds(ours),
      met: (ours < 20 || theirs / ours > 155 / 20) && faults === 0,
    },
    {
      what: 'the same in sections, one of which has changed',
      budget: '5 ms',
      measured: milliseconds(typed),
      met: typed < 5,
    },
    {
      what: `${Math.round(letters / 1000)},000 letters of rules that stay, beside some that are typed`,
      budget: '50 ms',
      measured: milliseconds(stays),
      met: stays < 50,
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
