import { compileSections, type SectionText } from '../src/core/features/sections';
import { writeRules } from '../src/core/features/write';
import { RULE_GLYPHS, ruleText } from './ruleText';

/** Rules parsed, compiled and written again and again, as one types: run by itself, since a process that did much else is slower. */
const RUNS = 80;
let faults = 0;

function warm(textsOf: (run: number) => SectionText[], runs = RUNS, written = true): number {
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const texts = textsOf(i);
    const start = performance.now();
    const compiled = compileSections(texts, {}, { glyphs: RULE_GLYPHS });
    if (written) for (const tag of ['GSUB', 'GPOS'] as const) writeRules(compiled[tag], tag);
    faults = compiled.faults.length;
    times.push(performance.now() - start);
  }
  return times.slice(runs / 2).sort((a, b) => a - b)[runs / 4]!;
}

const text = ruleText(60);
// Another comment each time, so that nothing is remembered.
const whole = warm((i) => [{ id: 'x', title: '', text: `${text}\n# ${i}` }]);
// As a designer has it: classes and features in sections of their own, of which one is typed in.
const sections = text.split(/\n(?=feature )/).map((t, i): SectionText => ({ id: String(i), title: '', text: t }));
const typed = warm((i) =>
  sections.map((s) => (s.text.startsWith('feature ss05') ? { ...s, text: `${s.text}# ${i}` } : s)),
);
// As a large font brings them: what a galley pays at every turn for rules that stay.
const large = text.replace(/^feature[\s\S]*/m, '') + ruleText(1100).replace(/^[\s\S]*?(?=^feature liga)/m, '');
const stays = warm(
  (i) => [
    { id: 'x', title: '', text: large },
    { id: 'y', title: '', text: `# ${i}` },
  ],
  24,
  false,
);
console.log(JSON.stringify({ whole, typed, faults, stays, letters: large.length }));
