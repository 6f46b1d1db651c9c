import { attempt, type Result, refused } from '../core/base/result';
import type { StyleNames } from '../core/fontfacts/names';
import { toWoff2 } from '../core/fontfacts/webfont';
import { contradictionsBetween, contradictionsIn } from '../core/fontnames/contradictions';
import { type FontFacts, readFontFacts } from '../core/fontnames/facts';
import { type Naming, namesFor, renameFont } from '../core/fontnames/rename';
import { packZip } from '../core/formats/fileTree';
import { type FontFormat, unpackedFont } from '../core/formats/openFile';
import { readSfnt, SFNT_CFF, type Sfnt } from '../core/opentype/sfnt';
import { toWoff } from '../core/opentype/woff';

/** One font file as the page shows it. */
export type NamedFile = { name: string; facts: FontFacts; contradictions: readonly string[] };

type Held = { name: string; format: FontFormat; font: Sfnt; facts: FontFacts };
let held: Held[] = [];

/** Names of finished fonts, away from the pointer. The worker holds the files from one call to the next. */
export const namesService = {
  /** Takes more files in; a file that is no font is told in one sentence, the others are kept. */
  async addFonts(
    files: readonly { name: string; bytes: Uint8Array }[],
  ): Promise<{ files: NamedFile[]; refused: string[] }> {
    const refused: string[] = [];
    for (const { name, bytes } of files) {
      const read = await open(name, bytes);
      if (!read.ok) refused.push(read.reason);
      else held = [...held.filter((h) => read.value.every((r) => r.name !== h.name)), ...read.value];
    }
    return { files: told(), refused };
  },

  removeFont(name: string): NamedFile[] {
    held = held.filter((h) => h.name !== name);
    return told();
  },

  /** What the files would be called. */
  planNames: (namings: Readonly<Record<string, Naming>>): Record<string, StyleNames> =>
    Object.fromEntries(held.flatMap((h) => (namings[h.name] ? [[h.name, namesFor(h.font, namings[h.name]!)]] : []))),

  /** The files under their new names, packed as they came: one file, or a zip of several. */
  async makeFonts(
    namings: Readonly<Record<string, Naming>>,
  ): Promise<{ fileName: string; bytes: Uint8Array; notes: string[] }> {
    const notes: string[] = [];
    const made: [string, Uint8Array][] = [];
    for (const h of held) {
      const naming = namings[h.name];
      if (!naming) continue;
      const renamed = renameFont(h.font, naming);
      for (const note of renamed.notes) notes.push(`${h.name}: ${note}`);
      made.push([
        h.name,
        h.format === 'woff2'
          ? await toWoff2(renamed.bytes)
          : h.format === 'woff'
            ? toWoff(renamed.bytes)
            : renamed.bytes,
      ]);
    }
    const [only] = made;
    return made.length === 1
      ? { fileName: only![0], bytes: only![1], notes }
      : { fileName: 'fonts.zip', bytes: packZip(new Map(made)), notes };
  },
};

export type NamesService = typeof namesService;

/** The font of a file; those of a collection one by one, each to become a file of its own. */
async function open(name: string, bytes: Uint8Array): Promise<Result<Held[]>> {
  const unpacked = await unpackedFont(bytes, name);
  if (!unpacked.ok) return unpacked;
  const { format, faces } = unpacked.value;
  const read = attempt(() =>
    faces.map((start, i): Held => {
      const font = readSfnt(unpacked.value.bytes, start);
      const one = format === 'collection';
      const ending = font.version === SFNT_CFF ? 'otf' : 'ttf';
      return {
        name: one ? `${name.replace(/\.\w+$/, '')}, face ${i + 1}.${ending}` : name,
        format: one ? ending : format,
        font,
        facts: readFontFacts(font),
      };
    }),
  );
  return read.ok ? read : refused(`${name}: ${read.reason}`);
}

function told(): NamedFile[] {
  const between = contradictionsBetween(held.map((h) => h.facts));
  return held.map((h, i) => ({
    name: h.name,
    facts: h.facts,
    contradictions: [...contradictionsIn(h.facts), ...between[i]!],
  }));
}
