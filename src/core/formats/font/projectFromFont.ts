import { addTo } from '../../base/grouping';
import { attempt, type Result, refuse, refused } from '../../base/result';
import { decompilePositions, MARK_FEATURES } from '../../features/decompile';
import { CARRIED_POSITIONS, CARRIED_TABLES, carriedPath, isPositions } from '../../fontfacts/carried';
import { familyAndStyle, glyphNamesFor, nameOf } from '../../fontfacts/fontNames';
import { proposedNames } from '../../fontfacts/namesProposed';
import { positionsPrint } from '../../fontfacts/positions';
import { sequencesLib } from '../../fontfacts/sequences';
import { cmap } from '../../opentype/cmap';
import { readAvar, readFvar } from '../../opentype/fvar';
import { GLYPH_CLASS, readGdef } from '../../opentype/gdef';
import { type WayTo, waysToGlyphs } from '../../opentype/gsubRead';
import { NAME_ID } from '../../opentype/name';
import { post } from '../../opentype/post';
import { readSfnt } from '../../opentype/sfnt';
import { createProject, emptyDrawing } from '../../project/create';
import { plural } from '../../project/edit';
import type { Drawing, Glyph, Lib, Project } from '../../project/model';
import type { Progress } from '../ufo/ufo';
import { carried, positionsNote } from './carriedRead';
import { createdOf, familyFacts, masterRead } from './factsRead';
import { type FontOutlines, readOutlines } from './fontOutlines';
import { anchorsRead, groupsOf, kerningRead, masterKerning, type PlacedAnchor } from './layoutRead';
import { axesOf, deltasAt, designPlace, normalised, type Place, placesOf } from './places';
import { type FontReading, fontReading } from './reading';
import { namesStated } from './statedRead';
import { tablesLeft } from './tablesLeft';
import { withVerticalMetrics } from './verticalRead';
import { withZonesOfLetters } from './zonesRead';

/** A project read from a font, and what the designer should know of it, a sentence each. */
export type FontProject = { project: Project; notes: string[] };

/** Opens a font file (an unpacked OpenType or TrueType file; `start` is where a face of a collection begins) as a project. */
export function projectFromFont(bytes: Uint8Array, label: string, start = 0, progress?: Progress): Result<FontProject> {
  const result = attempt(() => read(fontReading(readSfnt(bytes, start), label), progress));
  return result.ok ? result : refused(`${label}: ${result.reason}`);
}

function read(r: FontReading, progress: Progress | undefined): FontProject {
  const outlines = readOutlines(r.font, {
    numGlyphs: r.numGlyphs,
    indexToLocFormat: r.header.indexToLocFormat,
    metrics: r.metrics,
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
  const axes = fvar.axes.length > 0 ? axesOf(r, fvar.axes, bends) : [];
  const fractions = axes.length === 0 && outlines.kind === 'cff' && Object.values(glyphs).some(hasFractions);
  if (fractions)
    r.notes.push(
      'Coordinates have fractions, which OpenType (CFF) files of it keep; TrueType files have whole units (Plan, In the font file).',
    );
  if (outlines.hints > 0)
    r.notes.push(
      outlines.kind === 'cff'
        ? `${plural(outlines.hints, 'stem hint was', 'stem hints were')} left aside; hints are made anew when casting.`
        : 'TrueType instructions were left aside.',
    );
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
    settings: {
      ...base.settings,
      ...(kerning.stopsAtMarks && hasMarks(r) && { kerningStopsAtMarks: true }),
      ...(fractions && { fractions }),
    },
    ...carried(r, glyphNames, axes),
  };
  const isCarried = CARRIED_TABLES.some((tag) => isPositions(tag) && whole.kept[carriedPath(tag)] !== undefined);
  r.notes.push(...positionsNote(isCarried, kerning.aside));
  const along = new Set(CARRIED_TABLES.filter((tag) => whole.kept[carriedPath(tag)]).map((tag) => tag.trim()));
  const left = tablesLeft(r.font.tables.keys(), along);
  if (left !== undefined) r.notes.push(left);
  const names = namesStated(r, whole, whole.kept[carriedPath('GSUB')] !== undefined);
  const standing = withVerticalMetrics(r, whole, places);
  const named: Project = {
    ...standing,
    masters: standing.masters
      .map((m, i) => withZonesOfLetters(standing, m, r.style, (n) => i === 0 && r.notes.push(n)))
      .map((m, i) => (i === 0 ? { ...m, info: { ...m.info, ...names } } : m)),
  };
  const project = isCarried ? { ...named, lib: { ...named.lib, [CARRIED_POSITIONS]: positionsPrint(named) } } : named;
  return { project, notes: r.notes };
}

const hasFractions = (glyph: Glyph): boolean =>
  Object.values(glyph.drawings).some((d) =>
    d.contours.some((c) => c.points.some((p) => !Number.isInteger(p.x) || !Number.isInteger(p.y))),
  );

/** Does the font call some glyphs marks? */
function hasMarks({ font }: FontReading): boolean {
  const gdef = font.tables.get('GDEF');
  const read = gdef && attempt(() => readGdef(gdef).classes);
  return read?.ok === true && [...read.value.values()].includes(GLYPH_CLASS.mark);
}

/** Positions that are no plain kerning or marks, as rules; what becomes of them is said. */
function positionsRead(r: FontReading, glyphNames: readonly string[]): Project['features']['sections'] {
  const gpos = r.font.tables.get('GPOS');
  if (!gpos) return [];
  const found = decompilePositions(gpos, r.font.tables.get('GDEF'), glyphNames, (id) =>
    r.names.filter((n) => n.nameID === id && n.platformID === 3),
  );
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
  const out = new Map<number, number[]>();
  for (const [code, glyph] of [...r.characters].sort((a, b) => a[0] - b[0])) {
    if (glyph > 0 && glyph < r.numGlyphs) addTo(out, glyph, code);
  }
  return out;
}

/** The font's own name of a glyph that is called otherwise here; undefined where it is the same, or can be no name. */
const productionName = (given: string | undefined, called: string): string | undefined =>
  given !== undefined && given !== called && /^[\x21-\x7e]{1,63}$/.test(given) && !/[[\](){}<>/%]/.test(given)
    ? given
    : undefined;

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
  const changed = names.filter(
    (name, i) => productionName(given[i], name) !== undefined && !given[i]!.startsWith('.'),
  ).length;
  if (changed > 0)
    r.notes.push(
      `${plural(changed, 'glyph is', 'glyphs are')} called by character or by what leads to ` +
        `${changed === 1 ? 'it' : 'them'}; the font’s own names stay as production names, in the files that are cast.`,
    );
  return names;
}

/** Variation sequences, for the font's own lib. */
function sequences(r: FontReading, glyphNames: readonly string[]): Lib {
  const table = r.font.tables.get('cmap');
  const variations = table ? cmap.variations(table) : [];
  if (variations.length === 0) return {};
  r.notes.push(`${plural(variations.length, 'variation sequence is', 'variation sequences are')} kept with the font.`);
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
