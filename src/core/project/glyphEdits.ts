import { z } from 'zod';
import { codePointForm } from '../base/notation';
import * as a from './arguments';
import { newGlyph } from './create';
import { defineEdit, edited, plural, refused, withGlyph } from './edit';
import { encodingForName, glyphNameFault, nameForCodePoint } from './glyphNames';
import type { Glyph, GlyphId, Project } from './model';
import { pairSides } from './pairs';
import { glyphForCodePoint, glyphNamed, glyphThere, usersOf } from './queries';

/** Edits of the glyph set: which glyphs there are, what they are called, and how far they are. */

/** One glyph to add: a character, or a name with or without a code point. */
export type GlyphRequest = { name: string; unicodes: number[] };

/**
 * Reads a designer's list: characters ("aąÄ"), code points ("U+0105"), ranges ("U+0100–U+017F") and glyph names
 * ("a.ss01", "/n"), separated by spaces or commas. Words of one character are that character; a longer word is a glyph
 * name if the lists know it, has a suffix or starts with "/"; one with characters that no name has is text. What could be
 * either is `unclear`, unless `words` says how such words are meant.
 */
export function parseGlyphList(
  text: string,
  words?: 'names' | 'letters',
): { requests: GlyphRequest[]; faults: string[]; unclear: string[] } {
  const unclear: string[] = [];
  const requests = new Map<string, GlyphRequest>();
  const faults: string[] = [];
  const addCode = (code: number) => {
    const name = nameForCodePoint(code);
    requests.set(name, { name, unicodes: [code] });
  };
  for (const word of text.split(/[\s,]+/).filter(Boolean)) {
    const range = /^U\+([0-9A-F]{4,6})(?:[-–…]+(?:U\+)?([0-9A-F]{4,6}))?$/i.exec(word);
    if (range) {
      const first = Number.parseInt(range[1]!, 16);
      const last = range[2] === undefined ? first : Number.parseInt(range[2], 16);
      if (last < first || last > 0x10ffff || last - first > 65535)
        faults.push(`${word} is not a range of code points.`);
      else for (let code = first; code <= last; code++) if (code < 0xd800 || code > 0xdfff) addCode(code);
      continue;
    }
    const named = word.startsWith('/') && word.length > 1 ? word.slice(1) : word;
    const isName =
      named !== word ||
      /^[A-Za-z_][\w]*[._][\w.]+$/.test(word) ||
      (word.length > 1 && encodingForName(word) !== undefined) ||
      word === '.notdef';
    if (isName && [...word].length > 1) {
      const fault = glyphNameFault(named);
      const code = encodingForName(named);
      if (fault) faults.push(fault);
      else requests.set(named, { name: named, unicodes: code === undefined ? [] : [code] });
      continue;
    }
    const either = [...word].length > 1 && /^[A-Za-z_][\w.-]*$/.test(word);
    if (either && words === 'names') requests.set(word, { name: word, unicodes: [] });
    else if (either && words === undefined) unclear.push(word);
    else for (const character of word) addCode(character.codePointAt(0)!);
  }
  return { requests: [...requests.values()], faults, unclear };
}

/** Adds empty glyphs; those whose name or code point is there already are passed over. */
export const addGlyphs = defineEdit(
  {
    name: 'addGlyphs',
    does: 'Adds empty glyphs',
    reach: 'all masters',
    args: z.object({ requests: z.array(z.object({ name: a.text, unicodes: a.codePoints })).readonly() }),
  },
  (project, { requests }) => {
    const fault = requests.map((r) => glyphNameFault(r.name)).find((f) => f !== undefined);
    if (fault) return refused(fault);
    const names = new Set<string>();
    const fresh = requests.filter((r) => {
      if (names.has(r.name) || glyphNamed(project, r.name) || r.unicodes.some((c) => glyphForCodePoint(project, c)))
        return false;
      names.add(r.name);
      return true;
    });
    if (fresh.length === 0)
      return refused(
        requests.length === 0
          ? 'There is nothing to add in that list.'
          : 'Everything in that list is in the project already.',
      );
    const advance = Math.round(project.unitsPerEm * 0.5);
    const added = fresh.map((r, i) => newGlyph(`g${project.nextId + i}`, r.name, r.unicodes, project.masters, advance));
    return edited(
      {
        ...project,
        nextId: project.nextId + added.length,
        glyphOrder: [...project.glyphOrder, ...added.map((g) => g.id)],
        glyphs: { ...project.glyphs, ...Object.fromEntries(added.map((g) => [g.id, g])) },
      },
      added.length === 1 ? `Added ${added[0]!.name}` : `Added ${added.length} glyphs`,
    );
  },
);

/** Why glyphs cannot be removed, or undefined. */
export function removalFault(project: Project, ids: readonly GlyphId[]): string | undefined {
  const kept = ids.flatMap((id) => project.glyphs[id] ?? []).find((g) => g.name === '.notdef' || g.name === 'space');
  return kept && `Every font needs ${kept.name}; it cannot be removed.`;
}

/**
 * Removes glyphs and everything that refers to them: components, group memberships, pairs, follow rules. `.notdef` and
 * the space stay.
 */
export const removeGlyphs = defineEdit(
  {
    name: 'removeGlyphs',
    does: 'Removes glyphs and what refers to them',
    reach: 'all masters',
    args: z.object({ ids: a.glyphs }),
  },
  (project, { ids }) => {
    const doomed = new Set(ids.filter((id) => project.glyphs[id]));
    if (doomed.size === 0) return refused('Those glyphs are no longer in the project.');
    const kept = removalFault(project, ids);
    if (kept) return refused(kept);
    const glyphs: Record<GlyphId, Glyph> = {};
    for (const [id, glyph] of Object.entries(project.glyphs))
      if (!doomed.has(id)) glyphs[id] = withoutReferences(glyph, doomed);
    const gone = (side: { kind: string; id: string }) => side.kind === 'glyph' && doomed.has(side.id);
    const next: Project = {
      ...project,
      glyphs,
      glyphOrder: project.glyphOrder.filter((id) => !doomed.has(id)),
      groups: project.groups.some((g) => g.members.some((m) => doomed.has(m)))
        ? project.groups.map((g) => ({ ...g, members: g.members.filter((m) => !doomed.has(m)) }))
        : project.groups,
      masters: project.masters.map((m) => ({
        ...m,
        kerning: Object.fromEntries(Object.entries(m.kerning).filter(([k]) => !pairSides(k)?.some(gone))),
      })),
    };
    return edited(
      next,
      doomed.size === 1
        ? `Removed ${project.glyphs[[...doomed][0]!]!.name}`
        : `Removed ${plural(doomed.size, 'glyph')}`,
    );
  },
);

/** A sentence on what refers to some glyphs, or undefined when nothing does. */
export function referencesSentence(project: Project, ids: readonly GlyphId[]): string | undefined {
  const doomed = new Set(ids);
  const users = ids.map((id) => usersOf(project, id));
  const composites = new Set(users.flatMap((u) => u.composites.filter((g) => !doomed.has(g.id)).map((g) => g.name)));
  const groups = new Set(users.flatMap((u) => u.groups));
  const pairs = users.reduce((n, u) => n + u.pairs, 0);
  const parts = [
    composites.size > 0 &&
      `${plural(composites.size, 'composite')} (${[...composites].slice(0, 4).join(', ')}${composites.size > 4 ? '…' : ''})`,
    groups.size > 0 && plural(groups.size, 'kerning group'),
    pairs > 0 && plural(pairs, 'kerning pair'),
  ].filter(Boolean);
  return parts.length > 0 ? `Used in ${parts.join(', ')}; those references go too.` : undefined;
}

function withoutReferences(glyph: Glyph, doomed: ReadonlySet<GlyphId>): Glyph {
  const uses = Object.values(glyph.drawings).some((d) => d.components.some((c) => doomed.has(c.glyph)));
  const follows = [...glyph.follows.left, ...glyph.follows.right].some((f) => doomed.has(f.glyph));
  if (!uses && !follows) return glyph;
  return {
    ...glyph,
    drawings: Object.fromEntries(
      Object.entries(glyph.drawings).map(([m, d]) => [
        m,
        { ...d, components: d.components.filter((c) => !doomed.has(c.glyph)) },
      ]),
    ),
    follows: {
      left: glyph.follows.left.filter((f) => !doomed.has(f.glyph)),
      right: glyph.follows.right.filter((f) => !doomed.has(f.glyph)),
    },
  };
}

/** Texts with a glyph's name in lines of one's own, written as `/name`, exchanged. */
function withNameInTexts({ galley, words, pairs }: Project['texts'], before: string, after: string): Project['texts'] {
  const written = new RegExp(`/${before.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![A-Za-z0-9._-])`, 'g');
  const change = (text: string) => text.replace(written, `/${after}`);
  return { galley: change(galley), words: words.map(change), pairs: pairs.map(change) };
}

/** Lists name glyphs with a slash or without one, as words. */
function withNameInLists(settings: Project['settings'], before: string, after: string): Project['settings'] {
  const word = new RegExp(`(^|[\\s,])(/?)${before.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?=$|[\\s,])`, 'g');
  // A single character is itself, not a name.
  if (!settings.lists || [...before].length === 1) return settings;
  const lists = settings.lists.map((l) => ({ ...l, text: l.text.replace(word, `$1$2${after}`) }));
  return lists.some((l, i) => l.text !== settings.lists![i]!.text) ? { ...settings, lists } : settings;
}

/** Recipes of the project's own name glyphs. */
function withNameInRecipes(settings: Project['settings'], before: string, after: string): Project['settings'] {
  const named = (name: string) => (name === before ? after : name);
  if (!settings.recipes?.some((r) => [r.glyph, r.base, ...r.parts.map((p) => p.glyph)].includes(before)))
    return settings;
  const recipes = settings.recipes.map((r) => ({
    glyph: named(r.glyph),
    base: named(r.base),
    parts: r.parts.map((p) => ({ ...p, glyph: named(p.glyph) })),
  }));
  return { ...settings, recipes };
}

/** Renames a glyph and gives it code points. References hold ids; texts and lines that write its name follow. */
export const setGlyphNames = defineEdit(
  {
    name: 'setGlyphNames',
    does: 'Renames a glyph or gives it code points',
    reach: 'no master',
    args: z.object({ id: a.glyph, name: a.text, unicodes: a.codePoints }),
  },
  (project, { id, name, unicodes }) => {
    const glyph = glyphThere(project, id);
    const fault = glyphNameFault(name);
    if (fault) return refused(fault);
    if (glyph.name === '.notdef' && name !== '.notdef') return refused('.notdef keeps its name: every font needs it.');
    const namesake = glyphNamed(project, name);
    if (namesake && namesake.id !== id) return refused(`There is already a glyph named ${name}.`);
    const claimed = unicodes.find((c) => {
      const g = glyphForCodePoint(project, c);
      return g && g.id !== id;
    });
    if (claimed !== undefined)
      return refused(`${codePointForm(claimed)} already belongs to ${glyphForCodePoint(project, claimed)!.name}.`);
    const listed = glyph.name === name ? project.settings : withNameInLists(project.settings, glyph.name, name);
    const settings = withNameInRecipes(listed, glyph.name, name);
    const texts = glyph.name === name ? project.texts : withNameInTexts(project.texts, glyph.name, name);
    return edited(
      { ...withGlyph(project, { ...glyph, name, unicodes: [...unicodes] }), texts, settings },
      glyph.name === name ? `Changed the code points of ${name}` : `Renamed ${glyph.name} to ${name}`,
    );
  },
);

export const setGlyphStatus = defineEdit(
  {
    name: 'setGlyphStatus',
    does: 'Marks a glyph as sketched or done',
    reach: 'no master',
    args: z.object({ id: a.glyph, status: a.status, note: a.text.optional() }),
  },
  (project, { id, status, note }) => {
    const glyph = glyphThere(project, id);
    return edited(
      withGlyph(project, { ...glyph, status, note: note ?? glyph.note }),
      `Marked ${glyph.name} ${status ?? 'as open'}`,
    );
  },
);
