/** A script that comes with Wendril. */
export const alternatesOfParts = {
  key: 'alternatesOfParts',
  title: 'Alternates filled from parts',
  does: 'Another form of each chosen glyph, made of the glyph itself as a part in every master, to be changed later.',
  text: `const { suffix } = ask({ suffix: { label: 'Suffix', text: 'ss04' } });

if (!/^[A-Za-z][A-Za-z0-9]*$/.test(suffix)) throw new Error('A suffix is letters and figures, as ss04.');
const made = [];
for (const glyph of chosen) {
  const name = glyph.name + '.' + suffix;
  if (!glyph.isDrawn || font.has(name)) continue;
  edits.addGlyphs({ requests: [{ name, unicodes: [] }] });
  const form = font.glyph(name);
  for (const m of font.masters) {
    edits.addComponent({ at: form.drawing(m), glyph });
    form.drawing(m).advance = glyph.drawing(m).advance;
  }
  made.push(form);
}
say(made.length === 0 ? 'There was nothing to make.' : made.length + ' forms were made.');
if (made.length > 0) show(made, 'Forms of ' + suffix);
`,
} as const;
