import type { Point, PointType } from '../../geometry/contour';

const QUOTE = 34;
const MINUS = 45;
const STOP = 46;
const SPACE = 32;

/** Where `readValue` left off, and what it read; module-wide so that no object is made per number. */
let end = 0;
let value = 0;

/** A decimal number of at most six whole digits, up to a closing quotation mark. */
function readValue(text: string, start: number): boolean {
  let at = start;
  const negative = text.charCodeAt(at) === MINUS;
  if (negative) at++;
  const first = at;
  let sum = 0;
  let c = text.charCodeAt(at);
  while (c >= 48 && c <= 57) {
    sum = sum * 10 + c - 48;
    c = text.charCodeAt(++at);
  }
  if (at === first || at - first > 6) return false;
  if (c === STOP) {
    const fraction = at + 1;
    c = text.charCodeAt(++at);
    while (c >= 48 && c <= 57) {
      sum = sum * 10 + c - 48;
      c = text.charCodeAt(++at);
    }
    if (at === fraction) return false;
    // More digits than whole numbers have exactly are read by the language.
    sum = at - first > 10 ? Number(text.slice(first, at)) : sum / 10 ** (at - fraction);
  }
  if (c !== QUOTE || sum > 1e6) return false;
  value = negative ? -sum || 0 : sum;
  end = at + 1;
  return true;
}

/** Whether the text goes on with these characters; for short ones this is several times faster than the language's own. */
function says(text: string, words: string, at: number): boolean {
  for (let i = 0; i < words.length; i++) if (text.charCodeAt(at + i) !== words.charCodeAt(i)) return false;
  return true;
}

/**
 * Reads plain on- and off-curve points as sources write them, one after another from `start`, into `points`: x and y, and
 * for an on-curve point its type and smoothness. Returns the offset of the first tag that is anything else (a move, a named
 * point, another order of attributes, a fault), which the tag scan then reads in its thorough way.
 */
export function readPlainPoints(text: string, start: number, points: Point[]): number {
  let tag = start;
  while (says(text, '<point x="', tag)) {
    if (!readValue(text, tag + 10)) return tag;
    const x = value;
    if (!says(text, ' y="', end) || !readValue(text, end + 4)) return tag;
    const y = value;
    let at = end;
    let type: PointType = 'off';
    let smooth = false;
    if (says(text, ' type="', at)) {
      at += 7;
      if (says(text, 'line"', at)) {
        type = 'line';
        at += 5;
      } else if (says(text, 'curve"', at)) {
        type = 'curve';
        at += 6;
      } else if (says(text, 'qcurve"', at)) {
        type = 'qcurve';
        at += 7;
      } else return tag;
      if (says(text, ' smooth="yes"', at)) {
        smooth = true;
        at += 13;
      }
    }
    if (!says(text, '/>', at)) return tag;
    at += 2;
    points.push(smooth ? { x, y, type, smooth } : { x, y, type });
    while (text.charCodeAt(at) <= SPACE) at++;
    tag = at;
  }
  return tag;
}
