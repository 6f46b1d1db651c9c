import { attempt } from '../../base/result';
import type { Drawing, Glyph, Master, Project } from '../../project/model';
import { type Place, samePlace, wholePlace } from '../../project/places';
import type { Designspace, DesignspaceSource } from '../designspace/designspace';
import { type FileTree, textFile, userNameToFileName } from '../fileTree';
import { textOf } from '../xml';
import { readPlist, readPlistDict, writePlist } from './plist';

/** A layer of a master’s UFO that is a source of its own: the waypoints of all glyphs at one place. */
export type WaypointLayer = {
  master: Master;
  source: DesignspaceSource;
  glyphs: { glyph: Glyph; drawing: Drawing }[];
};

/**
 * The layers that a project’s waypoints are written to, one for each place: the one that the designspace they were read from names
 * there, else a new one of the default master. A layer whose waypoints are all gone is left out.
 */
export function waypointLayers(
  project: Project,
  {
    main,
    folders,
    known,
    location,
    filesOf,
  }: {
    main: Master;
    folders: ReadonlyMap<Master, string>;
    known: Designspace | undefined;
    location: (place: Place) => Record<string, number>;
    /** What is kept of a master’s UFO. */
    filesOf: (master: Master) => FileTree;
  },
): WaypointLayer[] {
  const { axes } = project;
  const out: WaypointLayer[] = [];
  const before = (known?.sources ?? []).flatMap((s) => {
    const master = [...folders].find(([, folder]) => s.layer !== undefined && folder === s.filename)?.[0];
    const place = Object.fromEntries(axes.map((a) => [a.tag, s.location[a.name]]));
    return master ? [{ source: s, master, place: defined(place) }] : [];
  });
  const taken = new Set(before.map((b) => b.source.layer));
  for (const id of project.glyphOrder) {
    const glyph = project.glyphs[id]!;
    for (const { place, drawing } of glyph.waypoints) {
      let layer = out.find((l) => samePlace(axes, placeIn(axes, l.source), place));
      if (!layer) {
        const old = before.find((b) => samePlace(axes, b.place, place));
        const source = old?.source ?? newSource(project, place, { folder: folders.get(main)!, taken, location });
        layer = { master: old?.master ?? main, source, glyphs: [] };
        out.push(layer);
      }
      layer.glyphs.push({ glyph, drawing });
    }
  }
  // A layer that holds no glyph of the project stays a source, as it was.
  const names = new Set(project.glyphOrder.map((id) => project.glyphs[id]!.name));
  for (const { source, master } of before) {
    if (out.some((l) => l.source === source)) continue;
    const files = filesOf(master);
    const folder = layersIn(files).find(([name]) => name === source.layer)?.[1];
    const held = folder === undefined ? [] : Object.keys(contentsOf(files, folder));
    if (held.every((name) => !names.has(name))) out.push({ master, source, glyphs: [] });
  }
  return out;
}

const defined = (place: Record<string, number | undefined>): Place =>
  Object.fromEntries(Object.entries(place).filter((e): e is [string, number] => e[1] !== undefined));

const placeIn = (axes: Project['axes'], source: DesignspaceSource): Place =>
  defined(Object.fromEntries(axes.map((a) => [a.tag, source.location[a.name]])));

function newSource(
  { axes }: Project,
  place: Place,
  {
    folder,
    taken,
    location,
  }: { folder: string; taken: Set<string | undefined>; location: (p: Place) => Record<string, number> },
): DesignspaceSource {
  const whole = wholePlace(axes, place);
  const layer = `waypoints ${axes.map((a) => `${a.tag} ${whole[a.tag]}`).join(' ')}`;
  let free = layer;
  for (let i = 2; taken.has(free); i++) free = `${layer} ${i}`;
  taken.add(free);
  return { filename: folder, name: free, styleName: '', layer: free, location: location(whole) };
}

/**
 * Puts the layers of one UFO among its files, each glyph by `write`. Files that say the same as before keep their bytes, and those of
 * glyphs that have no waypoint there any more go; what else lies in a layer stays.
 */
export function putLayers(
  files: Map<string, Uint8Array>,
  layers: readonly WaypointLayer[],
  {
    write,
    same,
    isGone,
  }: {
    write: (glyph: Glyph, drawing: Drawing) => string;
    same: (bytes: Uint8Array, glyph: Glyph, drawing: Drawing) => boolean;
    /** Is a glyph that a layer has one of the project’s, and was read, so that its waypoint was taken away? */
    isGone: (name: string, bytes: Uint8Array | undefined) => boolean;
  },
): void {
  const list = layersIn(files);
  for (const { source, glyphs } of layers) {
    const known = list.find(([name]) => name === source.layer);
    const folders = new Set(list.map(([, f]) => f.replace(/^glyphs\./, '').toLowerCase()));
    const folder = known?.[1] ?? `glyphs.${userNameToFileName(source.layer!, folders, '')}`;
    if (!known) list.push([source.layer!, folder]);
    const contents = contentsOf(files, folder);
    const wanted = new Set(glyphs.map(({ glyph }) => glyph.name));
    for (const [name, file] of Object.entries(contents)) {
      if (wanted.has(name) || !isGone(name, files.get(`${folder}/${file}`))) continue;
      files.delete(`${folder}/${file}`);
      delete contents[name];
    }
    const taken = new Set(Object.values(contents).map((f) => f.toLowerCase()));
    for (const { glyph, drawing } of glyphs) {
      const file = contents[glyph.name] ?? userNameToFileName(glyph.name, taken, '.glif');
      const path = `${folder}/${file}`;
      const old = files.get(path);
      if (contents[glyph.name] && old && same(old, glyph, drawing)) continue;
      contents[glyph.name] = file;
      files.set(path, textFile(write(glyph, drawing)));
    }
    if (known || glyphs.length > 0) put(files, `${folder}/contents.plist`, contents);
  }
  const listed = files.get('layercontents.plist');
  if (!listed || layersIn(files).length !== list.length) files.set('layercontents.plist', textFile(writePlist(list)));
}

/** A property list, unless the one that is there says the same. */
function put(files: Map<string, Uint8Array>, path: string, value: Record<string, string>): void {
  const there = files.get(path);
  const same = (o: object) => JSON.stringify(Object.entries(o).sort());
  const before = there && attempt(() => readPlistDict(textOf(there, path), path));
  if (before?.ok && same(before.value) === same(value)) return;
  files.set(path, textFile(writePlist(Object.fromEntries(Object.entries(value).sort()))));
}

function layersIn(files: FileTree): [string, string][] {
  const bytes = files.get('layercontents.plist');
  const read = bytes && attempt(() => readPlist(textOf(bytes, 'layercontents.plist'), 'layercontents.plist'));
  const list = read?.ok && Array.isArray(read.value) ? read.value : [];
  const pairs = list.flatMap((e): [string, string][] =>
    Array.isArray(e) && typeof e[0] === 'string' && typeof e[1] === 'string' ? [[e[0], e[1]]] : [],
  );
  return pairs.length > 0 ? pairs : [['public.default', 'glyphs']];
}

function contentsOf(files: FileTree, folder: string): Record<string, string> {
  const path = `${folder}/contents.plist`;
  const bytes = files.get(path);
  const read = bytes && attempt(() => readPlistDict(textOf(bytes, path), path));
  if (!read?.ok) return {};
  return Object.fromEntries(Object.entries(read.value).flatMap(([k, v]) => (typeof v === 'string' ? [[k, v]] : [])));
}
