/** A script that comes with Wendril. */
export const namesInOrder = {
  key: 'namesInOrder',
  title: 'Names and code points put in order',
  does: 'Glyphs whose name means a character get its code point; glyphs of a character get the name that is usual for it.',
  text: `const { rename, give } = ask({
  rename: { label: 'Usual names for characters', yes: true },
  give: { label: 'Code points by names', yes: true },
});

const rows = [];
const taken = new Set(font.glyphs.flatMap((g) => g.unicodes));
if (give)
  for (const glyph of chosen) {
    const code = glyph.meaning;
    if (glyph.unicodes.length > 0 || code === undefined || taken.has(code)) continue;
    edits.setGlyphNames({ id: glyph, name: glyph.name, unicodes: [code] });
    taken.add(code);
    rows.push([glyph.name, 'gets U+' + code.toString(16).toUpperCase().padStart(4, '0')]);
  }
const names = new Set(font.glyphs.map((g) => g.name));
if (rename) {
  const renames = [];
  for (const glyph of chosen) {
    if (glyph.unicodes.length === 0) continue;
    const name = font.nameFor(glyph.unicodes[0]);
    if (name === glyph.name || names.has(name) || glyph.unicodes.includes(glyph.meaning)) continue;
    renames.push({ id: glyph, name });
    names.add(name);
    rows.push([glyph.name, 'becomes ' + name]);
  }
  if (renames.length > 0) edits.renameGlyphs({ renames });
}
if (rows.length === 0) say('All names and code points are in order.');
else table(['glyph', 'what was done'], rows);
`,
} as const;
