import { italicOf } from '../src/core/drawing/italic';
import { updateFollows } from '../src/core/fitting/follows';
import type { Contour } from '../src/core/geometry/contour';
import type { Drawing, Glyph, MasterId, Project } from '../src/core/project/model';
import { glyphNamed, glyphsInOrder } from '../src/core/project/queries';
import { removeGlyphs } from '../src/core/project/removal';

/** How far the italic leans, in degrees. */
const LEAN = 9;
/** The signs beyond Latin letters that a line of a timetable needs. */
const MORE = '–—‘’“”…•€£→';

/** The addresses of the two demos in the browser. */
export const ROMAN = { id: 'velmarrow', name: 'Velmarrow Sans' };
export const ITALIC = { id: 'velmarrow-italic', name: 'Velmarrow Sans Italic' };

const isBasic = (g: Glyph): boolean =>
  g.name === '.notdef' ||
  g.unicodes.some((c) => (c >= 0x20 && c < 0x7f) || (c >= 0xa0 && c < 0x180) || MORE.includes(String.fromCodePoint(c)));

/**
 * Velmarrow Sans Italic, the partner of the roman: its alphabet with its accents slanted by the tool, in all masters, and corrected where an italic
 * is not a leaning roman: a is written in one storey, and f comes down below the line.
 */
export function buildItalic(demo: Project): Project {
  const kept = alphabet(demo);
  const drawn = corrected(corrected(kept, 'a', italicA(kept)), 'f', italicF(kept));
  const slanted = italicOf(ofGroups(drawn, 'a', 'd'), LEAN);
  const followed = updateFollows(slanted, {});
  const leaning = followed.ok ? followed.project : slanted;
  return {
    ...leaning,
    settings: { ...leaning.settings, partner: ROMAN, languages: [], lists: [] },
  };
}

/** The roman’s alphabet with the rules that write themselves. */
function alphabet(demo: Project): Project {
  const used = new Set(
    glyphsInOrder(demo)
      .filter(isBasic)
      .flatMap((g) => Object.values(g.drawings).flatMap((d) => d.components.map((c) => c.glyph))),
  );
  const ids = glyphsInOrder(demo).flatMap((g) => (isBasic(g) || used.has(g.id) ? [] : [g.id]));
  const plain: Project = {
    ...demo,
    features: {
      ...demo.features,
      sections: demo.features.sections.filter((s) => s.automatic !== undefined),
      classes: {},
    },
    texts: { ...demo.texts, words: [], pairs: [] },
  };
  const removed = removeGlyphs(plain, { ids });
  if (!removed.ok) throw new Error(removed.reason);
  return removed.project;
}

type Redrawn = (drawing: Drawing, master: MasterId) => Drawing;

function corrected(project: Project, name: string, redrawn: Redrawn): Project {
  const glyph = glyphNamed(project, name)!;
  const drawings = Object.fromEntries(Object.entries(glyph.drawings).map(([m, d]) => [m, redrawn(d, m)]));
  return { ...project, glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings } } };
}

const moved = (contours: readonly Contour[], to: (y: number) => number): Contour[] =>
  contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, y: to(p.y) })) }));

/** The bowl and stem of d, its stem as tall as x. */
const italicA =
  (project: Project): Redrawn =>
  (a, master) => {
    const d = glyphNamed(project, 'd')!.drawings[master]!;
    const { xHeight } = project.masters.find((m) => m.id === master)!.zones;
    const low = xHeight.position + 2 * xHeight.overshoot;
    const anchors = a.anchors.map((n) => ({ ...n, x: n.x + (d.advance - a.advance) / 2 }));
    return { ...d, anchors, contours: moved(d.contours, (y) => (y > low ? xHeight.position : y)) };
  };

/** The foot of f on the line of the descenders. */
const italicF =
  (project: Project): Redrawn =>
  (f, master) => {
    const { descender } = project.masters.find((m) => m.id === master)!.zones;
    return { ...f, contours: moved(f.contours, (y) => (y === 0 ? descender.position : y)) };
  };

/** A letter kerned as another, whose sides it has. */
function ofGroups(project: Project, name: string, like: string): Project {
  const [own, other] = [glyphNamed(project, name)!.id, glyphNamed(project, like)!.id];
  return {
    ...project,
    groups: project.groups.map((g) => {
      const members = g.members.filter((m) => m !== own);
      return { ...g, members: members.includes(other) ? [...members, own] : members };
    }),
    masters: project.masters.map((m) => ({
      ...m,
      kerning: Object.fromEntries(
        Object.entries(m.kerning).filter(([key]) => !key.split(' ').includes(`glyph:${own}`)),
      ),
    })),
  };
}
