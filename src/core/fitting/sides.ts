import { z } from 'zod';
import { addTo } from '../base/grouping';
import type { Refusal } from '../base/result';
import { shifted } from '../drawing/edits';
import { contourBounds, transformContour } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { gridded, tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { type DrawingPlace, defineEdit, edited, plural, refused, withGlyphs } from '../project/edit';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from '../project/model';
import { drawingBounds, drawingIn, drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphThere, leanOf, masterOf, masterThere } from '../project/queries';
import { isWaypointId, waypointKept, waypointOf } from '../project/waypoints';

/** Side bearings in font units; undefined for a drawing without an outline, which has an advance only. */
export type Sides = { left: number; right: number; advance: number };

/** A side of a glyph. */
export type SideName = 'left' | 'right';

/** Left and right side bearing and advance of a glyph's drawing; those of slanted letters are measured along the master’s angle. */
export function sidesOf(project: Project, glyph: Glyph, master: MasterId): Sides | { advance: number } {
  const drawing = drawingIn(project, glyph, master);
  const box = uprightBounds(project, drawing, master);
  if (isEmptyBox(box)) return { advance: drawing.advance };
  return { left: tidy(box.xMin), right: tidy(drawing.advance - box.xMax), advance: drawing.advance };
}

/** The box of a drawing; of slanted letters set upright about half the x-height. */
function uprightBounds(project: Project, drawing: Drawing, master: MasterId): Box {
  const source = drawingsOf(project, master);
  const own = masterOf(project, master);
  if (!own || own.italicAngle === 0) return drawingBounds(drawing, source);
  const { lean, pivot } = leanOf(own);
  const box = emptyBox();
  for (const contour of flattened(drawing, source)) {
    const { xMin, xMax, yMin, yMax } = contourBounds(transformContour(contour, [1, 0, -lean, 1, lean * pivot, 0]));
    if (xMin > xMax) continue;
    stretchBox(box, xMin, yMin);
    stretchBox(box, xMax, yMax);
  }
  return box;
}

const MOST_ADVANCE = 65535;

const sidesArgs = z.object({
  at: a.at,
  left: a.number.optional(),
  right: a.number.optional(),
  advance: a.number.optional(),
});
type SidesArgs = z.output<typeof sidesArgs>;

/** What setting sides of one glyph changes: itself, and composites that use it, which are looked for among `users`. */
function changedBySides(
  project: Project,
  { at, left, right, advance }: SidesArgs,
  users: readonly Glyph[],
): { changed: Glyph[]; sentence: string } | Refusal {
  const glyph = glyphThere(project, at.glyph);
  const master = masterThere(project, at.master);
  if (isWaypointId(at.master) && !waypointOf(glyph, at.master))
    return refused(`${glyph.name} has no waypoint there; its sides are set in the masters.`, { glyph: glyph.name });
  const before = drawingOf(glyph, at.master);
  const now = sidesOf(project, glyph, at.master);
  const hasOutline = 'left' in now;
  if (!hasOutline && (left !== undefined || right !== undefined))
    return refused(`${glyph.name} has no outline yet, so it has an advance width only.`);
  const shift = hasOutline && left !== undefined ? tidy(left - now.left) : 0;
  let width = advance ?? tidy(before.advance + shift);
  if (hasOutline && right !== undefined) width = tidy(before.advance + shift + (right - now.right));
  if (!Number.isFinite(width) || width < 0 || width > MOST_ADVANCE)
    return refused(`The advance width would be ${Math.round(width)}; it must be from 0 to ${MOST_ADVANCE}.`);
  const moved = shift === 0 ? before : shifted(before, shift);
  const next: Glyph = { ...glyph, drawings: { ...glyph.drawings, [at.master]: { ...moved, advance: width } } };
  const what = [
    left !== undefined && `left ${left}`,
    right !== undefined && `right ${right}`,
    advance !== undefined && `advance ${advance}`,
  ]
    .filter(Boolean)
    .join(', ');
  return {
    changed: [next, ...composites(users, at, before, shift, width)],
    sentence: `Set ${what} of ${glyph.name}, ${master.name}`,
  };
}

/**
 * Sets any of left, right and advance. Setting the left side moves everything in the drawing; composites that use the
 * glyph keep their marks over it and, where they were as wide as it, stay as wide as it. Setting right or advance moves
 * the right edge.
 */
export const setSides = defineEdit(
  { name: 'setSides', does: 'Sets sides or the advance width', reach: 'one master', args: sidesArgs },
  (project, args) => {
    const done = changedBySides(project, args, Object.values(project.glyphs));
    return 'changed' in done ? edited(withGlyphs(project, done.changed), done.sentence) : done;
  },
);

/**
 * Sides of many glyphs set one after the other, as {@link setSides} does: each sees what those before it came to. The glyphs of
 * the project are copied once, not once for each.
 */
export class ManySides {
  /** As it stands now; it changes with every step. */
  readonly now: Project;
  private readonly glyphs: Record<GlyphId, Glyph>;
  private readonly touched = new Set<GlyphId>();
  private readonly users = new Map<MasterId, Map<GlyphId, GlyphId[]>>();

  constructor(private readonly from: Project) {
    this.glyphs = { ...from.glyphs };
    this.now = { ...from, glyphs: this.glyphs };
  }

  /** Sets sides of one; undefined, or why it cannot be. */
  set(args: SidesArgs): Refusal | undefined {
    const users = this.usersIn(args.at.master).get(args.at.glyph) ?? [];
    const done = changedBySides(
      this.now,
      args,
      users.map((id) => this.glyphs[id]!),
    );
    if (!('changed' in done)) return done;
    for (const glyph of done.changed) {
      this.glyphs[glyph.id] = waypointKept(glyph);
      this.touched.add(glyph.id);
    }
    return undefined;
  }

  /** The project that it came to. */
  done(): Project {
    return withGlyphs(
      this.from,
      [...this.touched].map((id) => this.glyphs[id]!),
    );
  }

  /** The glyphs that are built of each, in a master: sides do not change that. */
  private usersIn(master: MasterId): Map<GlyphId, GlyphId[]> {
    let users = this.users.get(master);
    if (!users) {
      users = new Map();
      for (const { id, drawings } of Object.values(this.glyphs))
        for (const part of new Set(drawings[master]?.components.map((c) => c.glyph))) addTo(users, part, id);
      this.users.set(master, users);
    }
    return users;
  }
}

/** Composites of a glyph whose outline moved by `shift` and whose advance became `width`. */
function composites(users: readonly Glyph[], at: DrawingPlace, before: Drawing, shift: number, width: number): Glyph[] {
  return users.flatMap((glyph) => {
    const drawing = glyph.drawings[at.master];
    if (!drawing || glyph.id === at.glyph || !drawing.components.some((c) => c.glyph === at.glyph)) return [];
    const isBase = drawing.components[0]!.glyph === at.glyph;
    const components = drawing.components.map((c, i) => {
      const dx = c.glyph === at.glyph ? (isBase && i === 0 ? 0 : -shift) : isBase ? shift : 0;
      const [xx, xy, yx, yy, x, y] = c.transform;
      return dx === 0 ? c : { ...c, transform: [xx, xy, yx, yy, tidy(x + dx), y] as const };
    });
    const followsWidth = isBase && drawing.advance === before.advance;
    const next = { ...drawing, components, advance: followsWidth ? width : drawing.advance };
    return [{ ...glyph, drawings: { ...glyph.drawings, [at.master]: next } }];
  });
}

/** Does a glyph's width follow that of its base, so that what is added to the base is added to it? */
function followsBase(project: Project, glyph: Glyph, master: MasterId, among: ReadonlySet<GlyphId>): boolean {
  const { components, contours, advance } = drawingOf(glyph, master);
  const base = components[0] && project.glyphs[components[0].glyph];
  if (!base || contours.length > 0 || !among.has(base.id)) return false;
  return drawingOf(base, master).advance === advance;
}

/**
 * Adds a value evenly to both sides of some glyphs, in one master. Composites that are as wide as their base follow it, and
 * get the value once.
 */
export const addTracking = defineEdit(
  {
    name: 'addTracking',
    does: 'Adds an even value to the sides of glyphs',
    reach: 'one master',
    args: z.object({ glyphs: a.glyphs, master: a.master, value: a.number }),
  },
  (project, { glyphs, master, value }) => {
    const among = new Set(glyphs);
    const sides = new ManySides(project);
    for (const id of among) {
      const own = project.glyphs[id];
      if (!own || followsBase(project, own, master, among)) continue;
      const now = sidesOf(sides.now, sides.now.glyphs[id]!, master);
      const at = { glyph: id, master };
      const fault =
        'left' in now
          ? sides.set({ at, left: tidy(now.left + value), right: tidy(now.right + value) })
          : sides.set({ at, advance: tidy(now.advance + 2 * value) });
      if (fault) return fault;
    }
    return edited(sides.done(), `Added ${value} to both sides of ${plural(among.size, 'glyph')}`);
  },
);

/**
 * Adds to the sides of one glyph in some masters, each from its own values; a glyph without an outline takes both to its
 * advance. Sides that are changed land on a grid of so many units, where one is given.
 */
export const addToSides = defineEdit(
  {
    name: 'addToSides',
    does: 'Adds to both sides of a glyph',
    reach: 'masters named',
    args: z.object({
      glyph: a.glyph,
      masters: a.masters,
      left: a.number,
      right: a.number,
      grid: a.number.optional(),
    }),
  },
  (project, { glyph: id, masters, left, right, grid = 0 }) => {
    const { name } = glyphThere(project, id);
    if (masters.length === 0) return refused(`No master was named for ${name}.`);
    let current = project;
    // A side that is not changed keeps its fractions.
    const more = (v: number, by: number) => (by === 0 ? v : gridded(tidy(v + by), grid));
    for (const master of masters) {
      const glyph = glyphThere(current, id);
      const now = sidesOf(current, glyph, master);
      const at = { glyph: id, master };
      const done =
        'left' in now
          ? setSides(current, { at, left: more(now.left, left), right: more(now.right, right) })
          : setSides(current, { at, advance: more(now.advance, left + right) });
      if (!done.ok) return done;
      current = done.project;
    }
    return edited(
      current,
      `Changed the sides of ${name} in ${masters.length === 1 ? 'one master' : `${masters.length} masters`}`,
    );
  },
);

/** Gives one side's value to sides of the same or other glyphs, each master its own value; glyphs without an outline are passed over. */
export const copySide = defineEdit(
  {
    name: 'copySide',
    does: 'Copies a side to other glyphs',
    reach: 'masters named',
    args: z.object({
      from: a.glyph,
      side: a.side,
      to: a.glyphs,
      sides: z.array(a.side).readonly(),
      masters: a.masters,
    }),
  },
  (project, { from, side, to, sides, masters }) => {
    const many = new ManySides(project);
    const changed = new Set<GlyphId>();
    for (const master of masters) {
      const source = glyphThere(many.now, from);
      const value = sidesOf(many.now, source, master);
      if (!('left' in value)) continue;
      for (const id of to) {
        const glyph = many.now.glyphs[id];
        const now = glyph && sidesOf(many.now, glyph, master);
        const wanted = sides.filter((s) => now && 'left' in now && now[s] !== value[side]);
        if (!glyph || wanted.length === 0) continue;
        const fault = many.set({
          at: { glyph: id, master },
          ...Object.fromEntries(wanted.map((s) => [s, value[side]])),
        });
        if (fault) return fault;
        changed.add(id);
      }
    }
    if (changed.size === 0)
      return refused('Nothing would change: those sides have that value already, or are not drawn.');
    const [only] = changed;
    return edited(
      many.done(),
      `Copied the ${side} side of ${project.glyphs[from]!.name} to ${changed.size === 1 ? `the ${sides.join(' and ')} of ${project.glyphs[only!]!.name}` : plural(changed.size, 'glyph')}`,
    );
  },
);
