import { attempt, type Result, refuse, refused } from '../../base/result';
import { decompilePositions, MARK_FEATURES } from '../../features/decompile';
import { axesKey, CARRIED, CARRIED_AXES, CARRIED_TABLES, carriedPath } from '../../fontfacts/carried';
import { familyAndStyle, glyphNamesFor, nameOf } from '../../fontfacts/fontNames';
import { proposedNames } from '../../fontfacts/namesProposed';
import { sequencesLib } from '../../fontfacts/sequences';
import { cmap } from '../../opentype/cmap';
import { readAvar, readFvar } from '../../opentype/fvar';
import { type WayTo, waysToGlyphs } from '../../opentype/gsubRead';
import { hmtx } from '../../opentype/hmtx';
import { NAME_ID } from '../../opentype/name';
import { post } from '../../opentype/post';
import { readSfnt, tableOf } from '../../opentype/sfnt';
import { createProject, emptyDrawing } from '../../project/create';
import { glyphNameFault } from '../../project/glyphNames';
import type { Drawing, Glyph, Lib, Project } from '../../project/model';
import type { Progress } from '../ufo/ufo';
import { createdOf, familyFacts, masterRead } from './factsRead';
import { type FontOutlines, readOutlines } from './fontOutlines';
import { anchorsRead, groupsOf, kerningRead, masterKerning, type PlacedAnchor } from './layoutRead';
import { axesOf, deltasAt, designPlace, normalised, type Place, placesOf } from './places';
import { type FontReading, fontReading } from './reading';
import { withZonesOfLetters } from './zonesRead';

/** A project read from a font, and what the designer should know of it, a sentence each. */
export type FontProject = { project: Project; notes: string[] };

/** Opens a font file (an unpacked OpenType or TrueType file; `start` is where a face of a collection begins) as a project. */
export function projectFromFont(bytes: Uint8Array, label: string, start = 0, progress?: Progress): Result<FontProject> {
  const result = attempt(() => read(fontReading(readSfnt(bytes, start), label), progress));
  return result.ok ? result : refused(`${label}: ${result.reason}`);
}

function read(r: FontReading, progress: Progress | undefined): FontProject {
  const metrics = hmtx.read(tableOf(r.font, 'hmtx'), r.lines.numberOfHMetrics, r.numGlyphs);
  const outlines = readOutlines(r.font, {
    numGlyphs: r.numGlyphs,
    indexToLocFormat: r.header.indexToLocFormat,
    metrics,
  });
  const fvar = r.font.tables.has('fvar') ? readFvar(r.font.tables.get('fvar')!) : { axes: [], instances: [] };
  const avar = r.font.tables.get('avar');
  const bends = avar ? readAvar(avar, fvar.axes.length) : [];
  const { family, style } = familyAndStyle(r.names);
  const base = createProject({
    family: family ?? r.label.replace(/\.\w+$/, ''),
    unitsPerEm: r.header.unitsPerEm,
    created: createdOf(r.header.created),
  });
  const byGlyph = codePoints(r);
  const given = givenNames(r, outlines);
  const glyphNames = namesRead(r, given, byGlyph);
  const ids = glyphNames.map((_, i) => `g${i + 1}`);
  const places = placesOf(r, fvar.axes, outlines);
  const deltas = deltasAt(r, places);
  const kerning = kerningRead(r, deltas);
  const groups = groupsOf(kerning, ids, glyphNames);
  const masters = places.map((place, index) => {
    const masterName = index === 0 ? (style ?? 'Regular') : place.name;
    const own = masterKerning(kerning, ids, groups, index);
    return masterRead(r, { index, name: masterName, place, axes: fvar.axes }, own);
  });
  const kept = sequences(r, glyphNames);
  if (Object.keys(kept).length > 0) masters[0] = { ...masters[0]!, lib: { ...masters[0]!.lib, ...kept } };
  const anchors = anchorsRead(r, ids, glyphNames, deltas);
  const glyphs: Record<string, Glyph> = {};
  ids.forEach((id, i) => {
    if (progress && i % 64 === 0) progress(i, r.numGlyphs);
    const production = productionName(given[i], glyphNames[i]!);
    const named = {
      id,
      name: glyphNames[i]!,
      unicodes: byGlyph.get(i) ?? [],
      ...(production !== undefined && { productionName: production }),
    };
    glyphs[id] = glyphRead({ outlines, places, ids }, i, named, anchors.get(i) ?? []);
  });
  if (outlines.hints > 0)
    r.notes.push(
      outlines.kind === 'cff'
        ? `${outlines.hints.toLocaleString('en')} stem hints were left aside; they are made anew when casting.`
        : 'TrueType instructions were left aside.',
    );
  const axes = fvar.axes.length > 0 ? axesOf(r, fvar.axes, bends) : [];
  const whole: Project = {
    ...base,
    glyphs,
    glyphOrder: ids,
    nextId: ids.length + groups.length + 1,
    family: { ...base.family, ...familyFacts(r) },
    axes,
    masters,
    instances: fvar.instances.map((i) => ({
      name: nameOf(r.names, i.nameID) ?? 'Instance',
      place: designPlace(
        fvar.axes,
        i.place.map((v, k) => normalised(fvar.axes[k]!, bends[k] ?? [], v)),
      ),
    })),
    groups,
    texts: { galley: nameOf(r.names, NAME_ID.sampleText) ?? family ?? r.label, words: [], pairs: [] },
    features: { ...base.features, sections: positionsRead(r, glyphNames) },
    ...carried(r, glyphNames, axes),
  };
  return {
    project: { ...whole, masters: whole.masters.map((m) => withZonesOfLetters(whole, m, r.style)) },
    notes: r.notes,
  };
}

/** Positions that are no plain kerning or marks, as rules; what becomes of them is said. */
function positionsRead(r: FontReading, glyphNames: readonly string[]): Project['features']['sections'] {
  const gpos = r.font.tables.get('GPOS');
  if (!gpos) return [];
  const found = decompilePositions(gpos, r.font.tables.get('GDEF'), glyphNames);
  if (!found.ok) {
    r.notes.push(`Positions other than kerning and marks were left aside: ${found.reason}`);
    return [];
  }
  const sections = found.value;
  if (sections.length > 0 && r.font.tables.has('fvar'))
    r.notes.push('Positions in features of their own are kept as they are at the default place of the axes.');
  const marks = sections.filter((s) => MARK_FEATURES.has(s.tag ?? '')).map((s) => s.tag!);
  if (marks.length > 0)
    r.notes.push(
      `Marks of ${marks.join(', ')} depend on their surroundings, so they are kept as rules in Features; anchors of letters do not change them until those sections are taken away.`,
    );
  return sections.map(({ title, text, beside }, i): Project['features']['sections'][number] => ({
    id: `p${i + 1}`,
    title,
    options: { ...(beside && { beside }) },
    text,
  }));
}

/** Code points by glyph, rising. */
function codePoints(r: FontReading): Map<number, number[]> {
  const table = r.font.tables.get('cmap');
  const out = new Map<number, number[]>();
  for (const [code, glyph] of [...(table ? cmap.read(table) : [])].sort((a, b) => a[0] - b[0])) {
    if (glyph > 0 && glyph < r.numGlyphs) out.set(glyph, [...(out.get(glyph) ?? []), code]);
  }
  return out;
}

/** The font's own name of a glyph that is called otherwise here; undefined where it is the same, or can be no name. */
const productionName = (given: string | undefined, called: string): string | undefined =>
  given !== undefined && given !== called && glyphNameFault(given) === undefined ? given : undefined;

/** The font's own names, but for those that only spell or count: these are said in words, and how many is told. */
function namesRead(
  r: FontReading,
  given: readonly string[],
  byGlyph: ReadonlyMap<number, readonly number[]>,
): readonly string[] {
  const proper = glyphNamesFor(r.numGlyphs, given, byGlyph);
  const gsub = r.font.tables.get('GSUB');
  let ways: readonly WayTo[] = [];
  try {
    ways = gsub ? waysToGlyphs(gsub) : [];
  } catch {
    // A damaged table names nothing; it is carried, or told, by those who carry it.
  }
  const names = proposedNames(proper, ways);
  const changed = names.filter((name, i) => productionName(given[i], name) !== undefined).length;
  if (changed > 0)
    r.notes.push(
      `${changed.toLocaleString('en')} ${changed === 1 ? 'glyph is' : 'glyphs are'} called by character or by what leads to ` +
        `${changed === 1 ? 'it' : 'them'}; the font’s own names stay as production names, in the files that are cast.`,
    );
  return names;
}

/** Variation sequences, for the font's own lib. */
function sequences(r: FontReading, glyphNames: readonly string[]): Lib {
  const table = r.font.tables.get('cmap');
  const variations = table ? cmap.variations(table) : [];
  if (variations.length === 0) return {};
  r.notes.push(
    `${variations.length.toLocaleString('en')} variation ${variations.length === 1 ? 'sequence is' : 'sequences are'} kept with the font.`,
  );
  return sequencesLib(variations, cmap.read(table!), glyphNames);
}

function givenNames(r: FontReading, outlines: FontOutlines): readonly string[] {
  if (outlines.names.length > 0) return outlines.names;
  const table = r.font.tables.get('post');
  return table ? post.read(table).glyphNames : [];
}

function glyphRead(
  { outlines, places, ids }: { outlines: FontOutlines; places: readonly Place[]; ids: readonly string[] },
  index: number,
  { id, name: glyphName, unicodes, productionName }: Pick<Glyph, 'id' | 'name' | 'unicodes' | 'productionName'>,
  anchors: readonly PlacedAnchor[],
): Glyph {
  const drawings: [string, Drawing][] = places.map(({ at }, i) => {
    const { advance, contours, parts } = outlines.glyph(index, at);
    const components = parts.map((p) => ({
      glyph: ids[p.glyph] ?? refuse(`The glyf table builds glyph ${index} of glyph ${p.glyph}, which is not there.`),
      transform: p.transform,
    }));
    return [
      `m${i + 1}`,
      {
        ...emptyDrawing(Math.min(65535, advance)),
        contours,
        components,
        anchors: anchors.map(({ varied, ...a }) => ({ ...a, ...varied?.[i] })),
      },
    ];
  });
  // Smoothness is one thing for all masters.
  const [, main] = drawings[0]!;
  const alike = drawings.map(([m, d]) => [
    m,
    {
      ...d,
      contours: d.contours.map((c, k) => ({
        ...c,
        points: c.points.map((p, n) => ({
          x: p.x,
          y: p.y,
          type: p.type,
          ...(main.contours[k]?.points[n]?.smooth ? { smooth: true } : {}),
        })),
      })),
    },
  ]);
  return {
    id,
    name: glyphName,
    unicodes,
    cast: true,
    drawings: Object.fromEntries(alike),
    waypoints: [],
    handovers: [],
    takes: [],
    follows: { left: [], right: [] },
    ...(productionName !== undefined && { productionName }),
    ...(anchors.some((a) => a.role === 'isMark') ? { category: 'mark' as const } : {}),
  };
}

/** Tables that stand by themselves without what varies in them, with the minor version that first had such a part. */
const FIXABLE: ReadonlyMap<string, number> = new Map([
  ['GSUB', 1],
  ['GDEF', 3],
]);

/**
 * Layout that is not told as rules goes along as it is, for as long as the order of glyphs stays. What the definitions of a variable
 * font vary by is read elsewhere, so it is cut off; substitutions that change with the axes stay for a font that varies over the same.
 */
function carried(r: FontReading, glyphNames: readonly string[], axes: Project['axes']): Pick<Project, 'kept' | 'lib'> {
  const variable = axes.length > 0;
  const tags = CARRIED_TABLES.filter((tag) => r.font.tables.has(tag) && (!variable || FIXABLE.has(tag)));
  if (tags.includes('GSUB'))
    r.notes.push(
      'Substitutions (GSUB) are carried as they are while the order of glyphs stays; in Features they become rules to be edited.',
    );
  let stays = false;
  const kept = tags.map((tag): [string, Uint8Array] => {
    const bytes = new Uint8Array(r.font.tables.get(tag)!);
    const first = FIXABLE.get(tag);
    if (variable && first !== undefined && bytes.length >= 4 && bytes[3]! >= first) {
      if (tag === 'GSUB') stays = true;
      else bytes[3] = first - 1;
    }
    return [carriedPath(tag), bytes];
  });
  if (stays)
    r.notes.push(
      'Substitutions that change with the axes stay in the font that varies; fonts of one place have those of the default.',
    );
  return {
    kept: Object.fromEntries(kept),
    lib: kept.length > 0 ? { [CARRIED]: [...glyphNames], ...(stays ? { [CARRIED_AXES]: axesKey(axes) } : {}) } : {},
  };
}
