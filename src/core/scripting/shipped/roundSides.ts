/** A script that comes with Wendril. */
export const roundSides = {
  key: 'roundSides',
  title: 'Sides rounded to even values',
  does: 'Rounds both sides of the chosen glyphs to a step; sides that follow another are left to what they follow.',
  text: `const { step } = ask({ step: { label: 'Round to', number: 2, least: 1, most: 100 } });

const to = (v) => Math.round(v / step) * step;
let count = 0;
for (const glyph of chosen)
  for (const m of masters) {
    const drawing = glyph.drawing(m);
    // Marks without a width, and letters put together from others, have no sides of their own.
    if (drawing.left === undefined || drawing.advance === 0 || drawing.components.length > 0) continue;
    if (drawing.left !== to(drawing.left) && !glyph.followed.includes('left')) {
      drawing.left = to(drawing.left);
      count++;
    }
    if (drawing.right !== to(drawing.right) && !glyph.followed.includes('right')) {
      drawing.right = to(drawing.right);
      count++;
    }
  }
say(count === 0 ? 'All sides are on the step.' : count + ' sides were rounded to ' + step + '.');
`,
} as const;
