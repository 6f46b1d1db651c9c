/** A script that comes with Wendril. */
export const spacingByFrequency = {
  key: 'spacingByFrequency',
  title: 'Spacing weighed by how often letters occur',
  does: 'The mean advance and the mean white beside letters as a text has them, so that masters and fonts can be compared.',
  text: String.raw`const { text } = ask({ text: { label: 'A text to count letters in', text: '' } });

// Without a text, the one of the galley tells how often letters occur.
const counted = text.trim() === '' ? font.galley : text;
const counts = new Map();
let missing = 0;
for (const c of counted) {
  if (!font.has(c)) missing++;
  else counts.set(c, (counts.get(c) || 0) + 1);
}
const letters = [...counts].filter(([c]) => /\p{L}|\p{Nd}/u.test(c)).sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
const total = letters.reduce((sum, [, n]) => sum + n, 0);
if (total === 0) say('There are no letters in that text.');
else {
  const mean = (value) => letters.reduce((sum, [c, n]) => sum + n * (value(font.glyph(c)) || 0), 0) / total;
  const r = (v) => Math.round(v * 10) / 10;
  table(
    ['master', 'mean advance', 'mean white at both sides', 'share of white, %'],
    masters.map((m) => {
      const advance = mean((g) => g.drawing(m).advance);
      const white = mean((g) => (g.drawing(m).left || 0) + (g.drawing(m).right || 0));
      return [m.name, r(advance), r(white), r((100 * white) / advance)];
    }),
  );
  chart('How often letters occur', letters.slice(0, 30).map(([c]) => c), [{ name: 'in the text', values: letters.slice(0, 30).map(([, n]) => n) }]);
  if (missing > 0) say(missing + ' characters of the text are not in the font.');
}
`,
} as const;
