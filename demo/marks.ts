// biome-ignore-all format: strokes stand together as they are drawn.

import type { Contour } from '../src/core/geometry/contour';
import { bar, oval, pen, polygon } from './pen';
import { across, level, open } from './strokes';
import type { Measure } from './style';

/** An accent about the line x = 0, where its anchor sits, and the anchor's name on the letter below or above it. */
export type Mark = { contours: Contour[]; anchor: 'top' | 'bottom' | 'cedilla' | 'ogonek' | 'topright' };

const X = 520;

/** A comma hanging from (0, top): also the apostrophe, the cedilla of Latvian and Romanian, the caron of ď and ľ. */
export function commaShape(m: Measure, top: number, size = 1): Contour {
  const r = across(m, 56, 0.7) * size;
  const down = 232 * size * (1 + (m.levelBy - 1) * 0.28);
  const foot = across(m, 62, 0.6) * size;
  // The back runs on into the round head: its handle is a share of the line, so that no weight kinks there.
  const [x0, y0, x1, y1] = [-r * 1.05 + foot, top - down, r * 0.86, top - r * 1.62];
  return pen(-r * 1.05, top - down).h(x0).line(x1, y1).curve(x1 + (x1 - x0) * 0.15, y1 + (y1 - y0) * 0.15, r, top - r * 1.2, r, top - r)
    .curve(r, top - r * 0.42, r * 0.56, top, 0, top).curve(-r * 0.6, top, -r, top - r * 0.42, -r, top - r).curve(-r, top - r * 1.5, -r * 0.74, top - r * 1.86, -r * 0.3, top - r * 1.98).close();
}

const acute = (m: Measure, x = 0): Contour => {
  const h = across(m, 84, 0.85);
  const y = m.line(X) + 62 - (m.levelBy - 1) * 22;
  const tall = 138 + (m.levelBy - 1) * 26;
  return polygon([x - 20 - h / 2, y], [x - 20 + h * 0.36, y], [x + 34 + h * 0.76, y + tall], [x + 34 - h * 0.44, y + tall]);
};
const turned = (c: Contour): Contour => ({ ...c, points: c.points.map((p) => ({ ...p, x: -p.x })) });
const about = (c: Contour, y: number): Contour => ({ ...c, points: c.points.map((p) => ({ ...p, y: Math.round(2 * y - p.y) })) });

const roof = (m: Measure): Contour => {
  const h = across(m, 78, 0.7);
  const y = m.line(X) + 60 - (m.levelBy - 1) * 22;
  const tall = 136 + (m.levelBy - 1) * 26;
  const w = open(m, 58, 0.5) + h;
  return polygon([-w, y], [-w + h, y], [0, y + tall * 0.54], [w - h, y], [w, y], [h * 0.54, y + tall], [-h * 0.54, y + tall]);
};

/** The lowercase accents; those of capitals are the same ones flattened, see `forCapitals`. */
export const marks: Record<string, (m: Measure) => Mark> = {
  gravecomb: (m) => ({ anchor: 'top', contours: [turned(acute(m))] }),
  acutecomb: (m) => ({ anchor: 'top', contours: [acute(m)] }),
  circumflexcomb: (m) => ({ anchor: 'top', contours: [roof(m)] }),
  caroncomb: (m) => {
    const c = roof(m);
    const ys = c.points.map((p) => p.y);
    return { anchor: 'top', contours: [about(c, (Math.min(...ys) + Math.max(...ys)) / 2)] };
  },
  tildecomb: (m) => {
    const t = level(m, 66, 0.8);
    const y = m.line(X) + 74 - (m.levelBy - 1) * 20;
    const w = 138 * (1 + (m.gapBy - 1) * 0.7) + (m.stemBy - 1) * 26;
    const e = w - across(m, 30, 0.6);
    return { anchor: 'top', contours: [pen(-w, y + 6).h(-e).curve(-e + 4, y + 38, -e * 0.78, y + 52, -w * 0.46, y + 52).curve(-w * 0.16, y + 52, w * 0.1, y + 4, w * 0.44, y + 4)
      .curve(w * 0.8, y + 4, w, y + 50, w, y + t + 52).h(e).curve(e - 4, y + t + 18, e * 0.78, y + t + 4, w * 0.46, y + t + 4).curve(w * 0.16, y + t + 4, -w * 0.1, y + t + 52, -w * 0.44, y + t + 52).curve(-w * 0.8, y + t + 52, -w, y + t + 6, -w, y + 6).close()] };
  },
  macroncomb: (m) => {
    const w = open(m, 122, 0.7) + (m.stemBy - 1) * 20;
    const y = m.line(X) + 92 - (m.levelBy - 1) * 40;
    return { anchor: 'top', contours: [bar(-w, y, w, y + level(m, 64, 0.8))] };
  },
  brevecomb: (m) => {
    const t = level(m, 62, 0.72);
    const s = across(m, 60, 0.6);
    const w = open(m, 70, 0.7) + s;
    const y = m.line(X) + 62 - (m.levelBy - 1) * 22;
    const top = y + t + 76;
    return { anchor: 'top', contours: [pen(0, y).hv(w, top, 0.56, 0.5).h(w - s).vh(0, y + t, 0.5, 0.56).hv(-w + s, top, 0.56, 0.5).h(-w).vh(0, y, 0.5, 0.56).close()] };
  },
  dotaccentcomb: (m) => {
    const r = across(m, 54, 0.66);
    const y = m.line(X) + 92 * (1 - (m.levelBy - 1) * 0.32);
    return { anchor: 'top', contours: [oval(-r, y, r, y + 2 * r)] };
  },
  dieresiscomb: (m) => {
    const r = across(m, 47, 0.6);
    const y = m.line(X) + 96 * (1 - (m.levelBy - 1) * 0.38);
    const at = open(m, 46, 0.7) + r;
    return { anchor: 'top', contours: [-at, at].map((x) => oval(x - r, y, x + r, y + 2 * r)) };
  },
  ringcomb: (m) => {
    const s = across(m, 46, 0.62);
    const t = level(m, 44, 0.62);
    const w = open(m, 48, 0.6) + s;
    const y = m.line(X) + 44 - (m.levelBy - 1) * 18;
    const tall = 2 * t + 92 - (m.levelBy - 1) * 20;
    return { anchor: 'top', contours: [oval(-w, y, w, y + tall), oval(-w + s, y + t, w - s, y + tall - t)] };
  },
  hungarumlautcomb: (m) => {
    const at = across(m, 62, 0.75) + open(m, 12);
    return { anchor: 'top', contours: [acute(m, -at), acute(m, at)] };
  },
  'commaturnedabovecomb': (m) => {
    const c = commaShape(m, 0, 0.86);
    const y = m.line(X) + 54;
    return { anchor: 'top', contours: [{ ...c, points: c.points.map((p) => ({ ...p, x: -p.x, y: Math.round(y - p.y) })) }] };
  },
  caronslovakcomb: (m) => ({ anchor: 'topright', contours: [commaShape(m, 742, 0.92)] }),
  commabelowcomb: (m) => ({ anchor: 'bottom', contours: [commaShape(m, -66 + (m.levelBy - 1) * 16, 0.86)] }),
  cedillacomb: (m) => {
    const s = across(m, 58, 0.6);
    const t = level(m, 54, 0.62);
    const w = open(m, 52, 0.7) + s;
    const low = -212;
    const neck = across(m, 62, 0.6) / 2;
    const head = low + t + 74 + t * 0.7;
    return { anchor: 'cedilla', contours: [pen(-neck, 12).line(-neck - 8, head - t * 0.86).curve(w * 0.3, head - t * 0.8, w - s, head - t * 0.9, w - s, low + t + 34).curve(w - s, low + t + 10, (w - s) * 0.6, low + t, 4, low + t)
      .curve(-w * 0.3, low + t, -w * 0.62, low + t + 6, -w * 0.9, low + t + 20).line(-w, low + 22).curve(-w * 0.7, low + 8, -w * 0.32, low, 6, low).curve(w * 0.66, low, w, low + 34, w, low + t + 34).curve(w, head - 20, w * 0.7, head, neck + 2, head + 2).line(neck, 12).close()] };
  },
  ogonekcomb: (m) => {
    const s = across(m, 62, 0.62);
    const t = level(m, 56, 0.62);
    const low = -196;
    const reach = open(m, 92, 0.6) + s * 0.5;
    return { anchor: 'ogonek', contours: [pen(-24, 10).curve(-62, -34, -s - 24, -74, -s - 24, -118).curve(-s - 24, low + 30, -s + 18, low, 18, low).curve(56, low, reach * 0.8, low + 10, reach, low + 24).line(reach - 12, low + 24 + t)
      .curve(reach * 0.74, low + t + 8, reach * 0.62, low + t + 2, reach * 0.42, low + t + 2).curve(reach * 0.06, low + t + 2, -22, low + t + 20, -22, low + t + 44).curve(-22, low + t + 78, 8, -28, 44, 10).close()] };
  },
};

/** Marks that stand on capitals: nearer and flatter, so that lines need not be wide apart. */
export function forCapitals(mark: Mark, m: Measure): Mark {
  if (mark.anchor !== 'top') return mark;
  const from = m.line(X);
  return { ...mark, contours: mark.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, y: Math.round(694 + (p.y - from) * 0.82) })) })) };
}
