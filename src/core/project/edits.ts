import { z } from 'zod';
import { codePointForm } from '../base/notation';
import * as a from './arguments';
import { newGlyph } from './create';
import { defineEdit, edited, plural, refused, withGlyph } from './edit';
import { encodingForName, glyphNameFault, nameForCodePoint } from './glyphNames';
import {
  familySchema,
  type Glyph,
  type GlyphId,
  type Master,
  type MasterId,
  type Project,
  projectSchema,
  settingsSchema,
  type Zone,
  type ZoneKey,
} from './model';
import { pairSides } from './pairs';
import { glyphForCodePoint, glyphNamed, glyphThere, masterThere, usersOf } from './queries';

/** Edits of the project as a whole: names, metrics, glyph set, texts. */

export const setFamily = defineEdit(
  { name: 'setFamily', does: 'Changes names of the family', reach: 'no master', args: familySchema.partial() },
  (project, changes) => {
    if (changes.name !== undefined && changes.name.trim() === '') return refused('A family needs a name.');
    return edited(
      { ...project, family: { ...project.family, ...changes } },
      `Changed ${Object.keys(changes).join(', ')} of the family`,
    );
  },
);

export const setUnitsPerEm = defineEdit(
  {
    name: 'setUnitsPerEm',
    does: 'Sets the units per em',
    reach: 'no master',
    args: z.object({ unitsPerEm: a.number }),
  },
  (project, { unitsPerEm }) => {
    if (!Number.isInteger(unitsPerEm) || unitsPerEm < 16 || unitsPerEm > 16384)
      return refused('Units per em must be a whole number from 16 to 16,384.');
    return edited({ ...project, unitsPerEm }, `Set ${unitsPerEm} units per em`);
  },
);

export const setMasterName = defineEdit(
  {
    name: 'setMasterName',
    does: 'Renames a master',
    reach: 'one master',
    args: z.object({ master: a.master, name: a.text }),
  },
  (project, { master, name }) => {
    if (name.trim() === '') return refused('A master needs a name.');
    return edited(
      withMaster(project, master, (m) => ({ ...m, name: name.trim() })),
      `Renamed a master to ${name.trim()}`,
    );
  },
);

const withMaster = (project: Project, id: MasterId, change: (m: Master) => Master): Project => ({
  ...project,
  masters: project.masters.map((m) => (m.id === id ? change(m) : m)),
});

/** Which way round shapes pass a zone's line: below the baseline and descender, above the others. */
export const overshootSign = (key: ZoneKey): -1 | 1 => (key === 'baseline' || key === 'descender' ? -1 : 1);

/** What is wrong with an overshoot's sign, in words, or undefined. */
export function overshootFault(key: ZoneKey, overshoot: number): string | undefined {
  if (overshoot === 0 || Math.sign(overshoot) === overshootSign(key)) return undefined;
  return overshootSign(key) < 0
    ? `Round shapes dip below this line, so its overshoot is negative; ${-Math.abs(overshoot)} was set instead.`
    : `Round shapes rise above this line, so its overshoot is positive; ${Math.abs(overshoot)} was set instead.`;
}

/** Moves a zone or its overshoot. An overshoot on the wrong side of its line is turned round (see {@link overshootFault}). */
export const setZone = defineEdit(
  {
    name: 'setZone',
    does: 'Moves a metrics line or its overshoot',
    reach: 'one master',
    args: z.object({
      master: a.master,
      zone: a.zoneKey,
      change: z.object({ position: a.number, overshoot: a.number }).partial(),
    }),
  },
  (project, { master, zone, change }) => {
    const current = masterThere(project, master);
    const limit = 3 * project.unitsPerEm;
    const next = { ...current.zones[zone], ...change };
    if (!Number.isFinite(next.position) || Math.abs(next.position) > limit)
      return refused(`A line can lie at most ${limit} units from the baseline.`);
    if (!Number.isFinite(next.overshoot) || Math.abs(next.overshoot) > 500)
      return refused('An overshoot can be at most 500 units.');
    next.overshoot = Math.abs(next.overshoot) * overshootSign(zone);
    const order = ['descender', 'baseline', 'xHeight', 'capHeight'] as const;
    const zones = { ...current.zones, [zone]: next };
    const wrong = order.find((key, i) => i > 0 && zones[order[i - 1]!].position >= zones[key].position);
    if (wrong)
      return refused(`The ${zones[wrong].name} must lie above the ${zones[order[order.indexOf(wrong) - 1]!].name}.`);
    if (zones.ascender.position <= zones.xHeight.position) return refused('The ascender must lie above the x-height.');
    const what =
      change.overshoot === undefined ? `${next.name} at ${next.position}` : `${next.name} overshoot ${next.overshoot}`;
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones })),
      `Set ${what}, ${current.name}`,
    );
  },
);

/** Adds a zone of the designer's own, halfway up the x-height to begin with. */
export const addZone = defineEdit(
  {
    name: 'addZone',
    does: 'Adds a metrics line of one’s own',
    reach: 'one master',
    args: z.object({ master: a.master, name: a.text }),
  },
  (project, { master, name }) => {
    const current = masterThere(project, master);
    if (name.trim() === '') return refused('A zone needs a name.');
    if (current.zones.own.some((z) => z.name === name.trim()))
      return refused(`There is already a zone named ${name.trim()}.`);
    const zone: Zone = {
      name: name.trim(),
      position: Math.round(current.zones.xHeight.position / 2),
      overshoot: current.zones.xHeight.overshoot,
    };
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones: { ...m.zones, own: [...m.zones.own, zone] } })),
      `Added the zone ${zone.name}, ${current.name}`,
    );
  },
);

/** Changes a zone of one's own, or takes it away with `remove`. */
export const setOwnZone = defineEdit(
  {
    name: 'setOwnZone',
    does: 'Changes or removes a metrics line of one’s own',
    reach: 'one master',
    args: z.object({
      master: a.master,
      index: a.index,
      change: z.object({ name: a.text, position: a.number, overshoot: a.number, governs: a.text }).partial(),
      remove: z.boolean().optional(),
    }),
  },
  (project, { master, index, change, remove }) => {
    const current = project.masters.find((m) => m.id === master);
    const zone = current?.zones.own[index];
    if (!current || !zone) return refused('That zone is no longer there.');
    const next = { ...zone, ...change };
    const limit = 3 * project.unitsPerEm;
    if (!Number.isFinite(next.position) || Math.abs(next.position) > limit)
      return refused(`A line can lie at most ${limit} units from the baseline.`);
    if (!Number.isFinite(next.overshoot) || Math.abs(next.overshoot) > 500)
      return refused('An overshoot can be at most 500 units.');
    const own = remove
      ? current.zones.own.filter((_, i) => i !== index)
      : current.zones.own.map((z, i) => (i === index ? next : z));
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones: { ...m.zones, own } })),
      remove
        ? `Removed the zone ${zone.name}, ${current.name}`
        : `Set ${next.name} at ${next.position}, ${current.name}`,
    );
  },
);

/** One glyph to add: a character, or a name with or without a code point. */
export type GlyphRequest = { name: string; unicodes: number[] };

/**
 * Reads a designer's list: characters ("aąÄ"), code points ("U+0105"), ranges ("U+0100–U+017F") and glyph names
 * ("a.ss01", "/n"), separated by spaces or commas. Words of one character are that character; a longer word is a glyph
 * name if the lists know it, has a suffix or starts with "/", and else text whose characters are meant.
 */
export function parseGlyphList(text: string): { requests: GlyphRequest[]; faults: string[] } {
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
    for (const character of word) addCode(character.codePointAt(0)!);
  }
  return { requests: [...requests.values()], faults };
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
    const kept = [...doomed].map((id) => project.glyphs[id]!).find((g) => g.name === '.notdef' || g.name === 'space');
    if (kept) return refused(`Every font needs ${kept.name}; it cannot be removed.`);
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

/** Renames a glyph and gives it code points. References hold ids, so nothing else changes. */
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
    return edited(
      withGlyph(project, { ...glyph, name, unicodes: [...unicodes] }),
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

export const setGalleyText = defineEdit(
  {
    name: 'setGalleyText',
    does: 'Changes the galley’s text',
    reach: 'no master',
    args: z.object({ text: a.text }),
  },
  (project, { text }) =>
    edited({ ...project, texts: { ...project.texts, galley: text.slice(0, 4000) } }, 'Changed the galley’s text'),
);

export const setFitLines = defineEdit(
  { name: 'setFitLines', does: 'Changes the lines of Fit', reach: 'no master', args: z.object({ lines: a.texts }) },
  (project, { lines }) =>
    edited(
      { ...project, texts: { ...project.texts, words: lines.slice(0, 50).map((l) => l.slice(0, 400)) } },
      'Changed the fitting lines',
    ),
);

/** Changes how the project is worked on: the steps, what fitting starts with. */
export const changeSettings = defineEdit(
  {
    name: 'changeSettings',
    does: 'Changes how the project is worked on',
    reach: 'no master',
    args: settingsSchema.partial(),
  },
  (project, changes) => {
    const settings = projectSchema.shape.settings.safeParse({ ...project.settings, ...changes });
    return settings.success
      ? edited({ ...project, settings: settings.data }, 'Changed a setting')
      : refused('That is out of bounds.');
  },
);
