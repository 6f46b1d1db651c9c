// Shapes many texts with HarfBuzz for tests: reads [{ font (base64), texts, features }] as JSON, prints for each the glyphs of its
// texts: index, absolute place, advance.
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';

const cases = JSON.parse(readFileSync(0, 'utf8'));
const shapedBy = (handle, text, features) => {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  hb.shape(
    handle,
    buffer,
    features.map((f) => new hb.Feature(f.split('=')[0], Number(f.split('=')[1] ?? 1))),
  );
  let pen = 0;
  return buffer.getGlyphInfosAndPositions().map((g) => {
    const glyph = { gid: g.codepoint, x: pen + g.xOffset, y: g.yOffset, advance: g.xAdvance };
    pen += g.xAdvance;
    return glyph;
  });
};
const out = cases.map(({ font, texts, features }) => {
  const handle = new hb.Font(new hb.Face(new hb.Blob(Buffer.from(font, 'base64'))));
  return texts.map((text) => shapedBy(handle, text, features));
});
process.stdout.write(JSON.stringify(out));
