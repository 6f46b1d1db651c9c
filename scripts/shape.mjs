// Shapes text with HarfBuzz for tests: node scripts/shape.mjs FONT TEXT [feature=value …] [@axis=value …] prints glyphs and outlines as JSON;
// with --advances only the glyphs' advances. TEXT may be the path of a text file after @@.
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';

const [font, typed, ...all] = process.argv.slice(2);
const text = typed.startsWith('@@') ? readFileSync(typed.slice(2), 'utf8') : typed;
const settings = all.filter((s) => s !== '--advances');
const features = settings.filter((s) => !s.startsWith('@'));
const axes = settings
  .filter((s) => s.startsWith('@'))
  .map((s) => new hb.Variation(s.slice(1).split('=')[0], Number(s.split('=')[1])));
const handle = new hb.Font(new hb.Face(new hb.Blob(readFileSync(font))));
if (axes.length > 0) handle.setVariations(axes);
const buffer = new hb.Buffer();
buffer.addText(text);
buffer.guessSegmentProperties();
hb.shape(
  handle,
  buffer,
  features.map((f) => new hb.Feature(f.split('=')[0], Number(f.split('=')[1] ?? 1))),
);
const shaped = buffer.getGlyphInfosAndPositions();
const glyphs = all.includes('--advances')
  ? shaped.map((g) => g.xAdvance)
  : shaped.map((g) => ({
      gid: g.codepoint,
      name: handle.glyphName(g.codepoint),
      advance: g.xAdvance,
      x: g.xOffset,
      y: g.yOffset,
      path: handle.glyphToPath(g.codepoint),
    }));
process.stdout.write(JSON.stringify(glyphs));
