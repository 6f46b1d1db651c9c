import {
  beginText,
  endText,
  type PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFOperator,
  PDFOperatorNames,
  type PDFPage,
  type PDFRef,
  PDFString,
  setFontAndSize,
  setTextMatrix,
  setTextRise,
} from 'pdf-lib';
import { cmap } from '../../core/opentype/cmap';
import { head } from '../../core/opentype/head';
import { hhea } from '../../core/opentype/hhea';
import { hmtx } from '../../core/opentype/hmtx';
import { maxp } from '../../core/opentype/maxp';
import { NAME_ID, name } from '../../core/opentype/name';
import { readSfnt, tableOf } from '../../core/opentype/sfnt';
import { createShaper, type LineSettings, type ShapedGlyph, type Shaper } from '../shaper';

/** A font in a PDF: its own file is embedded, lines are set by HarfBuzz and written as glyphs of it, so that they can be found and copied. */
export type PdfFont = {
  shaper: Shaper;
  unitsPerEm: number;
  /** Glyph indexes by code point. */
  characters: ReadonlyMap<number, number>;
  glyphCount: number;
  /** Writes glyphs that were set, from a place in points. */
  write: (page: PDFPage, glyphs: readonly ShapedGlyph[], x: number, y: number, size: number) => void;
  /** Sets a line and writes it; its width in points. */
  line: (
    page: PDFPage,
    text: string,
    at: { x: number; y: number; size: number; features?: readonly string[]; settings?: LineSettings },
  ) => number;
  /** Writes what glyphs stand for, once all lines are set. */
  finish: () => void;
  /** Width of a line in points. */
  width: (text: string, size: number, features?: readonly string[]) => number;
};

const hex = (n: number, digits = 4): string => n.toString(16).toUpperCase().padStart(digits, '0');

/** Embeds a font file whole (ISO 32000-2, 9.7 and 9.9). */
export async function embedFont(pdf: PDFDocument, bytes: Uint8Array, key: string): Promise<PdfFont> {
  const font = readSfnt(bytes);
  const table = (tag: string) => tableOf(font, tag);
  const { numGlyphs } = maxp.read(table('maxp'));
  const { unitsPerEm, xMin, yMin, xMax, yMax } = head.read(table('head'));
  const header = hhea.read(table('hhea'));
  const metrics = hmtx.read(table('hmtx'), header.numberOfHMetrics, numGlyphs);
  const characters = cmap.read(table('cmap'));
  const isTrueType = font.tables.has('glyf');
  const records = name.read(table('name'));
  const postScript = records.find((r) => r.nameID === NAME_ID.postScript)?.value ?? 'Untitled';
  const share = (v: number) => Math.round((v * 1000) / unitsPerEm);

  const { context } = pdf;
  const file = context.register(
    context.flateStream(bytes, isTrueType ? { Length1: bytes.length } : { Subtype: 'OpenType' }),
  );
  const descriptor = context.register(
    context.obj({
      Type: 'FontDescriptor',
      FontName: postScript,
      Flags: 4,
      FontBBox: [xMin, yMin, xMax, yMax].map(share),
      ItalicAngle: 0,
      Ascent: share(header.ascender),
      Descent: share(header.descender),
      CapHeight: share(header.ascender),
      StemV: 80,
      [isTrueType ? 'FontFile2' : 'FontFile3']: file,
    }),
  );
  const descendant = context.register(
    context.obj({
      Type: 'Font',
      Subtype: isTrueType ? 'CIDFontType2' : 'CIDFontType0',
      BaseFont: postScript,
      CIDSystemInfo: { Registry: PDFString.of('Adobe'), Ordering: PDFString.of('Identity'), Supplement: 0 },
      FontDescriptor: descriptor,
      DW: 0,
      W: [0, metrics.map((m) => share(m.advanceWidth))],
      ...(isTrueType && { CIDToGIDMap: 'Identity' }),
    }),
  );
  const meanings = context.nextRef();
  const ref: PDFRef = context.register(
    context.obj({
      Type: 'Font',
      Subtype: 'Type0',
      BaseFont: postScript,
      Encoding: 'Identity-H',
      DescendantFonts: [descendant],
      ToUnicode: meanings,
    }),
  );
  const shaper = await createShaper(bytes);
  const own = PDFName.of(key);
  const texts = new Map([...characters].map(([code, gid]) => [gid, String.fromCodePoint(code)]));

  /** Glyphs one after another: what a PDF advances by itself is put right in thousandths of the size. */
  const write: PdfFont['write'] = (page, glyphs, x, y, size) => {
    if (glyphs.length === 0) return;
    page.node.setFontDictionary(own, ref);
    page.pushOperators(beginText(), setFontAndSize(key, size), setTextMatrix(1, 0, 0, 1, x, y));
    let pen = 0;
    let rise = 0;
    let run: (PDFNumber | PDFHexString)[] = [];
    const flush = () => {
      if (run.length > 0) {
        const array = context.obj([]);
        for (const part of run) array.push(part);
        page.pushOperators(PDFOperator.of(PDFOperatorNames.ShowTextAdjusted, [array]));
      }
      run = [];
    };
    for (const g of glyphs) {
      if (g.y !== rise) {
        flush();
        rise = g.y;
        page.pushOperators(setTextRise((rise * size) / unitsPerEm));
      }
      const wanted = share(g.x);
      if (wanted !== pen) run.push(PDFNumber.of(pen - wanted));
      run.push(PDFHexString.of(hex(g.gid)));
      pen = wanted + share(metrics[g.gid]?.advanceWidth ?? 0);
    }
    flush();
    page.pushOperators(...(rise === 0 ? [] : [setTextRise(0)]), endText());
  };
  return {
    shaper,
    unitsPerEm,
    characters,
    glyphCount: numGlyphs,
    write,
    line(page, text, { x, y, size, features = [], settings }) {
      const { glyphs, width } = shaper.shape(text, features, settings);
      noteTexts(texts, text, glyphs);
      write(page, glyphs, x, y, size);
      return (width * size) / unitsPerEm;
    },
    finish: () => context.assign(meanings, context.flateStream(toUnicode(texts))),
    width: (text, size, features = []) => (shaper.shape(text, features).width * size) / unitsPerEm,
  };
}

/** Ligatures and other forms stand for the text that they were first set for. */
function noteTexts(texts: Map<number, string>, text: string, glyphs: readonly ShapedGlyph[]): void {
  const starts = [...new Set(glyphs.map((g) => g.cluster))].sort((a, b) => a - b);
  for (const { gid, cluster } of glyphs) {
    const end = starts[starts.indexOf(cluster) + 1] ?? text.length;
    if (!texts.has(gid) && glyphs.filter((g) => g.cluster === cluster).length === 1)
      texts.set(gid, text.slice(cluster, end));
  }
}

/** What text glyphs stand for, for searching and copying (Adobe Technical Note 5411). */
function toUnicode(texts: ReadonlyMap<number, string>): string {
  const utf16 = (text: string) =>
    text
      .split('')
      .map((c) => hex(c.charCodeAt(0)))
      .join('');
  const lines = [...texts].sort((a, b) => a[0] - b[0]).map(([gid, text]) => `<${hex(gid)}> <${utf16(text)}>`);
  const blocks: string[] = [];
  for (let i = 0; i < lines.length; i += 100) {
    const part = lines.slice(i, i + 100);
    blocks.push(`${part.length} beginbfchar\n${part.join('\n')}\nendbfchar`);
  }
  return `/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Adobe-Identity-UCS def
/CMapType 2 def
1 begincodespacerange
<0000> <FFFF>
endcodespacerange
${blocks.join('\n')}
endcmap
CMapName currentdict /CMap defineresource pop
end
end`;
}
