export type ShapedGlyph = { gid: number; x: number; y: number; advance: number; cluster: number };

/** What one lookup did to a line: the glyphs before and after it, by where they lie. */
export type ShapingStep = {
  table: 'GSUB' | 'GPOS';
  lookup: number;
  /** The feature that called it. */
  feature: string;
  before: readonly ShapedGlyph[];
  after: readonly ShapedGlyph[];
};

/** Language, script (ISO 15924) and direction of a line, where they are not to be guessed from its text. */
export type LineSettings = { language?: string; script?: string; direction?: 'ltr' | 'rtl' };

/** HarfBuzz on the bytes of one font. */
export type Shaper = {
  /** What every lookup did that changed something, in order, by HarfBuzz’s own trace. */
  explain(text: string, features: readonly string[], settings?: LineSettings): ShapingStep[];
  /** Sets a line; features are as `kern=0` or `liga`. Positions are font units from the line's start. */
  shape(
    text: string,
    features: readonly string[],
    settings?: LineSettings,
  ): { glyphs: ShapedGlyph[]; width: number; rightToLeft: boolean };
  /** A glyph’s name in the font. */
  name(gid: number): string;
  /** A glyph's outline as an SVG path, y up, straight from the font's bytes. */
  path(gid: number): string;
};

/** Does a text begin with a letter of a script that is written from the right? */
const isRightToLeft = (text: string): boolean => {
  const first = /\p{L}/u.exec(text)?.[0];
  return (
    first !== undefined &&
    /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u.test(first)
  );
};

type Found = { codepoint: number; cluster: number; xOffset?: number; yOffset?: number; xAdvance?: number };

/** Glyphs one after the other, from the beginning of the line. */
function placed(found: readonly Found[]): ShapedGlyph[] {
  let pen = 0;
  return found.map((g) => {
    const glyph = {
      gid: g.codepoint,
      x: pen + (g.xOffset ?? 0),
      y: g.yOffset ?? 0,
      advance: g.xAdvance ?? 0,
      cluster: g.cluster,
    };
    pen += glyph.advance;
    return glyph;
  });
}

/** Loads HarfBuzz (WebAssembly, on first use) and opens a font. */
export const createShaper = async (font: Uint8Array): Promise<Shaper> => (await loadShaping())(font);

/** Loads HarfBuzz; the result opens a font without waiting. */
export async function loadShaping(): Promise<(font: Uint8Array) => Shaper> {
  const hb = await import('harfbuzzjs');
  return (font) => shaperOf(hb, font);
}

function shaperOf(hb: typeof import('harfbuzzjs'), font: Uint8Array): Shaper {
  const face = new hb.Face(new hb.Blob(font));
  const handle = new hb.Font(face);
  const filled = (text: string, { language, script, direction }: LineSettings = {}) => {
    const buffer = new hb.Buffer();
    buffer.addText(text);
    buffer.guessSegmentProperties();
    if (language) buffer.setLanguage(language);
    if (script) buffer.setScript(script);
    if (direction) buffer.setDirection(direction === 'rtl' ? hb.Direction.RTL : hb.Direction.LTR);
    return buffer;
  };
  const asked = (features: readonly string[]) =>
    features.map((f) => {
      const [tag, value] = f.split('=');
      return new hb.Feature(tag!, value === undefined ? 1 : Number(value));
    });
  return {
    shape(text, features, settings) {
      const buffer = filled(text, settings);
      hb.shape(handle, buffer, asked(features));
      const glyphs = placed(buffer.getGlyphInfosAndPositions());
      const width = glyphs.reduce((sum, g) => sum + g.advance, 0);
      return { glyphs, width, rightToLeft: settings?.direction ? settings.direction === 'rtl' : isRightToLeft(text) };
    },
    explain(text, features, settings) {
      const buffer = filled(text, settings);
      const steps: ShapingStep[] = [];
      let table: ShapingStep['table'] = 'GSUB';
      let before: ShapedGlyph[] = [];
      buffer.setMessageFunc((b, _, message) => {
        const stage = /^start table (GSUB|GPOS)/.exec(message);
        if (stage) table = stage[1] as ShapingStep['table'];
        const lookup = /^(start|end) lookup (\d+) feature '(.{4})'/.exec(message);
        if (!lookup) return true;
        const now = placed(b.getGlyphInfosAndPositions());
        if (lookup[1] === 'start') before = now;
        else if (JSON.stringify(now) !== JSON.stringify(before))
          steps.push({ table, lookup: Number(lookup[2]), feature: lookup[3]!.trim(), before, after: now });
        return true;
      });
      hb.shape(handle, buffer, asked(features));
      return steps;
    },
    path: (gid) => handle.glyphToPath(gid),
    name: (gid) => handle.glyphName(gid),
  };
}
