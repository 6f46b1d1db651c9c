import { attempt, type Refusal, type Result, refused } from '../base/result';
import { listed } from '../base/text';
import { carriedTables, isPositions } from '../fontfacts/carried';
import { nameRecords, type StyleNames } from '../fontfacts/names';
import { variationSequences } from '../fontfacts/sequences';
import { statedGasp } from '../fontfacts/stated';
import { type Box, isEmptyBox } from '../geometry/curve';
import { cmap } from '../opentype/cmap';
import { gasp } from '../opentype/gasp';
import { gdefWithStore } from '../opentype/gdef';
import { type HorizontalMetric, hmtx } from '../opentype/hmtx';
import { maxContext } from '../opentype/layout/maxContext';
import { type NameRecord, name } from '../opentype/name';
import { SFNT_CFF, SFNT_TRUETYPE, writeSfnt } from '../opentype/sfnt';
import type { GlyphId, Project } from '../project/model';
import { drawingsOf, heightsOf } from '../project/outline';
import { drawingOf } from '../project/queries';
import { lineMetrics } from './metrics';
import { type CastOptions, type CastPlan, castPlan } from './plan';
import { cffOutlines } from './tables/cff';
import { cff2Outlines } from './tables/cff2';
import { trueTypeOutlines } from './tables/glyf';
import { kernInput } from './tables/gpos';
import { headTable } from './tables/head';
import { hheaTable } from './tables/hhea';
import { joins } from './tables/joins';
import { type LookupSources, layoutTables, noteRules } from './tables/layout';
import { caretsOf, isMark, markFeatures } from './tables/marks';
import { os2Table } from './tables/os2';
import { boxOfAll } from './tables/outlines';
import { postTable } from './tables/post';
import { saidTables } from './tables/said';
import { variationTables } from './tables/variation';

export type CastFont = {
  bytes: Uint8Array;
  names: StyleNames;
  /** Glyph ids in the font's order; index is the glyph index. */
  glyphIds: readonly GlyphId[];
  /** Largest cubic to quadratic error in units (0 for CFF). */
  quadraticError: number;
  /** Names of glyphs whose overlaps could not be removed and stayed as drawn. */
  overlapsKept: readonly string[];
  kerningPairs: number;
  /** Where each lookup of the font comes from, by its number. */
  lookups: LookupSources;
  /** What is left out, or otherwise than one might expect, by what a reader would notice. */
  notes: readonly Refusal[];
};

/** The box of all glyphs in all masters, so that a family has one height of line. */
function familyBox({ family, master, entries }: CastPlan, own: Box): Box {
  const box = { ...own };
  for (const { id } of family.masters) {
    if (id === master.id && master.place === family.masters.find((m) => m.id === id)?.place) continue;
    const source = drawingsOf(family, id);
    for (const { glyph } of entries) {
      const drawn = family.glyphs[glyph.id];
      const heights = drawn && heightsOf(drawingOf(drawn, id), source);
      if (!heights) continue;
      box.yMin = Math.min(box.yMin, Math.floor(heights[0]));
      box.yMax = Math.max(box.yMax, Math.ceil(heights[1]));
    }
  }
  return box;
}

/** Casts the font at a place into an OpenType (CFF) or TrueType file. The same project gives the same bytes. */
export const castFont = (project: Project, options: CastOptions): Result<CastFont> =>
  attempt(() => joined(castPlan(project, options)));

/** Tables that are carried along; `GDEF` with the store of what varies here, or left to our own where it has one that is not ours. */
function carriedOrVarying(
  { varies }: CastPlan,
  tables: readonly (readonly [string, Uint8Array])[],
): [string, Uint8Array][] {
  // Positions that are carried vary by the store that their definitions hold.
  const store = tables.some(([tag]) => isPositions(tag)) ? undefined : varies?.storeBytes;
  return tables.flatMap(([tag, bytes]): [string, Uint8Array][] => {
    if (tag !== 'GDEF' || !store) return [[tag, bytes]];
    const whole = gdefWithStore(bytes, store);
    return whole ? [[tag, whole]] : [];
  });
}

/** The first number for a name that nothing has yet; those below 256 have a meaning. */
const firstFreeName = (records: readonly { nameID: number }[]): number =>
  records.reduce((most, r) => Math.max(most, r.nameID + 1), 256);

/** Grey and fitting by size: as stated, else at every size, for TrueType. */
function gaspTable({ master, flavour }: CastPlan): [string, Uint8Array][] {
  const ranges =
    statedGasp(master.info) ?? (flavour === 'ttf' ? [{ rangeMaxPPEM: 0xffff, rangeGaspBehavior: 0b1111 }] : undefined);
  return ranges ? [['gasp', gasp.write(ranges)]] : [];
}

/** Records of which the last of a kind holds: what rules say of a name, over what follows by itself. */
const eachOnce = (records: readonly NameRecord[]): NameRecord[] => [
  ...new Map(records.map((r) => [`${r.platformID} ${r.encodingID} ${r.languageID} ${r.nameID}`, r])).values(),
];

/** Has every table built, and joins them. */
function joined(plan: CastPlan): CastFont {
  const { entries } = plan;
  const outlines =
    plan.flavour === 'ttf' ? trueTypeOutlines(plan) : plan.varies ? cff2Outlines(plan, plan.varies) : cffOutlines(plan);
  const fontBox = boxOfAll(outlines.boxes);
  const metrics: HorizontalMetric[] = entries.map((e, i) => ({
    advanceWidth: e.advance,
    lsb: isEmptyBox(outlines.boxes[i]!) ? 0 : Math.floor(outlines.boxes[i]!.xMin),
  }));
  const glyphNames = entries.map((e) => e.glyph.name);
  const whole = plan.whole ? familyBox(plan, fontBox) : fontBox;
  // What layout’s numbers vary by is noted first, so that each difference has its place when they are written.
  if (plan.varies) {
    kernInput(plan);
    markFeatures(plan);
    joins(plan);
    caretsOf(plan);
    noteRules(plan);
    plan.varies.settle();
  }
  const sequences = variationSequences(plan.project, () => new Map(glyphNames.map((n, i) => [n, i])));
  const kern = kernInput(plan);
  const carried = carriedTables(plan.project, glyphNames, {
    kind: plan.kind,
    isWhole: plan.without.size === 0,
    marksFrom: (index) => entries.slice(index).some(isMark),
  });
  const own = nameRecords(plan.project, plan.names, plan.master.info);
  const layout = layoutTables(plan, kern, new Set(carried.tables.map(([tag]) => tag)), firstFreeName(own));
  const { said } = layout;
  const lines = lineMetrics(plan.master, whole, plan.project.unitsPerEm);
  const variation =
    plan.varies &&
    variationTables(plan, plan.varies, {
      box: whole,
      firstName: firstFreeName([...own, ...layout.names]),
      said,
    });
  const carriedNow = carriedOrVarying(plan, carried.tables);
  const context = maxContext(new Map([...layout.tables, ...carriedNow]));
  const tables = new Map<string, Uint8Array>([
    ...outlines.tables,
    [
      'head',
      headTable(plan, fontBox, { indexToLocFormat: outlines.indexToLocFormat, fontRevision: said.fontRevision }),
    ],
    ['hhea', hheaTable(plan, metrics, outlines.boxes, { ...lines, said: said.hhea })],
    ['hmtx', hmtx.write(metrics)],
    ['OS/2', os2Table(plan, lines, { said: said.os2, context })],
    ['cmap', cmap.write(plan.characters, sequences)],
    ['name', name.write(eachOnce([...own, ...layout.names, ...(variation ? variation.names : [])]))],
    ['post', postTable(plan)],
    ...gaspTable(plan),
    ...layout.tables,
    ...(variation ? variation.tables : []),
    ...carriedNow,
    ...saidTables(plan, said, { boxes: outlines.boxes, lines }),
  ]);
  const { overlapsKept } = outlines;
  return {
    bytes: writeSfnt(plan.flavour === 'otf' ? SFNT_CFF : SFNT_TRUETYPE, tables),
    names: plan.names,
    glyphIds: entries.map((e) => e.glyph.id),
    quadraticError: outlines.error,
    overlapsKept,
    kerningPairs: kern.pairs.length,
    lookups: layout.lookups,
    notes: [
      ...layout.notes,
      ...plan.notes,
      ...carried.notes,
      ...(overlapsKept.length > 0
        ? [refused(`Overlaps were kept in ${listed(overlapsKept, 12)}.`, undefined, 'attention')]
        : []),
    ],
  };
}
