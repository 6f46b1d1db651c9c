import type { Affine } from '../../geometry/affine';
import { defaultZones, emptyDrawing } from '../../project/create';
import {
  type Backdrop,
  type Drawing,
  type Family,
  type Glyph,
  type GlyphId,
  type Group,
  glyphSchema,
  type Lib,
  type LibValue,
  type Master,
  type Picture,
  type Project,
  partSchemas,
  type Zones,
} from '../../project/model';
import { type PairSide, pairKey } from '../../project/pairs';
import { pictureSize } from '../pictures';
import type { Glif } from './glif';
import { readLayer, type Ufo } from './ufo';

/** Lib keys of our own; everything Wendril stores beyond the open formats stands below these. */
export const KEY = {
  master: 'org.wendril.master',
  glyph: 'org.wendril.glyph',
  project: 'org.wendril.project',
} as const;

export type MasterSource = { ufo: Ufo; folder: string; id: string; name: string; place: Record<string, number> };

const text = (v: LibValue | undefined): string | undefined => (typeof v === 'string' && v !== '' ? v : undefined);
const number = (v: LibValue | undefined): number | undefined =>
  typeof v === 'number' && Number.isFinite(v) ? v : undefined;

/** A project from one UFO per master; the first is the default for names, groups and features. */
export function projectFromUfos(sources: readonly MasterSource[], label: string): Project {
  const first = sources[0]!.ufo;
  const unitsPerEm = Math.min(16384, Math.max(16, Math.round(number(first.info.unitsPerEm) ?? 1000)));
  const order = glyphNames(sources);
  const ids = new Map(order.map((name, i) => [name, `g${i + 1}`]));
  const pictures: Record<string, Picture> = {};
  const kept: Record<string, Uint8Array> = {};
  for (const s of sources) collectFiles(s, pictures, kept);
  const groups = mergeGroups(sources, ids);
  const ownText = typeof first.lib[KEY.project] === 'object' ? (first.lib[KEY.project] as Lib) : {};
  return {
    version: 1,
    family: familyOf(first.info, label),
    unitsPerEm,
    created: createdOf(first.info),
    axes: [],
    masters: sources.map((s) => masterOf(s, unitsPerEm, ids, groups)),
    instances: [],
    glyphOrder: order.map((name) => ids.get(name)!),
    groups,
    features: {
      sections: first.features ? [{ id: 'features', title: 'features.fea', options: {}, text: first.features }] : [],
      classes: otherGroups(first),
      languageSystems: [],
      included: {},
    },
    texts: { galley: text(first.info.familyName) ?? label, words: [], pairs: [] },
    scripts: [],
    settings: { nudge: [1, 10, 100], grid: 1, patterns: [] },
    pictures,
    kept,
    nextId: order.length + groups.length + 1,
    lib: {},
    glyphs: glyphsOf(sources, order, ids, pictures),
    ...projectParts(ownText),
  };
}

/** A layer of a source that stands for a place of its own, for the glyphs it holds. */
export type LayerSource = { source: MasterSource; layer: string; place: Record<string, number> };

/** The drawings of such layers become waypoints of their glyphs. The layers' files are kept with their source. */
export function withLayers(project: Project, layers: readonly LayerSource[]): Project {
  if (layers.length === 0) return project;
  const ids = new Map(project.glyphOrder.map((id) => [project.glyphs[id]!.name, id]));
  const glyphs = { ...project.glyphs };
  for (const { source, layer, place } of layers) {
    const found = readLayer(source.ufo.kept, layer, source.folder);
    for (const glif of found) {
      const glyph = glyphs[ids.get(glif.name) ?? ''];
      if (!glyph) continue;
      glyphs[glyph.id] = {
        ...glyph,
        waypoints: [...glyph.waypoints, { place, drawing: drawingFrom(glif, source, ids, project.pictures) }],
      };
    }
  }
  return { ...project, glyphs };
}

/** Our own parts of a project kept in the default master's lib. Parts that do not fit their schema are left out. */
function projectParts(own: Lib): Partial<Project> {
  const out: Record<string, unknown> = {};
  for (const part of ['texts', 'scripts', 'settings', 'instances'] as const) {
    const parsed = partSchemas[part].safeParse(own[part]);
    if (parsed.success) out[part] = parsed.data;
  }
  return out as Partial<Project>;
}

function glyphNames(sources: readonly MasterSource[]): string[] {
  const present = new Set(sources.flatMap((s) => s.ufo.glyphs.map((g) => g.name)));
  const wanted = sources[0]!.ufo.lib['public.glyphOrder'];
  const ordered = Array.isArray(wanted)
    ? wanted.filter((n): n is string => typeof n === 'string' && present.has(n))
    : [];
  const all = [...new Set([...ordered, ...present])];
  return present.has('.notdef') ? ['.notdef', ...all.filter((n) => n !== '.notdef')] : all;
}

/** Family facts of `fontinfo.plist` that are plain texts. */
export const FAMILY_TEXTS = {
  designer: 'openTypeNameDesigner',
  designerURL: 'openTypeNameDesignerURL',
  manufacturer: 'openTypeNameManufacturer',
  vendorURL: 'openTypeNameManufacturerURL',
  vendor: 'openTypeOS2VendorID',
  copyright: 'copyright',
  trademark: 'trademark',
  licence: 'openTypeNameLicense',
  licenceURL: 'openTypeNameLicenseURL',
  description: 'openTypeNameDescription',
  sampleText: 'openTypeNameSampleText',
} as const satisfies Partial<Record<keyof Family, string>>;

function familyOf(info: Lib, label: string): Family {
  const texts = Object.entries(FAMILY_TEXTS).flatMap(([ours, theirs]) => {
    const value = text(info[theirs]);
    return value === undefined ? [] : [[ours, value]];
  });
  return {
    name: text(info.familyName) ?? label,
    versionMajor: Math.max(0, Math.round(number(info.versionMajor) ?? 1)),
    versionMinor: Math.min(999, Math.max(0, Math.round(number(info.versionMinor) ?? 0))),
    names: {},
    ...Object.fromEntries(texts),
  };
}

/** `openTypeHeadCreated` as seconds since 1970; a fixed date when it is not said. */
function createdOf(info: Lib): number {
  const match = /^(\d{4})\/(\d\d)\/(\d\d) (\d\d):(\d\d):(\d\d)$/.exec(text(info.openTypeHeadCreated) ?? '');
  if (!match) return 946684800;
  const [y, mo, d, h, mi, s] = match.slice(1).map(Number) as [number, number, number, number, number, number];
  return Math.max(0, Math.floor(Date.UTC(y, mo - 1, d, h, mi, s) / 1000));
}

function masterOf(
  source: MasterSource,
  unitsPerEm: number,
  ids: ReadonlyMap<string, GlyphId>,
  groups: readonly Group[],
): Master {
  const { info, lib } = source.ufo;
  const own = (typeof lib[KEY.master] === 'object' ? lib[KEY.master] : {}) as Lib;
  const schema = partSchemas.masters.unwrap().element.shape;
  const parsedZones = schema.zones.safeParse(own.zones);
  const parsedMetrics = schema.verticalMetrics.safeParse(own.verticalMetrics);
  const parsedStems = schema.stems.safeParse(own.stems);
  const rest = Object.fromEntries(
    Object.entries(lib).filter(([k]) => k !== KEY.master && k !== KEY.project && k !== 'public.glyphOrder'),
  );
  return {
    id: source.id,
    name: source.name || text(info.styleName) || 'Regular',
    place: source.place,
    zones: parsedZones.success ? parsedZones.data : zonesOf(info, unitsPerEm),
    verticalMetrics: parsedMetrics.success ? parsedMetrics.data : metricsOf(info),
    italicAngle: number(info.italicAngle) ?? 0,
    stems: parsedStems.success ? parsedStems.data : [],
    guides: [],
    kerning: kerningOf(source.ufo, ids, groups),
    info,
    lib: rest,
  };
}

function zonesOf(info: Lib, unitsPerEm: number): Zones {
  const base = defaultZones(unitsPerEm);
  const blues = Array.isArray(info.postscriptBlueValues)
    ? info.postscriptBlueValues.filter((v): v is number => typeof v === 'number')
    : [];
  const overshootAt = (position: number): number | undefined => {
    for (let i = 0; i + 1 < blues.length; i += 2) {
      const [low, high] = [blues[i]!, blues[i + 1]!];
      if (i === 0 && high === position) return low - high;
      if (i > 0 && low === position) return high - low;
    }
    return undefined;
  };
  const line = (key: 'xHeight' | 'capHeight' | 'ascender' | 'descender', v: LibValue | undefined) => {
    const position = number(v) ?? base[key].position;
    return { ...base[key], position, overshoot: overshootAt(position) ?? base[key].overshoot };
  };
  return {
    baseline: { ...base.baseline, overshoot: overshootAt(0) ?? base.baseline.overshoot },
    xHeight: line('xHeight', info.xHeight),
    capHeight: line('capHeight', info.capHeight),
    ascender: line('ascender', info.ascender),
    descender: line('descender', info.descender),
    own: [],
  };
}

const metricsOf = (info: Lib): Master['verticalMetrics'] => {
  const found: Record<string, number> = {};
  const pairs = {
    typoAscender: 'openTypeOS2TypoAscender',
    typoDescender: 'openTypeOS2TypoDescender',
    typoLineGap: 'openTypeOS2TypoLineGap',
    hheaAscender: 'openTypeHheaAscender',
    hheaDescender: 'openTypeHheaDescender',
    hheaLineGap: 'openTypeHheaLineGap',
    winAscent: 'openTypeOS2WinAscent',
    winDescent: 'openTypeOS2WinDescent',
  };
  for (const [ours, theirs] of Object.entries(pairs)) {
    const v = number(info[theirs]);
    if (v !== undefined) found[ours] = v;
  }
  return found;
};

/** UFO 3 kerning groups by prefix; in UFO 2 a group is on the side on which kerning names it. */
function kerningSide(name: string, ufo: Ufo): 'first' | 'second' | undefined {
  if (name.startsWith('public.kern1.')) return 'first';
  if (name.startsWith('public.kern2.')) return 'second';
  if (ufo.formatVersion === 3) return undefined;
  if (name in ufo.kerning) return 'first';
  return Object.values(ufo.kerning).some((row) => name in row) ? 'second' : undefined;
}

const plainGroupName = (name: string) => name.replace(/^public\.kern[12]\./, '');

function mergeGroups(sources: readonly MasterSource[], ids: ReadonlyMap<string, GlyphId>): Group[] {
  const groups = new Map<string, { id: string; side: 'first' | 'second'; name: string; members: GlyphId[] }>();
  const taken = { first: new Set<GlyphId>(), second: new Set<GlyphId>() };
  for (const { ufo } of sources) {
    for (const [name, members] of Object.entries(ufo.groups)) {
      const side = kerningSide(name, ufo);
      if (!side) continue;
      const key = `${side} ${plainGroupName(name)}`;
      const group = groups.get(key) ?? { id: `k${groups.size + 1}`, side, name: plainGroupName(name), members: [] };
      groups.set(key, group);
      for (const member of members) {
        const id = ids.get(member);
        if (id === undefined || taken[side].has(id)) continue;
        taken[side].add(id);
        group.members.push(id);
      }
    }
  }
  return [...groups.values()];
}

const otherGroups = (ufo: Ufo): Record<string, string[]> =>
  Object.fromEntries(Object.entries(ufo.groups).filter(([name]) => kerningSide(name, ufo) === undefined));

function kerningOf(ufo: Ufo, ids: ReadonlyMap<string, GlyphId>, groups: readonly Group[]): Record<string, number> {
  const kerning: Record<string, number> = {};
  const side = (name: string, which: 'first' | 'second'): PairSide | undefined => {
    const group =
      name in ufo.groups ? groups.find((g) => g.side === which && g.name === plainGroupName(name)) : undefined;
    if (group) return { kind: 'group', id: group.id };
    const id = ids.get(name);
    return id === undefined ? undefined : { kind: 'glyph', id };
  };
  for (const [first, row] of Object.entries(ufo.kerning)) {
    const a = side(first, 'first');
    if (!a) continue;
    for (const [second, value] of Object.entries(row)) {
      const b = side(second, 'second');
      if (b) kerning[pairKey(a, b)] = value;
    }
  }
  return kerning;
}

function glyphsOf(
  sources: readonly MasterSource[],
  order: readonly string[],
  ids: ReadonlyMap<string, GlyphId>,
  pictures: Record<string, Picture>,
): Record<GlyphId, Glyph> {
  const bySource = sources.map((s) => new Map(s.ufo.glyphs.map((g) => [g.name, g])));
  const skipped = sources[0]!.ufo.lib['public.skipExportGlyphs'];
  const skip = new Set(Array.isArray(skipped) ? skipped : []);
  const production = sources[0]!.ufo.lib['public.postscriptNames'];
  const categories = sources[0]!.ufo.lib['public.openTypeCategories'];
  const out: Record<GlyphId, Glyph> = {};
  for (const name of order) {
    const id = ids.get(name)!;
    const drawings: Record<string, Drawing> = {};
    sources.forEach((s, i) => {
      const glif = bySource[i]!.get(name);
      if (glif) drawings[s.id] = drawingFrom(glif, s, ids, pictures);
    });
    const main = bySource.map((m) => m.get(name)).find((g) => g !== undefined)!;
    const own = main.lib?.[KEY.glyph] as Lib | undefined;
    out[id] = {
      id,
      name,
      unicodes: main.unicodes,
      cast: !skip.has(name),
      ...(isRecord(production) && typeof production[name] === 'string' ? { productionName: production[name] } : {}),
      ...(isRecord(categories) && isCategory(categories[name]) ? { category: categories[name] } : {}),
      drawings,
      waypoints: [],
      handovers: [],
      takes: [],
      follows: { left: [], right: [] },
      ...(own ? ownFacts(own, ids) : {}),
    };
  }
  return out;
}

const isRecord = (v: LibValue | undefined): v is Lib =>
  typeof v === 'object' && !Array.isArray(v) && !(v instanceof Uint8Array);
const isCategory = (v: LibValue | undefined): v is 'base' | 'mark' | 'ligature' | 'component' =>
  v === 'base' || v === 'mark' || v === 'ligature' || v === 'component';

/** Status, note, takes and follow rules kept under our own key. Glyphs are named there, so names become ids. */
function ownFacts(own: Lib, ids: ReadonlyMap<string, GlyphId>): Partial<Glyph> {
  const out: Record<string, unknown> = {};
  for (const key of ['status', 'note', 'takes', 'waypoints', 'handovers', 'follows'] as const) {
    if (own[key] === undefined) continue;
    const value = renamedGlyphs(own[key], (name) => ids.get(name));
    const parsed = glyphSchema.shape[key].safeParse(value);
    if (parsed.success && parsed.data !== undefined) out[key] = parsed.data;
  }
  return out as Partial<Glyph>;
}

/** Every `glyph` reference within a value put through `rename`; a reference to a missing glyph is left as it is. */
export function renamedGlyphs(value: LibValue, rename: (name: string) => string | undefined): LibValue {
  if (Array.isArray(value)) return value.map((v) => renamedGlyphs(v, rename));
  if (typeof value !== 'object' || value instanceof Uint8Array) return value;
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [
      k,
      k === 'glyph' && typeof v === 'string' ? (rename(v) ?? v) : renamedGlyphs(v as LibValue, rename),
    ]),
  );
}

function drawingFrom(
  glif: Glif,
  source: MasterSource,
  ids: ReadonlyMap<string, GlyphId>,
  pictures: Readonly<Record<string, Picture>>,
): Drawing {
  const own = glif.lib?.[KEY.glyph] as Lib | undefined;
  const lib = glif.lib ? Object.fromEntries(Object.entries(glif.lib).filter(([k]) => k !== KEY.glyph)) : {};
  return {
    ...emptyDrawing(glif.advance),
    ...(glif.verticalAdvance === undefined ? {} : { verticalAdvance: glif.verticalAdvance }),
    contours: glif.contours,
    components: glif.components.map(({ base, ...c }) => ({ ...c, glyph: ids.get(base) ?? base })),
    anchors: glif.anchors,
    guides: glif.guides,
    backdrops: backdropsFrom(own, glif, source, ids, pictures),
    ...(glif.note ? { note: glif.note } : {}),
    ...(Object.keys(lib).length > 0 ? { lib } : {}),
  };
}

function backdropsFrom(
  own: Lib | undefined,
  glif: Glif,
  source: MasterSource,
  ids: ReadonlyMap<string, GlyphId>,
  pictures: Readonly<Record<string, Picture>>,
): Backdrop[] {
  if (own?.backdrops !== undefined) {
    const list = glyphSchema.shape.takes
      .unwrap()
      .element.shape.drawing.shape.backdrops.safeParse(renamedGlyphs(own.backdrops, (name) => ids.get(name)));
    return list.success ? list.data.filter((b) => b.outline || pictures[b.picture]) : [];
  }
  if (!glif.image) return [];
  const key = `${source.folder}/images/${glif.image.fileName}`;
  const picture = pictures[key];
  if (!picture) return [];
  return [
    {
      id: 'b1',
      picture: key,
      transform: imageToPixels(glif.image.transform, picture.height),
      strength: 0.5,
      locked: false,
      visible: true,
    },
  ];
}

/** A UFO image has its origin at the bottom left with y up; our pictures at the top left with y down. */
export function imageToPixels(t: Affine, height: number): Affine {
  return [t[0], t[1], -t[2], -t[3], t[4] + t[2] * height, t[5] + t[3] * height];
}

/** Pictures become pictures; every other file that Wendril does not read is kept under its path. */
function collectFiles(source: MasterSource, pictures: Record<string, Picture>, kept: Record<string, Uint8Array>): void {
  for (const [path, bytes] of source.ufo.kept) {
    // A list of the default layer alone says nothing that is not written anyway.
    if (path === 'layercontents.plist' && ![...source.ufo.kept.keys()].some((p) => p.startsWith('glyphs.'))) continue;
    const size =
      path.startsWith('images/') || path.startsWith('data/org.wendril.pictures/') ? pictureSize(bytes) : undefined;
    if (size) pictures[`${source.folder}/${path}`] = { name: path.slice(path.lastIndexOf('/') + 1), bytes, ...size };
    else kept[`${source.folder}/${path}`] = bytes;
  }
}
