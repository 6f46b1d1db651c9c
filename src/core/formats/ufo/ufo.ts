import { attempt, type Result, refuse } from '../../base/result';
import type { Lib, LibValue } from '../../project/model';
import { type FileTree, textFile, userNameToFileName } from '../fileTree';
import { textOf } from '../xml';
import { emptyGlif, type Glif, readGlif, writeGlif } from './glif';
import { isDict, readPlist, readPlistDict, writePlist } from './plist';

/** A UFO's content as the format has it: names, not ids. `kept` are files not read here, by path. */
export type Ufo = {
  formatVersion: 2 | 3;
  info: Lib;
  groups: Record<string, string[]>;
  kerning: Record<string, Record<string, number>>;
  features: string;
  lib: Lib;
  glyphs: Glif[];
  /** Glyphs whose files could not be read as they are: why. They are empty, or without what was wrong. */
  faults?: ReadonlyMap<string, string>;
  /** What the files of glyphs are called; by the standard's rule where nothing is said. */
  fileNames?: Readonly<Record<string, string>>;
  kept: Map<string, Uint8Array>;
};

export type Progress = (done: number, total: number) => void;

const OWN_FILES = new Set([
  'metainfo.plist',
  'fontinfo.plist',
  'groups.plist',
  'kerning.plist',
  'features.fea',
  'lib.plist',
]);

/** Reads a UFO 3 (or UFO 2) from its files. `label` names the source in refusals. */
export function readUfo(files: FileTree, label: string, progress?: Progress): Result<Ufo> {
  return attempt(() => {
    const at = (path: string) => `${label}/${path}`;
    const text = (path: string): string | undefined => {
      const bytes = files.get(path);
      return bytes && textOf(bytes, at(path));
    };
    const dict = (path: string): Lib => {
      const t = text(path);
      return t === undefined ? {} : readPlistDict(t, at(path));
    };
    const meta = text('metainfo.plist');
    if (meta === undefined) return refuse(`${label} is not a UFO: it has no metainfo.plist.`);
    const version = readPlistDict(meta, at('metainfo.plist')).formatVersion;
    if (version !== 2 && version !== 3) refuse(`${label} says it is UFO ${String(version)}; UFO 2 and 3 can be read.`);
    const contents = readPlistDict(
      text('glyphs/contents.plist') ?? refuse(`${label} has no glyphs/contents.plist.`),
      at('glyphs/contents.plist'),
    );
    const entries = Object.entries(contents);
    const read = new Set([...OWN_FILES, 'glyphs/contents.plist']);
    const faults = new Map<string, string>();
    const glyphOf = (name: string, path: string): Glif => {
      read.add(path);
      const glif = readGlif(
        text(path) ?? refuse(`${at(path)} is missing; contents.plist lists it for the glyph “${short(name)}”.`),
        at(path),
        (fault) => faults.set(name, fault),
      );
      if (glif.name !== name)
        faults.set(
          name,
          `${at(path)} names its glyph “${short(glif.name)}”, but contents.plist calls it “${short(name)}”.`,
        );
      return glif.name === name ? glif : { ...glif, name };
    };
    const glyphs = entries.map(([name, fileName], i) => {
      if (progress && i % 64 === 0) progress(i, entries.length);
      const path = `glyphs/${isPlainName(fileName) ? fileName : refuse(`${at('glyphs/contents.plist')}: the file name for “${short(name)}” is not a plain file name.`)}`;
      // What is wrong with one glyph is no reason to keep the others shut.
      const glif = attempt(() => glyphOf(name, path));
      if (glif.ok) return glif.value;
      faults.set(name, glif.reason);
      return emptyGlif(name);
    });
    openCircles(glyphs, label, faults);
    const kept = new Map([...files].filter(([path]) => !read.has(path)));
    return {
      formatVersion: version as 2 | 3,
      info: dict('fontinfo.plist'),
      groups: groupsFrom(dict('groups.plist'), at('groups.plist')),
      kerning: kerningFrom(dict('kerning.plist'), at('kerning.plist')),
      features: (text('features.fea') ?? '').replace(/\r\n?/g, '\n'),
      lib: dict('lib.plist'),
      glyphs,
      faults,
      fileNames: Object.fromEntries(entries.filter((e): e is [string, string] => isPlainName(e[1]))),
      kept,
    };
  });
}

/** The glyphs of a layer other than the default, from the files of a source that were kept; of those that cannot be read, why. */
export function readLayer(
  kept: FileTree,
  layer: string,
  label: string,
): { glyphs: Glif[]; faults: ReadonlyMap<string, string> } {
  const at = (path: string) => `${label}/${path}`;
  const text = (path: string) =>
    textOf(kept.get(path) ?? refuse(`${at(path)} is missing; it belongs to the layer “${layer}”.`), at(path));
  const list = kept.has('layercontents.plist') ? readPlist(text('layercontents.plist'), at('layercontents.plist')) : [];
  const entry = Array.isArray(list) ? list.find((e) => Array.isArray(e) && e[0] === layer) : undefined;
  const folder =
    Array.isArray(entry) && typeof entry[1] === 'string' ? entry[1] : refuse(`${label} has no layer “${layer}”.`);
  const contents = readPlistDict(text(`${folder}/contents.plist`), at(`${folder}/contents.plist`));
  const faults = new Map<string, string>();
  const glyphs = Object.entries(contents).flatMap(([name, fileName]) => {
    const path = `${folder}/${String(fileName)}`;
    const glif = attempt(() => readGlif(text(path), at(path)));
    if (!glif.ok) faults.set(name, glif.reason);
    return glif.ok ? [glif.value] : [];
  });
  return { glyphs, faults };
}

/** A file name without folders, line breaks or other characters that are no letters of a name, and not endless. */
const isPlainName = (name: LibValue): name is string =>
  typeof name === 'string' && name.length <= 255 && name !== '..' && !/[/\\\p{Cc}]/u.test(name);

/** A name as a sentence can bear it. */
const short = (name: string): string => (name.length > 60 ? `${name.slice(0, 60)}…` : name).replace(/\s+/g, ' ');

/** Takes out components that lead back to their own glyph, or too deep, naming the chain. Depth-first over each glyph once. */
function openCircles(glyphs: readonly Glif[], label: string, faults: Map<string, string>): void {
  const byName = new Map(glyphs.map((g) => [g.name, g]));
  const state = new Map<string, 'open' | 'done'>();
  const isBad = (name: string, chain: readonly string[]): string | undefined =>
    state.get(name) === 'open'
      ? `${label}: components run in a circle: ${[...chain.slice(chain.indexOf(name)), name].map(short).join(' → ')}; the last is left out.`
      : chain.length > 500
        ? `${label}: components of “${short(chain[0]!)}” are nested more than 500 deep; what lies deeper is left out.`
        : undefined;
  const visit = (name: string, chain: string[]): void => {
    if (state.get(name) === 'done') return;
    state.set(name, 'open');
    const glyph = byName.get(name);
    const way = [...chain, name];
    const bad = new Set<object>();
    for (const c of glyph?.components ?? []) {
      const fault = isBad(c.base, way);
      if (fault) {
        faults.set(name, fault);
        bad.add(c);
      } else visit(c.base, way);
    }
    if (glyph && bad.size > 0) glyph.components = glyph.components.filter((c) => !bad.has(c));
    state.set(name, 'done');
  };
  for (const g of glyphs) visit(g.name, []);
}

function groupsFrom(raw: Lib, file: string): Record<string, string[]> {
  const out: Record<string, string[]> = {};
  for (const [name, members] of Object.entries(raw)) {
    if (!Array.isArray(members)) refuse(`${file}: the group “${short(name)}” is not a list.`);
    out[name] = (members as LibValue[]).filter((m): m is string => typeof m === 'string');
  }
  return out;
}

function kerningFrom(raw: Lib, file: string): Record<string, Record<string, number>> {
  const out: Record<string, Record<string, number>> = {};
  for (const [first, row] of Object.entries(raw)) {
    if (!isDict(row)) refuse(`${file}: the entry “${short(first)}” is not a dictionary.`);
    const values: Record<string, number> = {};
    for (const [second, value] of Object.entries(row as Lib)) {
      if (typeof value !== 'number') refuse(`${file}: the pair “${short(first)}”, “${short(second)}” has no number.`);
      values[second] = value as number;
    }
    out[first] = values;
  }
  return out;
}

/** The files of a UFO 3. Dictionaries are written with sorted keys, glyph file names by the standard's rule. */
export function writeUfo(ufo: Ufo): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>(ufo.kept);
  const put = (path: string, text: string) => files.set(path, textFile(text));
  put('metainfo.plist', writePlist({ creator: 'org.wendril', formatVersion: 3 }));
  put('fontinfo.plist', writePlist(sortedKeys(ufo.info)));
  if (Object.keys(ufo.groups).length > 0) put('groups.plist', writePlist(sortedKeys(ufo.groups)));
  if (Object.keys(ufo.kerning).length > 0) {
    put(
      'kerning.plist',
      writePlist(
        Object.fromEntries(Object.entries(sortedKeys(ufo.kerning)).map(([k, row]) => [k, sortedKeys(row as Lib)])),
      ),
    );
  }
  if (ufo.features) put('features.fea', ufo.features);
  if (Object.keys(ufo.lib).length > 0) put('lib.plist', writePlist(sortedKeys(ufo.lib)));
  if (!files.has('layercontents.plist')) put('layercontents.plist', writePlist([['public.default', 'glyphs']]));
  const names = ufo.fileNames ?? {};
  const own = (name: string) => (Object.hasOwn(names, name) ? names[name] : undefined);
  const taken = new Set(ufo.glyphs.flatMap((g) => own(g.name)?.toLowerCase() ?? []));
  const contents: Record<string, string> = {};
  for (const glif of ufo.glyphs) {
    const fileName = own(glif.name) ?? userNameToFileName(glif.name, taken, '.glif');
    contents[glif.name] = fileName;
    put(`glyphs/${fileName}`, writeGlif(glif));
  }
  put('glyphs/contents.plist', writePlist(sortedKeys(contents)));
  return files;
}

const sortedKeys = (dict: Lib): Lib =>
  Object.fromEntries(
    Object.keys(dict)
      .sort()
      .map((k) => [k, dict[k]!]),
  );
