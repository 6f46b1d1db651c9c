// Shapes text with HarfBuzz for tests: node scripts/shape.mjs FONT TEXT [feature=value …] [@axis=value …] prints glyphs and outlines as JSON;
// with --advances only the glyphs' advances. TEXT may be the path of a text file after @@.
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';
import { openFont, shaped } from './shaping.mjs';

const [font, typed, ...all] = process.argv.slice(2);
const text = typed.startsWith('@@') ? readFileSync(typed.slice(2), 'utf8') : typed;
const settings = all.filter((s) => s !== '--advances');
const features = settings.filter((s) => !s.startsWith('@'));
const axes = settings
  .filter((s) => s.startsWith('@'))
  .map((s) => new hb.Variation(s.slice(1).split('=')[0], Number(s.split('=')[1])));
const handle = openFont(readFileSync(font));
if (axes.length > 0) handle.setVariations(axes);
const found = shaped(handle, text, features);
const glyphs = all.includes('--advances')
  ? found.map((g) => g.xAdvance)
  : found.map((g) => ({
      gid: g.codepoint,
      name: handle.glyphName(g.codepoint),
      advance: g.xAdvance,
      x: g.xOffset,
      y: g.yOffset,
      path: handle.glyphToPath(g.codepoint),
    }));
process.stdout.write(JSON.stringify(glyphs));
