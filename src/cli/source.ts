import { closeSync, existsSync, openSync, readdirSync, readFileSync, readSync, statSync } from 'node:fs';
import { basename, dirname, isAbsolute, relative, resolve, sep } from 'node:path';
import { folderOf, gatherIncluded, pathFrom } from '../core/features/includes';
import type { FontProject } from '../core/formats/font/projectFromFont';
import { isFont, looksLikeSvg, openAny } from '../core/formats/openFile';
import { projectFromFiles, type Reading, readProjectFile } from '../core/formats/project/projectFile';
import { sourceNames } from '../core/formats/sourceFolder';
import type { Project } from '../core/project/model';
import { CliError } from './problem';

const plain = (buffer: Buffer): Uint8Array => new Uint8Array(buffer.buffer, buffer.byteOffset, buffer.length);

/** Reads a file whole, or says in one sentence why not. */
export function readFile(path: string): Uint8Array {
  try {
    // A plain array: a Buffer's slice is no copy.
    return plain(readFileSync(path));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new CliError(
      code === 'ENOENT'
        ? `${path} does not exist.`
        : code === 'EISDIR'
          ? `${path} is a folder, not a file.`
          : `${path} cannot be read (${code}).`,
    );
  }
}

/** A stretch of memory that the small files of a folder are read into side by side. */
const POOL = 1 << 20;
const SMALL = 1 << 15;

/** Reads many small files with one allocation for many of them and no question about each one's size. */
class FolderReader {
  private pool = Buffer.allocUnsafeSlow(POOL);
  private used = 0;

  read(path: string): Uint8Array {
    if (this.used + SMALL > POOL) {
      this.pool = Buffer.allocUnsafeSlow(POOL);
      this.used = 0;
    }
    const file = openSync(path, 'r');
    let size: number;
    try {
      size = readSync(file, this.pool, this.used, SMALL, 0);
    } finally {
      closeSync(file);
    }
    if (size === SMALL) return plain(readFileSync(path));
    const start = this.used;
    this.used += size;
    return plain(this.pool.subarray(start, this.used));
  }
}

/** All files below a folder by relative path with forward slashes, after `prefix`. */
function readFolder(folder: string, prefix = ''): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  const reader = new FolderReader();
  const visit = (at: string, within: string) => {
    for (const entry of readdirSync(at, { withFileTypes: true })) {
      const path = at + sep + entry.name;
      if (entry.isDirectory()) visit(path, `${within}${entry.name}/`);
      else if (entry.isFile()) files.set(within + entry.name, reader.read(path));
    }
  };
  visit(folder, prefix);
  return files;
}

/**
 * Opens a source, a font file of any kind or an SVG picture; what the reader had to say is given along. `keep: false` is for
 * what is not written as a source again.
 */
export async function openInput(
  source: string,
  options: { face?: number; glyph?: string; keep?: boolean } = {},
): Promise<FontProject> {
  if (!existsSync(source)) throw new CliError(`${source} does not exist.`);
  if (!statSync(source).isDirectory() && !source.endsWith('.designspace')) {
    const bytes = readFile(source);
    if (isFont(bytes) || looksLikeSvg(bytes)) {
      const read = await openAny(bytes, basename(source), options);
      if (!read.ok) throw new CliError(read.reason);
      return read.value;
    }
  }
  const notes: string[] = [];
  return { project: openSource(source, { tell: (fault) => notes.push(fault), keep: options.keep ?? true }), notes };
}

/** Opens a project file, a `.ufo` folder, a `.ufoz` or a `.designspace` from disk. */
export function openSource(source: string, reading: Reading = {}): Project {
  const path = resolve(source);
  let isFolder: boolean;
  try {
    isFolder = statSync(path).isDirectory();
  } catch {
    throw new CliError(`${source} does not exist.`);
  }
  const label = basename(path);
  const ufo = label.endsWith('.ufo') ? `${label}/` : '';
  let result: ReturnType<typeof projectFromFiles>;
  if (isFolder)
    result = projectFromFiles(withIncluded(readFolder(path, ufo), ufo ? dirname(path) : path), label, reading);
  else if (path.endsWith('.designspace')) result = projectFromFiles(designspaceFiles(path), label, reading);
  else result = readProjectFile(readFile(path), label, reading);
  if (!result.ok) throw new CliError(result.reason);
  return result.value;
}

/** A designspace and the UFOs it names, with paths from the folder that holds them all. */
function designspaceFiles(path: string): Map<string, Uint8Array> {
  const bytes = readFile(path);
  const ufos = sourceNames(new TextDecoder().decode(bytes)).map((name) => ({
    name,
    folder: resolve(dirname(path), name),
  }));
  let root = dirname(path);
  while (ufos.some(({ folder }) => !folder.startsWith(`${root}${sep}`)) && dirname(root) !== root) root = dirname(root);
  const at = (file: string) => relative(root, file).split(sep).join('/');
  const files = new Map<string, Uint8Array>([[at(path), bytes]]);
  for (const { name, folder } of ufos) {
    let found: Map<string, Uint8Array>;
    try {
      found = readFolder(folder, `${at(folder)}/`);
    } catch {
      throw new CliError(`${basename(path)} lists the source “${name}”, which is missing.`);
    }
    for (const [p, b] of found) files.set(p, b);
  }
  return withIncluded(files, root);
}

/** Files with those that rules include from beside the sources: feature files within the folder that holds all, or beside it. */
function withIncluded(files: Map<string, Uint8Array>, root: string): Map<string, Uint8Array> {
  const rules = [...files].filter(([path]) => path.endsWith('.ufo/features.fea'));
  for (const [path, bytes] of rules) {
    const ufo = folderOf(path);
    gatherIncluded(new TextDecoder().decode(bytes), (folder, name) => {
      if (isAbsolute(name) || !name.endsWith('.fea')) return undefined;
      for (const base of [folderOf(ufo), ufo]) {
        const from = resolve(root, base, folder, name);
        const at = pathFrom(`${base}/${folder}`, name);
        const own = files.get(at) ?? fileIfThere(from);
        if (!own) continue;
        files.set(at, own);
        return new TextDecoder().decode(own);
      }
      return undefined;
    });
  }
  return files;
}

const fileIfThere = (path: string): Uint8Array | undefined =>
  existsSync(path) && statSync(path).isFile() ? readFile(path) : undefined;
