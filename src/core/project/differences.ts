import { orderedText } from '../base/ordered';
import type { GlyphId, Master, Project } from './model';
import { pairSides } from './pairs';

/** A glyph that is other in two states of a project, by its id in each; without one where it is not there. */
export type GlyphDifference = {
  readonly name: string;
  readonly was?: GlyphId;
  readonly is?: GlyphId;
  /** The masters, by name, whose drawings of it differ; none where something else of it does. */
  readonly masters?: readonly string[];
};

export type Differences = {
  readonly glyphs: readonly GlyphDifference[];
  /** Pairs whose kerning differs in some master. */
  readonly pairs: number;
  /** What else differs, as a designer calls it. */
  readonly others: readonly string[];
};

/** Parts of a project that are told by name where they differ. */
export const PART_WORDS = {
  family: 'names',
  axes: 'axes',
  instances: 'instances',
  groups: 'kerning groups',
  features: 'rules',
  texts: 'texts',
  scripts: 'scripts',
  settings: 'settings',
  unitsPerEm: 'the em',
} as const satisfies Partial<Record<keyof Project, string>>;

/** Parts that hold ids of glyphs nowhere, so that they are compared as they are. */
const PLAIN = ['family', 'axes', 'instances', 'features', 'texts', 'unitsPerEm'] as const;

/**
 * What differs between two states of a project that do not share their ids, as when one has been a file meanwhile: glyphs and
 * masters are matched by their names.
 */
export function differencesByName(before: Project, after: Project): Differences {
  const [was, is] = [byName(before), byName(after)];
  const marks = (p: Project) => {
    const names = new Map(p.masters.map((m) => [m.id, m.name]));
    return (id: GlyphId) => plainGlyph(p, id, names);
  };
  const [markBefore, markAfter] = [marks(before), marks(after)];
  const glyphs: GlyphDifference[] = [];
  for (const [name, id] of was) {
    const now = is.get(name);
    if (now === undefined) glyphs.push({ name, was: id });
    else {
      const [a, b] = [markBefore(id), markAfter(now)];
      const masters = [...new Set([...a.drawings.keys(), ...b.drawings.keys()])].filter(
        (m) => a.drawings.get(m) !== b.drawings.get(m),
      );
      if (masters.length > 0 || a.facts !== b.facts) glyphs.push({ name, was: id, is: now, masters });
    }
  }
  for (const [name, id] of is) if (!was.has(name)) glyphs.push({ name, is: id });
  const others: string[] = PLAIN.filter((part) => !same(before[part], after[part])).map((part) => PART_WORDS[part]);
  if (!same(before.scripts.map(plainScript), after.scripts.map(plainScript))) others.push(PART_WORDS.scripts);
  if (!same(groupsOf(before), groupsOf(after))) others.push(PART_WORDS.groups);
  if (!same(before.masters.map(plainMaster), after.masters.map(plainMaster))) others.push('masters');
  return { glyphs, pairs: pairsOther(before, after), others };
}

const byName = (p: Project) => new Map(p.glyphOrder.map((id) => [p.glyphs[id]!.name, id]));
/** The same values whatever the order of their names. */
const same = (a: unknown, b: unknown): boolean => orderedText(a) === orderedText(b);
const plainScript = ({ name, text, key }: Project['scripts'][number]) => [name, text, key];
const plainMaster = ({ name, place, zones, italicAngle }: Master) => [name, place, zones, italicAngle];

const groupsOf = (p: Project) =>
  p.groups
    .map((g) => [g.side, g.name, g.members.flatMap((id) => p.glyphs[id]?.name ?? []).sort()] as const)
    .sort((a, b) => (`${a[0]} ${a[1]}` < `${b[0]} ${b[1]}` ? -1 : 1));

/** What one sees of a glyph, without ids: its drawings by the names of their masters, and the rest. */
function plainGlyph(p: Project, id: GlyphId, masters: ReadonlyMap<string, string>) {
  const { unicodes, category, cast, status, note, drawings, waypoints } = p.glyphs[id]!;
  const plain = ({ advance, contours, components, anchors }: (typeof drawings)[string]) => [
    advance,
    contours.map((c) => [c.closed, c.points.map(({ x, y, type, smooth }) => [x, y, type, smooth ?? false])]),
    components.map((c) => [p.glyphs[c.glyph]?.name, c.transform]),
    anchors.map((a) => [a.name, a.x, a.y]),
  ];
  return {
    drawings: new Map(Object.entries(drawings).map(([m, d]) => [masters.get(m) ?? '', orderedText(plain(d))])),
    facts: orderedText([unicodes, category, cast, status, note, waypoints.map((w) => [w.place, plain(w.drawing)])]),
  };
}

/** How many pairs differ, by the names of their sides and of their master. */
function pairsOther(before: Project, after: Project): number {
  const values = (p: Project) => {
    const groups = new Map(p.groups.map((g) => [g.id, g.name]));
    const out = new Map<string, number>();
    for (const m of p.masters)
      for (const [key, value] of Object.entries(m.kerning)) {
        const sides = pairSides(key)?.map((s) =>
          s.kind === 'glyph' ? p.glyphs[s.id]?.name : `@${groups.get(s.id) ?? ''}`,
        );
        out.set(`${m.name} ${sides?.join(' ')}`, value);
      }
    return out;
  };
  const [was, is] = [values(before), values(after)];
  const other = new Set<string>();
  const pairOf = (key: string) => key.split(' ').slice(-2).join(' ');
  for (const [key, value] of was) if (is.get(key) !== value) other.add(pairOf(key));
  for (const key of is.keys()) if (!was.has(key)) other.add(pairOf(key));
  return other.size;
}
