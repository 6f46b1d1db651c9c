import { z } from 'zod';
import { type Affine, compose, determinant, IDENTITY } from '../geometry/affine';
import { reverseContour, transformContour } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { type DrawingPlace, defineEdit, editDrawing, edited, plural, refused } from '../project/edit';
import { addGlyphs } from '../project/glyphEdits';
import type { Drawing, GlyphId, MasterId, Project } from '../project/model';
import { cycleFrom, drawingsOf } from '../project/outline';
import { drawingOf, glyphNamed, glyphThere } from '../project/queries';

/** Why a glyph cannot be drawn in another: the chain that would lead back, as a sentence; undefined when it can. */
export function cycleSentence(project: Project, into: GlyphId, part: GlyphId, master: MasterId): string | undefined {
  const source = drawingsOf(project, master);
  const name = (id: GlyphId) => project.glyphs[id]?.name ?? id;
  if (part === into) return `${name(into)} cannot be a part of itself.`;
  const probe = (id: GlyphId): Drawing | undefined => {
    const d = source(id);
    return id === into && d
      ? { ...d, components: [...d.components, { glyph: part, transform: [1, 0, 0, 1, 0, 0] }] }
      : d;
  };
  const chain = cycleFrom(into, probe);
  return chain && `${name(part)} cannot be a part of ${name(into)}: ${chain.map(name).join(' → ')} would never end.`;
}

/** The same for all the masters that a place names. */
export const cycleIn = (project: Project, at: DrawingPlace, part: GlyphId): string | undefined =>
  [at.master, ...(at.also ?? [])].map((m) => cycleSentence(project, at.glyph, part, m)).find((s) => s !== undefined);

export const addComponent = defineEdit(
  {
    name: 'addComponent',
    does: 'Places a part',
    reach: 'one master',
    args: z.object({ at: a.at, glyph: a.glyph, transform: a.affine.optional() }),
  },
  (project, { at, glyph, transform = IDENTITY }) => {
    const cycle = cycleIn(project, at, glyph);
    if (cycle) return refused(cycle);
    return editDrawing(project, at, `Placed ${glyphThere(project, glyph).name}`, (d) => ({
      ...d,
      components: [...d.components, { glyph, transform }],
    }));
  },
);

export const setComponent = defineEdit(
  {
    name: 'setComponent',
    does: 'Changes a part',
    reach: 'one master',
    args: z.object({ at: a.at, index: a.index, change: z.object({ glyph: a.glyph, transform: a.affine }).partial() }),
  },
  (project, { at, index, change }) => {
    const cycle = change.glyph && cycleIn(project, at, change.glyph);
    if (cycle) return refused(cycle);
    return editDrawing(project, at, change.glyph ? 'Exchanged a part' : 'Moved a part', (d) => {
      if (!d.components[index]) return refused('That part is no longer there.');
      if (change.transform?.some((v) => !Number.isFinite(v))) return refused('A number is missing.');
      if (change.transform && Math.abs(determinant(change.transform)) < 1e-9)
        return refused('A part that is 0 wide or high could not be seen any more.');
      return { ...d, components: d.components.map((c, i) => (i === index ? { ...c, ...change } : c)) };
    });
  },
);

export const moveComponents = defineEdit(
  {
    name: 'moveComponents',
    does: 'Moves parts',
    reach: 'one master',
    args: z.object({ at: a.at, indices: a.indices, dx: a.number, dy: a.number }),
  },
  (project, { at, indices, dx, dy }) =>
    editDrawing(project, at, `Moved ${plural(indices.length, 'part')}`, (d) => ({
      ...d,
      components: d.components.map((c, i) =>
        indices.includes(i) ? { ...c, transform: shiftedBy(c.transform, dx, dy) } : c,
      ),
    })),
);

const shiftedBy = ([a, b, c, d, x, y]: Affine, dx: number, dy: number): Affine => [
  a,
  b,
  c,
  d,
  tidy(x + dx),
  tidy(y + dy),
];

export const removeComponents = defineEdit(
  {
    name: 'removeComponents',
    does: 'Takes parts away',
    reach: 'one master',
    args: z.object({ at: a.at, indices: a.indices }),
  },
  (project, { at, indices }) =>
    editDrawing(project, at, `Took ${plural(indices.length, 'part')} away`, (d) => ({
      ...d,
      components: d.components.filter((_, i) => !indices.includes(i)),
    })),
);

/** Turns parts into contours of the glyph's own; parts of parts become parts of it. */
export const drawOut = defineEdit(
  {
    name: 'drawOut',
    does: 'Turns parts into outlines',
    reach: 'one master',
    args: z.object({ at: a.at, indices: a.indices }),
  },
  (project, { at, indices }) =>
    editDrawing(project, at, `Turned ${plural(indices.length, 'part')} into outlines`, (d, master) => {
      const source = drawingsOf(project, master);
      const own = d.components.filter((_, i) => indices.includes(i));
      if (own.length === 0) return refused('There is no part to turn into outlines.');
      const contours = own.flatMap(({ glyph, transform }) =>
        (source(glyph)?.contours ?? []).map((c) => {
          const moved = transformContour(c, transform);
          const exact = { ...moved, points: moved.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) };
          return determinant(transform) < 0 ? reverseContour(exact) : exact;
        }),
      );
      const nested = own.flatMap(({ glyph, transform }) =>
        (source(glyph)?.components ?? []).map((c) => ({ ...c, transform: compose(transform, c.transform) })),
      );
      return {
        ...d,
        contours: [...d.contours, ...contours],
        components: [...d.components.filter((_, i) => !indices.includes(i)), ...nested],
      };
    }),
);

/**
 * Makes a glyph of its own of some contours and puts it in their place as a part; in every master whose drawing has contours
 * at those places, so that the masters go on agreeing.
 */
export const makeComponent = defineEdit(
  {
    name: 'makeComponent',
    does: 'Makes contours a part with a name',
    reach: 'all masters',
    args: z.object({ at: a.at, contours: a.indices, name: a.text }),
  },
  (project, { at, contours: chosen, name }) => {
    const glyph = glyphThere(project, at.glyph);
    if (chosen.length === 0) return refused('Choose some contours to make a part of.');
    if (glyphNamed(project, name)) return refused(`There is already a glyph named ${name}.`);
    const added = addGlyphs(project, { requests: [{ name, unicodes: [] }] });
    if (!added.ok) return added;
    const part = glyphNamed(added.project, name)!;
    const masters = project.masters
      .map((m) => m.id)
      .filter((m) => m === at.master || chosen.every((i) => drawingOf(glyph, m).contours[i]));
    const drawings = { ...glyph.drawings };
    const parts = { ...part.drawings };
    for (const m of masters) {
      const d = drawingOf(glyph, m);
      parts[m] = {
        ...(parts[m] ?? drawingOf(part, m)),
        advance: d.advance,
        contours: d.contours.filter((_, i) => chosen.includes(i)),
      };
      drawings[m] = {
        ...d,
        contours: d.contours.filter((_, i) => !chosen.includes(i)),
        components: [...d.components, { glyph: part.id, transform: [1, 0, 0, 1, 0, 0] }],
      };
    }
    const glyphs = {
      ...added.project.glyphs,
      [glyph.id]: { ...glyph, drawings },
      [part.id]: { ...part, drawings: parts, cast: false },
    };
    return edited({ ...added.project, glyphs }, `Made ${name} of ${plural(chosen.length, 'contour')} of ${glyph.name}`);
  },
);
