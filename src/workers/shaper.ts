export type ShapedGlyph = { gid: number; x: number; y: number; advance: number; cluster: number };

/** HarfBuzz on the bytes of one font. */
export type Shaper = {
  /** Sets a line; features are as `kern=0` or `liga`. Positions are font units from the line's start. */
  shape(text: string, features: readonly string[]): { glyphs: ShapedGlyph[]; width: number; rightToLeft: boolean };
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

/** Loads HarfBuzz (WebAssembly, on first use) and opens a font. */
export async function createShaper(font: Uint8Array): Promise<Shaper> {
  const hb = await import('harfbuzzjs');
  const face = new hb.Face(new hb.Blob(font));
  const handle = new hb.Font(face);
  return {
    shape(text, features) {
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.guessSegmentProperties();
      hb.shape(
        handle,
        buffer,
        features.map((f) => {
          const [tag, value] = f.split('=');
          return new hb.Feature(tag!, value === undefined ? 1 : Number(value));
        }),
      );
      let pen = 0;
      const glyphs = buffer.getGlyphInfosAndPositions().map((g) => {
        const placed = {
          gid: g.codepoint,
          x: pen + (g.xOffset ?? 0),
          y: g.yOffset ?? 0,
          advance: g.xAdvance ?? 0,
          cluster: g.cluster,
        };
        pen += placed.advance;
        return placed;
      });
      return { glyphs, width: pen, rightToLeft: isRightToLeft(text) };
    },
    path: (gid) => handle.glyphToPath(gid),
  };
}
