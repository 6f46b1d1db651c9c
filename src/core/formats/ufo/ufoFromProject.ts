import { attempt } from '../../base/result';
import { projectGround, sectionTexts, wholeText } from '../../features/ground';
import { sectionsOf } from '../../features/pieces';
import type { Drawing, Glyph, Lib, LibValue, Master, Project } from '../../project/model';
import { type PairSide, pairSides } from '../../project/pairs';
import { defaultMaster, glyphsInOrder } from '../../project/queries';
import { textOf } from '../xml';
import { type Glif, readGlif, writeGlif } from './glif';
import { imageToPixels, renamedGlyphs } from './projectFromUfo';
import type { Ufo } from './ufo';
import { FAMILY_TEXTS, KEY } from './ufoFacts';
import { putLayers, type WaypointLayer } from './waypointLayers';

/** Remembers within the running project which folder a master was read from; not written to files. */
export const FOLDER_KEY = 'org.wendril.folder';

/** The folder that a master's kept files and pictures lie under in the project. */
export const originOf = (master: Master): string | undefined =>
  typeof master.lib?.[FOLDER_KEY] === 'string' ? master.lib[FOLDER_KEY] : undefined;

/**
 * One master as a UFO, ready to be written. `folder` is the UFO's path, whatever it was called when it was read: its kept
 * files, layers and pictures go with it.
 */
export function ufoOfMaster(project: Project, master: Master, folder: string): Ufo {
  const isDefault = master.id === defaultMaster(project).id;
  const origin = originOf(master) ?? folder;
  const prefix = `${origin}/`;
  const kept = keptOf(project, origin);
  for (const [key, picture] of Object.entries(project.pictures)) {
    if (key.startsWith(prefix)) kept.set(key.slice(prefix.length), picture.bytes);
    else if (isDefault && !key.includes('.ufo/')) kept.set(picturePath(key, picture.type), picture.bytes);
  }
  return {
    formatVersion: 3,
    info: infoOf(project, master),
    groups: groupsOf(project),
    kerning: kerningOf(project, master),
    features: isDefault ? wholeText(sectionTexts(project.features.sections, projectGround(project, master.id))) : '',
    lib: libOf(project, master, isDefault),
    glyphs: glyphsInOrder(project).flatMap((g) => {
      const drawing = g.drawings[master.id];
      return drawing ? [glifOf(project, g, drawing, { folder, origin }, isDefault)] : [];
    }),
    kept,
  };
}

/** The files kept of a UFO, by their paths in it. */
export const keptOf = (project: Project, origin: string): Map<string, Uint8Array> =>
  new Map(
    Object.entries(project.kept).flatMap(([path, bytes]) =>
      path.startsWith(`${origin}/`) ? [[path.slice(origin.length + 1), bytes]] : [],
    ),
  );

/** Puts layers that are sources of their own among the files of the UFO of a master. */
export function putWaypoints(
  project: Project,
  files: Map<string, Uint8Array>,
  layers: readonly WaypointLayer[],
  folders: Folders,
): void {
  const glif = (glyph: Glyph, drawing: Drawing) => writeGlif(glifOf(project, glyph, drawing, folders, false));
  // Code points are said by the default layer.
  const facts = (text: string) => JSON.stringify({ ...readGlif(text, 'waypoint'), unicodes: [] });
  const byName = new Set(glyphsInOrder(project).map((g) => g.name));
  putLayers(files, layers, {
    write: glif,
    same: (bytes, glyph, drawing) => {
      const before = attempt(() => facts(textOf(bytes, glyph.name)));
      return before.ok && before.value === facts(glif(glyph, drawing));
    },
    isGone: (name, bytes) => byName.has(name) && (!bytes || attempt(() => readGlif(textOf(bytes, name), name)).ok),
  });
}

/** Where a picture lies in a UFO: PNG where the standard wants it, others among our data. */
const picturePath = (key: string, type: string): string =>
  `${type === 'image/png' ? 'images' : 'data/org.wendril.pictures'}/${key.replace(/[^A-Za-z0-9._-]/g, '_')}`;

/** The UFO that is written, and the one that its files came from. */
type Folders = { folder: string; origin: string };

/** The key a picture gets when the file is opened again; see `collectFiles`. */
const pictureKey = (project: Project, key: string, { folder, origin }: Folders): string => {
  const picture = project.pictures[key];
  if (key.startsWith(`${origin}/`)) return `${folder}${key.slice(origin.length)}`;
  return !picture || key.includes('.ufo/') ? key : `${folder}/${picturePath(key, picture.type)}`;
};

const dropUndefined = (o: Record<string, LibValue | undefined>): Lib =>
  Object.fromEntries(Object.entries(o).filter((e): e is [string, LibValue] => e[1] !== undefined));

function infoOf(project: Project, master: Master): Lib {
  const { family } = project;
  const date = new Date(project.created * 1000).toISOString();
  const zones = master.zones;
  const blues = [zones.baseline.position + Math.min(0, zones.baseline.overshoot), zones.baseline.position];
  for (const z of [zones.xHeight, zones.capHeight, zones.ascender]) {
    const low = z.position + Math.min(0, z.overshoot);
    if (low > blues[blues.length - 1]!) blues.push(low, z.position + Math.max(0, z.overshoot));
  }
  const v = master.verticalMetrics;
  return {
    ...(master.info ?? {}),
    ...dropUndefined({
      familyName: family.name,
      styleName: master.name,
      versionMajor: family.versionMajor,
      versionMinor: family.versionMinor,
      unitsPerEm: project.unitsPerEm,
      xHeight: zones.xHeight.position,
      capHeight: zones.capHeight.position,
      ascender: zones.ascender.position,
      descender: zones.descender.position,
      italicAngle: master.italicAngle === 0 ? master.info?.italicAngle : master.italicAngle,
      postscriptBlueValues: master.info?.postscriptBlueValues ?? blues.slice(0, 14),
      openTypeHeadCreated: `${date.slice(0, 4)}/${date.slice(5, 7)}/${date.slice(8, 10)} ${date.slice(11, 19)}`,
      ...Object.fromEntries(
        Object.entries(FAMILY_TEXTS).map(([ours, theirs]) => [theirs, family[ours as keyof typeof FAMILY_TEXTS]]),
      ),
      openTypeOS2TypoAscender: v.typoAscender,
      openTypeOS2TypoDescender: v.typoDescender,
      openTypeOS2TypoLineGap: v.typoLineGap,
      openTypeHheaAscender: v.hheaAscender,
      openTypeHheaDescender: v.hheaDescender,
      openTypeHheaLineGap: v.hheaLineGap,
      openTypeOS2WinAscent: v.winAscent,
      openTypeOS2WinDescent: v.winDescent,
    }),
  };
}

const nameOf = (project: Project, id: string): string | undefined => project.glyphs[id]?.name;

const groupName = (side: 'first' | 'second', name: string): string => `public.kern${side === 'first' ? 1 : 2}.${name}`;

function groupsOf(project: Project): Record<string, string[]> {
  const out: Record<string, string[]> = {};
  for (const [name, members] of Object.entries(project.features.classes)) out[name] = [...members];
  for (const g of project.groups) out[groupName(g.side, g.name)] = g.members.flatMap((id) => nameOf(project, id) ?? []);
  return out;
}

function kerningOf(project: Project, master: Master): Record<string, Record<string, number>> {
  const out: Record<string, Record<string, number>> = {};
  const text = (side: PairSide): string | undefined => {
    if (side.kind === 'glyph') return nameOf(project, side.id);
    const group = project.groups.find((g) => g.id === side.id);
    return group && groupName(group.side, group.name);
  };
  for (const [key, value] of Object.entries(master.kerning)) {
    const sides = pairSides(key);
    const first = sides && text(sides[0]);
    const second = sides && text(sides[1]);
    if (!first || !second) continue;
    out[first] ??= {};
    out[first][second] = value;
  }
  return out;
}

function libOf(project: Project, master: Master, isDefault: boolean): Lib {
  const glyphs = glyphsInOrder(project);
  const skipped = glyphs.filter((g) => !g.cast).map((g) => g.name);
  const production = Object.fromEntries(glyphs.flatMap((g) => (g.productionName ? [[g.name, g.productionName]] : [])));
  const categories = Object.fromEntries(glyphs.flatMap((g) => (g.category ? [[g.name, g.category]] : [])));
  const { [FOLDER_KEY]: _, ...own } = master.lib ?? {};
  const lib: Record<string, LibValue> = { ...own, 'public.glyphOrder': glyphs.map((g) => g.name) };
  const orDrop = (key: string, value: LibValue, wanted: boolean) => {
    if (wanted) lib[key] = value;
    else delete lib[key];
  };
  orDrop('public.skipExportGlyphs', skipped, skipped.length > 0);
  orDrop('public.postscriptNames', production, Object.keys(production).length > 0);
  orDrop('public.openTypeCategories', categories, Object.keys(categories).length > 0);
  lib[KEY.master] = asLib({ zones: master.zones, verticalMetrics: master.verticalMetrics, stems: master.stems });
  if (isDefault)
    lib[KEY.project] = asLib({
      texts: project.texts,
      scripts: project.scripts,
      settings: project.settings,
      instances: project.instances,
      ...(keepsSections(project) && { sections: project.features.sections.map(keptSection) }),
    });
  return lib;
}

/** Sections as they are made of a source’s text when it is read need no word of ours. */
function keepsSections({ features: { sections } }: Project): boolean {
  const facts = (list: readonly { title: string; text: string }[]) =>
    JSON.stringify(list.map((s) => [s.title, s.text]));
  const byHand = sections.every((s) => s.automatic === undefined && Object.keys(s.options).length === 0);
  return !byHand || facts(sections) !== facts(sectionsOf(sections.map((s) => s.text).join('\n\n')));
}

/** A section that writes itself is kept without its text. */
const keptSection = (s: Project['features']['sections'][number]) =>
  s.automatic === undefined ? s : { ...s, text: '' };

/** Plain data as a property list: undefined entries go, the others stand in the order of their names. */
function asLib(value: unknown): LibValue {
  if (Array.isArray(value)) return value.map(asLib);
  if (typeof value === 'object' && value !== null && !(value instanceof Uint8Array)) {
    return Object.fromEntries(
      Object.entries(value)
        .filter(([, v]) => v !== undefined)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([k, v]) => [k, asLib(v)]),
    );
  }
  return value as LibValue;
}

function glifOf(project: Project, glyph: Glyph, drawing: Drawing, folders: Folders, isDefault: boolean): Glif {
  const { backdrops } = drawing;
  const own: Record<string, LibValue> = {};
  if (backdrops.length > 0) {
    const listed = backdrops.map((b) => ({ ...b, picture: b.outline ? '' : pictureKey(project, b.picture, folders) }));
    own.backdrops = renamedGlyphs(asLib(listed), (id) => nameOf(project, id));
  }
  if (isDefault) {
    const facts = {
      status: glyph.status,
      note: glyph.note,
      takes: glyph.takes.length > 0 ? glyph.takes : undefined,
      follows: glyph.follows.left.length + glyph.follows.right.length > 0 ? glyph.follows : undefined,
    };
    Object.assign(
      own,
      renamedGlyphs(asLib(facts), (id) => nameOf(project, id)),
    );
  }
  const lib: Lib = { ...(drawing.lib ?? {}), ...(Object.keys(own).length > 0 ? { [KEY.glyph]: own } : {}) };
  const image = backdrops
    .map((b) => ({ b, picture: project.pictures[b.picture] }))
    .find(({ picture }) => picture?.type === 'image/png');
  return {
    name: glyph.name,
    unicodes: [...glyph.unicodes],
    advance: drawing.advance,
    verticalAdvance: drawing.verticalAdvance,
    contours: [...drawing.contours],
    components: drawing.components.map((c) => ({
      base: nameOf(project, c.glyph) ?? c.glyph,
      transform: c.transform,
      identifier: c.identifier,
    })),
    anchors: [...drawing.anchors],
    guides: [...drawing.guides],
    note: drawing.note,
    lib: Object.keys(lib).length > 0 ? lib : undefined,
    image: image && {
      fileName: pictureKey(project, image.b.picture, folders).split('/').pop()!,
      // The flip between the two picture origins is its own inverse.
      transform: imageToPixels(image.b.transform, image.picture!.height),
    },
  };
}
