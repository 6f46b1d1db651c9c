import { attempt } from '../base/result';
import { sameBytes } from '../base/sharing';
import type { LibValue, Project } from '../project/model';
import { type FileTree, packZip, textFile, unpackZip } from './fileTree';
import { merged } from './merged';
import { mergedXml } from './mergedXml';
import { restyledGlif, restyledPlist } from './restyled';
import { isDict, readPlist, writePlist } from './ufo/plist';
import { textOf } from './xml';

/**
 * The files of the source that a project was opened from, where we would write them differently. What was not changed since goes
 * back to the letter; what was changed keeps the form that its file had, and what we have no use for.
 */

/** Where they are kept with the project, packed. */
export const ORIGINALS = '@originals';

const WAS = 'was/';
const OURS = 'ours/';

type Originals = { readonly was: FileTree; readonly ours: FileTree };

const known = new WeakMap<Uint8Array, Originals>();

/** A project with the files it was opened from; `ours` are those that we make of it as it was opened. */
export function withOriginals(project: Project, was: FileTree, ours: FileTree): Project {
  const files = new Map<string, Uint8Array>();
  for (const path of new Set([...was.keys(), ...ours.keys()])) {
    const [a, b] = [was.get(path), ours.get(path)];
    if (sameFile(a, b)) continue;
    if (a) files.set(WAS + path, a);
    if (b) files.set(OURS + path, b);
  }
  if (files.size === 0) return project;
  return { ...project, kept: { ...project.kept, [ORIGINALS]: packZip(files) } };
}

function originalsOf(project: Project): Originals | undefined {
  const packed = project.kept[ORIGINALS];
  if (!packed) return undefined;
  const found = known.get(packed);
  if (found) return found;
  const files = attempt(() => unpackZip(packed, 'the files of the source'));
  if (!files.ok) return undefined;
  const below = (prefix: string) =>
    new Map([...files.value].flatMap(([p, b]) => (p.startsWith(prefix) ? [[p.slice(prefix.length), b] as const] : [])));
  const originals = { was: below(WAS), ours: below(OURS) };
  known.set(packed, originals);
  return originals;
}

/** The bytes of a file of the source, where it is kept since we would write it differently. */
export const originalFile = (project: Project, path: string): Uint8Array | undefined =>
  originalsOf(project)?.was.get(path);

/** The files of a project as its source has them, but for what was changed. `now` are the files that we make of it. */
export function asTheSourceHasThem(project: Project, now: FileTree): Map<string, Uint8Array> {
  const out = new Map(now);
  const originals = originalsOf(project);
  if (!originals) return out;
  const { was, ours } = originals;
  for (const path of new Set([...was.keys(), ...ours.keys()])) {
    const made = now.get(path);
    const file = sameFile(made, ours.get(path))
      ? was.get(path)
      : led(path, was.get(path), ours.get(path), made ?? emptied(path, now));
    if (file) out.set(path, file);
    else out.delete(path);
  }
  return out;
}

/** Kerning of which ours is all gone may still hold pairs that are not ours; so do groups and the rest. */
const emptied = (path: string, now: FileTree): Uint8Array | undefined => {
  const [, folder] = /^(.*\.ufo)\/(?:kerning|groups|lib|fontinfo)\.plist$/.exec(path) ?? [];
  return folder !== undefined && now.has(`${folder}/metainfo.plist`) ? textFile(writePlist({})) : undefined;
};

/** A file that was changed, led on from what it was; undefined where nothing is left of it. */
function led(
  path: string,
  was: Uint8Array | undefined,
  ours: Uint8Array | undefined,
  now: Uint8Array | undefined,
): Uint8Array | undefined {
  if (!now) return undefined;
  const text = (bytes: Uint8Array) => textOf(bytes, path);
  const value = (bytes: Uint8Array | undefined): LibValue | undefined => bytes && readPlist(text(bytes), path);
  const done = attempt(() => {
    if (path.endsWith('.designspace') && was && ours)
      return textFile(mergedXml(text(was), text(ours), text(now), path));
    if (path.endsWith('.glif')) return was ? textFile(restyledGlif(text(now), text(was))) : now;
    const whole = path.endsWith('.plist') ? value(now) : undefined;
    if (!isDict(whole)) return now;
    const all = merged(value(was), value(ours), whole);
    if (!isDict(all) || Object.keys(all).length === 0) return undefined;
    return textFile(was ? restyledPlist(writePlist(all), text(was)) : writePlist(all));
  });
  return done.ok ? done.value : now;
}

const sameFile = (a: Uint8Array | undefined, b: Uint8Array | undefined): boolean =>
  a && b ? sameBytes(a, b) : a === b;
