// Shapes many texts with HarfBuzz for tests: reads [{ font (base64), texts, features, axes }] as JSON, prints for each the glyphs of its
// texts: index, absolute place, advance.
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';
import { openFont, shaped } from './shaping.mjs';

const cases = JSON.parse(readFileSync(0, 'utf8'));
const out = cases.map(({ font, texts, features, axes = {} }) => {
  const handle = openFont(Buffer.from(font, 'base64'));
  const there = Object.entries(axes).map(([tag, value]) => new hb.Variation(tag, value));
  if (there.length > 0) handle.setVariations(there);
  return texts.map((text) => {
    let pen = 0;
    return shaped(handle, text, features).map((g) => {
      const glyph = { gid: g.codepoint, x: pen + g.xOffset, y: g.yOffset, advance: g.xAdvance };
      pen += g.xAdvance;
      return glyph;
    });
  });
});
process.stdout.write(JSON.stringify(out));
