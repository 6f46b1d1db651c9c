import { addTo } from '../base/grouping';
import { namesOfThing, thingsOf } from '../casting/things';
import { WEIGHTS, WIDTHS } from '../fontfacts/names';
import { longNames } from '../fontnames/length';
import { plannedFaults } from '../fontnames/planned';
import { masterFact } from '../project/masterFacts';
import type { Project } from '../project/model';
import { type Place, wholePlace } from '../project/places';
import { type Finding, finding, type KindFacts } from './finding';

export const NAME_KINDS: readonly KindFacts[] = [
  {
    kind: 'names/family',
    family: 'names',
    title: 'Family names',
    severity: 'error',
    why: 'A font without a family name cannot be chosen in any menu.',
  },
  {
    kind: 'names/clash',
    family: 'names',
    title: 'Names that clash',
    severity: 'error',
    why: 'Two fonts of one name are one font to programs: whichever was installed last is shown for both.',
  },
  {
    kind: 'names/long',
    family: 'names',
    title: 'Names too long',
    severity: 'attention',
    why: 'Older programs cut names or leave the font out of their menus.',
  },
  {
    kind: 'names/class',
    family: 'names',
    title: 'Weight and width classes',
    severity: 'attention',
    why: 'Menus are ordered, and missing weights replaced, by the class, not by the name.',
  },
  {
    kind: 'names/italic',
    family: 'names',
    title: 'Slope and name',
    severity: 'attention',
    why: 'A font that leans and is not called italic, or the other way round, is slanted once more by programs.',
  },
  {
    kind: 'names/vendor',
    family: 'names',
    title: 'Vendor tag',
    severity: 'note',
    why: 'Four characters by which systems tell whose font it is.',
  },
  {
    kind: 'names/version',
    family: 'names',
    title: 'Version',
    severity: 'note',
    why: 'Installers tell a newer file from an older one by the version only.',
  },
  {
    kind: 'names/rights',
    family: 'names',
    title: 'Rights',
    severity: 'note',
    why: 'Whoever finds the file should see whose it is and what may be done with it.',
  },
];

/** What is wrong with the names and classes of the fonts that the project would make. */
export function nameFindings(project: Project): Finding[] {
  const out: Finding[] = [];
  const { family } = project;
  if (family.name.trim() === '') out.push(finding('names/family', 'The family has no name.'));
  const planned = new Map<string, NonNullable<ReturnType<typeof namesOfThing>>['names']>();
  const { masters, instances } = thingsOf(project);
  // Where there are instances, they are the fonts.
  for (const thing of instances.length > 0 ? instances : masters) {
    const told = namesOfThing(project, thing);
    if (!told) continue;
    const label = `${told.names.family} ${told.names.style}`;
    planned.set(planned.has(label) ? `${label} (${planned.size + 1})` : label, told.names);
  }
  for (const [label, sentences] of Object.entries(plannedFaults(Object.fromEntries(planned))))
    for (const sentence of sentences) out.push(finding('names/clash', `${label}: ${sentence}`));
  for (const [label, names] of planned)
    for (const { reason } of longNames(names)) out.push(finding('names/long', `${label}: ${reason}`));
  for (const m of project.masters) {
    const meant = WEIGHTS.find(([word]) => word.test(m.name))?.[1];
    const set = masterFact(m, 'weightClass');
    if (meant !== undefined && set !== undefined && Math.abs(meant - set) >= 100)
      out.push(
        finding('names/class', `${m.name} has the weight class ${set}; ${meant} is usual.`, {
          masters: [m.id],
          mends: [
            {
              edit: 'setMasterFact',
              args: { master: m.id, fact: 'weightClass' },
              title: 'Let it follow from the name',
            },
          ],
        }),
      );
    const width = WIDTHS.find(([word]) => word.test(m.name))?.[1];
    const setWidth = masterFact(m, 'widthClass');
    if (width !== undefined && setWidth !== undefined && width !== setWidth)
      out.push(
        finding('names/class', `${m.name} has the width class ${setWidth}; ${width} is usual.`, {
          masters: [m.id],
          mends: [
            { edit: 'setMasterFact', args: { master: m.id, fact: 'widthClass' }, title: 'Let it follow from the name' },
          ],
        }),
      );
  }
  out.push(...slopes(project));
  const classes = new Map<string, string[]>();
  for (const m of project.masters) {
    const weight = masterFact(m, 'weightClass') ?? WEIGHTS.find(([word]) => word.test(m.name))?.[1] ?? 400;
    const width = masterFact(m, 'widthClass') ?? WIDTHS.find(([word]) => word.test(m.name))?.[1] ?? 5;
    const key = `${weight} ${width} ${m.italicAngle !== 0}`;
    addTo(classes, key, m.name);
  }
  for (const same of classes.values())
    if (
      instances.length === 0 &&
      same.length > 1 &&
      project.axes.every((x) => x.tag === 'wght' || x.tag === 'wdth') &&
      project.axes.length > 0
    )
      out.push(finding('names/class', `${same.join(' and ')} have the same weight and width class.`));
  if (!family.vendor?.trim()) out.push(finding('names/vendor', 'There is no vendor tag.'));
  else if (family.vendor.length > 4 || /[^\x20-\x7e]/.test(family.vendor))
    out.push(
      finding('names/vendor', `“${family.vendor}” is no vendor tag: four characters of ASCII at most.`, { bad: 5 }),
    );
  if (family.versionMajor === 0 && family.versionMinor === 0)
    out.push(finding('names/version', 'The version is 0.000.'));
  const rights = (['copyright', 'licence'] as const).filter((key) => !family[key]?.trim());
  if (rights.length > 0)
    out.push(
      finding(
        'names/rights',
        `There is no ${rights.map((r) => (r === 'licence' ? 'licence' : 'copyright notice')).join(', and no ')}.`,
        { bad: rights.length },
      ),
    );
  if (family.licenceURL && !/^https?:\/\//.test(family.licenceURL))
    out.push(finding('names/rights', `The licence’s address “${family.licenceURL}” is no web address.`, { bad: 3 }));
  return out;
}

/** Fonts that lean and do not say so, or say so and stand upright. Where there are instances, they are the fonts, and lean as the master that is nearest. */
function slopes(project: Project): Finding[] {
  const { family, axes, masters, instances } = project;
  if (axes.some((x) => x.tag === 'slnt' || x.tag === 'ital')) return [];
  const spans = axes.map((x) => {
    const values = masters.map((m) => wholePlace(axes, m.place)[x.tag]!);
    return { tag: x.tag, span: Math.max(...values) - Math.min(...values) || 1 };
  });
  const away = (a: Place, b: Place): number => {
    const [p, q] = [wholePlace(axes, a), wholePlace(axes, b)];
    return spans.reduce((sum, { tag, span }) => sum + Math.abs(p[tag]! - q[tag]!) / span, 0);
  };
  const fonts =
    instances.length === 0
      ? masters.map((m) => ({ name: m.name, master: m }))
      : instances.map((i) => ({
          name: i.name,
          master: masters.reduce((best, m) => (away(m.place, i.place) < away(best.place, i.place) ? m : best)),
        }));
  return fonts.flatMap(({ name, master }) => {
    const leans = master.italicAngle !== 0;
    const said = /\b(italic|oblique)\b/i.test(`${family.name} ${name}`);
    if (leans === said) return [];
    const reason = leans
      ? `${name} leans by ${Math.round(Math.abs(master.italicAngle) * 10) / 10}°, and its name does not say italic.`
      : `${name} is called italic, and its angle is 0°.`;
    return [finding('names/italic', reason, { masters: [master.id] })];
  });
}
