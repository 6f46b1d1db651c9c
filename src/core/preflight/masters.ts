import { addTo } from '../base/grouping';
import { drawingsAt } from '../project/drawingsAt';
import type { Drawing, Glyph, Master, Project, ZoneKey } from '../project/model';
import { ZONE_KEYS } from '../project/model';
import { designEnds, placeInWords, wholePlace } from '../project/places';
import { defaultMaster, drawingOf, isBlank, isEmptyDrawing } from '../project/queries';
import { sameStructure } from '../project/structure';
import { waypointId } from '../project/waypoints';
import { agreementOf } from '../variation/agreement';
import { brokenGlyph, type Design } from '../variation/between';
import { canBeMended } from '../variation/mending';
import { untangled } from '../variation/untangling';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';

export const MASTER_KINDS: readonly KindFacts[] = [
  {
    kind: 'masters/disagree',
    family: 'masters',
    title: 'Masters that disagree',
    severity: 'error',
    why: 'Between masters whose contours or points differ in number nothing can be drawn: the glyph does not vary.',
  },
  {
    kind: 'masters/suspicious',
    family: 'masters',
    title: 'Masters that agree in number only',
    severity: 'attention',
    why: 'Points agree in number, but not in place: between the masters the shape turns inside out or collapses.',
  },
  {
    kind: 'masters/anchors',
    family: 'masters',
    title: 'Anchors that masters lack',
    severity: 'attention',
    why: 'Marks stand right in one master and wrong in another, and between them nowhere.',
  },
  {
    kind: 'masters/missing',
    family: 'masters',
    title: 'Drawings that masters lack',
    severity: 'error',
    why: 'The glyph is drawn in one master and empty in another; in fonts of that one it is blank.',
  },
  {
    kind: 'masters/kink',
    family: 'masters',
    title: 'Kinks between masters',
    severity: 'attention',
    why: 'The point is smooth in every master and breaks between them, since it slides along its tangent.',
    amount: { label: 'Breaks by', unit: 'degrees', usual: 3, least: 2, most: 30 },
  },
  {
    kind: 'masters/crossing',
    family: 'masters',
    title: 'Outlines that cross between masters',
    severity: 'attention',
    why: 'In no master do they cross; on the way the shape is tangled.',
  },
  {
    kind: 'masters/lump',
    family: 'masters',
    title: 'Lumps between masters',
    severity: 'attention',
    why: 'A stem swells or a counter closes between masters that both are right.',
  },
  {
    kind: 'masters/heights',
    family: 'masters',
    title: 'Heights that go both ways',
    severity: 'attention',
    why: 'From master to master a height rises and falls again: instances between jump.',
    amount: { label: 'By more than', unit: 'thousandths of the em', usual: 8, least: 1, most: 200 },
  },
  {
    kind: 'masters/instance',
    family: 'masters',
    title: 'Instances beyond the axes',
    severity: 'attention',
    why: 'An instance stands where no axis leads; it is made at the end of the axis.',
  },
  {
    kind: 'masters/kerning',
    family: 'masters',
    title: 'Masters without kerning',
    severity: 'attention',
    why: 'Other masters are kerned; the kerning of instances fades towards this one.',
  },
  {
    kind: 'masters/waypoint',
    family: 'masters',
    title: 'Waypoints that do nothing',
    severity: 'note',
    why: 'The waypoint is drawn as the glyph lies there anyway. It costs bytes, and every change must be made in it as well.',
    amount: { label: 'Within', unit: 'thousandths of the em', usual: 1, least: 0.1, most: 10 },
  },
];

/** What keeps the masters of a glyph from agreeing, and drawings that some lack. */
export function agreementFindings(project: Project, glyph: Glyph): Finding[] {
  if (project.masters.length < 2) return [];
  const empty = project.masters.filter((m) => isEmptyDrawing(drawingOf(glyph, m.id)));
  if (empty.length > 0) {
    if (empty.length === project.masters.length || isBlank(glyph) || isSparse(project, glyph)) return [];
    const drawn = project.masters.find((m) => !empty.includes(m))!;
    return [
      finding('masters/missing', `It is drawn in ${drawn.name} and not in ${empty.map((m) => m.name).join(', ')}.`, {
        glyph: glyph.id,
        masters: empty.map((m) => m.id),
        bad: empty.length,
      }),
    ];
  }
  const faults = agreementOf(project, glyph);
  if (faults.length === 0) return [];
  const kindOf = (f: (typeof faults)[number]) =>
    f.kind === 'anchors' ? 'masters/anchors' : f.suspicion ? 'masters/suspicious' : 'masters/disagree';
  const kinds = [...new Set(faults.map(kindOf))];
  const mends = faults.some((f) => f.kind !== 'anchors') && canBeMended(project, glyph);
  return kinds.map((kind) => {
    const own = faults.filter((f) => kindOf(f) === kind);
    const masters = [
      ...new Set(own.map((f) => ('master' in f.at ? f.at.master : waypointId(glyph.waypoints[f.at.waypoint]!.place)))),
    ];
    const more = own.length > 1 ? ` And ${own.length - 1} more.` : '';
    return finding(kind, `${own[0]!.reason}${more}`, {
      glyph: glyph.id,
      masters,
      bad: own.length,
      ...(own[0]!.contour !== undefined && { contour: own[0]!.contour - 1 }),
      mends:
        kind !== 'masters/anchors' && mends
          ? [{ edit: 'mendAgreement', args: { glyphs: [glyph.id] }, title: 'Bring the masters to agree' }]
          : [],
    });
  });
}

/** Has a glyph no drawing at all where a source has none: it varies by those it has. */
const isSparse = (project: Project, glyph: Glyph): boolean =>
  glyph.drawings[defaultMaster(project).id] !== undefined &&
  project.masters.some((m) => glyph.drawings[m.id] === undefined);

/** What breaks, crosses or swells between masters of a glyph. */
export function betweenFindings(project: Project, glyph: Glyph, designs: Design[], amounts: Amounts): Finding[] {
  if (project.masters.length < 2) return [];
  const broken = brokenGlyph(project, glyph, designs);
  const out: Finding[] = [];
  const main = defaultMaster(project);
  const where = (place: Parameters<typeof placeInWords>[1]) => placeInWords(project.axes, place);
  for (const k of broken?.kinks ?? []) {
    if (k.degrees < amounts('masters/kink')) continue;
    const p = drawingOf(glyph, main.id).contours[k.contour]?.points[k.point];
    out.push(
      finding('masters/kink', `A smooth point breaks by ${Math.round(k.degrees * 10) / 10}° at ${where(k.place)}.`, {
        glyph: glyph.id,
        masters: [main.id],
        contour: k.contour,
        point: k.point,
        spots: p ? [p] : [],
        bad: k.degrees * k.units,
        mends:
          k.slide === undefined
            ? []
            : [{ edit: 'mendKinks', args: { glyphs: [glyph.id] }, title: 'Slide it along its tangent' }],
      }),
    );
  }
  const [tangle] = broken?.tangles ?? [];
  if (tangle) {
    const [a, b] = tangle.contours;
    const reason = a === b ? `Contour ${a + 1} crosses itself` : `Contours ${a + 1} and ${b + 1} cross`;
    out.push(
      finding('masters/crossing', `${reason} at ${where(tangle.place)}, though in no master.`, {
        glyph: glyph.id,
        masters: [main.id],
        contour: a,
        spots: [tangle.at],
        bad: tangle.units,
        mends: untangled(project, glyph)
          ? [{ edit: 'mendTangles', args: { glyphs: [glyph.id] }, title: 'Begin the contour elsewhere' }]
          : [],
      }),
    );
  }
  const [lump] = broken?.lumps ?? [];
  if (lump)
    out.push(
      finding(
        'masters/lump',
        `${lump.of === 'ink' ? 'A stem' : 'A counter'} is ${Math.round(Math.abs(lump.units))} units ${lump.units > 0 ? 'wider' : 'narrower'} at ${where(lump.place)} than in both masters beside.`,
        {
          glyph: glyph.id,
          masters: [main.id],
          spots: [lump.at],
          bad: Math.abs(lump.units),
        },
      ),
    );
  out.push(...idleWaypoints(project, glyph, amounts));
  return out;
}

function idleWaypoints(project: Project, glyph: Glyph, amounts: Amounts): Finding[] {
  const most = (amounts('masters/waypoint') * project.unitsPerEm) / 1000;
  return glyph.waypoints.flatMap((w) => {
    const without: Glyph = { ...glyph, waypoints: glyph.waypoints.filter((o) => o !== w) };
    const there = drawingsAt({ ...project, glyphs: { ...project.glyphs, [glyph.id]: without } }, w.place)(glyph.id);
    if (!there || !sameStructure([there, w.drawing]) || apart(there, w.drawing) > most) return [];
    return [
      finding(
        'masters/waypoint',
        `Its waypoint at ${placeInWords(project.axes, w.place)} is drawn as the glyph lies there anyway.`,
        {
          glyph: glyph.id,
          masters: [waypointId(w.place)],
          mends: [{ edit: 'removeWaypoint', args: { glyph: glyph.id, place: w.place }, title: 'Take it away' }],
        },
      ),
    ];
  });
}

const apart = (a: Drawing, b: Drawing): number =>
  Math.max(
    Math.abs(a.advance - b.advance),
    ...a.contours.flatMap((c, i) =>
      c.points.map((p, k) => Math.hypot(p.x - b.contours[i]!.points[k]!.x, p.y - b.contours[i]!.points[k]!.y)),
    ),
    ...a.components.map((c, i) =>
      Math.hypot(c.transform[4] - b.components[i]!.transform[4], c.transform[5] - b.components[i]!.transform[5]),
    ),
  );

const HEIGHT: Record<ZoneKey, string> = {
  baseline: 'baseline',
  xHeight: 'x-height',
  capHeight: 'cap height',
  ascender: 'ascender',
  descender: 'descender',
};

/** What is wrong with masters and instances themselves. */
export function familyFindings(project: Project, amounts: Amounts): Finding[] {
  const out: Finding[] = [];
  const { masters, axes } = project;
  const most = (amounts('masters/heights') * project.unitsPerEm) / 1000;
  for (const { tag, name } of axes) {
    const rows = new Map<string, Master[]>();
    for (const m of masters) {
      const at = wholePlace(axes, m.place);
      const key = axes.map((x) => (x.tag === tag ? '' : at[x.tag])).join(' ');
      addTo(rows, key, m);
    }
    for (const row of rows.values()) {
      row.sort((a, b) => wholePlace(axes, a.place)[tag]! - wholePlace(axes, b.place)[tag]!);
      for (const key of ZONE_KEYS)
        for (let i = 1; i < row.length - 1; i++) {
          const [a, m, b] = [row[i - 1]!, row[i]!, row[i + 1]!].map((o) => o.zones[key].position) as [
            number,
            number,
            number,
          ];
          const off = Math.max(m - Math.max(a, b), Math.min(a, b) - m);
          if (off <= most) continue;
          out.push(
            finding(
              'masters/heights',
              `Along ${name} the ${HEIGHT[key]} is ${a}, ${m} and ${b}: ${row[i]!.name} stands out.`,
              { masters: [row[i]!.id], bad: off },
            ),
          );
        }
    }
  }
  project.instances.forEach((instance) => {
    const beyond = axes.find((x) => {
      const v = instance.place[x.tag];
      const { least, most: end } = designEnds(x);
      return v !== undefined && (v < Math.min(least, end) - 1e-6 || v > Math.max(least, end) + 1e-6);
    });
    if (beyond) out.push(finding('masters/instance', `${instance.name} stands beyond the end of ${beyond.name}.`));
  });
  const kerned = masters.filter((m) => Object.keys(m.kerning).length > 0);
  if (kerned.length > 0)
    for (const m of masters)
      if (!kerned.includes(m) && Math.max(...kerned.map((k) => Object.keys(k.kerning).length)) >= 20)
        out.push(
          finding(
            'masters/kerning',
            `${m.name} has no kerning; ${kerned[0]!.name} has ${Object.keys(kerned[0]!.kerning).length} pairs.`,
            { masters: [m.id] },
          ),
        );
  return out;
}
