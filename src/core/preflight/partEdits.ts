import { z } from 'zod';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, edited, refused, withGlyph } from '../project/edit';
import type { Component, Drawing, Project } from '../project/model';
import { glyphThere } from '../project/queries';
import { narrowerThanBase } from './fitting';
import { offAnchors } from './parts';

/** Puts the marks of a composite where the anchors of base and mark say, in every master. */
export const placeByAnchors = defineEdit(
  {
    name: 'placeByAnchors',
    does: 'Puts the marks of a composite where the anchors say',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph }),
  },
  (project, { glyph: id }) => {
    let glyph = glyphThere(project, id);
    let now: Project = project;
    let moved = 0;
    for (const master of project.masters) {
      // One mark after the other, since those farther out hang on those before.
      for (let round = 0; round < 8; round++) {
        const off = offAnchors(now, master, glyph);
        const drawing = glyph.drawings[master.id];
        if (!off || !drawing || off.by < 0.01) break;
        const components = drawing.components.map((c, i): Component => {
          if (i !== off.index) return c;
          const [xx, xy, yx, yy, dx, dy] = c.transform;
          return { ...c, transform: [xx, xy, yx, yy, tidy(dx + off.dx), tidy(dy + off.dy)] };
        });
        glyph = { ...glyph, drawings: { ...glyph.drawings, [master.id]: { ...drawing, components } } };
        now = withGlyph(project, glyph);
        moved++;
      }
    }
    return moved === 0
      ? refused(`The marks of ${glyph.name} stand where the anchors put them.`)
      : edited(now, `Put the marks of ${glyph.name} where the anchors say`);
  },
);

/** Takes the advance of a mark away in every master; its outline stays where it is, and letters that it is a part of with it. */
export const emptyAdvance = defineEdit(
  {
    name: 'emptyAdvance',
    does: 'Takes the advance of a mark away',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph }),
  },
  (project, { glyph: id }) => {
    const glyph = glyphThere(project, id);
    const drawings = Object.fromEntries(
      Object.entries(glyph.drawings).map(([m, d]): [string, Drawing] => [
        m,
        d.advance === 0 ? d : { ...d, advance: 0 },
      ]),
    );
    if (Object.entries(drawings).every(([m, d]) => d === glyph.drawings[m]))
      return refused(`${glyph.name} has no advance.`);
    return edited(withGlyph(project, { ...glyph, drawings }), `Took the advance of ${glyph.name} away`);
  },
);

/** Gives a letter of a base and marks the advance of its base in every master. */
export const takeBaseWidth = defineEdit(
  {
    name: 'takeBaseWidth',
    does: 'Gives a composite the advance of its base',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph }),
  },
  (project, { glyph: id }) => {
    const glyph = glyphThere(project, id);
    const drawings = { ...glyph.drawings };
    let changed = false;
    for (const master of project.masters) {
      const off = narrowerThanBase(project, master, glyph);
      const own = drawings[master.id];
      if (!off || !own || Math.abs(off.by) < 0.01) continue;
      drawings[master.id] = { ...own, advance: tidy(own.advance - off.by) };
      changed = true;
    }
    return changed
      ? edited(withGlyph(project, { ...glyph, drawings }), `Gave ${glyph.name} the advance of its base`)
      : refused(`${glyph.name} is as wide as its base.`);
  },
);
