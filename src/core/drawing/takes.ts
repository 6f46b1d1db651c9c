import { z } from 'zod';
import * as a from '../project/arguments';
import { type DrawingPlace, defineEdit, editDrawing, edited, plural, refused, withGlyph } from '../project/edit';
import { type Drawing, type Glyph, glyphSchema, type MasterId, type Project } from '../project/model';
import { drawingOf, glyphThere, masterThere } from '../project/queries';

export type Take = Glyph['takes'][number];

/** What a take keeps of a drawing: all but what stands behind it. */
const kept = (d: Drawing): Drawing => ({ ...d, backdrops: [] });
const sameDrawing = (a: Drawing, b: Drawing): boolean => JSON.stringify(kept(a)) === JSON.stringify(kept(b));

/** Takes of a glyph in one master, the newest first. */
export const takesOf = (glyph: Glyph, master: MasterId): Take[] =>
  glyph.takes.filter((t) => t.master === master).reverse();

/** Is a drawing kept as a take, as it is now? */
export const isKept = (glyph: Glyph, master: MasterId): boolean =>
  glyph.takes.some((t) => t.master === master && sameDrawing(t.drawing, drawingOf(glyph, master)));

/** Keeps a drawing as it is now. `date` is when, as ISO 8601; the clock is the caller's. */
export const keepTake = defineEdit(
  {
    name: 'keepTake',
    does: 'Keeps a take',
    reach: 'one master',
    args: z.object({ at: a.at, date: a.date, name: a.text.optional() }),
  },
  (project, { at, date, name }) => {
    const glyph = glyphThere(project, at.glyph);
    const master = masterThere(project, at.master);
    const drawing = drawingOf(glyph, at.master);
    const same = glyph.takes.find((t) => t.master === at.master && sameDrawing(t.drawing, drawing));
    if (same) return refused(`This drawing is kept already, as “${same.name}”.`);
    const next = withTake(project, glyph, at, drawing, date, name ?? `Take ${glyph.takes.length + 1}`);
    return edited(next, `Kept a take of ${glyph.name}, ${master.name}`);
  },
);

function withTake(
  project: Project,
  glyph: Glyph,
  at: DrawingPlace,
  drawing: Drawing,
  date: string,
  name: string,
): Project {
  // Numbered by the glyph itself: takes are kept beside the history, which takes the project's numbers back.
  const newest = Math.max(0, ...glyph.takes.map((t) => Number(/^t(\d+)$/.exec(t.id)?.[1] ?? 0)));
  const take: Take = { id: `t${newest + 1}`, date, name, master: at.master, drawing: kept(drawing) };
  return withGlyph(project, { ...glyph, takes: [...glyph.takes, take] });
}

/** Brings a take back. What is there now is kept as a take first, unless it is kept already, so that nothing is lost. */
export const restoreTake = defineEdit(
  {
    name: 'restoreTake',
    does: 'Brings a take back',
    reach: 'one master',
    args: z.object({ at: a.at, take: a.text, date: a.date }),
  },
  (project, { at, take: id, date }) => {
    const glyph = project.glyphs[at.glyph];
    const take = glyph?.takes.find((t) => t.id === id);
    if (!glyph || !take) return refused('That take is no longer there.');
    const now = drawingOf(glyph, at.master);
    if (sameDrawing(now, take.drawing)) return refused(`The drawing is “${take.name}” already.`);
    const safe = isKept(glyph, at.master) ? project : withTake(project, glyph, at, now, date, `Before ${take.name}`);
    return editDrawing(safe, at, `Brought back “${take.name}”`, (d) => ({ ...take.drawing, backdrops: d.backdrops }));
  },
);

export const renameTake = defineEdit(
  {
    name: 'renameTake',
    does: 'Renames a take',
    reach: 'one master',
    args: z.object({ glyph: a.glyph, take: a.text, name: a.text }),
  },
  (project, { glyph: id, take, name }) => {
    const glyph = glyphThere(project, id);
    if (name.trim() === '') return refused('A take has a name.');
    if (!glyph.takes.some((t) => t.id === take)) return refused('That take is no longer there.');
    return edited(
      withGlyph(project, {
        ...glyph,
        takes: glyph.takes.map((t) => (t.id === take ? { ...t, name: name.trim() } : t)),
      }),
      `Named a take of ${glyph.name} “${name.trim()}”`,
    );
  },
);

/** The glyph without some takes, also where one lies behind a drawing. */
function withoutTakes(glyph: Glyph, gone: ReadonlySet<string>): Glyph {
  const shows = (b: Drawing['backdrops'][number]) => b.outline?.kind === 'take' && gone.has(b.outline.take);
  const drawings = Object.fromEntries(
    Object.entries(glyph.drawings).map(([m, d]) => [
      m,
      d.backdrops.some(shows) ? { ...d, backdrops: d.backdrops.filter((b) => !shows(b)) } : d,
    ]),
  );
  return { ...glyph, drawings, takes: glyph.takes.filter((t) => !gone.has(t.id)) };
}

/** Takes of a glyph that have a newer one in their master. */
export const olderTakes = (glyph: Glyph): Take[] =>
  glyph.takes.filter((t, i) => glyph.takes.some((newer, k) => k > i && newer.master === t.master));

/** Puts takes that were thrown away back among the others of their glyph. */
export const putTakeBack = defineEdit(
  {
    name: 'putTakeBack',
    does: 'Puts a take back that was thrown away',
    reach: 'one master',
    args: z.object({ glyph: a.glyph, take: glyphSchema.shape.takes.unwrap().element }),
  },
  (project, { glyph: id, take }) => {
    const glyph = glyphThere(project, id);
    if (glyph.takes.some((t) => t.id === take.id)) return refused('That take is there already.');
    const takes = [...glyph.takes, take].sort((x, y) => (x.date < y.date ? -1 : x.date > y.date ? 1 : 0));
    return edited(withGlyph(project, { ...glyph, takes }), `Put “${take.name}” of ${glyph.name} back`);
  },
);

/** Removes all takes that have a newer one, in every glyph and master: they take room, and the newest is what is missed. */
export const removeOlderTakes = defineEdit(
  {
    name: 'removeOlderTakes',
    does: 'Removes all takes but the newest of each drawing',
    reach: 'all masters',
    args: z.object({}),
  },
  (project) => {
    let next = project;
    let count = 0;
    for (const glyph of Object.values(project.glyphs)) {
      const gone = olderTakes(glyph);
      if (gone.length === 0) continue;
      count += gone.length;
      next = withGlyph(next, withoutTakes(glyph, new Set(gone.map((t) => t.id))));
    }
    return count > 0 ? edited(next, `Threw ${plural(count, 'older take')} away`) : refused('No take has a newer one.');
  },
);

export const removeTake = defineEdit(
  { name: 'removeTake', does: 'Removes a take', reach: 'one master', args: z.object({ glyph: a.glyph, take: a.text }) },
  (project, { glyph: id, take }) => {
    const glyph = project.glyphs[id];
    const found = glyph?.takes.find((t) => t.id === take);
    if (!glyph || !found) return refused('That take is no longer there.');
    return edited(
      withGlyph(project, withoutTakes(glyph, new Set([take]))),
      `Threw away “${found.name}” of ${glyph.name}`,
    );
  },
);
