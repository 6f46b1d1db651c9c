import { type PageSize, PROOF_SECTIONS, type ProofSection } from '../../core/casting/proofKinds';
import { embedFont } from './pdfFont';
import { type ProofedFont, SECTION_MAKERS } from './sections';
import { Sheet } from './sheet';

export type ProofInput = {
  font: ProofedFont;
  /** Every file of the family, for the section that shows them together. */
  family: readonly ProofedFont[];
  sections: readonly ProofSection[];
  size: PageSize;
  text: string;
  /** Seconds since 1970: the date written into the file. */
  created: number;
};

/** A printable proof of a font file as PDF. The font is embedded and its lines are set by HarfBuzz, so that the print shows what the file holds. */
export async function makeProof({ font, family, sections, size, text, created }: ProofInput): Promise<Uint8Array> {
  const sheet = await Sheet.begin(font.title, size, created);
  const own = await embedFont(sheet.pdf, font.bytes, 'Own');
  for (const section of PROOF_SECTIONS) {
    if (!sections.includes(section.key)) continue;
    sheet.begin(section.title);
    await SECTION_MAKERS[section.key]({ sheet, font: own, names: font.glyphNames ?? [], text, family });
  }
  own.finish();
  if (sheet.pdf.getPageCount() === 0) sheet.begin('Nothing chosen');
  return sheet.pdf.save({ useObjectStreams: false });
}
