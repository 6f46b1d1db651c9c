import { attempt, type Result, refuse, unwrap } from '../../base/result';
import { folderOf, gatherIncluded, pathFrom } from '../../features/includes';
import { toDesign } from '../../project/axes';
import type { Master, Project } from '../../project/model';
import { defaultMaster } from '../../project/queries';
import { type Designspace, readDesignspace, writeDesignspace } from '../designspace/designspace';
import { handoversOf, partedRules, rulesOfHandovers } from '../designspace/handoverRules';
import { type FileTree, packZip, subtree, textFile, unpackZip } from '../fileTree';
import { mergedXml } from '../mergedXml';
import { asTheSourceHasThem, ORIGINALS, originalFile, withOriginals } from '../originals';
import { resolvedPath, sourcesIn } from '../sourceFolder';
import { readPlistDict } from '../ufo/plist';
import { type LayerSource, projectFromUfos, withLayers } from '../ufo/projectFromUfo';
import { type Progress, readUfo, type Ufo, writeUfo } from '../ufo/ufo';
import type { MasterSource } from '../ufo/ufoFacts';
import { FOLDER_KEY, keptOf, originOf, putWaypoints, ufoOfMaster } from '../ufo/ufoFromProject';
import { waypointLayers } from '../ufo/waypointLayers';
import { textOf } from '../xml';

/** The UFO folder of each master: the one it came from where its files are kept, else made from names. */
function masterFolders(project: Project): Map<Master, string> {
  const taken = new Set<string>();
  const known = new Set(
    [...Object.keys(project.kept), ...Object.keys(project.pictures)]
      .filter((p) => p.includes('.ufo/'))
      .map((p) => p.slice(0, p.indexOf('.ufo/') + 4)),
  );
  const folders = new Map<Master, string>();
  for (const m of project.masters) {
    const wanted = originOf(m);
    const folder =
      wanted && (known.has(wanted) || !taken.has(wanted.toLowerCase()))
        ? wanted
        : freeFolder(`${project.family.name}-${m.name}`, taken);
    taken.add(folder.toLowerCase());
    folders.set(m, folder);
  }
  return folders;
}

/** A folder name of plain characters that no other master has, whatever the case of its letters. */
function freeFolder(name: string, taken: ReadonlySet<string>): string {
  const plain = name.replace(/[^\w-]/g, '') || 'Master';
  let folder = `${plain}.ufo`;
  for (let i = 2; taken.has(folder.toLowerCase()); i++) folder = `${plain}-${i}.ufo`;
  return folder;
}

/** All files of a project in open formats. */
export function projectFiles(project: Project): Map<string, Uint8Array> {
  const files = asTheSourceHasThem(
    project,
    ownFiles(project, (folder) => fileNamesOf(project, folder)),
  );
  // A designspace of which nothing more is known than its text: what it said is what we would have made of it.
  const space = originalDesignspace(project);
  if (!space || originalFile(project, space.path)) return files;
  const now = textOf(files.get(space.path)!, space.path);
  const was = textOf(space.bytes, space.path);
  return files.set(space.path, textFile(mergedXml(was, writeDesignspace(space.space), now, space.path)));
}

/** The files of one master as a UFO, by their paths in it. */
export function ufoFiles(project: Project, master: Master, folder: string): Map<string, Uint8Array> {
  const origin = originOf(master) ?? folder;
  const fileNames = fileNamesOf(project, origin);
  const files = writeUfo({ ...ufoOfMaster(project, master, folder), ...(fileNames && { fileNames }) });
  const whole = new Map([...files].map(([path, bytes]) => [`${origin}/${path}`, bytes] as const));
  return subtree(asTheSourceHasThem(project, whole), origin);
}

/** What the files of glyphs are called in the source of a master, where that is not by the standard’s rule. */
function fileNamesOf(project: Project, folder: string): Record<string, string> | undefined {
  const path = `${folder}/${CONTENTS}`;
  const bytes = originalFile(project, path);
  const read = bytes && attempt(() => readPlistDict(textOf(bytes, path), path) as Record<string, string>);
  return read?.ok ? read.value : undefined;
}

/** All files as we make them. */
function ownFiles(
  project: Project,
  namesIn: (folder: string) => Readonly<Record<string, string>> | undefined,
): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  const folders = masterFolders(project);
  const byTag = (place: Readonly<Record<string, number>>): Record<string, number> =>
    Object.fromEntries(project.axes.map((a) => [a.name, place[a.tag] ?? designDefault(a)]));
  const original = originalDesignspace(project);
  const main = defaultMaster(project);
  const layers = waypointLayers(project, {
    main,
    folders,
    known: original?.space,
    location: byTag,
    filesOf: (m) => keptOf(project, originOf(m) ?? folders.get(m)!),
  });
  const known = original?.space ?? { axes: [], rules: [] };
  const space: Designspace = {
    axes: project.axes.map((a) => ({
      ...a,
      map: a.map.map(([i, o]) => [i, o]),
      labels: { ...a.labels },
      discrete: a.discrete && [...a.discrete],
      stops: a.stops && [...a.stops],
    })),
    sources: [
      ...project.masters.map((m) => ({
        filename: folders.get(m)!,
        name: m.id,
        styleName: m.name,
        layer: undefined,
        location: byTag(m.place),
      })),
      ...layers.map((l) => l.source),
    ],
    instances: project.instances.map((i) => ({
      name: i.name,
      styleName: i.name,
      filename: i.fileName,
      location: byTag(i.place),
    })),
    rules: [...partedRules(known).others, ...rulesOfHandovers(project, known.rules)],
    ...(project.settings.handoversLast && { rulesLast: true }),
    lib: project.lib,
  };
  files.set(original?.path ?? 'project.designspace', textFile(writeDesignspace(space)));
  for (const [m, folder] of folders) {
    const fileNames = namesIn(originOf(m) ?? folder);
    const ufo = writeUfo({ ...ufoOfMaster(project, m, folder), ...(fileNames && { fileNames }) });
    const own = layers.filter((l) => l.master === m);
    if (own.length > 0) putWaypoints(project, ufo, own, { folder, origin: originOf(m) ?? folder });
    for (const [path, bytes] of ufo) files.set(`${folder}/${path}`, bytes);
  }
  for (const [path, bytes] of Object.entries(project.kept))
    if (!path.includes('.ufo/') && path !== original?.path && path !== ORIGINALS) files.set(path, bytes);
  return files;
}

/** The designspace the project was read from: what we do not model is taken from it. */
function originalDesignspace(project: Project): { path: string; bytes: Uint8Array; space: Designspace } | undefined {
  const path = Object.keys(project.kept).find((p) => p.endsWith('.designspace') && !p.includes('/'));
  const bytes = path === undefined ? undefined : project.kept[path];
  if (path === undefined || !bytes) return undefined;
  const read = attempt(() => readDesignspace(textOf(bytes, path), path));
  return read.ok ? { path, bytes, space: read.value } : undefined;
}

/** The default of an axis in design units. */
const designDefault = (axis: { default: number; map: readonly (readonly [number, number])[] }): number =>
  toDesign(axis, axis.default);

/** A project file; the same project gives the same bytes. */
export const writeProjectFile = (project: Project): Uint8Array => packZip(projectFiles(project));

/** `keep`: files of a source that we would write differently are kept, so that they go back as they were; on by itself. */
export type Reading = {
  readonly progress?: Progress | undefined;
  readonly keep?: boolean;
  /** Hears what could not be read of single glyphs, each once. */
  readonly tell?: (fault: string) => void;
};

/** Opens a project file, a `.ufoz` or any zip that holds one designspace or one UFO. */
export function readProjectFile(bytes: Uint8Array, file: string, reading: Reading = {}): Result<Project> {
  const files = attempt(() => unpackZip(bytes, file));
  return files.ok ? projectFromFiles(files.value, file, reading) : files;
}

/**
 * Opens a project from files: the designspace nearest the top, or a single UFO. `label` names the source in refusals
 * and stands in for a missing family name.
 */
export function projectFromFiles(files: FileTree, label: string, reading: Reading = {}): Result<Project> {
  return attempt(() => {
    const [first, ...others] = sourcesIn(files.keys());
    if (first === undefined) return refuse(`${label} holds neither a designspace nor a UFO.`);
    if (first.endsWith('.designspace')) return fromDesignspace(files, first, label, reading);
    if (others.length > 0)
      refuse(`${label} holds ${others.length + 1} UFOs but no designspace that says how they belong together.`);
    return fromUfoFolder(files, first, label, reading);
  });
}

/** What a reader of the source has to hear of it. */
function tellOf(ufo: Ufo, label: string, tell: Reading['tell']): void {
  if (ufo.formatVersion === 2) tell?.(`${label} is of UFO 2; it is written as UFO 3.`);
  for (const fault of ufo.faults?.values() ?? []) tell?.(fault);
}

function fromUfoFolder(
  files: FileTree,
  folder: string,
  label: string,
  { progress, keep = true, tell }: Reading,
): Project {
  const ufo = unwrap(readUfo(subtree(files, folder), folder || label, progress));
  tellOf(ufo, label, tell);
  const name = folder.split('/').pop() || 'Regular.ufo';
  const project = projectFromUfos([{ ufo, folder: name, id: 'm1', name: '', place: {} }], label);
  const whole = withIncluded(withFolders(project, [name]), { files, folder, name, text: ufo.features });
  return withSources(whole, files, [{ ufo, folder, name }], keep);
}

/** Where the glyphs of a UFO lie. */
const CONTENTS = 'glyphs/contents.plist';

/** A project that remembers the files it was opened from, where we would write them differently. */
function withSources(
  project: Project,
  files: FileTree,
  sources: readonly { ufo: Ufo; folder: string; name: string }[],
  keep: boolean,
  space?: { path: string; name: string },
): Project {
  if (!keep) return project;
  const was = new Map<string, Uint8Array>();
  // A UFO of the older form is written in the present one; its files keep their names.
  for (const { ufo, folder, name } of sources)
    for (const [path, bytes] of subtree(files, folder))
      if (ufo.formatVersion === 3 || path === CONTENTS) was.set(`${name}/${path}`, bytes);
  if (space) was.set(space.name, files.get(space.path)!);
  const made = ownFiles(project, (folder) => sources.find((s) => s.name === folder)?.ufo.fileNames);
  const ours = [...made].filter(
    ([path]) =>
      path === space?.name ||
      sources.some(
        ({ ufo, name }) => (ufo.formatVersion === 3 && path.startsWith(`${name}/`)) || path === `${name}/${CONTENTS}`,
      ),
  );
  return withOriginals(project, was, new Map(ours));
}

/**
 * A project with the files that its rules include: as the standard has it seen from the folder that a source lies in, or from the
 * source itself. `folder` is the source's within the files, `name` within the project.
 */
function withIncluded(
  project: Project,
  { files, folder, name, text }: { files: FileTree; folder: string; name: string; text: string },
): Project {
  const bytes: Record<string, Uint8Array> = {};
  const included = gatherIncluded(text, (from, path) => {
    for (const root of [folderOf(folder), folder]) {
      const within = `${root}/${from}`;
      const own = files.get(pathFrom(within, path)) ?? files.get(`${root}/${pathFrom(from, path)}`.replace(/^\//, ''));
      if (!own) continue;
      const read = attempt(() => textOf(own, path));
      if (!read.ok) continue;
      const key = pathFrom(from, path);
      bytes[root === folder ? `${name}/${key}` : pathFrom(folderOf(name), key)] = own;
      return read.value.replace(/\r\n?/g, '\n');
    }
    return undefined;
  });
  if (Object.keys(included).length === 0) return project;
  return { ...project, features: { ...project.features, included }, kept: { ...bytes, ...project.kept } };
}

function fromDesignspace(
  files: FileTree,
  path: string,
  label: string,
  { progress, keep = true, tell }: Reading,
): Project {
  const space = readDesignspace(textOf(files.get(path)!, path), path);
  if (space.sources.length === 0) refuse(`${path} lists no sources.`);
  const root = path.includes('/') ? path.slice(0, path.lastIndexOf('/')) : '';
  const sources: MasterSource[] = [];
  const folders = new Map<MasterSource, string>();
  for (const s of space.sources) {
    if (s.layer) continue;
    const folder =
      resolvedPath(root, s.filename) ?? refuse(`${path}: the source “${s.filename}” lies outside the folder.`);
    const below = subtree(files, folder);
    if (below.size === 0) refuse(`${path} lists the source “${s.filename}”, which is missing.`);
    const ufo = unwrap(readUfo(below, s.filename, progress));
    tellOf(ufo, s.filename, tell);
    const id = /^m\d+$/.test(s.name) && !sources.some((o) => o.id === s.name) ? s.name : `m${sources.length + 1}`;
    const source: MasterSource = {
      ufo,
      folder: plainFolder(s.filename),
      id: sources.some((o) => o.id === id) ? `m${sources.length + 101}` : id,
      name: s.styleName,
      place: placeOf(s.location, space),
    };
    sources.push(source);
    folders.set(source, folder);
  }
  const layers = space.sources.flatMap((s): LayerSource[] => {
    if (!s.layer) return [];
    const source = sources.find((o) => o.folder === plainFolder(s.filename));
    if (!source) refuse(`${path} lists the layer “${s.layer}” of “${s.filename}”, which is no source itself.`);
    return [{ source: source!, layer: s.layer, place: placeOf(s.location, space) }];
  });
  const ordered = defaultFirst(sources, space);
  const base = withFolders(
    withLayers(projectFromUfos(ordered, label), layers, tell),
    ordered.map((s) => s.folder),
  );
  // Files beside the UFOs are kept by their paths from the designspace's folder; so is the designspace itself, unless it
  // holds nothing but what would be written anyway.
  const prefix = root === '' ? '' : `${root}/`;
  const isPlain =
    writeDesignspace(space) === textOf(files.get(path)!, path) && layers.length === 0 && space.rules.length === 0;
  const beside = [...files].filter(([p]) => p.startsWith(prefix) && !p.includes('.ufo/') && !(isPlain && p === path));
  const kept = Object.fromEntries(beside.map(([p, bytes]) => [p.slice(prefix.length), bytes]));
  const first = ordered[0]!;
  const whole = withIncluded(base, {
    files,
    folder: folders.get(first)!,
    name: first.folder,
    text: first.ufo.features,
  });
  const ids = new Map(whole.glyphOrder.map((id) => [whole.glyphs[id]!.name, id]));
  const given = [...handoversOf(space, ids)].map(
    ([id, handovers]) => [id, { ...whole.glyphs[id]!, handovers }] as const,
  );
  const opened: Project = {
    ...whole,
    glyphs: given.length > 0 ? { ...whole.glyphs, ...Object.fromEntries(given) } : whole.glyphs,
    // In the order the designspace lists them.
    masters: sources.map((s) => whole.masters.find((m) => m.id === s.id)!),
    axes: space.axes.map((a) => ({ ...a })),
    settings: space.rulesLast ? { ...whole.settings, handoversLast: true } : whole.settings,
    instances:
      whole.instances.length > 0
        ? whole.instances
        : space.instances.map((i) => ({
            name: i.styleName || i.name,
            place: placeOf(i.location, space),
            fileName: i.filename,
          })),
    kept: { ...whole.kept, ...kept },
    lib: space.lib,
  };
  return withSources(
    opened,
    files,
    sources.map((s) => ({ ufo: s.ufo, folder: folders.get(s)!, name: s.folder })),
    keep,
    isPlain ? undefined : { path, name: path.slice(prefix.length) },
  );
}

/** The source at every axis default comes first: names, groups and features are taken from it. */
function defaultFirst(sources: readonly MasterSource[], space: Designspace): MasterSource[] {
  const index = sources.findIndex((s) =>
    space.axes.every((a) => (s.place[a.tag] ?? designDefault(a)) === designDefault(a)),
  );
  return index <= 0 ? [...sources] : [sources[index]!, ...sources.filter((_, i) => i !== index)];
}

const placeOf = (location: Readonly<Record<string, number>>, space: Designspace): Record<string, number> =>
  Object.fromEntries(space.axes.flatMap((a) => (location[a.name] === undefined ? [] : [[a.tag, location[a.name]!]])));

const withFolders = (project: Project, folders: readonly string[]): Project => ({
  ...project,
  masters: project.masters.map((m, i) => ({ ...m, lib: { ...(m.lib ?? {}), [FOLDER_KEY]: folders[i]! } })),
});

/** A source's folder within a project file: a name that leads out of the designspace's folder is brought into it. */
function plainFolder(filename: string): string {
  const way: string[] = [];
  for (const part of filename.split(/[/\\]/)) {
    if (part === '..') way.pop();
    else if (part !== '.' && part !== '') way.push(part);
  }
  return way.join('/');
}
