import { z } from 'zod';
import { codePointForm } from '../base/notation';
import * as a from './arguments';
import { newGlyph } from './create';
import { defineEdit, edited, plural, refused, withGlyph } from './edit';
import { encodingForName, glyphNameFault, nameForCodePoint } from './glyphNames';
import type { GlyphId, Project } from './model';
import { glyphForCodePoint, glyphNamed, glyphThere } from './queries';
import { withNamesWritten } from './rename';

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
    const next = withGlyph(project, { ...glyph, name, unicodes: [...unicodes] });
    return glyph.name === name
      ? edited(next, `Changed the code points of ${name}`)
      : edited(withNamesWritten(next, new Map([[glyph.name, name]])), `Renamed ${glyph.name} to ${name}`);
  },
);

/** Renames many glyphs in one step; all that writes their names follows. Names may be exchanged. */
export const renameGlyphs = defineEdit(
  {
    name: 'renameGlyphs',
    does: 'Renames glyphs',
    reach: 'no master',
    args: z.object({ renames: z.array(z.object({ id: a.glyph, name: a.text })).readonly() }),
  },
  (project, { renames }) => {
    const fresh = renames.filter(({ id, name }) => glyphThere(project, id).name !== name);
    const fault = renameFault(project, fresh);
    if (fault) return refused(fault);
    if (fresh.length === 0) return refused('No name changes.');
    const glyphs = { ...project.glyphs };
    for (const { id, name } of fresh) glyphs[id] = { ...glyphs[id]!, name };
    const names = new Map(fresh.map(({ id, name }) => [project.glyphs[id]!.name, name]));
    return edited(withNamesWritten({ ...project, glyphs }, names), `Renamed ${plural(fresh.length, 'glyph')}`);
  },
);

/** Why glyphs cannot get these names, if they cannot. */
export function renameFault(project: Project, renames: readonly { id: GlyphId; name: string }[]): string | undefined {
  const moving = new Set(renames.map((r) => r.id));
  const taken = new Map<string, GlyphId>();
  for (const { id, name } of renames) {
    const fault = glyphNameFault(name);
    if (fault) return fault;
    if (project.glyphs[id]?.name === '.notdef') return '.notdef keeps its name: every font needs it.';
    const there = glyphNamed(project, name);
    if (taken.has(name)) return `Two glyphs would be named ${name}.`;
    if (there && !moving.has(there.id)) return `There is already a glyph named ${name}.`;
    taken.set(name, id);
  }
  return undefined;
}

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
