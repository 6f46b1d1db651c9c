import { axisShare, bent } from '../../base/interpolation';
import { attempt, type Result, refuse, refused } from '../../base/result';
import { CARRIED, CARRIED_TABLES, carriedPath } from '../../fontfacts/carried';
import { familyAndStyle, glyphNamesFor, nameOf } from '../../fontfacts/fontNames';
import { sequencesLib } from '../../fontfacts/sequences';
import { type MarkAnchor, readMarkAnchors } from '../../opentype/anchorsRead';
import { cmap } from '../../opentype/cmap';
import { type FvarAxis, readAvar, readFvar } from '../../opentype/fvar';
import type { KernInput } from '../../opentype/gpos';
import { type KernRead, readKerning } from '../../opentype/gposRead';
import { head } from '../../opentype/head';
import { hhea } from '../../opentype/hhea';
import { hmtx } from '../../opentype/hmtx';
import { readKernTable } from '../../opentype/kern';
import { maxp } from '../../opentype/maxp';
import { NAME_ID, type NameRecord, name } from '../../opentype/name';
import { type Os2, os2 } from '../../opentype/os2';
import { post } from '../../opentype/post';
import { readSfnt, type Sfnt, tableOf } from '../../opentype/sfnt';
import { readStat } from '../../opentype/stat';
import { type DeltasAt, type ItemStore, itemDelta, readGdefStore, readMvar } from '../../opentype/variations';
import { createProject, emptyDrawing } from '../../project/create';
import type { Anchor, Drawing, Glyph, Group, Lib, Master, Project } from '../../project/model';
import { pairKey } from '../../project/pairs';
import type { Progress } from '../ufo/ufo';
import { type FontOutlines, readOutlines } from './fontOutlines';

/** A project read from a font, and what the designer should know of it, a sentence each. */
export type FontProject = { project: Project; notes: string[] };

/** Places in a variable font that need a master of their own; more than this are not taken in. */
const MOST_MASTERS = 64;

type Place = { name: string; at: readonly number[] };

/** Opens a font file (an unpacked OpenType or TrueType file; `start` is where a face of a collection begins) as a project. */
export function projectFromFont(bytes: Uint8Array, label: string, start = 0, progress?: Progress): Result<FontProject> {
  const result = attempt(() => new FontReader(readSfnt(bytes, start), label, progress).read());
  return result.ok ? result : refused(`${label}: ${result.reason}`);
}

class FontReader {
  private readonly notes: string[] = [];
  private readonly header: ReturnType<typeof head.read>;
  private readonly numGlyphs: number;
  private readonly names: NameRecord[];
  private readonly style: Partial<Os2>;
  private readonly lines: ReturnType<typeof hhea.read>;
  /** Differences of kerning and anchors in a variable font. */
  private readonly layoutStore: ItemStore | undefined;

  constructor(
    private readonly font: Sfnt,
    private readonly label: string,
    private readonly progress?: Progress,
  ) {
    this.header = head.read(tableOf(font, 'head'));
    if (this.header.unitsPerEm < 16 || this.header.unitsPerEm > 16384)
      refuse(`The head table says the em is ${this.header.unitsPerEm} units; 16 to 16,384 are possible.`);
    this.numGlyphs = maxp.read(tableOf(font, 'maxp')).numGlyphs;
    if (this.numGlyphs === 0) refuse('The font holds no glyphs.');
    this.names = font.tables.has('name') ? name.read(font.tables.get('name')!) : [];
    this.style = font.tables.has('OS/2') ? os2.read(font.tables.get('OS/2')!) : {};
    this.lines = hhea.read(tableOf(font, 'hhea'));
    this.layoutStore =
      font.tables.has('fvar') && font.tables.has('GDEF') ? readGdefStore(font.tables.get('GDEF')!) : undefined;
  }

  read(): FontProject {
    const metrics = hmtx.read(tableOf(this.font, 'hmtx'), this.lines.numberOfHMetrics, this.numGlyphs);
    const outlines = readOutlines(this.font, {
      numGlyphs: this.numGlyphs,
      indexToLocFormat: this.header.indexToLocFormat,
      metrics,
    });
    const fvar = this.font.tables.has('fvar') ? readFvar(this.font.tables.get('fvar')!) : { axes: [], instances: [] };
    const avar = this.font.tables.get('avar');
    const bends = avar ? readAvar(avar, fvar.axes.length) : [];
    const { family, style } = familyAndStyle(this.names);
    const base = createProject({
      family: family ?? this.label.replace(/\.\w+$/, ''),
      unitsPerEm: this.header.unitsPerEm,
      created: createdOf(this.header.created),
    });
    const codes = this.codes();
    const glyphNames = glyphNamesFor(this.numGlyphs, this.givenNames(outlines), codes);
    const ids = glyphNames.map((_, i) => `g${i + 1}`);
    const places = this.places(fvar.axes, outlines);
    const deltas = this.deltas(places);
    const kerning = this.kerning(deltas);
    const groups = groupsOf(kerning, ids, glyphNames);
    const masters = places.map((p, i) =>
      this.master(i, i === 0 ? (style ?? 'Regular') : p.name, p, fvar.axes, kerning, ids, groups),
    );
    const sequences = this.sequences(glyphNames);
    if (Object.keys(sequences).length > 0) masters[0] = { ...masters[0]!, lib: { ...masters[0]!.lib, ...sequences } };
    const anchors = this.anchors(ids, glyphNames, deltas);
    const glyphs: Record<string, Glyph> = {};
    ids.forEach((id, i) => {
      if (this.progress && i % 64 === 0) this.progress(i, this.numGlyphs);
      glyphs[id] = this.glyph(i, id, glyphNames[i]!, codes.get(i) ?? [], places, outlines, ids, anchors.get(i) ?? []);
    });
    if (outlines.hints > 0)
      this.notes.push(
        outlines.kind === 'cff'
          ? `${outlines.hints.toLocaleString('en')} stem hints were left aside; they are made anew when casting.`
          : 'TrueType instructions were left aside.',
      );
    const axes = fvar.axes.length > 0 ? this.axes(fvar.axes, bends) : [];
    return {
      project: {
        ...base,
        glyphs,
        glyphOrder: ids,
        nextId: ids.length + groups.length + 1,
        family: { ...base.family, ...this.familyFacts() },
        axes,
        masters,
        instances: fvar.instances.map((i) => ({
          name: nameOf(this.names, i.nameID) ?? 'Instance',
          place: designPlace(
            fvar.axes,
            i.place.map((v, k) => normalised(fvar.axes[k]!, bends[k] ?? [], v)),
          ),
        })),
        groups,
        texts: { galley: nameOf(this.names, NAME_ID.sampleText) ?? family ?? this.label, words: [], pairs: [] },
        ...this.carried(glyphNames, fvar.axes.length > 0),
      },
      notes: this.notes,
    };
  }

  /** Code points by glyph, rising. */
  private codes(): Map<number, number[]> {
    const table = this.font.tables.get('cmap');
    const out = new Map<number, number[]>();
    for (const [code, glyph] of [...(table ? cmap.read(table) : [])].sort((a, b) => a[0] - b[0])) {
      if (glyph > 0 && glyph < this.numGlyphs) out.set(glyph, [...(out.get(glyph) ?? []), code]);
    }
    return out;
  }

  /** Variation sequences, for the font's own lib. */
  private sequences(glyphNames: readonly string[]): Lib {
    const table = this.font.tables.get('cmap');
    const variations = table ? cmap.variations(table) : [];
    if (variations.length === 0) return {};
    this.notes.push(
      `${variations.length.toLocaleString('en')} variation ${variations.length === 1 ? 'sequence is' : 'sequences are'} kept with the font.`,
    );
    return sequencesLib(variations, cmap.read(table!), glyphNames);
  }

  private givenNames(outlines: FontOutlines): readonly string[] {
    if (outlines.names.length > 0) return outlines.names;
    const table = this.font.tables.get('post');
    return table ? post.read(table).glyphNames : [];
  }

  private axes(axes: readonly FvarAxis[], bends: readonly Bend[]): Project['axes'] {
    const stops = this.font.tables.has('STAT') ? readStat(this.font.tables.get('STAT')!) : [];
    return axes.map((a, i) => {
      // Design units are user units bent as the font bends them, so that places are even.
      const map = (bends[i] ?? []).map(([from, to]): [number, number] => [designOf(a, from), designOf(a, to)]);
      const bent = map.some(([from, to]) => Math.abs(from - to) > 1e-6);
      return {
        tag: a.tag,
        name: nameOf(this.names, a.nameID) ?? a.tag,
        minimum: a.minimum,
        default: a.default,
        maximum: a.maximum,
        map: bent ? map : [],
        hidden: a.hidden,
        labels: {},
        ...(stops.some((stop) => stop.tag === a.tag) && {
          stops: stops
            .filter((stop) => stop.tag === a.tag)
            .map(({ tag: _tag, nameID, ...stop }) => ({
              name: nameOf(this.names, nameID) ?? String(stop.value),
              ...stop,
            })),
        }),
      };
    });
  }

  /** The default, and every place at which anything in the font stands out. */
  private places(axes: readonly FvarAxis[], outlines: FontOutlines): Place[] {
    if (axes.length === 0) return [{ name: '', at: [] }];
    const origin = axes.map(() => 0);
    const peaks = new Map<string, readonly number[]>([[origin.join(), origin]]);
    for (const region of [...outlines.regions(), ...(this.layoutStore?.regions ?? [])]) {
      const peak = axes.map((_, i) => region[i]?.[1] ?? 0);
      if (region.some(([start, p, end]) => p !== 0 && (start > p || p > end || (start < 0 && end > 0)))) continue;
      peaks.set(peak.join(), peak);
      if (peaks.size > MOST_MASTERS) refuse(`The font would need more than ${MOST_MASTERS} masters to be taken in.`);
    }
    const naming = (at: readonly number[]) =>
      axes.flatMap((a, i) => (at[i] === 0 ? [] : [`${a.tag} ${Math.round(designOf(a, at[i]!))}`])).join(', ');
    return [...peaks.values()].map((at) => ({ name: naming(at), at }));
  }

  private master(
    index: number,
    masterName: string,
    place: Place,
    axes: readonly FvarAxis[],
    kerning: KernRead,
    ids: readonly string[],
    groups: readonly Group[],
  ): Master {
    const em = this.header.unitsPerEm;
    const { style, lines } = this;
    const mvar = this.font.tables.has('MVAR') && axes.length > 0 ? readMvar(this.font.tables.get('MVAR')!) : () => 0;
    const ascender = style.sTypoAscender ?? lines.ascender;
    const descender = style.sTypoDescender ?? lines.descender;
    const overshoot = Math.round(em * 0.012);
    const zone = (zoneName: string, position: number, over: number) => ({
      name: zoneName,
      position: Math.round(position),
      overshoot: over,
    });
    return {
      id: `m${index + 1}`,
      name: masterName,
      place: designPlace(axes, place.at),
      zones: {
        baseline: zone('baseline', 0, -overshoot),
        xHeight: zone('x-height', (style.sxHeight || em * 0.5) + mvar('xhgt', place.at), overshoot),
        capHeight: zone('cap height', (style.sCapHeight || em * 0.7) + mvar('cpht', place.at), overshoot),
        ascender: zone('ascender', ascender, overshoot),
        descender: zone('descender', descender, -overshoot),
        own: [],
      },
      verticalMetrics: {
        typoAscender: ascender,
        typoDescender: descender,
        typoLineGap: style.sTypoLineGap ?? lines.lineGap,
        hheaAscender: lines.ascender,
        hheaDescender: lines.descender,
        hheaLineGap: lines.lineGap,
        ...(style.usWinAscent === undefined ? {} : { winAscent: style.usWinAscent, winDescent: style.usWinDescent! }),
      },
      italicAngle: this.font.tables.has('post') ? post.read(this.font.tables.get('post')!).italicAngle : 0,
      stems: [],
      guides: [],
      kerning: Object.fromEntries(
        kerning.pairs.map((p) => [
          pairKey(
            'glyph' in p.first
              ? { kind: 'glyph', id: ids[p.first.glyph]! }
              : { kind: 'group', id: groups[p.first.group]!.id },
            'glyph' in p.second
              ? { kind: 'glyph', id: ids[p.second.glyph]! }
              : { kind: 'group', id: groups[kerning.firstGroups.length + p.second.group]!.id },
          ),
          Math.round(p.varied?.[index] ?? p.value),
        ]),
      ),
      info: this.masterFacts(place),
    };
  }

  /** Facts of one style that are kept as the font has them; at other places of a variable font they follow by rule. */
  private masterFacts(place: Place): Lib {
    if (place.at.some((v) => v !== 0)) return {};
    const out: Record<string, Lib[string] | undefined> = {
      openTypeOS2WeightClass: this.style.usWeightClass,
      openTypeOS2WidthClass: this.style.usWidthClass,
      openTypeOS2Panose: this.style.panose ? [...this.style.panose] : undefined,
      openTypeOS2Type:
        this.style.fsType === undefined
          ? undefined
          : Array.from({ length: 16 }, (_, i) => i).filter((i) => this.style.fsType! & (1 << i)),
      postscriptFontName: nameOf(this.names, NAME_ID.postScript),
      styleMapFamilyName: nameOf(this.names, NAME_ID.family),
    };
    return Object.fromEntries(Object.entries(out).filter((e): e is [string, Lib[string]] => e[1] !== undefined));
  }

  private familyFacts(): Partial<Project['family']> {
    const facts = {
      designer: NAME_ID.designer,
      designerURL: NAME_ID.designerURL,
      manufacturer: NAME_ID.manufacturer,
      vendorURL: NAME_ID.vendorURL,
      copyright: NAME_ID.copyright,
      trademark: NAME_ID.trademark,
      licence: NAME_ID.licence,
      licenceURL: NAME_ID.licenceURL,
      description: NAME_ID.description,
      sampleText: NAME_ID.sampleText,
    };
    const texts = Object.entries(facts).flatMap(([key, id]) => {
      const value = nameOf(this.names, id);
      return value === undefined ? [] : [[key, value]];
    });
    const revision = this.header.fontRevision;
    const vendor = this.style.achVendID?.replace(/[^\x20-\x7e]/g, '').trim();
    const minor = Math.min(999, Math.round((revision % 1) * 1000));
    return {
      ...Object.fromEntries(texts),
      ...(vendor ? { vendor } : {}),
      versionMajor: Math.max(0, Math.min(32767, Math.floor(revision))),
      versionMinor: Math.max(0, minor),
    };
  }

  private glyph(
    index: number,
    id: string,
    glyphName: string,
    unicodes: readonly number[],
    places: readonly Place[],
    outlines: FontOutlines,
    ids: readonly string[],
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
      ...(anchors.some((a) => a.role === 'isMark') ? { category: 'mark' as const } : {}),
    };
  }

  /** What kerning and anchors differ by at the places of the masters; undefined when nothing varies. */
  private deltas(places: readonly Place[]): DeltasAt | undefined {
    const store = this.layoutStore;
    if (!store || places.length < 2) return undefined;
    return (outer, inner) => places.map(({ at }) => itemDelta(store, outer, inner, at));
  }

  private kerning(deltas: DeltasAt | undefined): KernRead {
    const gpos = this.font.tables.get('GPOS');
    const read: KernRead = gpos
      ? readKerning(gpos, this.numGlyphs, deltas)
      : { firstGroups: [], secondGroups: [], pairs: [], aside: [] };
    for (const what of read.aside) this.notes.push(`The font has ${what}, which was left aside.`);
    const old = this.font.tables.get('kern');
    if (read.pairs.length > 0 || !old) return inRange(read, this.numGlyphs);
    const pairs = [...readKernTable(old)].flatMap(([first, row]) =>
      [...row].map(([second, value]) => ({ first: { glyph: first }, second: { glyph: second }, value })),
    );
    return inRange(
      { firstGroups: [], secondGroups: [], pairs: pairs.filter((p) => p.value !== 0), aside: [] },
      this.numGlyphs,
    );
  }

  private anchors(
    ids: readonly string[],
    glyphNames: readonly string[],
    deltas: DeltasAt | undefined,
  ): Map<number, PlacedAnchor[]> {
    const gpos = this.font.tables.get('GPOS');
    const found = gpos ? readMarkAnchors(gpos, deltas).filter((a) => a.glyph < ids.length) : [];
    const kinds = kindNames(found, this.style.sxHeight || this.header.unitsPerEm / 2);
    const out = new Map<number, PlacedAnchor[]>();
    for (const a of found) {
      const kind = kinds.get(a.kind)!;
      const anchorName = a.mark ? `_${kind}` : a.part ? `${kind}_${a.part}` : kind;
      const list = out.get(a.glyph) ?? [];
      if (!list.some((o) => o.name === anchorName))
        list.push({
          name: anchorName,
          x: a.x,
          y: a.y,
          role: a.mark ? 'isMark' : 'takesMark',
          ...(a.varied && { varied: a.varied }),
        });
      out.set(a.glyph, list);
    }
    return glyphNames.length > 0 ? out : new Map();
  }

  /**
   * Layout that is not told as rules goes along as it is, for as long as the order of glyphs stays. Of a variable font the
   * tables go along as they are at the default: what varies in them is told nowhere else, so it is cut off and said.
   */
  private carried(glyphNames: readonly string[], variable: boolean): Pick<Project, 'kept' | 'lib'> {
    const tags = CARRIED_TABLES.filter((tag) => this.font.tables.has(tag) && (!variable || FIXABLE.has(tag)));
    if (tags.includes('GSUB'))
      this.notes.push(
        'Substitutions (GSUB) are carried as they are while the order of glyphs stays; they cannot be edited as rules yet.',
      );
    let cut = false;
    const kept = tags.map((tag): [string, Uint8Array] => {
      const bytes = new Uint8Array(this.font.tables.get(tag)!);
      const first = FIXABLE.get(tag);
      if (variable && first !== undefined && bytes.length >= 4 && bytes[3]! >= first) {
        bytes[3] = first - 1;
        cut ||= tag === 'GSUB';
      }
      return [carriedPath(tag), bytes];
    });
    if (cut) this.notes.push('Substitutions that change with the axes were left aside.');
    return { kept: Object.fromEntries(kept), lib: kept.length > 0 ? { [CARRIED]: [...glyphNames] } : {} };
  }
}

/** Tables that stand by themselves without what varies in them, and the minor version that first had such a part. */
const FIXABLE: ReadonlyMap<string, number> = new Map([
  ['GSUB', 1],
  ['GDEF', 3],
]);

/** An anchor with its places in the masters, where they differ. */
type PlacedAnchor = Anchor & { varied?: readonly { x: number; y: number }[] };

/** How an axis is bent: normalised places before and after. */
type Bend = readonly (readonly [from: number, to: number])[];

/** A user value on the bent axis, -1 to 1. */
const normalised = (axis: FvarAxis, bend: Bend, user: number): number =>
  bent(bend, axisShare(axis.minimum, axis.default, axis.maximum, user));

const designOf = (axis: FvarAxis, normal: number): number =>
  axis.default + normal * (normal < 0 ? axis.default - axis.minimum : axis.maximum - axis.default);
const designPlace = (axes: readonly FvarAxis[], at: readonly number[]): Record<string, number> =>
  Object.fromEntries(axes.map((a, i) => [a.tag, designOf(a, at[i] ?? 0)]));

/** Seconds between 1904 and 1970, the two beginnings of time. */
const EPOCHS = 2082844800;
const createdOf = (since1904: number): number =>
  since1904 > EPOCHS && since1904 < EPOCHS + 4e9 ? Math.floor(since1904 - EPOCHS) : 946684800;

function inRange(read: KernRead, numGlyphs: number): KernRead {
  const fits = (side: KernInput['pairs'][number]['first']) => !('glyph' in side) || side.glyph < numGlyphs;
  return { ...read, pairs: read.pairs.filter((p) => fits(p.first) && fits(p.second)) };
}

/** Groups named after their first member, those of the first side before those of the second. */
function groupsOf(kerning: KernInput, ids: readonly string[], glyphNames: readonly string[]): Group[] {
  const side = (which: 'first' | 'second', sets: readonly (readonly number[])[]): Group[] =>
    sets.map((members, i) => ({
      id: `k${which === 'first' ? 1 : 2}-${i + 1}`,
      side: which,
      name: glyphNames[members[0] ?? 0] ?? `group${i + 1}`,
      members: members.map((g) => ids[g]!),
    }));
  return [...side('first', kerning.firstGroups), ...side('second', kerning.secondGroups)];
}

/** Kinds of anchors get a name by where they mostly lie: above, below, or within letters. */
function kindNames(anchors: readonly MarkAnchor[], xHeight: number): Map<string, string> {
  const heights = new Map<string, number[]>();
  for (const a of anchors) if (!a.mark) heights.set(a.kind, [...(heights.get(a.kind) ?? []), a.y]);
  const counts = new Map<string, number>();
  const out = new Map<string, string>();
  for (const kind of new Set(anchors.map((a) => a.kind))) {
    const ys = (heights.get(kind) ?? [0]).sort((a, b) => a - b);
    const middle = ys[ys.length >> 1]!;
    const word = middle >= xHeight * 0.7 ? 'top' : middle <= xHeight * 0.15 ? 'bottom' : 'center';
    const count = (counts.get(word) ?? 0) + 1;
    counts.set(word, count);
    out.set(kind, count === 1 ? word : `${word}${count}`);
  }
  return out;
}
