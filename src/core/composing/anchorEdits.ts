import { z } from 'zod';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, edited, type Outcome, plural, refused, withGlyph } from '../project/edit';
import type { Anchor, Drawing, Glyph, Project } from '../project/model';
import { drawingOf, glyphThere } from '../project/queries';
import { proposedAnchor } from './anchorPlaces';
import { ANCHOR_NAMES } from './marks';

/** Edits of single anchors: where they lie in a master, what they are called in all. */

const NAME = /^_?[A-Za-z][A-Za-z0-9_.-]{0,40}$/;
const nameFault = (name: string): string | undefined =>
  NAME.test(name)
    ? undefined
    : 'The name of an anchor begins with a letter, or with _ on a mark, and has letters, figures, _ . and -.';

const withAnchor = (d: Drawing, name: string, change: (a: Anchor) => Anchor): Drawing => ({
  ...d,
  anchors: d.anchors.map((o) => (o.name === name ? change(o) : o)),
});

/** Moves an anchor in one master. */
export const moveAnchor = defineEdit(
  {
    name: 'moveAnchor',
    does: 'Moves an anchor',
    reach: 'one master',
    args: z.object({ at: a.at, name: a.text, x: a.units, y: a.units }),
  },
  (project, { at, name, x, y }) => {
    const was = drawingOf(glyphThere(project, at.glyph), at.master).anchors.find((o) => o.name === name);
    if (!was) return refused(`There is no anchor ${name} here.`);
    const moved = editDrawing(project, { glyph: at.glyph, master: at.master }, `Moved the anchor ${name}`, (d) =>
      withAnchor(d, name, (o) => ({ ...o, x, y })),
    );
    return moved.ok ? followed(project, moved, at, name, [tidy(x - was.x), tidy(y - was.y)]) : moved;
  },
);

/**
 * Does a part sit at an anchor of the letter's base? It says so, or, in letters of sources that do not tell, it lies where the
 * anchors of the two meet.
 */
function sitsAt(project: Project, d: Drawing, index: number, master: string, anchor: string): boolean {
  const part = d.components[index]!;
  if (index === 0) return false;
  if (part.anchor !== undefined) return part.anchor === anchor;
  const [base, mark] = [d.components[0]!, part].map((c) => {
    const of = project.glyphs[c.glyph];
    return of && drawingOf(of, master);
  });
  const on = base?.anchors.find((o) => o.name === anchor);
  const sits = mark?.anchors.find((o) => o.name === `_${anchor}`);
  if (!on || !sits) return false;
  const [dx, dy] = [4, 5].map((k) => part.transform[k]! - d.components[0]!.transform[k]!) as [number, number];
  return Math.abs(on.x - sits.x - dx) <= 1 && Math.abs(on.y - sits.y - dy) <= 1;
}

/** Letters put together at an anchor follow it: marks on the base go with it, a mark goes the other way on every base. */
function followed(
  before: Project,
  { project, sentence }: { project: Project; sentence: string },
  { glyph, master }: { glyph: string; master: string },
  name: string,
  [dx, dy]: readonly [number, number],
): Outcome {
  const [anchor, sign] = name.startsWith('_') ? [name.slice(1), -1] : [name, 1];
  const glyphs = { ...project.glyphs };
  let count = 0;
  for (const g of Object.values(project.glyphs)) {
    const d = g.drawings[master];
    if (!d || d.components.length < 2) continue;
    const onBase = sign > 0 && d.components[0]!.glyph === glyph;
    const components = d.components.map((c, i) => {
      if (!(onBase || (sign < 0 && c.glyph === glyph)) || !sitsAt(before, d, i, master, anchor)) return c;
      const [xx, xy, yx, yy, cx, cy] = c.transform;
      return { ...c, transform: [xx, xy, yx, yy, tidy(cx + sign * dx), tidy(cy + sign * dy)] as const };
    });
    if (components.every((c, i) => c === d.components[i])) continue;
    glyphs[g.id] = { ...g, drawings: { ...g.drawings, [master]: { ...d, components } } };
    count++;
  }
  return count === 0
    ? edited(project, sentence)
    : edited({ ...project, glyphs }, `${sentence}; ${plural(count, 'letter follows', 'letters follow')}`);
}

/** Adds an anchor in every master that lacks it: by the shape for the names that are known, else in the middle. */
export const addAnchor = defineEdit(
  {
    name: 'addAnchor',
    does: 'Adds an anchor to a glyph',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, name: a.text }),
  },
  (project, { glyph: id, name: wanted }) => {
    const glyph = glyphThere(project, id);
    const name = wanted.trim();
    const fault = nameFault(name);
    if (fault) return refused(fault);
    const isMark = name.startsWith('_');
    const kind = ANCHOR_NAMES.find((n) => n === name.replace(/^_/, ''));
    const drawings = { ...glyph.drawings };
    let changed = false;
    for (const m of project.masters) {
      const d = drawingOf(glyph, m.id);
      if (d.anchors.some((o) => o.name === name)) continue;
      const role = isMark ? 'isMark' : 'takesMark';
      const placed = kind && proposedAnchor(project, glyph, m, kind, role);
      const middle: Anchor = { name, x: Math.round(d.advance / 2), y: m.zones.xHeight.position, role };
      drawings[m.id] = { ...d, anchors: [...d.anchors, placed ?? middle] };
      changed = true;
    }
    return changed
      ? edited(withGlyph(project, { ...glyph, drawings }), `Added the anchor ${name} to ${glyph.name}`)
      : refused(`${glyph.name} has an anchor ${name} already.`);
  },
);

const everywhere = (glyph: Glyph, change: (d: Drawing) => Drawing): Glyph => ({
  ...glyph,
  drawings: Object.fromEntries(Object.entries(glyph.drawings).map(([m, d]) => [m, change(d)])),
  waypoints: glyph.waypoints.map((w) => ({ ...w, drawing: change(w.drawing) })),
});

/** Takes an anchor away in every master. */
export const removeAnchor = defineEdit(
  {
    name: 'removeAnchor',
    does: 'Takes an anchor away',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, name: a.text }),
  },
  (project, { glyph: id, name }) => {
    const glyph = glyphThere(project, id);
    if (!Object.values(glyph.drawings).some((d) => d.anchors.some((o) => o.name === name)))
      return refused(`${glyph.name} has no anchor ${name}.`);
    const next = everywhere(glyph, (d) => ({ ...d, anchors: d.anchors.filter((o) => o.name !== name) }));
    return edited(withGlyph(project, next), `Took the anchor ${name} away from ${glyph.name}`);
  },
);

/** Copies anchors of a glyph to others, as they lie, in every master; those of the same name there are replaced. */
export const copyAnchors = defineEdit(
  {
    name: 'copyAnchors',
    does: 'Copies anchors to other glyphs',
    reach: 'all masters',
    args: z.object({ from: a.glyph, names: a.texts, to: a.glyphs }),
  },
  (project, { from, names, to }) => {
    const source = glyphThere(project, from);
    const wanted = new Set(names);
    const has = (g: Glyph) => Object.values(g.drawings).some((d) => d.anchors.some((o) => wanted.has(o.name)));
    if (!has(source)) return refused(`${source.name} has no such anchor.`);
    const glyphs = { ...project.glyphs };
    let count = 0;
    for (const id of to) {
      const glyph = project.glyphs[id];
      if (!glyph || id === from) continue;
      const drawings = { ...glyph.drawings };
      for (const m of project.masters) {
        const copied = drawingOf(source, m.id).anchors.filter((o) => wanted.has(o.name));
        const d = drawingOf(glyph, m.id);
        const kept = d.anchors.filter((o) => !copied.some((c) => c.name === o.name));
        if (copied.length > 0) drawings[m.id] = { ...d, anchors: [...kept, ...copied] };
      }
      glyphs[id] = { ...glyph, drawings };
      count++;
    }
    if (count === 0) return refused('There is no other glyph to copy to.');
    return edited({ ...project, glyphs }, `Copied ${plural(wanted.size, 'anchor')} to ${plural(count, 'glyph')}`);
  },
);

/** Renames an anchor in every glyph and master, on bases and on the marks that sit there. */
export const renameAnchors = defineEdit(
  {
    name: 'renameAnchors',
    does: 'Renames an anchor everywhere',
    reach: 'all masters',
    args: z.object({ from: a.text, to: a.text }),
  },
  (project, { from, to: wanted }) => {
    const [before, after] = [from, wanted.trim()].map((n) => n.replace(/^_/, '')) as [string, string];
    const fault = nameFault(after);
    if (fault) return refused(fault);
    const names = new Map([before, `_${before}`].map((n) => [n, n.startsWith('_') ? `_${after}` : after]));
    const has = (g: Glyph, list: Iterable<string>) => {
      const among = new Set(list);
      return Object.values(g.drawings).some((d) => d.anchors.some((o) => among.has(o.name)));
    };
    const touched = Object.values(project.glyphs).filter((g) => has(g, names.keys()));
    if (touched.length === 0) return refused(`There is no anchor ${before}.`);
    const taken = touched.find((g) => has(g, names.values()));
    if (taken) return refused(`${taken.name} has an anchor ${after} already.`);
    const renamed = (d: Drawing): Drawing => ({
      ...d,
      anchors: d.anchors.map((o) => (names.has(o.name) ? { ...o, name: names.get(o.name)! } : o)),
      components: d.components.map((c) => (c.anchor === before ? { ...c, anchor: after } : c)),
    });
    const glyphs: Project['glyphs'] = Object.fromEntries(
      Object.entries(project.glyphs).map(([id, g]) => {
        const uses = Object.values(g.drawings).some((d) => d.components.some((c) => c.anchor === before));
        return [id, has(g, names.keys()) || uses ? everywhere(g, renamed) : g];
      }),
    );
    return edited(
      { ...project, glyphs },
      `Renamed the anchor ${before} to ${after} in ${plural(touched.length, 'glyph')}`,
    );
  },
);
