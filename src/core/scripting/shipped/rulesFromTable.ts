/** A script that comes with Wendril. */
export const rulesFromTable = {
  key: 'rulesFromTable',
  title: 'Rules from a table',
  does: 'Feature text from a table of words: a line says what becomes what, as f f i -> f_f_i; it becomes a section of the rules.',
  text: String.raw`const { tag, title, lines } = ask({
  tag: { label: 'Feature', text: 'dlig' },
  title: { label: 'Heading of the section', text: 'From a table' },
  lines: { label: 'One rule to a line: a b -> a_b', text: 'T h -> T_h' },
});

if (!/^[A-Za-z0-9]{4}$/.test(tag)) throw new Error('A feature has four letters or figures, as liga.');
const rules = [];
lines.split('\n').forEach((line, i) => {
  if (line.trim() === '') return;
  const [from, to, more] = line.split('->').map((side) => side.trim().split(/\s+/).filter(Boolean));
  if (!from || !to || more || to.length !== 1) throw new Error('Line ' + (i + 1) + ' is not of the form a b -> a_b.');
  const missing = [...from, ...to].filter((name) => !font.has(name));
  if (missing.length > 0) finding('Line ' + (i + 1) + ' waits for ' + missing.join(', ') + '.');
  else rules.push('  sub ' + from.map((n) => font.glyph(n).name).join(' ') + ' by ' + font.glyph(to[0]).name + ';');
});
if (rules.length === 0) say('No rule could be written.');
else {
  const text = 'feature ' + tag + ' {\n' + rules.join('\n') + '\n} ' + tag + ';';
  edits.addSections({ sections: [{ title, text }] });
  say(text);
}
`,
} as const;
