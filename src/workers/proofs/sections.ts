import type { ProofSection } from '../../core/casting/proofKinds';
import { coverageOf } from '../../core/coverage/coverage';
import { loadLanguages } from '../../core/coverage/languages';
import { writtenSample } from '../../core/coverage/samples';
import { embedFont, type PdfFont } from './pdfFont';
import { brokenLines, MARGIN, type Sheet } from './sheet';

/** A font that is proofed: its file, what it is called, names of its glyphs where they are known better than the file tells. */
export type ProofedFont = { bytes: Uint8Array; title: string; glyphNames?: readonly string[] };
export type Proofed = {
  sheet: Sheet;
  font: PdfFont;
  names: readonly string[];
  text: string;
  family: readonly ProofedFont[];
};

/** How each section is made. */
export const SECTION_MAKERS: Readonly<Record<ProofSection, (of: Proofed) => void | Promise<void>>> = {
  waterfall,
  text: paragraphs,
  glyphs: glyphTable,
  languages,
  spacing,
  kerning,
  marks,
  family,
};

const SIZES = [8, 9, 10, 11, 12, 14, 18, 24, 32, 44, 60, 80];

function waterfall({ sheet, font, text }: Proofed): void {
  for (const size of SIZES) {
    const lines = brokenLines(font, text, size, sheet.width - 22);
    for (const [i, line] of lines.slice(0, size < 24 ? 4 : 1).entries()) {
      const y = sheet.room(size * 1.22);
      if (i === 0) sheet.label(String(size), MARGIN, y);
      font.line(sheet.page, line, { x: MARGIN + 22, y, size });
    }
    sheet.y -= 6;
  }
}

function paragraphs({ sheet, font, text }: Proofed): void {
  for (const size of [8, 9.5, 11, 13, 16, 20]) {
    // Long enough to look at a paragraph, whatever the text is.
    const lines = brokenLines(font, `${text} `.repeat(Math.ceil(900 / (text.length + 1))), size, sheet.width - 22);
    for (const [i, line] of lines.slice(0, size < 13 ? 7 : 5).entries()) {
      const y = sheet.room(size * 1.35);
      if (i === 0) sheet.label(String(size), MARGIN, y);
      font.line(sheet.page, line, { x: MARGIN + 22, y, size });
    }
    sheet.y -= 12;
  }
}

const CELL = { width: 63.8, height: 74, letter: 34 };

function glyphTable({ sheet, font, names }: Proofed): void {
  const across = Math.floor(sheet.width / CELL.width);
  const codes = new Map([...font.characters].map(([code, gid]) => [gid, code]));
  for (let gid = 0; gid < font.glyphCount; gid++) {
    const column = gid % across;
    if (column === 0) sheet.room(CELL.height);
    const x = MARGIN + column * CELL.width;
    const base = sheet.y + CELL.height - CELL.letter - 4;
    font.write(sheet.page, [{ gid, x: 0, y: 0, advance: 0, cluster: 0 }], x + 4, base, CELL.letter);
    const name = names[gid] ?? font.shaper.name(gid);
    sheet.label(name.length > 15 ? `${name.slice(0, 14)}…` : name, x + 4, sheet.y + 16, 6);
    const code = codes.get(gid);
    if (code !== undefined) sheet.label(code.toString(16).toUpperCase().padStart(4, '0'), x + 4, sheet.y + 8, 5.5);
  }
}

async function languages({ sheet, font }: Proofed): Promise<void> {
  const has = (code: number) => font.characters.has(code);
  const { all } = await loadLanguages();
  for (const { language } of coverageOf(all, has).filter((c) => c.missing.length === 0)) {
    const text = writtenSample(language, has);
    if (text === undefined || text === '') continue;
    const lines = brokenLines(font, text, 10.5, sheet.width - 110);
    for (const [i, line] of lines.entries()) {
      const y = sheet.room(i === 0 ? 16 : 13.5);
      if (i === 0) sheet.label(language.name, MARGIN, y, 7);
      font.line(sheet.page, line, { x: MARGIN + 110, y, size: 10.5, settings: { language: language.code } });
    }
  }
}

const lettersOf = (font: PdfFont, pattern: RegExp): string[] =>
  [...font.characters.keys()]
    .sort((a, b) => a - b)
    .map((c) => String.fromCodePoint(c))
    .filter((c) => pattern.test(c));

/** The straight and the round letter that others stand between, by alphabet. */
const BETWEEN: readonly (readonly [pattern: RegExp, straight: string, round: string])[] = [
  [/^[a-zß-öø-ÿ]$/u, 'n', 'o'],
  [/^[A-ZÀ-ÖØ-Þ]$/u, 'H', 'O'],
  [/^[0-9]$/u, '1', '0'],
  [/^\p{Script=Greek}$/u, 'η', 'ο'],
  [/^\p{Script=Cyrillic}$/u, 'н', 'о'],
];

function spacing({ sheet, font }: Proofed): void {
  const size = 15;
  const columns = sheet.width > 700 ? 4 : 3;
  for (const [pattern, straight, round] of BETWEEN) {
    if (![straight, round].every((c) => font.characters.has(c.codePointAt(0)!))) continue;
    lettersOf(font, pattern).forEach((c, i) => {
      const y = i % columns === 0 ? sheet.room(size * 1.5) : sheet.y;
      const text = straight + straight + c + straight + round + c + round + round;
      font.line(sheet.page, text, {
        x: MARGIN + ((i % columns) * sheet.width) / columns,
        y,
        size,
        features: ['kern=0', 'liga=0', 'clig=0', 'calt=0'],
      });
    });
    sheet.y -= 12;
  }
}

/** Pairs beyond this would say nothing more. */
const MOST_PAIRS = 240;

function kerning({ sheet, font }: Proofed): void {
  const letters = lettersOf(font, /^[A-Za-z0-9.,:;!?'"‘’“”()\-–—/&À-ÿ]$/u);
  const alone = new Map(letters.map((c) => [c, font.shaper.shape(c, ['kern=0']).width]));
  const off = ['liga=0', 'clig=0', 'calt=0', 'dlig=0'];
  const found: { text: string; by: number }[] = [];
  for (const a of letters)
    for (const b of letters) {
      const by = Math.round(font.shaper.shape(a + b, off).width - alone.get(a)! - alone.get(b)!);
      if (by !== 0) found.push({ text: a + b, by });
    }
  // Letters among themselves first: they are most of what is read.
  const isWord = (text: string) => (/^\p{L}+$/u.test(text) ? 0 : 1);
  found.sort((a, b) => isWord(a.text) - isWord(b.text) || Math.abs(b.by) - Math.abs(a.by));
  if (found.length === 0) sheet.label('No pair of letters is kerned.', MARGIN, sheet.room(20), 9);
  const columns = Math.floor(sheet.width / 84);
  found.slice(0, MOST_PAIRS).forEach(({ text, by }, i) => {
    const y = i % columns === 0 ? sheet.room(40) : sheet.y;
    const x = MARGIN + (i % columns) * (sheet.width / columns);
    font.line(sheet.page, text, { x, y: y + 10, size: 26, features: off });
    sheet.label(String(by), x, y, 6);
  });
}

function marks({ sheet, font }: Proofed): void {
  const has = (c: string) => font.characters.has(c.codePointAt(0)!);
  const bases = [...'aeiouncszlgyAEIOUNCSZLGYoOиιωА'].filter(has);
  const all = lettersOf(font, /^\p{Mn}$/u);
  if (all.length === 0) sheet.label('The font has no combining marks.', MARGIN, sheet.room(20), 9);
  for (const mark of all) {
    const y = sheet.room(38);
    sheet.label((mark.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0'), MARGIN, y);
    let x = MARGIN + 30;
    for (const base of bases) {
      if (x > MARGIN + sheet.width - 24) break;
      x += font.line(sheet.page, base + mark, { x, y, size: 24 }) + 6;
    }
  }
}

async function family({ sheet, text, family: files }: Proofed): Promise<void> {
  for (const [i, file] of files.entries()) {
    const font = await embedFont(sheet.pdf, file.bytes, `Family${i}`);
    const y = sheet.room(48);
    const [line = ''] = brokenLines(font, text, 26, sheet.width);
    font.line(sheet.page, line, { x: MARGIN, y, size: 26 });
    sheet.label(file.title, MARGIN, y - 12, 7);
    font.finish();
  }
}
