import { codePointHex, counted } from '../base/notation';
import { type Refusal, RefusalError, refuse, refused } from '../base/result';
import { listed } from '../base/text';
import type { FontPlace } from '../features/placeValues';
import { CARRIED, type CarriedFor } from '../fontfacts/carried';
import { type StyleNames, styleNames } from '../fontfacts/names';
import { createProject, emptyDrawing } from '../project/create';
import type { Drawing, Glyph, GlyphId, Lib, Master, MasterId, Project } from '../project/model';
import { contoursDrawnOut, type DrawingSource, drawingsOf, isOverbuilt } from '../project/outline';
import { drawingOf, glyphsInOrder, isEmptyDrawing, masterOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import { handedOver } from '../variation/handovers';
import { instanceAt } from '../variation/instance';
import { CastCache } from './cache';
import { finalNames, namesNote } from './glyphNames';
import { roundingNote } from './rounding';
import { Varying } from './varying';

export type Flavour = 'otf' | 'ttf';

/** Where on the axes a font stands: at a master, or at any place between them, in design units by axis tag. */
export type CastPlace =
  | { master: MasterId }
  | {
      design: Readonly<Record<string, number>>;
      name: string;
      /** What the font says of its style, instead of what the default does. */
      info?: Lib;
    };

export type CastOptions = {
  flavour: Flavour;
  place: CastPlace;
  /** The font varies over the axes of the project, from the master at the place; overlaps are kept, since they come and go. */
  variable?: boolean;
  keepOverlaps?: boolean;
  /** Parts that charstrings share become subroutines: smaller files, a little later. */
  compact?: boolean;
  cache?: CastCache;
  /**
   * A glyph that cannot be made stands blank and is named in the notes, instead of the whole font being refused: for looking
   * at the rest, never for files.
   */
  leaveOut?: boolean;
  /** Only these glyphs get their outlines; all others stand blank, with their widths: for setting a line of text in a large font. */
  only?: ReadonlySet<GlyphId>;
  /** Characters that are not drawn in any master stand in the font as blanks, instead of being left to other fonts. */
  blanks?: boolean;
  /** Features that are left out, by their tags. */
  without?: readonly string[] | undefined;
  /** Glyphs that are not cast are left out on purpose: rules that name them say nothing of it. */
  partial?: boolean | undefined;
  /** Without alignment zones and stems. */
  unhinted?: boolean | undefined;
  /** Refuses a font between masters or over all of them while glyphs do not agree, instead of keeping one master’s drawing. */
  mustAgree?: boolean | undefined;
};

export type Entry = { glyph: Glyph; drawing: Drawing; advance: number };

/** What is made, from what: everything that a builder of a table may ask. */
export type CastPlan = {
  project: Project;
  /** Metrics, kerning and facts at the place. */
  master: Master;
  /** The family that it is of, with all of its masters. */
  family: Project;
  /** How it varies over the axes; nothing for a font of one place. */
  varies?: Varying;
  kind: CarriedFor;
  /** Where the font stands on the axes of the family, in design units. */
  at: FontPlace;
  flavour: Flavour;
  keepOverlaps: boolean;
  compact: boolean;
  hinted: boolean;
  /** Coordinates keep their fractions, which only CFF outlines can hold. */
  fractions: boolean;
  /** Glyphs are left out on purpose. */
  partial: boolean;
  /** Features that are left out. */
  without: ReadonlySet<string>;
  cache: CastCache;
  /** Every glyph has its outline; else the font is only for setting a line with. */
  whole: boolean;
  /** Glyphs in the font's order, with their drawings at the place. */
  entries: readonly Entry[];
  /** What these are called in the font. */
  glyphNames: readonly string[];
  index: ReadonlyMap<GlyphId, number>;
  /** Code point to glyph index. */
  characters: ReadonlyMap<number, number>;
  names: StyleNames;
  source: DrawingSource;
  /** Sources of the other masters, whose curves get as many points where overlaps are kept. */
  others: readonly { id: MasterId; source: DrawingSource }[];
  /** What is left out or otherwise than one might expect. */
  notes: Refusal[];
};

const blanks = new WeakMap<Drawing, Drawing>();

/** What stands for a glyph that is not set: nothing drawn, but its anchors, which rules and marks look at. */
function blankOf(drawing: Drawing): Drawing {
  let blank = blanks.get(drawing);
  if (!blank) {
    blank = { ...emptyDrawing(0), anchors: drawing.anchors };
    blanks.set(drawing, blank);
  }
  return blank;
}

/** Plans a font; refuses (throws) what cannot be made. */
export function castPlan(whole: Project, options: CastOptions): CastPlan {
  const { flavour, place, keepOverlaps = false, compact = true, cache = new CastCache() } = options;
  const { leaveOut = false, blanks: asBlanks = false, only, variable = false } = options;
  const { without = [], unhinted = false, mustAgree = false, partial = false } = options;
  const { project, masterId, stuck } = variable ? varyingFrom(whole, place) : atPlace(whole, place);
  if (mustAgree && stuck.length > 0) refuse(disagreement(stuck));
  const notes = stuck.length > 0 ? [stuckNote(stuck)] : [];
  const varies = variable ? new Varying(project) : undefined;
  const master = masterOf(project, masterId) ?? refuse('That master is not in the project.');
  const source = drawingsOf(project, masterId);
  const fractions = project.settings.fractions === true && flavour === 'otf' && !variable;
  const how = { keepOverlaps, unitsPerEm: project.unitsPerEm, hinted: !unhinted, fractions };
  const makes = (e: Entry) => cache.cffShape(e.drawing, source, how);
  const undrawn = asBlanks ? new Set<GlyphId>() : undrawnCharacters(project);
  if (undrawn.size > 0) notes.push(undrawnNote(project, [...undrawn]));
  const cast = castOrder(project, masterId).filter((e) => !undrawn.has(e.glyph.id));
  const entries = cast.map((entry): Entry => {
    if (only && !only.has(entry.glyph.id)) return { ...entry, drawing: blankOf(entry.drawing) };
    const fault = overbuilt(entry, source) ?? tooWide(entry) ?? (leaveOut ? breakdown(entry, makes) : undefined);
    if (!fault) return entry;
    if (!leaveOut) throw new RefusalError(fault);
    notes.push(fault);
    return { ...entry, drawing: emptyDrawing(entry.drawing.advance) };
  });
  const characters = characterMap(entries);
  notes.push(...oddNotes(entries, characters));
  const glyphNames = finalNames(entries);
  const renamed = namesNote(entries, glyphNames);
  if (renamed) notes.push(renamed);
  // Between masters all is rounded, and nobody drew what is lost.
  const roundedOff = only || !('master' in place) ? undefined : roundingNote({ entries, fractions });
  if (roundedOff) notes.push(roundedOff);
  return {
    project,
    master,
    family: whole,
    ...(varies && { varies }),
    kind: variable ? 'over all' : 'master' in place ? 'at a master' : 'between',
    at: { axes: whole.axes, at: 'master' in place ? master.place : place.design },
    flavour,
    keepOverlaps: keepOverlaps || variable,
    compact,
    hinted: !unhinted,
    fractions,
    partial,
    without: new Set(without),
    cache,
    whole: only === undefined,
    entries,
    glyphNames,
    index: new Map(entries.map((e, i) => [e.glyph.id, i])),
    characters,
    names: styleNames(project, master),
    source,
    others: project.masters.flatMap((m) =>
      m.id === masterId ? [] : [{ id: m.id, source: drawingsOf(project, m.id) }],
    ),
    notes,
  };
}

/** What one sees of a character. */
const SEEN = /[\p{L}\p{M}\p{N}\p{P}\p{S}]/u;

/**
 * Glyphs of characters that one should see and that no master has drawn yet. None in a font that was opened with tables of
 * its own, whose glyphs are counted by them.
 */
export function undrawnCharacters(project: Project): ReadonlySet<GlyphId> {
  if (Array.isArray(project.lib[CARRIED])) return new Set();
  return new Set(
    glyphsInOrder(project)
      .filter(
        (g) =>
          g.cast &&
          g.unicodes.some((c) => SEEN.test(String.fromCodePoint(c))) &&
          project.masters.every((m) => isEmptyDrawing(drawingOf(g, m.id))),
      )
      .map((g) => g.id),
  );
}

function undrawnNote(project: Project, ids: readonly GlyphId[]): Refusal {
  const shown = ids.map((id) => String.fromCodePoint(project.glyphs[id]!.unicodes[0]!));
  return refused(
    `Not drawn yet, so left out: ${listed(shown, 24, ' ')}. Other fonts step in for ${ids.length === 1 ? 'it' : 'them'}.`,
    undefined,
    'attention',
  );
}

function overbuilt({ glyph, drawing }: Entry, source: DrawingSource): Refusal | undefined {
  if (!isOverbuilt(drawing, source)) return undefined;
  const n = counted(contoursDrawnOut(drawing, source));
  return refused(`The glyph “${glyph.name}” is built of ${n} contours, more than a font can hold.`, {
    glyph: glyph.name,
  });
}

/** Widest advance that a font holds. */
const WIDEST = 65535;

function tooWide({ glyph, drawing }: Entry): Refusal | undefined {
  if (Math.round(drawing.advance) <= WIDEST) return undefined;
  const wide = counted(Math.round(drawing.advance));
  return refused(`The glyph “${glyph.name}” is ${wide} units wide; a font holds ${counted(WIDEST)} at most.`, {
    glyph: glyph.name,
  });
}

/** Makes something of a glyph; what cannot be made names it. */
export function madeFor<T>({ glyph }: Pick<Entry, 'glyph'>, make: () => T): T {
  try {
    return make();
  } catch (error) {
    throw new RefusalError(
      refused(`The glyph “${glyph.name}” cannot be made: ${(error as Error).message}`, { glyph: glyph.name }),
    );
  }
}

/** What goes wrong when a glyph's outline is made; undefined when nothing does. */
function breakdown(entry: Entry, make: (entry: Entry) => unknown): Refusal | undefined {
  try {
    madeFor(entry, () => make(entry));
    return undefined;
  } catch (error) {
    return (error as RefusalError).refusal;
  }
}

/** The project as it varies from a master; glyphs that do not agree are named. */
function varyingFrom(project: Project, place: CastPlace): { project: Project; masterId: MasterId; stuck: string[] } {
  if (!('master' in place)) return refuse('A font that varies begins at a master.');
  const stuck = glyphsInOrder(project).filter(
    (g) =>
      g.cast &&
      !sameStructure([...project.masters.map((m) => drawingOf(g, m.id)), ...g.waypoints.map((w) => w.drawing)]),
  );
  return { project, masterId: place.master, stuck: stuck.map((g) => g.name) };
}

const disagreement = (stuck: readonly string[]): string =>
  `The masters do not agree in ${stuck.length === 1 ? 'one glyph' : `${stuck.length} glyphs`}: ${listed(stuck, 24)}. Masters, Agreement, shows how they differ and mends most.`;

const stuckNote = (stuck: readonly string[]): Refusal =>
  refused(
    `${stuck.length === 1 ? 'One glyph' : `${stuck.length} glyphs`} whose masters do not agree keep${stuck.length === 1 ? 's' : ''} the default’s drawing: ${listed(stuck, 8)}.`,
    undefined,
    'attention',
  );

/** The project with a master at the place: as it is, or the one that lies between the masters. */
function atPlace(
  project: Project,
  place: CastPlace,
): { project: Project; masterId: MasterId; stuck: readonly string[] } {
  if ('master' in place) {
    const at = masterOf(project, place.master)?.place ?? {};
    return { project: handedOver(project, project, at), masterId: place.master, stuck: [] };
  }
  const made = instanceAt(project, place.design, place.name);
  const { info } = place;
  const own = info ? { ...made.project, masters: made.project.masters.map((m) => ({ ...m, info })) } : made.project;
  return { project: own, masterId: own.masters[0]!.id, stuck: made.stuck };
}

/** The glyphs a font is made of: `.notdef` first (drawn here if the project has none), then the cast ones in order. */
export function castOrder(project: Project, master: MasterId): Entry[] {
  const all = glyphsInOrder(project).filter((g) => g.cast);
  const own = all.find((g) => g.name === '.notdef');
  const notdef =
    own ?? Object.values(createProject({ family: '', unitsPerEm: project.unitsPerEm, created: 0 }).glyphs)[0]!;
  const rest = all.filter((g) => g !== own);
  if (rest.length + 1 > 65535) refuse(`The project has ${rest.length + 1} glyphs; a font holds at most 65,535.`);
  return [notdef, ...rest].map((glyph) => {
    const drawing = glyph === notdef && !own ? drawingOf(glyph, 'm1') : drawingOf(glyph, master);
    return { glyph, drawing, advance: Math.max(0, Math.min(WIDEST, Math.round(drawing.advance))) };
  });
}

/** Can a font file say that a character has a glyph? Halves of pairs are no characters, and U+0000 stands for none. */
const isCharacter = (code: number): boolean => code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff);

/** Code point to glyph index; the first glyph in order that claims a code point gets it. */
export function characterMap(entries: readonly Entry[]): Map<number, number> {
  const map = new Map<number, number>();
  entries.forEach((e, i) => {
    for (const code of e.glyph.unicodes) if (isCharacter(code) && !map.has(code)) map.set(code, i);
  });
  return map;
}

/** Characters that cannot be, or that two glyphs claim, and glyphs of less than no width. */
function oddNotes(entries: readonly Entry[], characters: ReadonlyMap<number, number>): Refusal[] {
  const none = entries.flatMap((e) =>
    e.glyph.unicodes.filter((c) => !isCharacter(c)).map((c) => `U+${codePointHex(c)} of ${e.glyph.name}`),
  );
  const twice = entries.flatMap((e, i) =>
    e.glyph.unicodes.flatMap((c) => {
      const at = characters.get(c);
      return at === undefined || at === i
        ? []
        : [`U+${codePointHex(c)} (${entries[at]!.glyph.name}, not ${e.glyph.name})`];
    }),
  );
  const narrow = entries.filter((e) => Math.round(e.drawing.advance) < 0).map((e) => e.glyph.name);
  const note = (what: string, list: readonly string[]) =>
    list.length > 0 ? [refused(`${what}: ${listed(list, 8)}.`, undefined, 'attention')] : [];
  return [
    ...note('Left out, since these are no characters', none),
    ...note('Claimed by two glyphs, of which the first has it', twice),
    ...note('Less than nothing wide, so without width in the font', narrow),
  ];
}
