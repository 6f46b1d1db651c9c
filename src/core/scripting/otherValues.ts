import { shownNumber } from '../base/notation';
import { sharing } from '../base/sharing';
import { sideName } from '../project/kerningLookup';
import type { GlyphId, Master, Project } from '../project/model';
import { pairSides } from '../project/pairs';
import { patchBetween } from '../project/patch';

/** A value that differs between two states of a project, apart from its glyphs: what it is, and what it was and is. */
export type ValueChange = { readonly what: string; readonly before: string; readonly after: string };

const NONE = '–';
const MOST = 90;

/** All that differs between two states of a project but for its glyphs, as a table tells it. */
export function otherValues(before: Project, after: Project): ValueChange[] {
  return [
    ...kerningChanges(before, after),
    ...groupChanges(before, after),
    ...ruleChanges(before, after),
    ...rest(before, after),
  ];
}

function kerningChanges(before: Project, after: Project): ValueChange[] {
  return after.masters.flatMap((master) => {
    const was = before.masters.find((m) => m.id === master.id);
    if (!was || was.kerning === master.kerning) return [];
    const keys = new Set([...Object.keys(was.kerning), ...Object.keys(master.kerning)]);
    return [...keys].flatMap((key) => {
      const [a, b] = [was.kerning[key], master.kerning[key]];
      return a === b
        ? []
        : [{ what: `${master.name}: ${pairName(after, before, key)}`, before: told(a), after: told(b) }];
    });
  });
}

/** A pair by the names of its sides; one whose glyph or group is gone by the names that these had. */
function pairName(after: Project, before: Project, key: string): string {
  const sides = pairSides(key);
  if (!sides) return key;
  return sides
    .map((s) => {
      const there = s.kind === 'glyph' ? after.glyphs[s.id] : after.groups.find((g) => g.id === s.id);
      return sideName(there ? after : before, s);
    })
    .join(' ');
}

function groupChanges(before: Project, after: Project): ValueChange[] {
  const ids = new Set([...before.groups, ...after.groups].map((g) => g.id));
  return [...ids].flatMap((id) => {
    const [was, is] = [before.groups.find((g) => g.id === id), after.groups.find((g) => g.id === id)];
    if (was === is) return [];
    const { name, side } = (is ?? was)!;
    // Of a long list only what leaves and what comes.
    const names = (p: Project, list: readonly GlyphId[] = [], other: readonly GlyphId[] = []) =>
      cut(
        list
          .filter((g) => !other.includes(g))
          .map((g) => p.glyphs[g]?.name ?? g)
          .join(' '),
      ) || NONE;
    const renamed = was && is && was.name !== is.name ? ` (was ${was.name})` : '';
    return [
      {
        what: `${side === 'first' ? 'First' : 'Second'} group ${name}${renamed}`,
        before: names(before, was?.members, is?.members),
        after: names(after, is?.members, was?.members),
      },
    ];
  });
}

function ruleChanges(before: Project, after: Project): ValueChange[] {
  const ids = new Set([...before.features.sections, ...after.features.sections].map((s) => s.id));
  const lines = (text: string | undefined) => (text === undefined ? NONE : `${text.split('\n').length} lines`);
  return [...ids].flatMap((id) => {
    const [was, is] = [before, after].map((p) => p.features.sections.find((s) => s.id === id));
    return was === is
      ? []
      : [{ what: `Rules: ${(is ?? was)!.title}`, before: lines(was?.text), after: lines(is?.text) }];
  });
}

/** The same projects without what is told above, and what only counts. */
const bare = (p: Project): Project => ({
  ...p,
  glyphs: {},
  glyphOrder: [],
  nextId: 0,
  groups: [],
  features: { ...p.features, sections: [] },
  masters: p.masters.map((m): Master => ({ ...m, kerning: {} })),
});

function rest(before: Project, after: Project): ValueChange[] {
  const from = bare(before);
  // What was made anew for the comparison, or by the script, and is equal is the same.
  return patchBetween(from, sharing(from, bare(after))).map(({ path, before: was, after: is }) => {
    const [part, ...more] = path;
    const at = part === 'masters' && typeof more[0] === 'number' ? after.masters[more[0]] : undefined;
    const way = at ? more.slice(1) : path;
    const [from, to] = [told(was), told(is)];
    return {
      what: `${at ? `${at.name}: ` : ''}${way.map(word).join(', ')}`,
      before: from,
      after: from === to ? `${to}, others` : to,
    };
  });
}

/** A field as its words: xHeight is x height. */
const word = (key: string | number): string =>
  typeof key === 'number' ? String(key + 1) : key.replace(/(?<=[a-z])[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

const cut = (text: string): string => (text.length > MOST ? `${text.slice(0, MOST)}…` : text);

function told(value: unknown): string {
  if (value === undefined || value === null) return NONE;
  if (typeof value === 'number') return shownNumber(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return cut(value.replace(/\s+/g, ' ')) || 'empty';
  if (Array.isArray(value)) return value.every(isPlain) ? cut(value.join(' ')) || 'empty' : `${value.length} entries`;
  const fields = Object.entries(value);
  if (fields.length > 4 || !fields.every(([, v]) => isPlain(v))) return `${fields.length} entries`;
  return cut(fields.map(([k, v]) => `${word(k)} ${told(v)}`).join(', '));
}

const isPlain = (v: unknown): boolean => typeof v !== 'object' || v === null;
