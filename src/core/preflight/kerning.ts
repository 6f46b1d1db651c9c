import { addTo } from '../base/grouping';
import { shownNumber } from '../base/notation';
import { kerningFaults } from '../kerning/faults';
import { groupsByGlyph, kerningOf, membersOf, sideName } from '../project/kerningLookup';
import type { GlyphId, Master, Project } from '../project/model';
import { pairKey, pairSides } from '../project/pairs';
import { wholePlace } from '../project/places';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';

export const KERNING_KINDS: readonly KindFacts[] = [
  {
    kind: 'kerning/needless',
    perMaster: true,
    family: 'kerning',
    title: 'Pairs that their groups serve',
    severity: 'note',
    why: 'The pair has the value that it would have anyway. It does nothing now, and stands in the way when the group’s value changes.',
  },
  {
    kind: 'kerning/small',
    perMaster: true,
    family: 'kerning',
    title: 'Values too small to see',
    severity: 'note',
    why: 'Nobody sees a unit or two between letters; the font carries them all the same.',
  },
  {
    kind: 'kerning/missing',
    perMaster: true,
    family: 'kerning',
    title: 'Pairs of what is gone',
    severity: 'attention',
    why: 'The pair names a glyph or group that is not in the project; it is left out of fonts.',
  },
  {
    kind: 'kerning/lonely',
    family: 'kerning',
    title: 'Groups of one glyph without a value',
    severity: 'note',
    why: 'A group serves where several glyphs share values.',
  },
  {
    kind: 'kerning/contradiction',
    oneByOne: true,
    family: 'kerning',
    title: 'Values that contradict each other',
    severity: 'attention',
    why: 'The glyph has a value with the group, and the group with the glyph another: which of them holds is a matter of order, not of intent.',
    amount: { label: 'By at least', unit: 'units', usual: 20, least: 1, most: 500 },
  },
  {
    kind: 'kerning/touching',
    family: 'kerning',
    title: 'Kerned pairs that touch',
    severity: 'attention',
    why: 'The value draws the letters so close that their ink meets: a blot in small print.',
    amount: { label: 'Overlap by more than', unit: 'thousandths of the em', usual: 2, least: 0, most: 100 },
  },
  {
    kind: 'kerning/inOneMaster',
    family: 'kerning',
    title: 'Pairs that a master lacks',
    severity: 'attention',
    why: 'The pair has a value in some masters only; in the others it stands at nothing, and fonts between get a part of it.',
    amount: { label: 'Of at least', unit: 'units', usual: 10, least: 1, most: 500 },
  },
  {
    kind: 'kerning/odd',
    family: 'kerning',
    title: 'Values far from those of other masters',
    severity: 'attention',
    why: 'Between its neighbours on the axis the value leaps: mostly a sign or a figure that slipped.',
    amount: { label: 'By more than', unit: 'units', usual: 60, least: 5, most: 2000 },
  },
];

/** What is wrong with the kerning of all masters. */
export function kerningFindings(project: Project, amounts: Amounts): Finding[] {
  return [
    ...project.masters.flatMap((m, i) =>
      kerningFaults(project, m)
        // Groups are the same in all masters.
        .filter((f) => i === 0 || f.kind !== 'kerning/lonely')
        .map((f) =>
          finding(f.kind, f.reason, {
            masters: f.kind === 'kerning/lonely' ? [] : [m.id],
            ...(f.mend && { mends: [{ edit: f.mend.edit, args: f.mend.args, title: f.mend.title }] }),
          }),
        ),
    ),
    ...contradictions(project, amounts('kerning/contradiction')),
    ...acrossMasters(project, amounts),
  ];
}

/** Pairs of glyphs for which a value with one group and a value with the other both hold, and differ; told once for two groups. */
function contradictions(project: Project, least: number): Finding[] {
  const groups = groupsByGlyph(project);
  const out = new Map<string, { finding: Finding; pairs: Set<string> }>();
  for (const master of project.masters)
    for (const [key, value] of Object.entries(master.kerning)) {
      const sides = pairSides(key);
      if (sides?.[0].kind !== 'glyph' || sides[1].kind !== 'group') continue;
      const group = groups.first.get(sides[0].id);
      if (!group) continue;
      for (const second of membersOf(project, sides[1])) {
        const to = { kind: 'glyph' as const, id: second };
        const other = master.kerning[pairKey({ kind: 'group', id: group.id }, to)];
        if (
          other === undefined ||
          master.kerning[pairKey(sides[0], to)] !== undefined ||
          Math.abs(other - value) < least
        )
          continue;
        const id = `${group.id} ${sides[1].id}`;
        const held = out.get(id);
        if (held) {
          held.pairs.add(`${sides[0].id} ${second}`);
          continue;
        }
        const [a, b] = [project.glyphs[sides[0].id]?.name, project.glyphs[second]?.name];
        const told = finding(
          'kerning/contradiction',
          `${a} ${b}: ${a} with the ${sideName(project, sides[1])} has ${shownNumber(value)}, the ${group.name} group with ${b} ${shownNumber(other)}.`,
          {
            glyph: sides[0].id,
            others: [second],
            masters: [master.id],
            bad: Math.abs(other - value),
            mends: [value, other].map((v) => ({
              edit: 'setPair',
              args: { master: master.id, first: sides[0], second: to, value: v },
              title: `Give the pair ${shownNumber(v)} of its own`,
            })),
          },
        );
        out.set(id, { finding: told, pairs: new Set([`${sides[0].id} ${second}`]) });
      }
    }
  return [...out.values()].map(({ finding: f, pairs }) =>
    pairs.size === 1 ? f : { ...f, reason: `${f.reason} So with ${pairs.size - 1} more of these groups.` },
  );
}

/** Pairs that some masters lack, and values that leap between those of their neighbours. */
function acrossMasters(project: Project, amounts: Amounts): Finding[] {
  const { masters } = project;
  if (masters.length < 2) return [];
  const out: Finding[] = [];
  const rows = rowsOf(project);
  const keys = new Set(masters.flatMap((m) => Object.keys(m.kerning)));
  const kerned = masters.filter((m) => Object.keys(m.kerning).length > 0);
  const [least, leap] = [amounts('kerning/inOneMaster'), amounts('kerning/odd')];
  for (const key of keys) {
    const sides = pairSides(key);
    if (!sides || sides.some((s) => membersOf(project, s).length === 0)) continue;
    const [first, second] = sides.map((s) => membersOf(project, s)[0]!) as [GlyphId, GlyphId];
    const has = kerned.filter((m) => m.kerning[key] !== undefined);
    const strongest = [...has].sort((a, b) => Math.abs(b.kerning[key]!) - Math.abs(a.kerning[key]!))[0]!;
    const lacking = kerned.filter(
      (m) => m.kerning[key] === undefined && kerningOf(project, m, first, second, key) === undefined,
    );
    const name = `${sideName(project, sides[0])} ${sideName(project, sides[1])}`;
    if (lacking.length > 0 && Math.abs(strongest.kerning[key]!) >= least) {
      out.push(
        finding(
          'kerning/inOneMaster',
          `${name} has ${shownNumber(strongest.kerning[key]!)} in ${strongest.name} and nothing in ${lacking.map((m) => m.name).join(', ')}.`,
          {
            glyph: first,
            others: [second],
            masters: lacking.map((m) => m.id),
            bad: Math.abs(strongest.kerning[key]!),
          },
        ),
      );
      continue;
    }
    for (const [before, m, after] of rows) {
      const [a, v, b] = [before, m, after].map((one) => one.kerning[key]);
      if (a === undefined || v === undefined || b === undefined) continue;
      const off = Math.max(v - Math.max(a, b), Math.min(a, b) - v);
      if (off <= leap) continue;
      out.push(
        finding(
          'kerning/odd',
          `${name} has ${shownNumber(v)} in ${m.name}, between ${shownNumber(a)} and ${shownNumber(b)} in its neighbours.`,
          {
            glyph: first,
            others: [second],
            masters: [m.id],
            bad: off,
            mends: [
              {
                edit: 'setPair',
                args: { master: m.id, first: sides[0], second: sides[1], value: Math.round((a + b) / 2) },
                title: `Give it ${shownNumber(Math.round((a + b) / 2))}`,
              },
            ],
          },
        ),
      );
      break;
    }
  }
  return out;
}

/** Every three masters that follow one another along one axis, the others being the same. */
function rowsOf({ masters, axes }: Project): (readonly [Master, Master, Master])[] {
  const places = new Map(masters.map((m) => [m.id, wholePlace(axes, m.place)]));
  return axes.flatMap(({ tag }) => {
    const rows = new Map<string, Master[]>();
    for (const m of masters) {
      const key = axes.map((x) => (x.tag === tag ? '' : places.get(m.id)![x.tag])).join(' ');
      addTo(rows, key, m);
    }
    return [...rows.values()].flatMap((row) => {
      row.sort((a, b) => places.get(a.id)![tag]! - places.get(b.id)![tag]!);
      return row.slice(2).map((m, i) => [row[i]!, row[i + 1]!, m] as const);
    });
  });
}
