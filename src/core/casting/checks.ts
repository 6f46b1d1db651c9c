import { type CheckOf, type Finding, findingOf } from '../base/finding';
import { codePointForm } from '../base/notation';
import { attempt, type Refusal, refused } from '../base/result';
import { readCff2 } from '../opentype/cff2Read';
import { readCff } from '../opentype/cffRead';
import { cmap } from '../opentype/cmap';
import { readFvar } from '../opentype/fvar';
import { readGlyphs } from '../opentype/glyf';
import { head } from '../opentype/head';
import { hhea } from '../opentype/hhea';
import { hmtx } from '../opentype/hmtx';
import { maxp } from '../opentype/maxp';
import { NAME_ID, name } from '../opentype/name';
import { FS_SELECTION, os2 } from '../opentype/os2';
import { checksumOf, readSfnt, SFNT_CFF, type Sfnt, tableOf } from '../opentype/sfnt';

type File = { font: Sfnt; bytes: Uint8Array };

/** What installers and browsers check, each by itself. */
const CHECKS: readonly CheckOf<File>[] = [
  { kind: 'font.tables', title: 'Tables', look: ({ font }) => requiredTables(font) },
  { kind: 'font.checksum', title: 'Checksum', look: ({ bytes }) => checksum(bytes) },
  { kind: 'font.outlines', title: 'Outlines', look: ({ font }) => outlines(font) },
  { kind: 'font.widths', title: 'Widths', look: ({ font }) => widths(font) },
  { kind: 'font.codePoints', title: 'Code points', look: ({ font }) => codePoints(font) },
  { kind: 'font.names', title: 'Names', look: ({ font }) => namesAgree(font) },
  { kind: 'font.style', title: 'Style bits', look: ({ font }) => styleBits(font) },
];

/**
 * Reads a finished font file back and checks what installers and browsers check: the directory, checksums, table
 * lengths, counts that must agree, indices in range, names and style bits that must not contradict each other.
 */
export function checkFont(bytes: Uint8Array): Finding[] {
  const font = attempt(() => readSfnt(bytes));
  if (!font.ok) return [{ kind: 'font.file', title: 'File', reason: font.reason, severity: 'error' }];
  return CHECKS.map((check) => findingOf(check, { font: font.value, bytes }));
}

function requiredTables(font: Sfnt): string | Refusal {
  const outline = font.version !== SFNT_CFF ? ['glyf', 'loca'] : font.tables.has('CFF2') ? ['CFF2'] : ['CFF '];
  const missing = ['head', 'hhea', 'maxp', 'OS/2', 'hmtx', 'cmap', 'name', 'post', ...outline].filter(
    (t) => !font.tables.has(t),
  );
  return missing.length > 0
    ? refused(`Missing: ${missing.join(', ')}.`)
    : `${font.tables.size} tables, all that are needed.`;
}

function checksum(bytes: Uint8Array): string | Refusal {
  return checksumOf(bytes) === 0xb1b0afba ? 'The whole file adds up.' : refused('The checksum of the file is wrong.');
}

function outlines(font: Sfnt): string | Refusal {
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  const { indexToLocFormat } = head.read(tableOf(font, 'head'));
  if (font.tables.has('CFF2')) {
    const cff = readCff2(tableOf(font, 'CFF2'));
    if (cff.count !== numGlyphs)
      return refused(`CFF2 holds ${cff.count} glyphs, maxp says ${numGlyphs}.`, { table: 'glyf' });
    const axes = font.tables.has('fvar') ? readFvar(tableOf(font, 'fvar')).axes.length : 0;
    for (let i = 0; i < numGlyphs; i++) cff.outline(i, Array<number>(axes).fill(0));
    return `${numGlyphs} glyphs read back.`;
  }
  if (font.version === SFNT_CFF) {
    const cff = readCff(tableOf(font, 'CFF '));
    if (cff.glyphs.length !== numGlyphs)
      return refused(`CFF holds ${cff.glyphs.length} glyphs, maxp says ${numGlyphs}.`, { table: 'glyf' });
    return `${numGlyphs} glyphs read back.`;
  }
  const glyphs = readGlyphs(tableOf(font, 'glyf'), tableOf(font, 'loca'), indexToLocFormat, numGlyphs);
  for (const [i, g] of glyphs.entries()) {
    if (g.kind === 'composite' && g.components.some((c) => c.glyph >= numGlyphs))
      return refused(`Glyph ${i} refers to a glyph that is not there.`, { table: 'glyf' });
  }
  return `${numGlyphs} glyphs read back.`;
}

function widths(font: Sfnt): string | Refusal {
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  const header = hhea.read(tableOf(font, 'hhea'));
  const metrics = hmtx.read(tableOf(font, 'hmtx'), header.numberOfHMetrics, numGlyphs);
  const widest = metrics.reduce((a, m) => Math.max(a, m.advanceWidth), 0);
  if (widest !== header.advanceWidthMax)
    return refused(`hhea says the widest glyph is ${header.advanceWidthMax}, but one is ${widest}.`, { table: 'hmtx' });
  if (font.tables.has('CFF ')) {
    const wrong = readCff(tableOf(font, 'CFF ')).glyphs.findIndex((g, i) => g.advance !== metrics[i]!.advanceWidth);
    if (wrong >= 0) return refused(`Glyph ${wrong} has another width in CFF than in hmtx.`, { table: 'hmtx' });
  }
  return `${metrics.length} advance widths agree.`;
}

function codePoints(font: Sfnt): string | Refusal {
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  const map = cmap.read(tableOf(font, 'cmap'));
  const wrong = [...map].find(([, glyph]) => glyph >= numGlyphs);
  if (wrong)
    return refused(`${codePointForm(wrong[0])} leads to a glyph that is not there.`, {
      table: 'cmap',
    });
  if (!map.has(0x20)) return refused('No glyph for the space (U+0020).', { table: 'cmap' });
  return `${map.size} code points.`;
}

function namesAgree(font: Sfnt): string | Refusal {
  const records = name.read(tableOf(font, 'name'));
  const value = (id: number) => records.find((r) => r.nameID === id && r.platformID === 3)?.value;
  const needed = [NAME_ID.family, NAME_ID.subfamily, NAME_ID.full, NAME_ID.postScript, NAME_ID.version];
  if (needed.some((id) => !value(id)))
    return refused('A family, style, full, PostScript or version name is missing.', { table: 'name' });
  const postScript = value(NAME_ID.postScript)!;
  if (!/^[\x21-\x7e]{1,63}$/.test(postScript) || /[[\](){}<>/%]/.test(postScript))
    return refused(`“${postScript}” is not a PostScript name.`, { table: 'name' });
  return value(NAME_ID.full)!;
}

function styleBits(font: Sfnt): string | Refusal {
  const { macStyle } = head.read(tableOf(font, 'head'));
  const { fsSelection = 0, usWeightClass = 0 } = os2.read(tableOf(font, 'OS/2'));
  const bold = (fsSelection & FS_SELECTION.BOLD) !== 0;
  const italic = (fsSelection & FS_SELECTION.ITALIC) !== 0;
  if (bold !== ((macStyle & 1) !== 0) || italic !== ((macStyle & 2) !== 0))
    return refused('OS/2 and head disagree about bold or italic.', { table: 'OS/2' });
  if ((fsSelection & FS_SELECTION.REGULAR) !== 0 && (bold || italic))
    return refused('The style is said to be regular and bold or italic at once.', { table: 'OS/2' });
  return `Weight class ${usWeightClass}${bold ? ', bold' : ''}${italic ? ', italic' : ''}.`;
}
