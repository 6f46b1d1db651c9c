import {
  appendBezierCurve,
  closePath,
  concatTransformationMatrix,
  fill,
  lineTo,
  moveTo,
  PDFDocument,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  StandardFonts,
  setFillingRgbColor,
} from 'pdf-lib';
import { createShaper, type Shaper } from './shaper';

/** A4 in points. */
const PAGE = { width: 595, height: 842 };
const MARGIN = 42;
const SIZES = [8, 9, 10, 11, 12, 14, 18, 24, 32, 44, 60, 80];
const CELL = { width: 63.8, height: 72, letter: 34 };

export type ProofInput = {
  font: Uint8Array;
  title: string;
  /** Seconds since 1970: the date written into the file. */
  created: number;
  unitsPerEm: number;
  text: string;
  /** Names by glyph index, for the table of glyphs. */
  glyphNames: readonly string[];
};

/**
 * A printable proof of a font file as PDF: a waterfall of the text, then every glyph with its name. Letters are drawn as
 * outlines from the font's own bytes, set by HarfBuzz, so the print shows what the file holds.
 */
export async function makeProof(input: ProofInput): Promise<Uint8Array> {
  const shaper = await createShaper(input.font);
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const date = new Date(input.created * 1000);
  pdf.setTitle(input.title);
  pdf.setCreator('Wendril');
  pdf.setCreationDate(date);
  pdf.setModificationDate(date);
  const small = await pdf.embedFont(StandardFonts.Helvetica);
  const label = (page: PDFPage, text: string, x: number, y: number, size = 7) =>
    page.drawText(printable(text), { x, y, size, font: small, color: rgb(0.42, 0.39, 0.45) });
  const newPage = (): PDFPage => {
    const page = pdf.addPage([PAGE.width, PAGE.height]);
    label(page, input.title, MARGIN, PAGE.height - 28, 9);
    label(page, String(pdf.getPageCount()), PAGE.width - MARGIN, PAGE.height - 28, 9);
    return page;
  };

  let page = newPage();
  let y = PAGE.height - 62;
  for (const size of SIZES) {
    const lines = linesThatFit(shaper, input.text, ((PAGE.width - 2 * MARGIN - 22) * input.unitsPerEm) / size);
    for (const line of lines.slice(0, size < 24 ? 4 : 1)) {
      y -= size * 1.22;
      if (y < MARGIN) {
        page = newPage();
        y = PAGE.height - 62 - size;
      }
      label(page, String(size), MARGIN, y);
      drawLine(page, shaper, line, MARGIN + 22, y, size / input.unitsPerEm);
    }
    y -= 6;
  }

  const across = Math.floor((PAGE.width - 2 * MARGIN) / CELL.width);
  const down = Math.floor((PAGE.height - 2 * MARGIN - 30) / CELL.height);
  input.glyphNames.forEach((name, gid) => {
    const place = gid % (across * down);
    if (place === 0) page = newPage();
    const x = MARGIN + (place % across) * CELL.width;
    const top = PAGE.height - 56 - Math.floor(place / across) * CELL.height;
    const scale = CELL.letter / input.unitsPerEm;
    drawGlyph(page, shaper.path(gid), x + 8, top - CELL.letter - 6, scale);
    label(page, name.length > 15 ? `${name.slice(0, 14)}…` : name, x + 8, top - CELL.height + 12, 6);
  });
  return pdf.save({ useObjectStreams: false });
}

/** Standard PDF fonts know Latin 1 only; anything else is shown as a question mark in labels. */
const printable = (text: string): string => text.replace(/…/g, '..').replace(/[^\x20-\x7e\xa0-\xff]/g, '?');

/** The text broken between words so that no line is wider than `width` font units. */
function linesThatFit(shaper: Shaper, text: string, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line !== '' && shaper.shape(longer, []).width > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}

function drawLine(page: PDFPage, shaper: Shaper, text: string, x: number, y: number, scale: number): void {
  for (const g of shaper.shape(text, []).glyphs)
    drawGlyph(page, shaper.path(g.gid), x + g.x * scale, y + g.y * scale, scale);
}

/** Fills an outline given as SVG path data in font units, y up. */
function drawGlyph(page: PDFPage, path: string, x: number, y: number, scale: number): void {
  if (path === '') return;
  page.pushOperators(
    pushGraphicsState(),
    setFillingRgbColor(0, 0, 0),
    concatTransformationMatrix(scale, 0, 0, scale, x, y),
  );
  let px = 0;
  let py = 0;
  for (const [, command, rest] of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = rest!
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    if (command === 'M') page.pushOperators(moveTo(n[0]!, n[1]!));
    else if (command === 'L') page.pushOperators(lineTo(n[0]!, n[1]!));
    else if (command === 'C') page.pushOperators(appendBezierCurve(n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!));
    else if (command === 'Q') {
      const [qx, qy, ex, ey] = n as [number, number, number, number];
      page.pushOperators(
        appendBezierCurve(
          px + (2 / 3) * (qx - px),
          py + (2 / 3) * (qy - py),
          ex + (2 / 3) * (qx - ex),
          ey + (2 / 3) * (qy - ey),
          ex,
          ey,
        ),
      );
    } else page.pushOperators(closePath());
    if (command !== 'Z') {
      px = n[n.length - 2]!;
      py = n[n.length - 1]!;
    }
  }
  page.pushOperators(fill(), popGraphicsState());
}
