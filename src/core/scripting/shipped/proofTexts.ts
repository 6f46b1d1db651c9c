/** A script that comes with Wendril. */
export const proofTexts = {
  key: 'proofTexts',
  title: 'Spacing and kerning proofs',
  does: 'Every chosen letter between every other, and the pairs that are kerned most, as texts for the galley and for print.',
  text: String.raw`const { most, galley, print } = ask({
  most: { label: 'Kerned pairs, at most', number: 60, least: 1, most: 500 },
  galley: { label: 'Put the kerned pairs into the galley', yes: true },
  print: { label: 'A PDF of each master, to print', yes: false },
});

const letters = chosen.filter((g) => g.unicodes.length > 0 && /\p{L}/u.test(g.character));
for (const g of letters.slice(0, 40)) say(letters.map((o) => g.character + o.character + g.character).join(' '));

// Pairs by how far they are moved, shown by the first glyph of each side.
const pairs = font
  .pairs(masters[0])
  .filter((p) => p.of.length > 0 && p.by.length > 0 && p.of[0].character !== '' && p.by[0].character !== '')
  .sort((a, b) => Math.abs(b.value) - Math.abs(a.value) || (a.first < b.first ? -1 : 1))
  .slice(0, most);
table(
  ['first', 'second', 'value in ' + masters[0].name],
  pairs.map((p) => [p.first, p.second, p.value]),
);
const text = pairs.map((p) => p.of[0].character + p.by[0].character).join(' ');
if (galley && text !== '') edits.setGalleyText({ text });
if (print) for (const m of masters) font.proof(m, ['spacing', 'kerning'], text);
`,
} as const;
