/** A script that comes with Wendril. */
export const keyCaps = {
  key: 'keyCaps',
  title: 'Keys',
  does: 'Capitals and figures in frames, as on a keyboard, in every master, with a text that shows them.',
  text: String.raw`const { make } = ask({ make: { label: 'Make those that are missing', yes: true } });

if (make) {
  try {
    say(edits.deriveSet({ set: 'keys' }) + '.');
  } catch (refused) {
    say(refused.message);
  }
}
const keys = font.glyphs.filter((g) => /\.key$/.test(g.name));
if (keys.length > 0) show(keys, keys.length + ' keys');
`,
} as const;
