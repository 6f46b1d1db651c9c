import { numberOfText } from '../base/fingerprint';
import { sameItems } from '../base/sharing';
import type { Glyph, Master, Project } from '../project/model';
import { pairSides } from '../project/pairs';

/**
 * What the positions of a font (`GPOS`) were made from: kerning, groups, anchors, rules, the kinds and the order of glyphs. A font
 * that is opened brings its own table; it is carried as long as this number is the one that it was read with, since nothing that it
 * says is said otherwise. Ids and the order of records, which change with a file, do not count.
 */
export function positionsPrint(project: Project): number {
  const { masters } = project;
  const words = masters.map((m) => kerningPrint(project, m));
  for (const id of project.glyphOrder) {
    const glyph = project.glyphs[id]!;
    if (glyph.cast) words.push(...masters.map((m) => anchorsPrint(glyph, m.id)));
  }
  return numberOfText(words.join(' '), rulesPrint(project));
}

type Ruled = { of: readonly unknown[]; print: number };
const ruled = new WeakMap<Project['features'], Ruled>();

/** The same of rules and of what the whole family has; a font may bring a million letters of rules. */
function rulesPrint({ features, masters, unitsPerEm, axes, settings }: Project): number {
  const stops = settings.kerningStopsAtMarks === true;
  const of = [unitsPerEm, axes, stops, ...masters.map((m) => m.place)];
  const known = ruled.get(features);
  if (known && sameItems(known.of, of)) return known.print;
  const facts = [
    unitsPerEm,
    axes.map((a) => [a.tag, a.minimum, a.default, a.maximum, a.map]),
    masters.map((m) => m.place),
    features.sections.map((s) => [s.text, s.automatic ?? '', s.options]),
    features.classes,
    features.languageSystems,
    features.included,
    stops,
  ];
  const print = numberOfText(JSON.stringify(sorted(facts)));
  ruled.set(features, { of, print });
  return print;
}

/** Keys in their order, whatever they were written in. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, sorted(v)]),
  );
}

const anchored = new WeakMap<Glyph, Map<string, number>>();

function anchorsPrint(glyph: Glyph, master: string): number {
  const known = anchored.get(glyph) ?? new Map<string, number>();
  anchored.set(glyph, known);
  let print = known.get(master);
  if (print === undefined) {
    const places = (glyph.drawings[master]?.anchors ?? []).map((a) => `${a.name} ${a.x} ${a.y}`).sort();
    print = numberOfText(`${glyph.name} ${glyph.category ?? ''} ${places.join('|')}`);
    known.set(master, print);
  }
  return print;
}

type Kerned = { groups: Project['groups']; glyphs: Project['glyphs']; print: number };
const kerned = new WeakMap<Master['kerning'], Kerned>();

function kerningPrint(project: Project, { kerning }: Master): number {
  const { groups, glyphs } = project;
  const known = kerned.get(kerning);
  if (known && known.groups === groups && (known.glyphs === glyphs || sameNames(known.glyphs, glyphs)))
    return known.print;
  const name = (id: string): string => glyphs[id]?.name ?? '';
  const members = new Map(groups.map((g) => [g.id, `@${g.side} ${g.members.map(name).sort().join(',')}`]));
  const lines = Object.entries(kerning).map(([key, value]) => {
    const sides = pairSides(key)?.map((s) => (s.kind === 'glyph' ? name(s.id) : (members.get(s.id) ?? '')));
    return `${sides?.join(' ')} ${value}`;
  });
  const print = numberOfText(lines.sort().join('\n'));
  kerned.set(kerning, { groups, glyphs, print });
  return print;
}

const sameNames = (a: Project['glyphs'], b: Project['glyphs']): boolean => {
  const ids = Object.keys(a);
  return ids.length === Object.keys(b).length && ids.every((id) => a[id] === b[id] || a[id]!.name === b[id]?.name);
};
