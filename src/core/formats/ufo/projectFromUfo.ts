import { projectGround, sectionTexts, wholeText } from '../../features/ground';
import { sectionsOf } from '../../features/pieces';
import type { Affine } from '../../geometry/affine';
import { emptyDrawing } from '../../project/create';
import {
  type Backdrop,
  type Drawing,
  type Glyph,
  type GlyphId,
  glyphSchema,
  type Lib,
  type LibValue,
  type Picture,
  type Project,
  partSchemas,
} from '../../project/model';
import { pictureSize } from '../pictures';
import type { Glif } from './glif';
import { readLayer } from './ufo';
import { createdOf, familyOf, KEY, type MasterSource, masterOf, number, text } from './ufoFacts';
import { mergeGroups, otherGroups } from './ufoKerning';

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
  const project: Project = {
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
      sections: sectionsOf(first.features).map((s, i) => ({ id: `f${i + 1}`, options: {}, ...s })),
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
  return withSections(project, ownText.sections, first.features ?? '');
}

/** Sections as they were kept, if together they are still the text of the source; another tool may have written there. */
function withSections(project: Project, kept: unknown, text: string): Project {
  const parsed = partSchemas.features.shape.sections.safeParse(kept);
  if (!parsed.success) return project;
  const whole = wholeText(sectionTexts(parsed.data, projectGround(project, project.masters[0]!.id)));
  return whole === text ? { ...project, features: { ...project.features, sections: parsed.data } } : project;
}

/** A layer of a source that stands for a place of its own, for the glyphs it holds. */
export type LayerSource = { source: MasterSource; layer: string; place: Record<string, number> };

/**
 * The drawings of such layers become waypoints of their glyphs. The layers' files are kept with their source; what cannot be read of them
 * is told, and noted with the glyph.
 */
export function withLayers(
  project: Project,
  layers: readonly LayerSource[],
  tell: (fault: string) => void = () => {},
): Project {
  if (layers.length === 0) return project;
  const ids = new Map(project.glyphOrder.map((id) => [project.glyphs[id]!.name, id]));
  const glyphs = { ...project.glyphs };
  for (const { source, layer, place } of layers) {
    const found = readLayer(source.ufo.kept, layer, source.folder);
    for (const [name, fault] of found.faults) {
      tell(fault);
      const glyph = glyphs[ids.get(name) ?? ''];
      if (glyph) glyphs[glyph.id] = { ...glyph, note: [glyph.note, fault].filter(Boolean).join(' ') };
    }
    for (const glif of found.glyphs) {
      const glyph = glyphs[ids.get(glif.name) ?? ''];
      if (!glyph || glyph.waypoints.some((w) => JSON.stringify(w.place) === JSON.stringify(place))) continue;
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
      ...(faultsOf(sources, name) && { note: faultsOf(sources, name) }),
    };
  }
  return out;
}

/** What could not be read of a glyph, as a note that stands with it. */
const faultsOf = (sources: readonly MasterSource[], name: string): string | undefined =>
  sources.flatMap((s) => s.ufo.faults?.get(name) ?? []).join(' ') || undefined;

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
