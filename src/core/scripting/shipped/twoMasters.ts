/** A script that comes with Wendril. */
export const twoMasters = {
  key: 'twoMasters',
  title: 'Two masters compared',
  does: 'What differs most between two masters: advances, sides and ink of the chosen glyphs, the most first.',
  text: `const names = font.masters.map((m) => m.name);
const { first, second, most } = ask({
  first: { label: 'One master', choice: names[0], of: names },
  second: { label: 'The other', choice: names[names.length - 1], of: names },
  most: { label: 'Glyphs, at most', number: 60, least: 1, most: 2000 },
});
const [a, b] = [first, second].map((n) => font.masters.find((m) => m.name === n));

const rows = chosen
  .filter((g) => g.isDrawn)
  .map((g) => {
    const [p, q] = [g.drawing(a), g.drawing(b)];
    const share = p.area > 0 ? Math.round((100 * q.area) / p.area) : null;
    return [g.name, p.advance, q.advance, q.advance - p.advance, (q.left || 0) - (p.left || 0), (q.right || 0) - (p.right || 0), share];
  })
  .sort((x, y) => Math.abs(Number(y[3])) - Math.abs(Number(x[3])) || (x[0] < y[0] ? -1 : 1))
  .slice(0, most);
table(['glyph', 'advance in ' + first, 'in ' + second, 'wider by', 'left by', 'right by', 'ink, %'], rows);
for (const g of chosen) for (const sentence of g.disagreements.slice(0, 1)) finding(sentence, g);
`,
} as const;
