import { folderOf } from '../features/includes';

/** Which files of a folder belong to a source. */

/** What a folder may be opened as: each designspace, else the folder of each UFO, those nearest the top first. */
export function sourcesIn(paths: Iterable<string>): string[] {
  const all = [...paths];
  const depth = (p: string) => p.split('/').length;
  const shallow = (a: string, b: string) => depth(a) - depth(b) || (a < b ? -1 : 1);
  const spaces = all.filter((p) => p.endsWith('.designspace') && !p.includes('.ufo/')).sort(shallow);
  if (spaces.length > 0) return spaces;
  return all
    .flatMap((p) => (p === 'metainfo.plist' || p.endsWith('/metainfo.plist') ? [folderOf(p)] : []))
    .sort(shallow);
}

/** A relative path seen from a folder, `..` resolved; undefined when it would leave the tree. */
export function resolvedPath(folder: string, relative: string): string | undefined {
  const out = folder === '' ? [] : folder.split('/');
  for (const part of relative.split(/[/\\]/)) {
    if (part === '..') {
      if (out.length === 0) return undefined;
      out.pop();
    } else if (part !== '.' && part !== '') out.push(part);
  }
  return out.join('/');
}

/** The names by which a designspace calls its sources, as its text has them. */
export const sourceNames = (designspace: string): string[] => [
  ...new Set([...designspace.matchAll(/<source\b[^>]*\bfilename="([^"]+)"/g)].map((m) => m[1]!)),
];

/**
 * Of the files of a folder those that a source is made of, and texts that may be included. `names` are the sources of a
 * designspace; for a UFO there are none.
 */
export function filesOfSource(paths: Iterable<string>, source: string, names: readonly string[] = []): string[] {
  const folders = source.endsWith('.designspace')
    ? names.flatMap((name) => resolvedPath(folderOf(source), name) ?? [])
    : [source];
  const isIn = (p: string) => folders.some((f) => f === '' || p.startsWith(`${f}/`));
  return [...paths].filter((p) => p === source || p.endsWith('.fea') || isIn(p));
}
