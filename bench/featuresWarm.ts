import { compileSections, type SectionText } from '../src/core/features/sections';
import { writeRules } from '../src/core/features/write';
import { RULE_GLYPHS, ruleText } from './ruleText';

/** Rules parsed, compiled and written again and again, as one types: run by itself, since a process that did much else is slower. */
const RUNS = 80;
let faults = 0;

function warm(textsOf: (run: number) => SectionText[]): number {
  const times: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    const texts = textsOf(i);
    const start = performance.now();
    const compiled = compileSections(texts, {}, { glyphs: RULE_GLYPHS });
    writeRules(compiled.GSUB, 'GSUB');
    writeRules(compiled.GPOS, 'GPOS');
    faults = compiled.faults.length;
    times.push(performance.now() - start);
  }
  return times.slice(RUNS / 2).sort((a, b) => a - b)[RUNS / 4]!;
}

const text = ruleText(60);
// Another comment each time, so that nothing is remembered.
const whole = warm((i) => [{ id: 'x', title: '', text: `${text}\n# ${i}` }]);
// As a designer has it: classes and features in sections of their own, of which one is typed in.
const sections = text.split(/\n(?=feature )/).map((t, i): SectionText => ({ id: String(i), title: '', text: t }));
const typed = warm((i) =>
  sections.map((s) => (s.text.startsWith('feature ss05') ? { ...s, text: `${s.text}# ${i}` } : s)),
);
console.log(JSON.stringify({ whole, typed, faults }));
