import { strToU8, unzipSync, zipSync } from 'fflate';
import { refuse } from '../base/result';

/** Files by path with forward slashes; a folder, a `.ufoz` and a project file all become this. */
export type FileTree = ReadonlyMap<string, Uint8Array>;

const MOST_BYTES = 1024 * 1024 * 1024;
const MOST_FILES = 200_000;
/** Beyond so many bytes, a zip that unpacks to more than so many times its size is none of ours. */
const PLAIN_BYTES = 64 * 1024 * 1024;
const MOST_RATIO = 200;

/** Unpacks a zip with every path and size checked before anything is expanded. */
export function unpackZip(bytes: Uint8Array, file: string): Map<string, Uint8Array> {
  if (bytes.length < 22 || bytes[0] !== 0x50 || bytes[1] !== 0x4b) refuse(`${file} is not a zip file.`);
  let total = 0;
  let count = 0;
  const folders = (name: string) => name.endsWith('/') || name.startsWith('__MACOSX/');
  try {
    const entries = unzipSync(bytes, {
      filter: (entry) => {
        if (entry.name.startsWith('/') || entry.name.split(/[/\\]/).includes('..'))
          refuse(
            `${file} holds the path “${entry.name.slice(0, 60).replace(/[^ -~]/g, '?')}”, which points outside it.`,
          );
        total += entry.originalSize;
        count++;
        if (total > MOST_BYTES) refuse(`${file} would unpack to more than 1 GB.`);
        if (total > PLAIN_BYTES && total > MOST_RATIO * bytes.length)
          refuse(
            `${file} would unpack to more than ${MOST_RATIO} times its size: it is not a project that anyone drew.`,
          );
        if (count > MOST_FILES) refuse(`${file} holds more than ${MOST_FILES} files.`);
        return !folders(entry.name);
      },
    });
    return new Map(Object.entries(entries));
  } catch (error) {
    if (error instanceof Error && error.name === 'Refusal') throw error;
    return refuse(`${file} is a damaged or incomplete zip file.`);
  }
}

/** The date every packed file gets, so that the same project gives the same bytes. */
const ZIP_DATE = new Date(1980, 0, 1, 0, 0, 0);

/** Packs files into a zip, in path order, without dates. */
export function packZip(files: FileTree, level: 0 | 6 = 6): Uint8Array {
  const input: Record<string, Uint8Array> = {};
  for (const path of [...files.keys()].sort()) input[path] = files.get(path)!;
  return zipSync(input, { level, mtime: ZIP_DATE });
}

export const textFile = (text: string): Uint8Array => strToU8(text);

/** The files below a folder, with paths relative to it. */
export function subtree(files: FileTree, folder: string): Map<string, Uint8Array> {
  const prefix = folder === '' ? '' : `${folder.replace(/\/$/, '')}/`;
  const out = new Map<string, Uint8Array>();
  for (const [path, bytes] of files) if (path.startsWith(prefix)) out.set(path.slice(prefix.length), bytes);
  return out;
}

/** A file name for a UFO glyph or layer by the UFO 3 standard's "common user name to file name algorithm". */
export function userNameToFileName(name: string, taken: Set<string>, suffix: string): string {
  const illegal = /["*+/:<>?[\\\]|\x00-\x1f\x7f]/g;
  const reserved = new Set(
    'con prn aux clock$ nul a:-z: com1 com2 com3 com4 com5 com6 com7 com8 com9 lpt1 lpt2 lpt3 lpt4 lpt5 lpt6 lpt7 lpt8 lpt9'.split(
      ' ',
    ),
  );
  let base = name.startsWith('.') ? `_${name.slice(1)}` : name;
  base = [...base.replace(illegal, '_')].map((c) => (c !== c.toLowerCase() ? `${c}_` : c)).join('');
  base = base.slice(0, 255 - suffix.length);
  base = base
    .split('.')
    .map((part) => (reserved.has(part.toLowerCase()) ? `_${part}` : part))
    .join('.');
  let fileName = base + suffix;
  for (let i = 1; taken.has(fileName.toLowerCase()); i++)
    fileName = `${base.slice(0, 240)}${String(i).padStart(15, '0')}${suffix}`;
  taken.add(fileName.toLowerCase());
  return fileName;
}
