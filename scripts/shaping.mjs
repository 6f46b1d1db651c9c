// Shaping with HarfBuzz for tests: a font from its bytes, and the glyphs of a text with their places.
import * as hb from 'harfbuzzjs';

export const openFont = (bytes) => new hb.Font(new hb.Face(new hb.Blob(bytes)));

/** The glyphs of a text; features as “liga=0” or “smcp”. */
export function shaped(font, text, features) {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  hb.shape(
    font,
    buffer,
    features.map((f) => new hb.Feature(f.split('=')[0], Number(f.split('=')[1] ?? 1))),
  );
  return buffer.getGlyphInfosAndPositions();
}
