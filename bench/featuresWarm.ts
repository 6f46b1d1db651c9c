import { compileSections } from '../src/core/features/sections';
import { writeRules } from '../src/core/features/write';
import { RULE_GLYPHS, ruleText } from './ruleText';

/** Rules parsed, compiled and written again and again, as one types: run by itself, since a process that did much else is slower. */
const RUNS = 80;
const text = ruleText(60);
const times: number[] = [];
let faults = 0;
for (let i = 0; i < RUNS; i++) {
  // Another comment each time, so that nothing is remembered.
  const start = performance.now();
  const compiled = compileSections([{ id: 'x', title: '', text: `${text}\n# ${i}` }], {}, { glyphs: RULE_GLYPHS });
  writeRules(compiled.GSUB, 'GSUB');
  writeRules(compiled.GPOS, 'GPOS');
  faults = compiled.faults.length;
  times.push(performance.now() - start);
}
const warm = times.slice(RUNS / 2).sort((a, b) => a - b);
console.log(JSON.stringify({ median: warm[warm.length >> 1], faults }));
