import { folderOf } from '../features/includes';

/** Which files of a folder belong to a source, told by their paths alone. */

/** What a folder may be opened as: each designspace, else each UFO, those nearest the top first. */
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

/** Of the files of a folder those that a source is made of: its UFOs, its designspace, and texts that may be included. */
export function filesOfSource(paths: Iterable<string>, source: string): string[] {
  const isSpace = source.endsWith('.designspace');
  const root = isSpace ? folderOf(source) : source;
  const within = (p: string) => root === '' || p.startsWith(`${root}/`);
  return [...paths].filter(
    (p) => p === source || p.endsWith('.fea') || (isSpace ? within(p) && /\.ufo\//.test(p) : within(p)),
  );
}
