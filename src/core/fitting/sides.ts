import { z } from 'zod';
import { shifted } from '../drawing/edits';
import { contourBounds, transformContour } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { gridded, tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { type DrawingPlace, defineEdit, edited, plural, refused, withGlyph } from '../project/edit';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from '../project/model';
import { drawingBounds, drawingIn, drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphThere, leanOf, masterOf, masterThere } from '../project/queries';
import { isWaypointId, waypointOf } from '../project/waypoints';

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

/**
 * Sets any of left, right and advance. Setting the left side moves everything in the drawing; composites that use the
 * glyph keep their marks over it and, where they were as wide as it, stay as wide as it. Setting right or advance moves
 * the right edge.
 */
export const setSides = defineEdit(
  {
    name: 'setSides',
    does: 'Sets sides or the advance width',
    reach: 'one master',
    args: z.object({ at: a.at, left: a.number.optional(), right: a.number.optional(), advance: a.number.optional() }),
  },
  (project, { at, left, right, advance }) => {
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
    const changed = withComposites(withGlyph(project, next), at, before, shift, width);
    const what = [
      left !== undefined && `left ${left}`,
      right !== undefined && `right ${right}`,
      advance !== undefined && `advance ${advance}`,
    ]
      .filter(Boolean)
      .join(', ');
    return edited(changed, `Set ${what} of ${glyph.name}, ${master.name}`);
  },
);

/** Composites of a glyph whose outline moved by `shift` and whose advance became `width`. */
function withComposites(project: Project, at: DrawingPlace, before: Drawing, shift: number, width: number): Project {
  let glyphs: Record<GlyphId, Glyph> | undefined;
  for (const glyph of Object.values(project.glyphs)) {
    const drawing = glyph.drawings[at.master];
    if (!drawing || glyph.id === at.glyph || !drawing.components.some((c) => c.glyph === at.glyph)) continue;
    const isBase = drawing.components[0]!.glyph === at.glyph;
    const components = drawing.components.map((c, i) => {
      const dx = c.glyph === at.glyph ? (isBase && i === 0 ? 0 : -shift) : isBase ? shift : 0;
      const [xx, xy, yx, yy, x, y] = c.transform;
      return dx === 0 ? c : { ...c, transform: [xx, xy, yx, yy, tidy(x + dx), y] as const };
    });
    const followsWidth = isBase && drawing.advance === before.advance;
    const next = { ...drawing, components, advance: followsWidth ? width : drawing.advance };
    glyphs ??= { ...project.glyphs };
    glyphs[glyph.id] = { ...glyph, drawings: { ...glyph.drawings, [at.master]: next } };
  }
  return glyphs ? { ...project, glyphs } : project;
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
    let current = project;
    for (const id of among) {
      const own = project.glyphs[id];
      if (!own || followsBase(project, own, master, among)) continue;
      const glyph = current.glyphs[id]!;
      const now = sidesOf(current, glyph, master);
      const at = { glyph: id, master };
      const outcome =
        'left' in now
          ? setSides(current, { at, left: tidy(now.left + value), right: tidy(now.right + value) })
          : setSides(current, { at, advance: tidy(now.advance + 2 * value) });
      if (!outcome.ok) return outcome;
      current = outcome.project;
    }
    return edited(current, `Added ${value} to both sides of ${plural(among.size, 'glyph')}`);
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
    let current = project;
    const changed = new Set<GlyphId>();
    for (const master of masters) {
      const source = glyphThere(current, from);
      const value = sidesOf(current, source, master);
      if (!('left' in value)) continue;
      for (const id of to) {
        const glyph = current.glyphs[id];
        const now = glyph && sidesOf(current, glyph, master);
        const wanted = sides.filter((s) => now && 'left' in now && now[s] !== value[side]);
        if (!glyph || wanted.length === 0) continue;
        const done = setSides(current, {
          at: { glyph: id, master },
          ...Object.fromEntries(wanted.map((s) => [s, value[side]])),
        });
        if (!done.ok) return done;
        current = done.project;
        changed.add(id);
      }
    }
    if (changed.size === 0)
      return refused('Nothing would change: those sides have that value already, or are not drawn.');
    const [only] = changed;
    return edited(
      current,
      `Copied the ${side} side of ${project.glyphs[from]!.name} to ${changed.size === 1 ? `the ${sides.join(' and ')} of ${project.glyphs[only!]!.name}` : plural(changed.size, 'glyph')}`,
    );
  },
);
