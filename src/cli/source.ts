import { readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, dirname, relative, resolve, sep } from 'node:path';
import { projectFromFiles, readProjectFile } from '../core/formats/projectFile';
import type { Project } from '../core/project/model';
import { CliError } from './problem';

/** Reads a file whole, or says in one sentence why not. */
export function readFile(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new CliError(code === 'ENOENT' ? `${path} does not exist.` : code === 'EISDIR' ? `${path} is a folder, not a file.` : `${path} cannot be read (${code}).`);
  }
}

/** All files below a folder by relative path with forward slashes. */
function readFolder(folder: string): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  const visit = (at: string) => {
    for (const entry of readdirSync(at, { withFileTypes: true })) {
      const path = at + sep + entry.name;
      if (entry.isDirectory()) visit(path);
      else if (entry.isFile()) files.set(path.slice(folder.length + 1).replaceAll(sep, '/'), readFileSync(path));
    }
  };
  visit(folder);
  return files;
}

/** Opens a project file, a `.ufo` folder, a `.ufoz` or a `.designspace` from disk. */
export function openSource(source: string): Project {
  const path = resolve(source);
  let isFolder: boolean;
  try {
    isFolder = statSync(path).isDirectory();
  } catch {
    throw new CliError(`${source} does not exist.`);
  }
  const label = basename(path);
  let result: ReturnType<typeof projectFromFiles>;
  if (isFolder) result = projectFromFiles(prefixed(readFolder(path), label.endsWith('.ufo') ? label : ''), label);
  else if (path.endsWith('.designspace')) result = projectFromFiles(designspaceFiles(path), label);
  else result = readProjectFile(readFile(path), label);
  if (!result.ok) throw new CliError(result.reason);
  return result.value;
}

const prefixed = (files: Map<string, Uint8Array>, folder: string): Map<string, Uint8Array> => (folder === '' ? files : new Map([...files].map(([p, b]) => [`${folder}/${p}`, b])));

/** A designspace and the UFOs it names, with paths from the folder that holds them all. */
function designspaceFiles(path: string): Map<string, Uint8Array> {
  const bytes = readFile(path);
  const names = [...new TextDecoder().decode(bytes).matchAll(/<source\b[^>]*\bfilename="([^"]+)"/g)].map((m) => m[1]!);
  const ufos = [...new Set(names)].map((name) => ({ name, folder: resolve(dirname(path), name) }));
  let root = dirname(path);
  while (ufos.some(({ folder }) => !folder.startsWith(`${root}${sep}`)) && dirname(root) !== root) root = dirname(root);
  const at = (file: string) => relative(root, file).split(sep).join('/');
  const files = new Map<string, Uint8Array>([[at(path), bytes]]);
  for (const { name, folder } of ufos) {
    let found: Map<string, Uint8Array>;
    try {
      found = readFolder(folder);
    } catch {
      throw new CliError(`${basename(path)} lists the source “${name}”, which is missing.`);
    }
    for (const [p, b] of found) files.set(`${at(folder)}/${p}`, b);
  }
  return files;
}
