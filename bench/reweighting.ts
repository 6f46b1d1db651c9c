import { readFileSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { readyDemo } from '../demo/ready';
import { madeSet } from '../src/core/deriving/derive';
import { setOf } from '../src/core/deriving/sets';
import { openAny } from '../src/core/formats/openFile';
import { type Contour, contourBounds, curvesOf, isOnCurve, neighbour, type Point } from '../src/core/geometry/contour';
import { type Curve, nearestOn, pointAt } from '../src/core/geometry/curve';
import { crossings } from '../src/core/geometry/intersect';
import { removeOverlaps } from '../src/core/geometry/overlaps';
import { directedByNesting } from '../src/core/geometry/winding';
import type { Project } from '../src/core/project/model';
import { drawingsOf, flattened } from '../src/core/project/outline';
import { drawingOf, glyphForCodePoint } from '../src/core/project/queries';
import { facingsOf } from '../src/core/reweighting/facing';
import { frameOf } from '../src/core/reweighting/frame';
import { goalFor, type Stems, THICKEST, usualAcross } from '../src/core/reweighting/goals';
import { type ReweightAsked, reweighedGlyphs } from '../src/core/reweighting/many';
import { reweighted } from '../src/core/reweighting/reweight';
import { heldLines } from '../src/core/reweighting/standard';
import { standardStems } from '../src/core/reweighting/strokes';
import { median, printTable, type Row } from './table';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789';
const SHOWN = process.env.BENCH_LETTERS ?? '';
const STEM_LETTERS = 'HIEFTLBDPRhnmuldibpqr';

type Letter = { contours: readonly Contour[]; advance: number };

async function lettersOf(file: string): Promise<{ project: Project; letters: Map<string, Letter> }> {
  const read = await openAny(new Uint8Array(readFileSync(file)), basename(file));
  if (!read.ok) throw new Error(read.reason);
  const { project } = read.value;
  const letters = new Map<string, Letter>();
  for (const letter of LETTERS) {
    const glyph = glyphForCodePoint(project, letter.codePointAt(0)!);
    if (!glyph) continue;
    const drawing = drawingOf(glyph, project.masters[0]!.id);
    letters.set(letter, {
      contours: flattened(drawing, drawingsOf(project, project.masters[0]!.id)),
      advance: drawing.advance,
    });
  }
  return { project, letters };
}

const stemsOf = (letters: Map<string, Letter>, em: number): Stems =>
  standardStems(
    [...STEM_LETTERS].flatMap((l) => letters.get(l) ?? []),
    em,
  )!;

/** Mean distance between two outlines, both ways, in font units. */
function distance(a: readonly Contour[], b: readonly Contour[]): number {
  const one = (from: readonly Contour[], to: readonly Contour[]) => {
    const targets = to.flatMap((c) => curvesOf(c));
    let sum = 0;
    let count = 0;
    for (const c of from.flatMap((x) => curvesOf(x))) {
      const length = Math.hypot(c[c.length - 2]! - c[0]!, c[c.length - 1]! - c[1]!);
      const n = Math.max(1, Math.round(length / 25));
      for (let k = 0; k < n; k++) {
        const [x, y] = pointAt(c, (k + 0.5) / n);
        sum += Math.min(...targets.map((t) => nearestOn(t, x, y).distance)) * (length / n);
        count += length / n;
      }
    }
    return sum / count;
  };
  return (one(a, b) + one(b, a)) / 2;
}

/** Plain offsetting: every point out along its normal by half of what stems grow, then scaled to the height it had and the width asked. */
function plainOffset(letter: Letter, from: Stems, to: Stems, newAdvance: number): Contour[] {
  const by = (to.vertical - from.vertical) / 2;
  const directed = directedByNesting(letter.contours);
  const moved = letter.contours.map((c, k): Contour => {
    const out = directed[k] === c ? 1 : -1;
    const points = c.points.map((p, i): Point => {
      const n = c.points.length;
      const unit = (a: Point, b: Point) => {
        const l = Math.hypot(b.x - a.x, b.y - a.y);
        return l < 1e-6 ? undefined : [(b.x - a.x) / l, (b.y - a.y) / l];
      };
      let [before, after] = [undefined as number[] | undefined, undefined as number[] | undefined];
      for (let s = 1; s < n && !before; s++) before = unit(c.points[(i - s + n) % n]!, p);
      for (let s = 1; s < n && !after; s++) after = unit(p, c.points[(i + s) % n]!);
      if (!before || !after) return p;
      const [nx, ny] = [before[1]! + after[1]!, -before[0]! - after[0]!];
      const l = Math.hypot(nx, ny);
      if (l < 0.2) return p;
      const mitre = Math.min(3, 2 / l);
      return { ...p, x: p.x + (out * by * mitre * nx) / l, y: p.y + (out * by * mitre * ny) / l };
    });
    return { ...c, points };
  });
  const [was, now] = [boundsOfAll(letter.contours), boundsOfAll(moved)];
  const wide = newAdvance / letter.advance;
  const fit = (v: number, a: number, b: number, c: number, d: number) => c + ((v - a) / (b - a || 1)) * (d - c);
  return moved.map((c) => ({
    ...c,
    points: c.points.map((p) => ({
      ...p,
      x: fit(p.x, now.xMin, now.xMax, was.xMin * wide - by * 0.5, was.xMax * wide + by * 0.5),
      y: fit(p.y, now.yMin, now.yMax, was.yMin, was.yMax),
    })),
  }));
}

function boundsOfAll(contours: readonly Contour[]) {
  const boxes = contours.map(contourBounds);
  return {
    xMin: Math.min(...boxes.map((b) => b.xMin)),
    xMax: Math.max(...boxes.map((b) => b.xMax)),
    yMin: Math.min(...boxes.map((b) => b.yMin)),
    yMax: Math.max(...boxes.map((b) => b.yMax)),
  };
}

/** Places at which contours cross themselves. */
function crossingsIn(contours: readonly Contour[]): number {
  const curves = contours.flatMap((c, k) => curvesOf(c).map((curve, i) => ({ curve, k, i, n: curvesOf(c).length })));
  let count = 0;
  curves.forEach((a, i) => {
    for (const b of curves.slice(i + 1)) {
      if (a.k !== b.k) continue;
      const beside = b.i - a.i === 1 || (a.i === 0 && b.i === a.n - 1);
      const ends = (c: Curve, x: number, y: number) =>
        Math.min(Math.hypot(c[0]! - x, c[1]! - y), Math.hypot(c[c.length - 2]! - x, c[c.length - 1]! - y)) < 1;
      for (const { t } of crossings(a.curve, b.curve)) {
        const [x, y] = pointAt(a.curve, t);
        if (!(beside && ends(a.curve, x, y) && ends(b.curve, x, y))) count++;
      }
    }
  });
  return count;
}

/** The largest turn at each smooth point, in degrees. */
function kinks(contours: readonly Contour[]): number[] {
  return contours.flatMap((c) =>
    c.points.flatMap((p, i) => {
      if (!isOnCurve(p)) return [];
      const [a, b] = [neighbour(c, i, -1), neighbour(c, i, 1)];
      if (a === undefined || b === undefined) return [];
      const [ax, ay] = [p.x - c.points[a]!.x, p.y - c.points[a]!.y];
      const [bx, by] = [c.points[b]!.x - p.x, c.points[b]!.y - p.y];
      return [Math.abs((Math.atan2(ax * by - ay * bx, ax * bx + ay * by) * 180) / Math.PI)];
    }),
  );
}

const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / (list.length || 1);

/**
 * How near reweighting a regular comes to the bold (or light) of the same hand, beside plain offsetting, in thousandths of the
 * em. Pairs of font files are named on the command line; none is shipped. BENCH_PROOF=file.svg draws them beside each other.
 */
export async function benchReweighting(files: readonly string[]): Promise<void> {
  const rows: Row[] = [];
  const proofs: string[] = [];
  const totals = { own: [] as number[], plain: [] as number[], stems: [] as number[] };
  for (let f = 0; f + 1 < files.length; f += 2) {
    const [regular, bold] = [await lettersOf(files[f]!), await lettersOf(files[f + 1]!)];
    const em = regular.project.unitsPerEm;
    const [from, to] = [stemsOf(regular.letters, em), stemsOf(bold.letters, em)];
    const own: number[] = [];
    const plain: number[] = [];
    const stems: number[] = [];
    const plainStems: number[] = [];
    const stemsBy: [string, number][] = [];
    const worst: [string, number][] = [];
    let [crossed, kinked, eased] = [0, 0, 0];
    let spent = 0;
    for (const letter of LETTERS) {
      const [r, b] = [regular.letters.get(letter), bold.letters.get(letter)];
      if (!r || !b || r.contours.length === 0) continue;
      const before = performance.now();
      const made = reweighted(r.contours, {
        from,
        to,
        advance: r.advance,
        newAdvance: b.advance,
        bearings: 'share',
        lines: heldLines(regular.project, regular.project.masters[0]!, r.contours),
        unitsPerEm: em,
      });
      spent += performance.now() - before;
      const off = (c: readonly Contour[]) =>
        (distance(removeOverlaps(c).contours, removeOverlaps(b.contours).contours) * 1000) / em;
      const d = off(made.contours);
      own.push(d);
      worst.push([letter, d]);
      const offset = plainOffset(r, from, to, b.advance);
      plain.push(off(offset));
      const before_ = crossingsIn(r.contours);
      const over = crossingsIn(made.contours) - before_;
      if (over > 0) {
        crossed++;
        if (process.env.BENCH_SAY) console.log(basename(files[f]!), letter, 'crosses', over);
      }
      const [k0, k1] = [kinks(r.contours), kinks(made.contours)];
      const bent = k1.filter((k, i) => k0[i]! < 4 && k > 4 + k0[i]!).length;
      if (bent) {
        kinked++;
        if (process.env.BENCH_SAY) console.log(basename(files[f]!), letter, 'kinks', bent);
      }
      eased += made.eased.length;
      plainStems.push(...stemErrors(r, offset, from, to).map(([, e]) => e));
      const wrong = stemErrors(r, made.contours, from, to);
      stems.push(...wrong.map(([, e]) => e));
      stemsBy.push(...wrong.map(([k, e]): [string, number] => [`${letter} ${k}`, e]));
      if (!SHOWN || SHOWN.includes(letter)) proofs.push(proof(letter, proofs.length, em, made.contours, b.contours));
    }
    const share = (list: readonly number[]) => list.filter((e) => Math.abs(e) <= 0.06).length / (list.length || 1);
    const within = share(stems);
    totals.own.push(mean(own));
    totals.plain.push(mean(plain));
    totals.stems.push(within);
    const name = basename(files[f]!).replace(/\..*$/, '');
    if (process.env.BENCH_SAY) {
      worst.sort((a, b) => b[1] - a[1]);
      console.log(
        name,
        from,
        to,
        worst
          .slice(0, 12)
          .map(([l, d]) => `${l} ${d.toFixed(1)}`)
          .join(', '),
      );
      const bad = stemsBy.filter(([, e]) => Math.abs(e) > 0.06);
      console.log(
        '  stems off:',
        bad
          .slice(0, 30)
          .map(([l, e]) => `${l} ${(e * 100).toFixed(0)}%`)
          .join(', '),
      );
    }
    rows.push({
      what: `${name}: ${Math.round(from.vertical)}/${Math.round(from.horizontal)} to ${Math.round(to.vertical)}/${Math.round(to.horizontal)}, ${own.length} letters`,
      budget: `plain ${mean(plain).toFixed(1)}; stems ${(share(plainStems) * 100).toFixed(0)} %`,
      measured: `${mean(own).toFixed(1)}; stems ${(within * 100).toFixed(1)} % within 6 %; crossed ${crossed}, kinked ${kinked}, eased ${eased}; ${(spent / own.length).toFixed(1)} ms`,
      met: mean(own) < mean(plain),
    });
  }
  rows.push({
    what: 'all of them',
    budget: `plain ${mean(totals.plain).toFixed(2)}`,
    measured: `${mean(totals.own).toFixed(2)}; stems ${(mean(totals.stems) * 100).toFixed(1)} %`,
    met: mean(totals.own) < mean(totals.plain) * 0.85,
  });
  printTable(
    'Reweighted, against the weight of the same hand: mean distance of outlines in thousandths of the em',
    rows,
  );
  const file = process.env.BENCH_PROOF;
  if (file) {
    const big = Number(process.env.BENCH_BIG ?? 1);
    const high = Math.ceil(proofs.length / Math.floor(16 / big)) * 150 * big + 20;
    writeFileSync(
      file,
      `<svg xmlns="http://www.w3.org/2000/svg" width="1800" height="${high}" style="background:#fff">${proofs.join('')}</svg>`,
    );
  }
}

/** Of each stroke: how far it is from its goal, as a share, where the outline was measured before. */
function stemErrors(letter: Letter, made: readonly Contour[], from: Stems, to: Stems): [string, number][] {
  const [frame, after] = [frameOf(letter.contours), frameOf(made)];
  return facingsOf(frame, letter.advance).ink.flatMap(({ a, b, way, width, square }): [string, number][] => {
    if (!b || square < 0.9 || width > usualAcross(from, way) * THICKEST || a.side.length < width) return [];
    const [s1, s2] = [after.sides[frame.sides.indexOf(a.side)], after.sides[frame.sides.indexOf(b.side)]];
    if (!s1 || !s2) return [];
    const [p, q] = [pointAt(s1.curve, a.t), pointAt(s2.curve, b.t)];
    const goal = goalFor(width, way, from, to);
    const got = (q[0] - p[0]) * way[0] + (q[1] - p[1]) * way[1];
    const kind =
      a.side.curve.length > 4 ? `curve${a.t}` : Math.abs(way[0]) > 0.99 ? 'v' : Math.abs(way[1]) > 0.99 ? 'h' : 'd';
    return [[kind, got / goal - 1]];
  });
}

/** What was made, and over it as a line what the hand made. */
function proof(letter: string, k: number, em: number, made: readonly Contour[], hand: readonly Contour[]): string {
  const big = Number(process.env.BENCH_BIG ?? 1);
  const s = (100 * big) / em;
  const across = Math.floor(16 / big);
  const [x, y] = [(k % across) * 112 * big + 10, Math.floor(k / across) * 150 * big + 110 * big];
  const path = (contours: readonly Contour[]) =>
    contours
      .map((c) => {
        const curves = curvesOf(c);
        const f = (v: number) => (v * s).toFixed(2);
        const first = curves[0];
        if (!first) return '';
        return `M${f(first[0]!)} ${f(-first[1]!)}${curves
          .map((q) => {
            const rest = Array.from({ length: q.length / 2 - 1 }, (_, i) => `${f(q[2 * i + 2]!)} ${f(-q[2 * i + 3]!)}`);
            return `${q.length === 4 ? 'L' : q.length === 6 ? 'Q' : 'C'}${rest.join(' ')}`;
          })
          .join('')}Z`;
      })
      .join('');
  return `<g transform="translate(${x} ${y})"><path d="${path(made)}" fill="#223" fill-opacity="0.85"/><path d="${path(hand)}" fill="none" stroke="#e33" stroke-width="0.8"/><text y="30" font-size="8" fill="#999">${letter.replace('&', '&amp;')}</text></g>`;
}

/** How long reweighting takes: a whole demo, and a dozen letters while a slider moves. */
export function benchReweightingSpeed(): void {
  const demo = readyDemo();
  const asked = (glyphs: readonly string[], vertical: number): ReweightAsked => ({
    glyphs,
    master: 'm1',
    from: { vertical: 84, horizontal: 73 },
    to: { vertical, horizontal: vertical * 0.8 },
    width: 1,
    bearings: 'share',
    rounds: 1,
    own: {},
  });
  const copies = [...demo.glyphOrder, ...demo.glyphOrder].slice(0, 600);
  const whole = timed(() => reweighedGlyphs(readyDemo(), asked(copies, 150)), 3);
  const dozen = [...'nohamegsHOEA'].map((c) => glyphForCodePoint(demo, c.codePointAt(0)!)!.id);
  let vertical = 100;
  const slide = timed(() => reweighedGlyphs(demo, asked(dozen, vertical++)), 30);
  const caps = setOf('smallCaps')!;
  const bare = {
    ...demo,
    glyphs: Object.fromEntries(Object.entries(demo.glyphs).filter(([, g]) => !g.name.endsWith('.sc'))),
  };
  const order = demo.glyphOrder.filter((id) => bare.glyphs[id]);
  const made = timed(() => madeSet({ ...bare, glyphOrder: order }, caps), 2);
  const row = (what: string, budget: number, ms: number): Row => ({
    what,
    budget: `${budget} ms`,
    measured: `${ms.toFixed(1)} ms`,
    met: ms <= budget,
  });
  printTable('Reweighting', [
    row('600 glyphs of a master at new stems, cold drawings', 2000, whole),
    row('12 letters while a slider moves', 33, slide),
    row('138 small capitals with accents in six masters', 4000, made),
  ]);
}

/** The middle of several runs, in milliseconds. */
function timed(work: () => void, runs: number): number {
  const all = Array.from({ length: runs }, () => {
    const before = performance.now();
    work();
    return performance.now() - before;
  });
  return median(all);
}
