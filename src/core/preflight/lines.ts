import { lineMetrics } from '../casting/metrics';
import { emptyBox } from '../geometry/curve';
import type { Glyph, Project } from '../project/model';
import { ZONE_KEYS } from '../project/model';
import { overshootFault } from '../project/zoneEdits';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';

/** The lowest and highest place of a glyph in each master; undefined where it is not drawn. */
export type EndsOf = (glyph: Glyph) => readonly (readonly [number, number] | undefined)[];

export const LINE_KINDS: readonly KindFacts[] = [
  {
    kind: 'lines/clipped',
    perMaster: true,
    family: 'lines',
    title: 'Glyphs that are cut off',
    severity: 'attention',
    why: 'Some programs draw nothing above or below the heights that the font states for its lines: accents on capitals lose their tops.',
  },
  {
    kind: 'lines/differ',
    family: 'lines',
    title: 'Line metrics that differ',
    severity: 'attention',
    why: 'A word in another weight moves the whole line up or down.',
  },
  {
    kind: 'lines/apart',
    perMaster: true,
    family: 'lines',
    title: 'Line metrics at odds',
    severity: 'attention',
    why: 'Systems read line heights from different tables; where these differ, text is set otherwise on each.',
  },
  {
    kind: 'lines/sum',
    perMaster: true,
    family: 'lines',
    title: 'Lines very tight or very open',
    severity: 'note',
    why: 'Ascender, descender and gap are what most programs set lines by when nothing else is said.',
    amount: { label: 'Beyond', unit: 'percent of the em', usual: 180, least: 100, most: 400 },
  },
  {
    kind: 'lines/sign',
    perMaster: true,
    family: 'lines',
    title: 'Overshoots on the wrong side',
    severity: 'error',
    why: 'Rounds stand below the baseline and above the heights. An overshoot with the other sign makes hinting pull them the wrong way.',
  },
  {
    kind: 'lines/order',
    perMaster: true,
    family: 'lines',
    title: 'Heights out of order',
    severity: 'attention',
    why: 'Descender, baseline, x-height, cap height: fonts whose heights stand in another order are drawn wrongly by programs that trust them.',
  },
];

/** What is wrong with the heights that lines of text are set by. */
export function lineFindings(project: Project, glyphs: readonly Glyph[], ends: EndsOf, amounts: Amounts): Finding[] {
  const out: Finding[] = [];
  const em = project.unitsPerEm;
  const all = project.masters.map((master, i) => ({
    master,
    ends: glyphs.flatMap((g) => {
      const h = g.cast ? ends(g)[i] : undefined;
      return h ? [{ glyph: g, low: h[0], high: h[1] }] : [];
    }),
  }));
  const box = emptyBox();
  for (const { ends } of all)
    for (const e of ends) {
      box.yMin = Math.min(box.yMin, e.low);
      box.yMax = Math.max(box.yMax, e.high);
      box.xMin = 0;
      box.xMax = em;
    }
  for (const { master, ends } of all) {
    const m = lineMetrics(master, box, em);
    const above = ends.filter((e) => e.high > m.winAscent + 0.5).sort((a, b) => b.high - a.high);
    const below = ends.filter((e) => -e.low > m.winDescent + 0.5).sort((a, b) => a.low - b.low);
    const cut = (list: typeof ends, of: string, field: 'winAscent' | 'winDescent', to: number) => {
      if (list.length === 0) return;
      out.push(
        finding(
          'lines/clipped',
          `${list.length === 1 ? `${list[0]!.glyph.name} reaches` : `${list.length} glyphs reach`} ${of}, ${list[0]!.glyph.name} to ${Math.round(field === 'winAscent' ? list[0]!.high : list[0]!.low)}.`,
          {
            masters: [master.id],
            others: list.map((e) => e.glyph.id),
            bad: list.length,
            mends: [
              { edit: 'setMasterFact', args: { master: master.id, fact: field, value: to }, title: `Set it to ${to}` },
            ],
          },
        ),
      );
    };
    cut(above, `above the line’s top, ${m.winAscent}`, 'winAscent', Math.ceil(box.yMax));
    cut(below, `below the line’s foot, ${-m.winDescent}`, 'winDescent', Math.ceil(-box.yMin));
    const sum = ((m.hheaAscender - m.hheaDescender + m.hheaLineGap) / em) * 100;
    if (sum > amounts('lines/sum') || sum < 90)
      out.push(
        finding('lines/sum', `Lines stand ${Math.round(sum)} % of the em apart.`, {
          masters: [master.id],
          bad: Math.abs(sum - 120),
        }),
      );
    const typo = m.typoAscender - m.typoDescender + m.typoLineGap;
    const hhea = m.hheaAscender - m.hheaDescender + m.hheaLineGap;
    if (Math.abs(typo - hhea) > em / 100)
      out.push(
        finding('lines/apart', `OS/2 sets lines ${typo} apart, hhea ${hhea}.`, {
          masters: [master.id],
          bad: Math.abs(typo - hhea),
        }),
      );
    for (const key of ZONE_KEYS) {
      const { position, overshoot, name } = master.zones[key];
      if (overshootFault(key, overshoot) === undefined) continue;
      out.push(
        finding(
          'lines/sign',
          `The overshoot of the ${name.toLowerCase()} at ${position} is ${overshoot > 0 ? '+' : ''}${overshoot}, on the inner side.`,
          {
            masters: [master.id],
            bad: Math.abs(overshoot),
            mends: [
              {
                edit: 'setZone',
                args: { master: master.id, zone: key, change: { overshoot: -overshoot } },
                title: `Make it ${-overshoot}`,
              },
            ],
          },
        ),
      );
    }
    const { baseline, xHeight, capHeight, descender, ascender } = master.zones;
    const letters = ends.length > 0;
    if (
      letters &&
      !(
        descender.position < baseline.position &&
        baseline.position < xHeight.position &&
        xHeight.position <= Math.max(capHeight.position, ascender.position)
      )
    )
      out.push(
        finding(
          'lines/order',
          `Descender ${descender.position}, baseline ${baseline.position}, x-height ${xHeight.position}, cap height ${capHeight.position} do not rise in this order.`,
          { masters: [master.id] },
        ),
      );
  }
  const [first] = project.masters;
  const different = project.masters.filter((m) => {
    const [a, b] = [lineMetrics(first!, box, em), lineMetrics(m, box, em)];
    return a.hheaAscender !== b.hheaAscender || a.hheaDescender !== b.hheaDescender || a.hheaLineGap !== b.hheaLineGap;
  });
  if (different.length > 0)
    out.push(
      finding(
        'lines/differ',
        `Lines of ${different.map((m) => m.name).join(', ')} stand otherwise than those of ${first!.name}.`,
        {
          masters: different.map((m) => m.id),
          bad: different.length,
        },
      ),
    );
  return out;
}
