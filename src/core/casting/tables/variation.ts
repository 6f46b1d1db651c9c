import { axisShare } from '../../base/interpolation';
import { refused } from '../../base/result';
import { listed } from '../../base/text';
import type { TablesSaid } from '../../features/tableBlocks';
import { postScriptSafe, styleNames } from '../../fontfacts/names';
import { type StatedTable, statedFields } from '../../fontfacts/stated';
import type { Box } from '../../geometry/curve';
import { writeAvar, writeFvar } from '../../opentype/fvar';
import type { Hhea } from '../../opentype/hhea';
import type { RegionDelta } from '../../opentype/itemStore';
import { VARYING_FIELDS, writeAdvancesVary, writeMvar } from '../../opentype/metricsVary';
import { NAME_ID, type NameRecord } from '../../opentype/name';
import { ENGLISH, languageIdOf } from '../../opentype/nameLanguages';
import { os2 } from '../../opentype/os2';
import { post } from '../../opentype/post';
import { STYLE_FLAGS, type Style, writeStat } from '../../opentype/stat';
import type { Vhea } from '../../opentype/vhea';
import { toDesign } from '../../project/axes';
import { plural } from '../../project/edit';
import type { Drawing, Project } from '../../project/model';
import { designEnds, toUser, wholePlace } from '../../project/places';
import { type LineMetrics, lineMetrics } from '../metrics';
import type { CastPlan } from '../plan';
import type { Varying } from '../varying';
import { caretOf } from './hhea';
import { os2Table } from './os2';
import { postTable } from './post';
import { isVertical } from './vertical';

type Axis = Project['axes'][number];

/** Names that tables of axes refer to, each once and in its languages, from a number on that nothing else has. */
class Names {
  readonly records: NameRecord[] = [];
  private readonly numbers = new Map<string, number>();
  /** Languages that a name table has no number for. */
  readonly unknown = new Set<string>();

  constructor(private next: number) {}

  of(text: string, languages: Readonly<Record<string, string>> = {}): number {
    const key = JSON.stringify([text, Object.entries(languages).sort()]);
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const nameID = this.next++;
    this.numbers.set(key, nameID);
    const say = (languageID: number, value: string) =>
      this.records.push({ platformID: 3, encodingID: 1, languageID, nameID, value });
    say(ENGLISH, text);
    for (const [tag, value] of Object.entries(languages)) {
      const language = languageIdOf(tag);
      if (language === undefined) this.unknown.add(tag);
      else if (language !== ENGLISH && value) say(language, value);
    }
    return nameID;
  }
}

/** Tables of a font that varies, but for outlines and layout: axes, named places, metrics that differ; and the names they need. */
export function variationTables(
  plan: CastPlan,
  varies: Varying,
  facts: { box: Box; firstName: number; said: TablesSaid },
): { tables: [string, Uint8Array][]; names: NameRecord[] } {
  const names = new Names(Math.max(256, facts.firstName));
  const axes = varies.axes.map((a) => ({
    tag: a.tag,
    minimum: a.minimum,
    default: a.default,
    maximum: a.maximum,
    hidden: a.hidden,
    nameID: names.of(a.name, a.labels),
  }));
  const { places, outside } = namedPlaces(plan, varies);
  if (outside.length > 0)
    plan.notes.push(
      refused(
        `${plural(outside.length, 'instance')} beyond the ends of the axes cannot be named in the font: ${listed(outside)}.`,
        undefined,
        'attention',
      ),
    );
  const instances = places.map(({ name, place }) => ({
    nameID: names.of(name),
    postScriptNameID: names.of(postScriptSafe(`${prefixOf(plan)}-${name.replace(/\s+/g, '')}`)),
    place,
  }));
  const avar = writeAvar(varies.axes.map(normalisedMap));
  const mvar = writeMvar(fontMetrics(plan, varies, facts), varies.axes.length);
  const tables: [string, Uint8Array][] = [
    ['fvar', writeFvar(axes, instances)],
    [
      'HVAR',
      writeAdvancesVary(
        'HVAR',
        advances(plan, varies, (d) => d.advance),
        varies.axes.length,
      ),
    ],
    ...verticalAdvances(plan, varies, facts.said),
    ...(avar ? [['avar', avar] as [string, Uint8Array]] : []),
    ...(mvar ? [['MVAR', mvar] as [string, Uint8Array]] : []),
    ...(facts.said.style ? [] : [['STAT', writeStat(styleOf(plan, varies, names))] as [string, Uint8Array]]),
  ];
  if (names.unknown.size > 0)
    plan.notes.push(
      refused(
        `Names of axes are left out in languages that font files have no number for: ${listed([...names.unknown].sort())}.`,
        undefined,
        'attention',
      ),
    );
  const prefix = {
    platformID: 3,
    encodingID: 1,
    languageID: ENGLISH,
    nameID: NAME_ID.variationsPrefix,
    value: prefixOf(plan),
  };
  return { tables, names: [...names.records, prefix] };
}

const prefixOf = ({ names }: CastPlan): string =>
  postScriptSafe(names.family.replace(/[^A-Za-z0-9]/g, '')) || 'Untitled';

/** Instances within the axes by name, in user units, and the names of those beyond; masters where there are no instances. */
function namedPlaces(
  { project }: CastPlan,
  { axes, masters }: Varying,
): { places: { name: string; place: number[] }[]; outside: string[] } {
  const list = project.instances.length > 0 ? project.instances : masters;
  const all = list.map(({ name, place }) => {
    const whole = wholePlace(axes, place);
    return { name, place: axes.map((a) => toUser(a, whole[a.tag]!)) };
  });
  const isWithin = ({ place }: { place: number[] }) =>
    place.every((v, i) => v >= axes[i]!.minimum - 1e-6 && v <= axes[i]!.maximum + 1e-6);
  return { places: all.filter(isWithin), outside: all.filter((p) => !isWithin(p)).map((p) => p.name) };
}

/** An axis’s map between normalised places: from what users say to where masters are drawn. */
function normalisedMap(axis: Axis): [number, number][] {
  const { least, usual, most } = designEnds(axis);
  const points = [axis.minimum, axis.default, axis.maximum, ...axis.map.map(([user]) => user)]
    .filter((v) => v >= axis.minimum && v <= axis.maximum)
    .map((user): [number, number] => [
      axisShare(axis.minimum, axis.default, axis.maximum, user),
      axisShare(least, usual, most, toDesign(axis, user)),
    ]);
  const byFrom = new Map<number, number>([[-1, -1], [0, 0], [1, 1], ...points]);
  return [...byFrom].sort(([a], [b]) => a - b);
}

/** What the advance of each glyph varies by. */
const advances = ({ entries }: CastPlan, varies: Varying, of: (drawing: Drawing) => number): RegionDelta[][] =>
  entries.map(
    ({ glyph }) =>
      varies.ofSays(varies.says(glyph), ({ drawing }) => Math.max(0, Math.min(65535, Math.round(of(drawing))))).deltas,
  );

/** `VVAR`, where lines run down and what glyphs take of them differs between masters. */
function verticalAdvances(plan: CastPlan, varies: Varying, said: TablesSaid): [string, Uint8Array][] {
  if (!isVertical(plan, said)) return [];
  const em = plan.project.unitsPerEm;
  const rows = advances(plan, varies, (d) => d.verticalAdvance ?? em);
  return rows.some((r) => r.some((d) => d.delta !== 0))
    ? [['VVAR', writeAdvancesVary('VVAR', rows, varies.axes.length)]]
    : [];
}

/** Metrics of the whole font in all masters, and what those that differ vary by. */
function fontMetrics(
  plan: CastPlan,
  varies: Varying,
  { box, said }: { box: Box; said: TablesSaid },
): Map<string, readonly RegionDelta[]> {
  const own = varies.masters.map((master) => {
    const there: CastPlan = { ...plan, master, names: styleNames(plan.project, master) };
    const lines: LineMetrics = lineMetrics(master, box, plan.project.unitsPerEm);
    const tables: Partial<Record<StatedTable, object>> = {
      'OS/2': os2.read(os2Table(there, lines, { said: said.os2, context: 0 })),
      post: post.read(postTable(there)),
      hhea: { ...caretOf(master, varies.masters), ...statedFields<Hhea>(master.info, 'hhea') },
      vhea: statedFields<Vhea>(master.info, 'vhea'),
    };
    return (table: StatedTable, field: string) => (tables[table] as Record<string, number | undefined>)[field];
  });
  const vertical = isVertical(plan, said);
  const out = new Map<string, readonly RegionDelta[]>();
  for (const [tag, [table, field]] of Object.entries(VARYING_FIELDS)) {
    const values = own.map((at) => at(table, field));
    if ((table === 'vhea' && !vertical) || values.some((v) => v === undefined)) continue;
    const { deltas } = varies.of(values as number[]);
    if (deltas.some((d) => d.delta !== 0)) out.set(tag, deltas);
  }
  return out;
}

/** Axes and named places on them: the axis’s own stops, else what the instances are called along it. */
function styleOf(plan: CastPlan, varies: Varying, names: Names): Style {
  const { axes } = varies;
  const values = axes.flatMap((axis, i) => {
    const stops = axis.stops && axis.stops.length > 0 ? axis.stops : namedStops(plan, varies, axis);
    return stops.map((s) => ({
      nameID: names.of(s.name),
      flags:
        (s.elidable ? STYLE_FLAGS.ElidableAxisValueName : 0) | (s.older ? STYLE_FLAGS.OlderSiblingFontAttribute : 0),
      places: [
        {
          axis: i,
          numbers:
            s.minimum !== undefined && s.maximum !== undefined
              ? [s.value, s.minimum, s.maximum]
              : s.linked !== undefined
                ? [s.value, s.linked]
                : [s.value],
        },
      ],
    }));
  });
  return {
    axes: axes.map((a, i) => ({ tag: a.tag, nameID: names.of(a.name, a.labels), ordering: i })),
    values,
    elidedFallbackNameID: NAME_ID.subfamily,
  };
}

type Stop = NonNullable<Axis['stops']>[number];

/** Stops of an axis from the instances that stand at the defaults of all others: each is called what they are. */
function namedStops({ project }: CastPlan, { axes }: Varying, axis: Axis): Stop[] {
  const usual = (a: Axis) => designEnds(a).usual;
  const along = project.instances.flatMap(({ name, place }) => {
    const whole = wholePlace(axes, place);
    const elsewhere = axes.some((a) => a !== axis && Math.abs(whole[a.tag]! - usual(a)) > 1e-6);
    return elsewhere ? [] : [{ name, value: toUser(axis, whole[axis.tag]!) }];
  });
  const isDefault = (v: number) => Math.abs(v - axis.default) < 1e-6;
  const stops = along.map(({ name, value }): Stop => {
    // The default of all but the first axis says nothing of it: Regular is a weight, no width.
    const own = isDefault(value) && axis !== axes[0] ? 'Normal' : name;
    return { name: own, value, elidable: isDefault(value), older: false };
  });
  if (!stops.some((s) => isDefault(s.value)))
    stops.push({ name: axis === axes[0] ? 'Regular' : 'Normal', value: axis.default, elidable: true, older: false });
  const bold = axis.tag === 'wght' ? stops.find((s) => Math.abs(s.value - 700) < 1e-6) : undefined;
  return stops
    .map((s) => (bold && Math.abs(s.value - 400) < 1e-6 ? { ...s, linked: bold.value } : s))
    .sort((a, b) => a.value - b.value);
}
