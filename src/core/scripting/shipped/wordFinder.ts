/** A script that comes with Wendril. */
export const wordFinder = {
  key: 'wordFinder',
  title: 'Words for the letters drawn so far',
  does: 'Words that can be set with what is drawn, those first that hold the most of the chosen letters; and which letters no word holds yet.',
  text: String.raw`const { words, most } = ask({
  words: {
    label: 'Words to choose from',
    text: 'anvil bakery cobbler dozen ember fjord gazette hamlet inkwell jigsaw kettle lantern meadow nozzle orchard pepper quarry rivet saddle timber umbrella velvet walnut xylem yonder zephyr bread chalk drift flock grove plank stream thrush waltz',
  },
  most: { label: 'Words, at most', number: 24, least: 1, most: 500 },
});

const drawn = new Set(font.glyphs.filter((g) => g.isDrawn).map((g) => g.character));
const wanted = new Set(chosen.filter((g) => g.isDrawn).map((g) => g.character));
const left = new Set(wanted);
const able = [...new Set(words.split(/\s+/))].filter((w) => w !== '' && [...w].every((c) => drawn.has(c)));
const found = [];
// The word that brings the most letters not yet seen comes next.
while (found.length < most && able.length > 0) {
  const gain = (w) => new Set([...w].filter((c) => left.has(c))).size;
  able.sort((a, b) => gain(b) - gain(a) || a.length - b.length || (a < b ? -1 : 1));
  const next = able.shift();
  found.push(next);
  for (const c of next) left.delete(c);
}
say(found.length === 0 ? 'None of the words can be set yet.' : found.join(' '));
const lacking = [...left].filter((c) => /\p{Ll}/u.test(c));
say(lacking.length === 0 ? 'Every chosen small letter stands in a word.' : 'In no word: ' + lacking.join(' '));
if (found.length > 0) edits.setGalleyText({ text: found.join(' ') });
`,
} as const;
