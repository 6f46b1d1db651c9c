import type { Contour } from '../../src/core/geometry/contour';
import { directedByNesting } from '../../src/core/geometry/winding';
import { capitals } from '../capitals';
import { span } from '../letter';
import { lowercase } from '../lowercase';
import { bar } from '../pen';
import { capitalMeasure, lowerMeasure, type Measure, STYLES, type Style } from '../style';
import { coverage, type Grey, noise } from './raster';

const { abs, ceil, floor, max, min, round } = Math;

/** A sheet of lettering as it might lie on the scanner: what it was made with, its lines, and how it lies. */
export type Sheet = { name: string; title: string; lines: readonly string[]; seed: number };

export const SHEETS: readonly Sheet[] = [
  {
    name: 'pen',
    title: 'Pen lettering for the waiting rooms',
    lines: ['abcdefghi', 'jklmnopqr', 'stuvwxyz'],
    seed: 11,
  },
  {
    name: 'brush',
    title: 'Brush capitals for the goods shed',
    lines: ['ABCDEFG', 'HIJKLMN', 'OPQRSTU', 'VWXYZ'],
    seed: 23,
  },
  { name: 'stencil', title: 'Stencil for the wagon sides', lines: ['ADEGHK', 'LMNOPR', 'STUVWX'], seed: 37 },
];

/** Millimetres of a landscape half sheet. */
const PAPER = { width: 210, height: 148 };

const style = (name: string): Style => STYLES.find((s) => s.name === name)!;

/** A hand's unsteadiness: every point of a letter is moved a little, neighbours alike. */
function wavering(contours: readonly Contour[], seed: number, reach: number, grain: number): Contour[] {
  return contours.map((c) => ({
    ...c,
    points: c.points.map((p) => ({
      ...p,
      x: p.x + noise(p.x / grain, p.y / grain, seed) * reach,
      y: p.y + noise(p.x / grain, p.y / grain, seed + 1) * reach,
    })),
  }));
}

/** A letter as the tool leaves it: advance and outlines, and bridges to be left white. */
function lettered(
  sheet: Sheet,
  character: string,
  seed: number,
): { advance: number; ink: readonly Contour[]; bridges: readonly Contour[] } {
  if (sheet.name === 'pen') {
    // A broad pen held at a slant thickens the strokes that fall.
    const m: Measure = { ...lowerMeasure(style('Regular')), stemBy: 1.16, levelBy: 0.8 };
    const { advance, contours } = lowercase[character]!(m);
    return { advance, ink: wavering(directedByNesting(contours), seed, 7, 150), bridges: [] };
  }
  if (sheet.name === 'brush') {
    const { advance, contours } = capitals[character]!(capitalMeasure(style('Heavy')));
    return { advance: advance + 60, ink: wavering(directedByNesting(contours), seed, 17, 110), bridges: [] };
  }
  const { advance, contours } = capitals[character]!(capitalMeasure({ ...style('Heavy'), side: 1.2 }));
  const [left, right] = span(contours, 'x');
  const middle = (left + right) / 2;
  const upright = 'ADGOPR'.includes(character) ? [bar(middle - 22, -40, middle + 22, 760)] : [];
  return { advance: advance + 20, ink: directedByNesting(contours), bridges: upright };
}

/**
 * A sheet scanned at a resolution: `dpi` pixels to the inch, 8-bit grey, with the paper's grain, a little skew and the lamp's
 * uneven light. The same sheet at the same resolution is the same picture, pixel for pixel.
 */
export function drawSheet(sheet: Sheet, dpi: number): Grey {
  const perMillimetre = dpi / 25.4;
  const width = round(PAPER.width * perMillimetre);
  const height = round(PAPER.height * perMillimetre);
  const ink = new Float32Array(width * height);
  const skew = noise(0.5, 0.5, sheet.seed) * 0.012 + 0.006;
  const pitch = (PAPER.height - 22) / sheet.lines.length;
  const advances = sheet.lines.map((line) =>
    [...line].reduce((sum, c) => sum + lettered(sheet, c, sheet.seed).advance + 10, 0),
  );
  const em = min(pitch * (sheet.name === 'pen' ? 0.82 : 1.12), ((PAPER.width - 30) * 1000) / max(...advances));
  sheet.lines.forEach((line, row) => {
    const baseline = 14 + pitch * (row + (sheet.name === 'pen' ? 0.66 : 0.84));
    let x = 14;
    [...line].forEach((character, i) => {
      const seed = sheet.seed * 100 + row * 10 + i;
      const letter = lettered(sheet, character, seed);
      const tilt = sheet.name === 'stencil' ? 0 : noise(i, row, sheet.seed) * 0.02;
      // Only the part of the sheet around the letter is filled.
      const [left, top] = [max(0, floor((x - 6) * perMillimetre)), max(0, floor((baseline - em) * perMillimetre))];
      const wide = min(width - left, ceil(((letter.advance * em) / 1000 + 12) * perMillimetre));
      const tall = min(height - top, ceil(em * 1.5 * perMillimetre));
      const place = (px: number, py: number): [number, number] => {
        const mx = x + ((px + py * tilt) * em) / 1000;
        const my = baseline + noise(i, row + 9, sheet.seed) * 0.5 - ((py - px * tilt) * em) / 1000;
        return [(mx + my * skew) * perMillimetre - left, (my - mx * skew) * perMillimetre - top];
      };
      const filled = coverage(letter.ink, place, wide, tall);
      const bridged = letter.bridges.length > 0 ? coverage(letter.bridges, place, wide, tall) : undefined;
      filled.forEach((v, k) => {
        if (v === 0) return;
        const at = (top + floor(k / wide)) * width + left + (k % wide);
        ink[at] = max(ink[at]!, min(1, v) * (1 - min(1, bridged?.[k] ?? 0)));
      });
      x += ((letter.advance + 10) * em) / 1000;
    });
  });
  return { width, height, pixels: scanned(ink, width, height, perMillimetre, sheet) };
}

/** Ink on paper under the lamp. A brush leaves its ink thinner in streaks. */
function scanned(ink: Float32Array, width: number, height: number, perMillimetre: number, sheet: Sheet): Uint8Array {
  const pixels = new Uint8Array(width * height);
  const dry = sheet.name === 'brush' ? 34 : sheet.name === 'stencil' ? 20 : 8;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const [mx, my] = [x / perMillimetre, y / perMillimetre];
      const light = 1 - 0.1 * (mx / PAPER.width) - 0.06 * abs(my / PAPER.height - 0.4);
      const grain = noise(mx * 3, my * 3, 5) * 3 + noise(mx * 0.22, my * 0.22, 6) * 3;
      const paper = 238 + grain;
      const dark = 38 + max(0, noise(mx * 0.9, my * 4.5, sheet.seed + 3)) * dry + grain;
      // Sixteen steps of grey, as a plain scanner gives.
      pixels[at] = max(0, min(255, round(((paper + (dark - paper) * ink[at]!) * light) / 4) * 4));
    }
  }
  return pixels;
}
