import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, refused } from './edit';
import { glyphNameFault } from './glyphNames';
import type { Glyph, Project } from './model';
import { pairKey, pairSides } from './pairs';
import { glyphNamed, glyphThere } from './queries';

/** The next free name for a copy of a glyph: `a.alt`, `a.alt2`, … */
export function copyName(project: Project, glyph: Glyph): string {
  const base = glyph.name.includes('.') ? glyph.name : `${glyph.name}.alt`;
  for (let n = glyph.name.includes('.') ? 2 : 1; ; n++) {
    const name = n === 1 ? base : `${base}${n}`;
    if (!glyphNamed(project, name)) return name;
  }
}

/** What another form of a glyph can be for, with the ending that rules know it by. */
export const FORM_PURPOSES: readonly { readonly suffix: string; readonly text: string }[] = [
  { suffix: 'alt', text: 'another form' },
  { suffix: 'ss', text: 'a stylistic set' },
  { suffix: 'swsh', text: 'a swash' },
  { suffix: 'hist', text: 'a historical form' },
  { suffix: 'titl', text: 'large sizes' },
  { suffix: 'case', text: 'beside capitals' },
  { suffix: 'init', text: 'the beginning of words' },
  { suffix: 'fina', text: 'the end of words' },
];

/** The next free name of a form: of stylistic sets `a.ss01`, `a.ss02`, …; of others `a.swsh`, `a.swsh2`, … */
export function formName(project: Project, glyph: Glyph, suffix: string): string {
  const base = glyph.name.split('.', 1)[0] || glyph.name;
  const nth = (n: number) => (suffix === 'ss' ? `ss${String(n).padStart(2, '0')}` : n === 1 ? suffix : `${suffix}${n}`);
  for (let n = 1; ; n++) {
    const name = `${base}.${nth(n)}`;
    if (!glyphNamed(project, name)) return name;
  }
}

/** A glyph with another's drawings in all masters and waypoints; it has no code point and no takes. */
export function copyOf(glyph: Glyph, id: string, name: string): Glyph {
  // A production name belongs to one glyph.
  const { productionName: _, ...own } = glyph;
  return { ...own, id, name, unicodes: [], takes: [], cast: true };
}

/**
 * Adds a copy of a glyph right after it: its drawings in all masters and waypoints, with sides and advances; by choice its
 * anchors, its kerning groups and pairs of its own. Its sides may follow those of the glyph until they are changed, and it may be
 * left to be drawn. The copy has no code point and no takes.
 */
export const duplicateGlyph = defineEdit(
  {
    name: 'duplicateGlyph',
    does: 'Adds a copy of a glyph',
    reach: 'all masters',
    args: z.object({
      glyph: a.glyph,
      name: a.text,
      anchors: z.boolean(),
      kerning: z.boolean(),
      /** Nothing is drawn in it yet. */
      blank: z.boolean().optional(),
      /** Its sides follow the glyph’s. */
      follow: z.boolean().optional(),
    }),
  },
  (project, { glyph: id, name: wanted, anchors, kerning, blank, follow }) => {
    const glyph = glyphThere(project, id);
    const name = wanted.trim();
    const fault = glyphNameFault(name);
    if (fault) return refused(fault);
    if (glyphNamed(project, name)) return refused(`There is already a glyph named ${name}.`);
    const bare = <D extends Glyph['drawings'][string]>(d: D): D => ({
      ...d,
      ...(!anchors && { anchors: [] }),
      ...(blank && { contours: [], components: [] }),
    });
    const copy = copyOf(glyph, `g${project.nextId}`, name);
    const own: Glyph = {
      ...copy,
      drawings: Object.fromEntries(Object.entries(copy.drawings).map(([m, d]) => [m, bare(d)])),
      waypoints: blank ? [] : copy.waypoints.map((w) => ({ ...w, drawing: bare(w.drawing) })),
      ...(follow && {
        follows: {
          left: [{ glyph: id, side: 'left' as const, offset: 0 }],
          right: [{ glyph: id, side: 'right' as const, offset: 0 }],
        },
      }),
    };
    const at = project.glyphOrder.indexOf(id);
    const next: Project = {
      ...project,
      nextId: project.nextId + 1,
      glyphOrder: [...project.glyphOrder.slice(0, at + 1), own.id, ...project.glyphOrder.slice(at + 1)],
      glyphs: { ...project.glyphs, [own.id]: own },
    };
    return edited(
      kerning ? withKerningOf(next, id, own.id) : next,
      blank ? `Made ${name}, to be drawn` : `Made ${name}, a copy of ${glyph.name}`,
    );
  },
);

/** A glyph kerned as another is: in its groups, and with pairs of its own where that has some. */
function withKerningOf(project: Project, from: string, to: string): Project {
  const groups = project.groups.map((g) => (g.members.includes(from) ? { ...g, members: [...g.members, to] } : g));
  const masters = project.masters.map((m) => {
    const added: Record<string, number> = {};
    for (const [key, value] of Object.entries(m.kerning)) {
      const sides = pairSides(key);
      if (!sides?.some((s) => s.kind === 'glyph' && s.id === from)) continue;
      const [first, second] = sides;
      const variants = (s: (typeof sides)[number]) =>
        s.kind === 'glyph' && s.id === from ? [s, { ...s, id: to }] : [s];
      for (const f of variants(first)) for (const s of variants(second)) added[pairKey(f, s)] = value;
    }
    return Object.keys(added).length > 0 ? { ...m, kerning: { ...m.kerning, ...added } } : m;
  });
  return { ...project, groups, masters };
}
