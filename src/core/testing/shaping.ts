import { execFileSync } from 'node:child_process';

export type ShapedGlyph = { gid: number; x: number; y: number; advance: number };
/** A font’s bytes, texts, features as HarfBuzz takes them, and a place on its axes in user units. */
export type ShapingCase = {
  bytes: Uint8Array;
  texts: readonly string[];
  features?: readonly string[];
  axes?: Readonly<Record<string, number>>;
};

/** Sets the texts of each case with its font, by HarfBuzz in a process of its own. */
export const shapedByHarfBuzz = (cases: readonly ShapingCase[]): ShapedGlyph[][][] =>
  JSON.parse(
    execFileSync(process.execPath, ['scripts/shape-many.mjs'], {
      input: JSON.stringify(
        cases.map(({ bytes, texts, features = [], axes }) => ({
          font: Buffer.from(bytes).toString('base64'),
          texts,
          features,
          ...(axes && { axes }),
        })),
      ),
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    }),
  );
