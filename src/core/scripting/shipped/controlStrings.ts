/** A script that comes with Wendril. */
export const controlStrings = {
  key: 'controlStrings',
  title: 'Control strings',
  does: 'Lines in which the chosen glyphs stand among straights and rounds of their kind, small capitals against capitals too; they go to Fit, under My lines.',
  text: String.raw`// What a letter is judged between, by its kind.
const { straight, round } = ask({
  straight: { label: 'Straight, where none is of its kind', text: 'n' },
  round: { label: 'Round, where none is of its kind', text: 'o' },
});

const written = (glyph) => (glyph.unicodes.length > 0 ? glyph.character : '/' + glyph.name + ' ');

function controls(glyph) {
  const small = /\.(sc|smcp|c2sc)$/.exec(glyph.name);
  if (small && font.has('h' + small[0]) && font.has('o' + small[0]))
    return ['h', 'o'].map((c) => written(font.glyph(c + small[0])));
  if (/\p{Nd}/u.test(glyph.character)) return ['1', '0'];
  if (/\p{Lu}/u.test(glyph.character)) return ['H', 'O'];
  return [straight, round];
}

const lines = chosen.flatMap((glyph) => {
  const g = written(glyph);
  const [n, o] = controls(glyph);
  const among = n + n + g + n + o + g + o + o;
  return /\.(sc|smcp|c2sc)$/.test(glyph.name) ? [among, 'H' + g + 'O' + g + 'H'] : [among];
});
if (lines.length === 0) say('Choose some glyphs first.');
else {
  edits.setFitLines({ lines: lines.slice(0, 200) });
  say(lines.length + ' lines for ' + chosen.length + ' glyphs are in Fit, under My lines.');
}
`,
} as const;
