/** A script that comes with Wendril. */
export const stemsOfMasters = {
  key: 'stemsOfMasters',
  title: 'Stems over all masters',
  does: 'How thick upright and level strokes are in every master, as a chart and a table; measured in the chosen glyphs.',
  text: `const middle = (values) => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : Math.round(sorted[Math.floor(sorted.length / 2)] * 10) / 10;
};
const letters = chosen.filter((g) => g.isDrawn).slice(0, 120);
const widths = (master, kind) =>
  letters.flatMap((g) => g.drawing(master).strokes.filter((s) => s.kind === kind).map((s) => s.width));
const rows = font.masters.map((m, i) => {
  progress(i, font.masters.length);
  return [m.name, middle(widths(m, 'vertical')), middle(widths(m, 'horizontal')), middle(widths(m, 'diagonal')), middle(widths(m, 'curved'))];
});
chart('Strokes in font units', rows.map((r) => String(r[0])), ['upright', 'level', 'slanted', 'curved'].map((name, i) => ({ name, values: rows.map((r) => Number(r[i + 1])) })));
table(['master', 'upright', 'level', 'slanted', 'curved'], rows);
`,
} as const;
