import { readFileSync } from 'node:fs';
import { basePlace, markPlace } from '../src/core/composing/anchorPlaces';
import { MARKS } from '../src/core/composing/marks';
import { baseUnder, recipeOf } from '../src/core/composing/recipes';
import { projectFromFont } from '../src/core/formats/font/projectFromFont';
import { type Contour, contourBounds } from '../src/core/geometry/contour';
import { type Box, emptyBox, stretchBox } from '../src/core/geometry/curve';
import type { Drawing, Glyph, Project } from '../src/core/project/model';
import { drawingsOf, flattened } from '../src/core/project/outline';
import { drawingOf, glyphForCodePoint } from '../src/core/project/queries';
import { printTable, type Row } from './table';

const MEASURED = new Set([
  0x300, 0x301, 0x302, 0x303, 0x304, 0x306, 0x307, 0x308, 0x30a, 0x30b, 0x30c, 0x326, 0x327, 0x328,
]);

const boxOf = (contours: readonly Contour[]): Box => {
  const box = emptyBox();
  for (const c of contours) {
    const b = contourBounds(c);
    stretchBox(box, b.xMin, b.yMin);
    stretchBox(box, b.xMax, b.yMax);
  }
  return box;
};
const size = (b: Box) => [b.xMax - b.xMin, b.yMax - b.yMin] as const;

export type Miss = { letter: string; mark: number; dx: number; dy: number; font: string };

/** How far from a foundry's own place each mark would be put, in thousandths of the em. */
export function missesOf(file: string): Miss[] {
  const font = file.split('/').pop()!;
  const read = projectFromFont(new Uint8Array(readFileSync(file)), font);
  if (!read.ok) return [];
  const { project } = read.value;
  const master = project.masters[0]!;
  const source = drawingsOf(project, master.id);
  const contoursOf = (g: Glyph) => flattened(drawingOf(g, master.id), source).filter((c) => c.closed);
  const near = 0.002 * project.unitsPerEm;
  const out: Miss[] = [];
  for (let code = 0xc0; code < 0x1f00; code++) {
    if (!/\p{Script=Latin}/u.test(String.fromCodePoint(code))) continue;
    const recipe = recipeOf(code);
    if (recipe?.marks.length !== 1 || !MEASURED.has(recipe.marks[0]!.mark)) continue;
    const { mark, anchor } = recipe.marks[0]!;
    const [whole, base] = [code, baseUnder(recipe)].map((c) => glyphForCodePoint(project, c));
    if (!whole || !base) continue;
    const [all, own] = [contoursOf(whole), contoursOf(base)];
    // Contours of the base stand in the letter as they are, moved alike; what is left is the mark.
    const rest = [...all];
    let moved: [number, number] | undefined;
    const found = own.every((c) => {
      const b = contourBounds(c);
      const k = rest.findIndex((r) => {
        const a = contourBounds(r);
        const [dx, dy] = [a.xMin - b.xMin, a.yMin - b.yMin];
        return (
          r.points.length === c.points.length &&
          Math.abs(size(a)[0] - size(b)[0]) <= near &&
          Math.abs(size(a)[1] - size(b)[1]) <= near &&
          (!moved || (Math.abs(dx - moved[0]) <= near && Math.abs(dy - moved[1]) <= near))
        );
      });
      if (k < 0) return false;
      const a = contourBounds(rest[k]!);
      moved ??= [a.xMin - b.xMin, a.yMin - b.yMin];
      rest.splice(k, 1);
      return true;
    });
    if (!found || rest.length === 0 || !moved || Math.abs(moved[1]) > near) continue;
    const there = boxOf(rest);
    const shape = markGlyphs(project, mark, drawingOf(whole, master.id).components).find((g) => {
      const [w, h] = size(boxOf(contoursOf(g)));
      return Math.abs(w - size(there)[0]) <= 2 * near && Math.abs(h - size(there)[1]) <= 2 * near;
    });
    if (!shape) continue;
    const onBase = basePlace(project, base, master, anchor);
    const onMark = markPlace(project, shape, master, anchor);
    if (!onBase || !onMark) continue;
    const drawn = boxOf(contoursOf(shape));
    const em = project.unitsPerEm / 1000;
    out.push({
      letter: String.fromCodePoint(code),
      mark,
      font,
      dx: (drawn.xMin + onBase.x - onMark.x - (there.xMin - moved[0])) / em,
      dy: (drawn.yMin + onBase.y - onMark.y - there.yMin) / em,
    });
  }
  return out;
}

/** Shapes that a font has for a mark: what the letter is built of, where that is told, the combining one, and those for capitals. */
function markGlyphs(project: Project, mark: number, parts: Drawing['components']): Glyph[] {
  const used = parts.slice(1).flatMap((p) => project.glyphs[p.glyph] ?? []);
  const plain = [mark].flatMap((c) => glyphForCodePoint(project, c) ?? []);
  const names = new Set(plain.map((g) => g.name));
  const variants = Object.values(project.glyphs).filter((g) => {
    const stop = g.name.indexOf('.');
    return stop > 0 && names.has(g.name.slice(0, stop));
  });
  return [...used, ...plain, ...variants];
}

const at = (sorted: readonly number[], share: number) => sorted[Math.floor(sorted.length * share)] ?? Number.NaN;

/** Places of marks held against foundries': npm run bench marks FONT… (the fonts are not kept). */
export function benchMarks(files: readonly string[]): void {
  const misses = files.flatMap((f) => missesOf(f));
  const row = (what: string, of: readonly Miss[]): Row => {
    const off = of.map((m) => Math.hypot(m.dx, m.dy)).sort((a, b) => a - b);
    const middle = (key: 'dx' | 'dy') =>
      at(
        of.map((m) => m[key]).sort((a, b) => a - b),
        0.5,
      ).toFixed(1);
    const [half, most] = [at(off, 0.5), at(off, 0.9)];
    return {
      what: `${what} (${of.length}; across ${middle('dx')}, up ${middle('dy')})`,
      budget: '8, 25',
      measured: `${half.toFixed(1)}, ${most.toFixed(1)}`,
      met: half < 8 && most < 25,
    };
  };
  const faces = new Set(misses.map((m) => m.font)).size;
  printTable(
    `Marks placed, against the letters of ${faces} faces: middle distance, and 90 of 100 under, thousandths of the em`,
    [
      row('all of them', misses),
      ...MARKS.filter((k) => MEASURED.has(k.code)).map((k) =>
        row(
          `◌${String.fromCodePoint(k.code)}`,
          misses.filter((m) => m.mark === k.code),
        ),
      ),
    ],
  );
}
