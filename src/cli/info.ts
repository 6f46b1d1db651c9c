import { statSync } from 'node:fs';
import { attempt } from '../core/base/result';
import { unpackedFont } from '../core/formats/openFile';
import { cmap } from '../core/opentype/cmap';
import { readFvar } from '../core/opentype/fvar';
import { head } from '../core/opentype/head';
import { hhea } from '../core/opentype/hhea';
import { hmtx } from '../core/opentype/hmtx';
import { maxp } from '../core/opentype/maxp';
import { type NameRecord, name } from '../core/opentype/name';
import { ENGLISH, languageIdOf } from '../core/opentype/nameLanguages';
import { os2 } from '../core/opentype/os2';
import { readSfnt, SFNT_CFF, tableOf } from '../core/opentype/sfnt';
import type { Project } from '../core/project/model';
import { glyphsInOrder, isBlank, isEmptyDrawing } from '../core/project/queries';
import { parsed } from './arguments';
import { CliError } from './problem';
import { openInput, openSource, readFile } from './source';

/** `wendril info`: facts about a font file or a source, as JSON or as lines. */
export async function info(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, { json: { type: 'boolean', default: false } });
  if (positionals.length === 0) throw new CliError('info takes one or more FILEs; see wendril --help.');
  for (const [i, file] of positionals.entries()) {
    // Time to hear that nobody reads on.
    await new Promise(setImmediate);
    try {
      for (const [face, facts] of (await factsOf(file)).entries()) tell(facts, values.json, i + face > 0);
    } catch (error) {
      if (!(error instanceof CliError)) throw error;
      // One bad file does not keep the others from being told.
      if (values.json) process.stdout.write(`${JSON.stringify({ file, error: error.message })}\n`);
      process.stderr.write(`wendril: ${error.message}\n`);
      process.exitCode = 1;
    }
  }
}

function tell(facts: Record<string, unknown>, json: boolean, another: boolean): void {
  if (json) {
    process.stdout.write(`${JSON.stringify(facts)}\n`);
    return;
  }
  if (another) process.stdout.write('\n');
  for (const [key, value] of Object.entries(facts))
    process.stdout.write(`${key}: ${typeof value === 'object' ? JSON.stringify(value) : value}\n`);
}

/** Facts of a file; of a collection those of each face. */
async function factsOf(file: string): Promise<Record<string, unknown>[]> {
  if (/\.svg$/i.test(file)) return [sourceFacts(file, (await openInput(file)).project)];
  if (/\.(ufo|ufoz|designspace|wendril)\/?$/.test(file) || isFolder(file)) return [sourceFacts(file, openSource(file))];
  const bytes = readFile(file);
  const unpacked = await unpackedFont(bytes, file);
  if (!unpacked.ok) throw new CliError(unpacked.reason);
  const { format, faces } = unpacked.value;
  return faces.map((start, i) => {
    const facts = attempt(() => fontFacts(unpacked.value.bytes, start));
    if (!facts.ok) throw new CliError(`${file}: ${facts.reason}`);
    const which = faces.length > 1 ? { face: i + 1, faces: faces.length } : {};
    return { file, format, size: bytes.length, ...which, ...facts.value };
  });
}

function isFolder(path: string): boolean {
  try {
    return statSync(path).isDirectory();
  } catch {
    throw new CliError(`${path} does not exist.`);
  }
}

function sourceFacts(file: string, project: Project): Record<string, unknown> {
  const glyphs = glyphsInOrder(project);
  return {
    file,
    format: 'source',
    family: project.family.name,
    unitsPerEm: project.unitsPerEm,
    masters: project.masters.map((m) => ({
      name: m.name,
      place: m.place,
      kerningPairs: Object.keys(m.kerning).length,
    })),
    axes: project.axes.map((a) => ({ tag: a.tag, minimum: a.minimum, default: a.default, maximum: a.maximum })),
    glyphs: glyphs.length,
    drawn: glyphs.filter((g) => isBlank(g) || Object.values(g.drawings).some((d) => !isEmptyDrawing(d))).length,
    codePoints: new Set(glyphs.flatMap((g) => g.unicodes)).size,
    groups: project.groups.length,
  };
}

/** The language of who asks, as a tag (`de`, `pt-BR`); undefined where it is English or not said. */
function userLanguage(): string | undefined {
  const said = process.env.LC_ALL || process.env.LC_MESSAGES || process.env.LANG || '';
  const tag = said.replace(/[.@].*$/, '').replace('_', '-');
  return /^[a-z]{2,3}(-[A-Z]{2})?$/.test(tag) && !tag.startsWith('en') ? tag : undefined;
}

/** Names by their numbers: in the language that is asked for, else in English, else in the first that there is. */
function namesIn(records: readonly NameRecord[], tag: string | undefined): Record<number, string> {
  const wanted = tag === undefined ? undefined : languageIdOf(tag);
  // A language goes by its lower ten bits, a country’s kind of it by all.
  const rank = ({ platformID, languageID }: NameRecord): number =>
    platformID !== 3
      ? 4
      : languageID === wanted
        ? 0
        : wanted !== undefined && (languageID & 0x3ff) === (wanted & 0x3ff)
          ? 1
          : languageID === ENGLISH
            ? 2
            : 3;
  const out: Record<number, string> = {};
  for (const r of [...records].sort((a, b) => rank(a) - rank(b))) out[r.nameID] ??= r.value;
  return out;
}

function fontFacts(bytes: Uint8Array, start: number): Record<string, unknown> {
  const font = readSfnt(bytes, start);
  const header = head.read(tableOf(font, 'head'));
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  const metrics = hmtx.read(tableOf(font, 'hmtx'), hhea.read(tableOf(font, 'hhea')).numberOfHMetrics, numGlyphs);
  const advances = metrics.map((m) => m.advanceWidth);
  const style = os2.read(tableOf(font, 'OS/2'));
  const fvar = font.tables.has('fvar') ? readFvar(font.tables.get('fvar')!) : undefined;
  return {
    outlines: font.version === SFNT_CFF ? 'cff' : 'truetype',
    ...(fvar
      ? {
          axes: fvar.axes.map((a) => ({ tag: a.tag, minimum: a.minimum, default: a.default, maximum: a.maximum })),
          instances: fvar.instances.length,
        }
      : {}),
    tables: Object.fromEntries([...font.tables].map(([tag, t]) => [tag, t.length])),
    names: namesIn(name.read(tableOf(font, 'name')), userLanguage()),
    glyphs: numGlyphs,
    unitsPerEm: header.unitsPerEm,
    weightClass: style.usWeightClass,
    widthClass: style.usWidthClass,
    codePoints: cmap.read(tableOf(font, 'cmap')).size,
    widths: { least: Math.min(...advances), most: Math.max(...advances), different: new Set(advances).size },
  };
}
