// Shapes text with HarfBuzz for tests: node scripts/shape.mjs FONT TEXT [feature=value …] prints glyphs and outlines as JSON.
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';

const [font, text, ...features] = process.argv.slice(2);
const handle = new hb.Font(new hb.Face(new hb.Blob(readFileSync(font))));
const buffer = new hb.Buffer();
buffer.addText(text);
buffer.guessSegmentProperties();
hb.shape(
  handle,
  buffer,
  features.map((f) => new hb.Feature(f.split('=')[0], Number(f.split('=')[1] ?? 1))),
);
const glyphs = buffer
  .getGlyphInfosAndPositions()
  .map((g) => ({ gid: g.codepoint, name: handle.glyphName(g.codepoint), advance: g.xAdvance, path: handle.glyphToPath(g.codepoint) }));
process.stdout.write(JSON.stringify(glyphs));
