import { PDFDocument, type PDFPage, rgb, StandardFonts } from 'pdf-lib';
import { PAGE_SIZES, type PageSize } from '../../core/casting/proofKinds';
import type { PdfFont } from './pdfFont';

export const MARGIN = 42;
const HEAD = 28;
const QUIET = rgb(0.42, 0.39, 0.45);

/** Standard PDF fonts know Latin 1 only; anything else is shown as a question mark in labels. */
const printable = (text: string): string => text.replace(/…/g, '..').replace(/[^\x20-\x7e\xa0-\xff]/g, '?');

/** Pages that are filled from the top: each with its heading, its number and what the section is called. */
export class Sheet {
  page!: PDFPage;
  /** Where the next line may stand, from the bottom of the page, in points. */
  y = 0;
  private section = '';

  private constructor(
    readonly pdf: PDFDocument,
    private readonly face: Awaited<ReturnType<PDFDocument['embedFont']>>,
    private readonly title: string,
    readonly size: PageSize,
  ) {}

  static async begin(title: string, size: PageSize, created: number): Promise<Sheet> {
    const pdf = await PDFDocument.create({ updateMetadata: false });
    const date = new Date(created * 1000);
    pdf.setTitle(title);
    pdf.setCreator('Wendril');
    pdf.setCreationDate(date);
    pdf.setModificationDate(date);
    return new Sheet(pdf, await pdf.embedFont(StandardFonts.Helvetica), title, size);
  }

  get width(): number {
    return PAGE_SIZES[this.size].width - 2 * MARGIN;
  }
  get top(): number {
    return PAGE_SIZES[this.size].height - 62;
  }
  get height(): number {
    return this.top - MARGIN;
  }

  /** A section begins on a page of its own. */
  begin(section: string): void {
    this.section = section;
    this.turn();
  }

  turn(): void {
    const { width, height } = PAGE_SIZES[this.size];
    this.page = this.pdf.addPage([width, height]);
    this.y = this.top;
    this.label(`${this.title} · ${this.section}`, MARGIN, height - HEAD, 9);
    const number = String(this.pdf.getPageCount());
    this.label(number, width - MARGIN - this.face.widthOfTextAtSize(number, 9), height - HEAD, 9);
  }

  /** Room for a line of that height, on the next page where this one is full; gives its baseline. */
  room(height: number): number {
    if (this.y - height < MARGIN) this.turn();
    this.y -= height;
    return this.y;
  }

  label(text: string, x: number, y: number, size = 7): void {
    this.page.drawText(printable(text), { x, y, size, font: this.face, color: QUIET });
  }

  rule(y: number): void {
    this.page.drawLine({
      start: { x: MARGIN, y },
      end: { x: MARGIN + this.width, y },
      thickness: 0.4,
      color: rgb(0.82, 0.8, 0.77),
    });
  }
}

/** A text broken between words so that no line is wider than some points; a word that is wider stands alone. */
export function brokenLines(font: PdfFont, text: string, size: number, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line !== '' && font.width(longer, size) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}
