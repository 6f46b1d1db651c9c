import type { Source } from './compile';
import type { Statement } from './tree';
import { treeOf } from './trees';

/** Files that feature text includes: where they lie, and all of them by their paths from one folder. */

/** No more files than this, and no more text in all of them, are brought in. */
const MOST_FILES = 1000;
const MOST_TEXT = 20_000_000;

/** Paths that a text includes, in their order. */
export function includedPaths(text: string): string[] {
  const walk = (list: readonly Statement[]): string[] =>
    list.flatMap((s) => (s.kind === 'include' ? [s.path] : 'body' in s && s.kind !== 'table' ? walk(s.body) : []));
  return walk(treeOf(text).statements);
}

/** A path seen from a folder, without `.` and `..`; what would lead above the top stays within it. */
export function pathFrom(folder: string, path: string): string {
  const way: string[] = [];
  for (const part of `${folder}/${path}`.split(/[/\\]/)) {
    if (part === '..') way.pop();
    else if (part !== '.' && part !== '') way.push(part);
  }
  return way.join('/');
}

export const folderOf = (path: string): string => (path.includes('/') ? path.slice(0, path.lastIndexOf('/')) : '');

/**
 * Where an included file may lie, the likeliest first: seen from the folder of the text that includes all, then from the file that
 * includes it (specification, “Including files”).
 */
const places = (folder: string, path: string): readonly [folder: string, path: string][] => [
  ['', path],
  [folder, path],
];

/** The files that a text includes, and those that they include, by their paths; `find` gives the text of one. */
export function gatherIncluded(
  text: string,
  find: (folder: string, path: string) => string | undefined,
): Record<string, string> {
  const found: Record<string, string> = {};
  let room = MOST_TEXT;
  const queue = [{ text, folder: '' }];
  for (let next = queue.pop(); next && Object.keys(found).length < MOST_FILES; next = queue.pop())
    for (const path of includedPaths(next.text))
      for (const place of places(next.folder, path)) {
        const key = pathFrom(...place);
        if (found[key] !== undefined) break;
        const own = find(...place);
        if (own === undefined || own.length > room) continue;
        room -= own.length;
        found[key] = own;
        queue.push({ text: own, folder: folderOf(key) });
        break;
      }
  return found;
}

/** Included files as the compiler asks for them, seen from a folder. */
export const includeFrom =
  (included: Readonly<Record<string, string>>, folder = ''): NonNullable<Source['include']> =>
  (path) => {
    const keys = new Map(Object.keys(included).map((k) => [pathFrom('', k), k]));
    for (const place of places(folder, path)) {
      const at = pathFrom(...place);
      const text = included[keys.get(at) ?? ''];
      if (text !== undefined) return { text, tree: treeOf(text), include: includeFrom(included, folderOf(at)) };
    }
    return undefined;
  };
