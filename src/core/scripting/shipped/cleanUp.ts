/** A script that comes with Wendril. */
export const cleanUp = {
  key: 'cleanUp',
  title: 'Clean-up chain',
  does: 'Overlaps out, extremes in, directions and starts made even, points on whole units, one after the other; with a report of what became of each glyph.',
  text: `const { overlap, extremes, round } = ask({
  overlap: { label: 'Take overlaps out', yes: true },
  extremes: { label: 'Add extremes', yes: true },
  round: { label: 'Whole units', yes: true },
});

const steps = [overlap && 'overlap', extremes && 'extremes', 'directions', 'starts', round && 'round'].filter(Boolean);
const points = (glyph) => masters.reduce((sum, m) => sum + glyph.drawing(m).contours.reduce((n, c) => n + c.points.length, 0), 0);
const area = (glyph) => glyph.drawing(masters[0]).area;
// Where there is nothing of a kind to do, the edit is refused.
const tidied = (glyph, operation) => {
  try {
    edits.tidyGlyphs({ operation, glyphs: [glyph], masters });
    return true;
  } catch (refused) {
    return false;
  }
};
const rows = [];
chosen.forEach((glyph, i) => {
  progress(i, chosen.length);
  const before = [points(glyph), area(glyph)];
  const done = steps.filter((operation) => tidied(glyph, operation));
  if (done.length > 0)
    rows.push([glyph.name, done.join(', '), before[0], points(glyph), Math.round((area(glyph) - before[1]) * 10) / 10]);
});
say(rows.length === 0 ? 'Nothing needed to be tidied.' : rows.length + ' of ' + chosen.length + ' glyphs were tidied.');
if (rows.length > 0) table(['glyph', 'what was done', 'points before', 'after', 'area gained'], rows);
`,
} as const;
