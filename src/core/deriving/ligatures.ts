import { addTo } from '../base/grouping';
import { ligatureAnchors } from '../composing/ligatures';
import { removeOverlaps } from '../geometry/overlaps';
import { tidy } from '../geometry/tidy';
import { collisions } from '../kerning/collisions';
import { withGlyph } from '../project/edit';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed, glyphsInOrder } from '../project/queries';
import { sameStructure } from '../project/structure';
import type { Item } from './sets';

/** Ligatures that text of Latin has use for, and the characters that some have. */
const USUAL: readonly (readonly [letters: string, code?: number])[] = [
  ['ff', 0xfb00],
  ['fi', 0xfb01],
  ['fl', 0xfb02],
  ['ffi', 0xfb03],
  ['ffl', 0xfb04],
];
/** What f runs into in some designs and not in others. */
const PERHAPS = ['fb', 'fh', 'fj', 'fk', 'ft', 'fï', 'fî', 'fí', 'fł', 'ffb', 'ffh', 'ffj', 'ffk'];
/** Nearer than this share of the em, letters are taken to touch. */
const TOUCHING = 0.006;

const letterOf = (project: Project, c: string): Glyph | undefined => glyphForCodePoint(project, c.codePointAt(0)!);

const hits = new WeakMap<Project['glyphs'], ReadonlyMap<string, string>>();

/** Pairs of letters after f that come too near, by both names, with the masters in which they do. */
function touching(project: Project): ReadonlyMap<string, string> {
  const known = hits.get(project.glyphs);
  if (known) return known;
  const letters = [...new Set([...USUAL.map(([l]) => l), ...PERHAPS].flatMap((l) => [...l]))];
  const ids = letters.flatMap((c) => letterOf(project, c)?.id ?? []);
  const f = letterOf(project, 'f')?.id;
  const found = new Map<string, string[]>();
  for (const m of project.masters)
    for (const { first, second } of collisions(project, m.id, ids, project.unitsPerEm * TOUCHING))
      if (first === f) {
        const key = `${project.glyphs[first]!.name} ${project.glyphs[second]!.name}`;
        addTo(found, key, m.name);
      }
  const all = project.masters.length;
  const told = new Map([...found].map(([k, names]) => [k, names.length === all ? '' : ` in ${names.join(', ')}`]));
  hits.set(project.glyphs, told);
  return told;
}

/** Ligatures that are usual, and those that this design needs since its letters touch. */
export function ligatureItems(project: Project): Item[] {
  const near = touching(project);
  const known = [...USUAL, ...PERHAPS.map((l): readonly [string, number?] => [l])].flatMap(
    ([letters, code]): Item[] => {
      const glyphs = [...letters].map((c) => letterOf(project, c));
      if (glyphs.some((g) => g === undefined)) return [];
      const names = glyphs.map((g) => g!.name);
      const hit = names.slice(1).flatMap((n, i) => {
        const where = near.get(`${names[i]} ${n}`);
        return where === undefined ? [] : [`${names[i]} and ${n} touch${where}.`];
      });
      const name = names.join('_');
      const drawn = glyphNamed(project, name) !== undefined;
      if (code === undefined && hit.length === 0 && !drawn) return [];
      const free = code !== undefined && (drawn ? glyphNamed(project, name)!.unicodes.includes(code) : true);
      return [
        {
          name,
          unicodes: free ? [code] : [],
          way: { how: 'row', of: names },
          ...(hit.length > 0 && { hint: [...new Set(hit)].join(' ') }),
        },
      ];
    },
  );
  // Those that the project has beside them.
  const listed = new Set(known.map((i) => i.name));
  const more = glyphsInOrder(project).flatMap(({ name }): Item[] => {
    const item = /^[^_.]+(_[^_.]+)+$/.test(name) && !listed.has(name) ? ligatureOf(project, name) : undefined;
    return item ? [item] : [];
  });
  return [...known, ...more];
}

/** A ligature of letters: `f_j` by glyph names, or `fj` by characters; undefined where one of them is not there. */
export function ligatureOf(project: Project, text: string): Item | undefined {
  const typed = text.trim();
  const letters = typed.includes('_')
    ? typed.split('_').map((n) => glyphNamed(project, n))
    : [...typed].map((c) => letterOf(project, c));
  if (letters.length < 2 || letters.some((g) => g === undefined)) return undefined;
  const of = letters.map((g) => g!.name);
  return { name: of.join('_'), unicodes: [], way: { how: 'row', of } };
}

/** Ligatures with carets between their letters, and anchors of each letter for marks, in every master. */
export function withCarets(project: Project, names: readonly string[]): Project {
  let current = project;
  for (const name of names) {
    const glyph = glyphNamed(current, name);
    if (!glyph) continue;
    const drawings = Object.fromEntries(
      current.masters.map((m): [MasterId, Drawing] => {
        const drawing = drawingOf(glyph, m.id);
        const own = new Set(drawing.anchors.map((a) => a.name));
        const more = ligatureAnchors(current, glyph, m).filter((a) => !own.has(a.name));
        return [m.id, { ...drawing, anchors: [...drawing.anchors, ...more] }];
      }),
    );
    current = withGlyph(current, { ...glyph, category: 'ligature', drawings: { ...glyph.drawings, ...drawings } });
  }
  return current;
}

/** A glyph's parts drawn out and united in every master; undefined where its masters would not agree any more. */
export function welded(project: Project, glyph: Glyph): Glyph | undefined {
  const drawings: Record<MasterId, Drawing> = {};
  for (const m of project.masters) {
    const drawing = drawingOf(glyph, m.id);
    const { contours, failed } = removeOverlaps(flattened(drawing, drawingsOf(project, m.id)));
    if (failed) return undefined;
    const tidied = contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) }));
    drawings[m.id] = { ...drawing, contours: tidied, components: [] };
  }
  return sameStructure(Object.values(drawings))
    ? { ...glyph, drawings: { ...glyph.drawings, ...drawings } }
    : undefined;
}
