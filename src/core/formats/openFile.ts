import { attempt, type Result, refused } from '../base/result';
import { familyAndStyle } from '../fontfacts/fontNames';
import { fromWoff2 } from '../fontfacts/webfont';
import { name } from '../opentype/name';
import { faceOffsets, readSfnt, tableOf } from '../opentype/sfnt';
import { fromWoff, WOFF_SIGNATURE } from '../opentype/woff';
import { checkedProject } from '../project/checked';
import type { FileTree } from './fileTree';
import { type FontProject, projectFromFont } from './font/projectFromFont';
import { projectFromFiles, readProjectFile } from './project/projectFile';
import { projectFromSvg } from './svg/projectFromSvg';
import { isSvg } from './svg/svgRead';
import type { Progress } from './ufo/ufo';
import { textOf } from './xml';

const WOFF2_SIGNATURE = 0x774f4632;
const FONT_SIGNATURES = new Set([0x00010000, 0x4f54544f, 0x74727565, 0x74746366, WOFF_SIGNATURE, WOFF2_SIGNATURE]);

const signatureOf = (bytes: Uint8Array): number =>
  bytes.length < 4 ? 0 : new DataView(bytes.buffer, bytes.byteOffset, 4).getUint32(0);

export type FontFormat = 'ttf' | 'otf' | 'woff' | 'woff2' | 'collection';

/** Whether bytes begin as a font file of any kind does. */
export const isFont = (bytes: Uint8Array): boolean => FONT_SIGNATURES.has(signatureOf(bytes));

/** A font file without its web packing, and what it was; damage is told with the file's name. */
export async function unpackedFont(
  bytes: Uint8Array,
  label: string,
): Promise<Result<{ bytes: Uint8Array; format: FontFormat; faces: number[] }>> {
  const signature = signatureOf(bytes);
  const plain = async (): Promise<Result<Uint8Array>> => {
    if (signature === WOFF_SIGNATURE) return attempt(() => fromWoff(bytes));
    if (signature !== WOFF2_SIGNATURE) return { ok: true, value: bytes };
    try {
      return { ok: true, value: await fromWoff2(bytes) };
    } catch {
      return refused('the WOFF2 packing is damaged.');
    }
  };
  const unpacked = await plain();
  if (!unpacked.ok) return refused(`${label}: ${unpacked.reason}`);
  const faces = attempt(() => faceOffsets(unpacked.value));
  if (!faces.ok) return refused(`${label}: ${faces.reason}`);
  const inner = signatureOf(unpacked.value);
  const format =
    signature === WOFF_SIGNATURE
      ? 'woff'
      : signature === WOFF2_SIGNATURE
        ? 'woff2'
        : inner === 0x74746366
          ? 'collection'
          : inner === 0x4f54544f
            ? 'otf'
            : 'ttf';
  return { ok: true, value: { bytes: unpacked.value, format, faces: faces.value } };
}

/**
 * Opens whatever a designer has: a project file, a zip with sources, a font of any kind (`face` chooses one of a
 * collection, counted from 0), or an SVG picture as a project of one glyph, named `glyph`. The project is checked whole
 * before it is given.
 */
export async function openAny(
  bytes: Uint8Array,
  label: string,
  { face = 0, glyph, progress }: OpenOptions = {},
): Promise<Result<FontProject>> {
  const read = isFont(bytes)
    ? await openFont(bytes, label, face, progress)
    : looksLikeSvg(bytes)
      ? unwrapText(bytes, label, (text) => projectFromSvg(text, label, glyph))
      : openProject(bytes, label, progress);
  if (!read.ok) return read;
  const checked = checkedProject(read.value.project, label);
  return checked.ok ? { ok: true, value: { project: checked.value, notes: read.value.notes } } : checked;
}

/** Opens a project from the files of a folder; checked whole as by {@link openAny}. */
export function openTree(files: FileTree, label: string, progress?: Progress): Result<FontProject> {
  const notes: string[] = [];
  const read = projectFromFiles(files, label, { progress, tell: (fault) => notes.push(fault) });
  const checked = read.ok ? checkedProject(read.value, label) : read;
  return checked.ok ? { ok: true, value: { project: checked.value, notes } } : checked;
}

/** The names of the faces of a collection, to choose from; empty for any other file, damaged ones included. */
export async function facesOf(bytes: Uint8Array, label: string): Promise<string[]> {
  if (!isFont(bytes)) return [];
  const font = await unpackedFont(bytes, label);
  if (!font.ok || font.value.faces.length < 2) return [];
  return font.value.faces.map((start, i) => {
    const named = attempt(() => familyAndStyle(name.read(tableOf(readSfnt(font.value.bytes, start), 'name'))));
    return (named.ok && [named.value.family, named.value.style].filter(Boolean).join(' ')) || `Face ${i + 1}`;
  });
}

type OpenOptions = { face?: number; glyph?: string; progress?: Progress };

/** Whether bytes begin as an SVG document does. */
export const looksLikeSvg = (bytes: Uint8Array): boolean => isSvg(new TextDecoder().decode(bytes.subarray(0, 4096)));

function unwrapText<T>(bytes: Uint8Array, label: string, work: (text: string) => Result<T>): Result<T> {
  const text = attempt(() => textOf(bytes, label));
  return text.ok ? work(text.value) : text;
}

function openProject(bytes: Uint8Array, label: string, progress?: Progress): Result<FontProject> {
  const notes: string[] = [];
  const read = readProjectFile(bytes, label, { progress, tell: (fault) => notes.push(fault) });
  return read.ok ? { ok: true, value: { project: read.value, notes } } : read;
}

async function openFont(
  bytes: Uint8Array,
  label: string,
  face: number,
  progress?: Progress,
): Promise<Result<FontProject>> {
  const font = await unpackedFont(bytes, label);
  if (!font.ok) return font;
  const start = font.value.faces[face];
  if (start === undefined)
    return refused(`${label} holds ${font.value.faces.length} faces; there is no face ${face + 1}.`);
  const read = projectFromFont(font.value.bytes, label, start, progress);
  if (read.ok && font.value.faces.length > 1)
    read.value.notes.unshift(`Face ${face + 1} of ${font.value.faces.length} of the collection was opened.`);
  return read;
}
