import { sidesOf } from '../fitting/sides';
import { type Contour, signedArea } from '../geometry/contour';
import { isEmptyBox } from '../geometry/curve';
import { blendsAt } from '../project/drawingsAt';
import { codePointsForName } from '../project/glyphNames';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { drawingOf, isEmptyDrawing, usersOf } from '../project/queries';
import { strokesIn } from '../reweighting/strokes';
import { agreementOf } from '../variation/agreement';
import { type Call, glyphRef, method, value } from './call';
import { placeOf } from './given';

const withParts = (components: readonly { glyph: string; transform: readonly number[] }[]) =>
  components.map(({ glyph, transform }) => ({ glyph: glyphRef(glyph), transform }));

/** What a script can ask of a glyph. */
export const GLYPH_CALLS: readonly Call[] = [
  value('Glyph', 'name', { gives: 'string', does: 'Its name.' }, (s, id) => s.glyph(id).name),
  value(
    'Glyph',
    'unicodes',
    { gives: 'number[]', does: 'Its code points; none where only rules reach it.' },
    (s, id) => s.glyph(id).unicodes,
  ),
  value(
    'Glyph',
    'character',
    { gives: 'string', does: 'Its character, or that which its name tells (a for a.sc); empty where there is none.' },
    (s, id) => {
      const glyph = s.glyph(id);
      const code = glyph.unicodes[0] ?? codePointsForName(glyph.name)[0];
      return code === undefined ? '' : String.fromCodePoint(code);
    },
  ),
  value(
    'Glyph',
    'meaning',
    { gives: 'number | undefined', does: 'The code point that its name stands for; nothing where it stands for none.' },
    (s, id) => {
      const { name } = s.glyph(id);
      return name.includes('.') ? undefined : codePointsForName(name)[0];
    },
  ),
  value(
    'Glyph',
    'followed',
    { gives: "('left' | 'right')[]", does: 'Sides of it that follow those of another glyph.' },
    (s, id) => (['left', 'right'] as const).filter((side) => s.glyph(id).follows[side].length > 0),
  ),
  value('Glyph', 'isDrawn', { gives: 'boolean', does: 'Is something drawn in every master?' }, (s, id) =>
    s.project.masters.every((m) => !isEmptyDrawing(drawingOf(s.glyph(id), m.id))),
  ),
  value('Glyph', 'note', { gives: 'string', does: 'The note at it.' }, (s, id) => s.glyph(id).note ?? ''),
  value('Glyph', 'users', { gives: 'Glyph[]', does: 'Glyphs that use it as a part.' }, (s, id) =>
    usersOf(s.project, id).composites.map((g) => glyphRef(g.id)),
  ),
  value('Glyph', 'parts', { gives: 'Glyph[]', does: 'Glyphs that it uses as parts, in some master.' }, (s, id) =>
    [...new Set(Object.values(s.glyph(id).drawings).flatMap((d) => d.components.map((c) => c.glyph)))].map(glyphRef),
  ),
  value(
    'Glyph',
    'disagreements',
    { gives: 'string[]', does: 'Why its masters cannot be blended, in sentences; empty where they agree.' },
    (s, id) => agreementOf(s.project, s.glyph(id)).map((f) => f.reason),
  ),
  method(
    'Glyph',
    'at',
    { place: placeOf },
    {
      gives: '{ advance: number; contours: Contours }',
      does: 'What it looks like at a place between the masters, parts drawn out.',
      example: 'glyph.at({ wght: 550 })',
    },
    (s, { place }, id) => {
      const blend = blendsAt(s.project, place);
      const drawing = blend(s.glyph(id)).drawing;
      const drawn = (other: string) => {
        const glyph = s.project.glyphs[other];
        return glyph && blend(glyph).drawing;
      };
      return { advance: drawing.advance, contours: flattened(drawing, drawn) };
    },
  ),
];

const KINDS = ['line', 'curve', 'qcurve', 'off'];

/**
 * Contours as one row of numbers, which comes over the border in half the time: closed, count, then x, y and kind of each
 * point. Those of which something has a name or an identifier go as they are.
 */
function flatContours(contours: readonly Contour[]): readonly Contour[] | { flat: number[] } {
  const flat: number[] = [];
  for (const c of contours) {
    if (c.identifier !== undefined) return contours;
    flat.push(c.closed ? 1 : 0, c.points.length);
    for (const p of c.points) {
      if (p.name !== undefined || p.identifier !== undefined) return contours;
      flat.push(p.x, p.y, KINDS.indexOf(p.type) + (p.smooth === undefined ? 0 : p.smooth ? 4 : 8));
    }
  }
  return { flat };
}

/** What a script can ask of a drawing: a glyph in a master. */
export const DRAWING_CALLS: readonly Call[] = [
  value(
    'Drawing',
    'advance',
    { gives: 'number', does: 'Its advance width, in font units.' },
    (s, [g, m]) => s.drawing(g, m).advance,
  ),
  value(
    'Drawing',
    'contours',
    { gives: 'Contours', does: 'Its own outlines, without those of parts. Set them to draw anew: it is an edit.' },
    (s, [g, m]) => flatContours(s.drawing(g, m).contours),
  ),
  value(
    'Drawing',
    'outline',
    { gives: 'Contours', does: 'All that is seen of it: its outlines and those of its parts.' },
    (s, [g, m]) => flattened(s.drawing(g, m), drawingsOf(s.project, m)),
  ),
  value(
    'Drawing',
    'components',
    {
      gives: '{ glyph: Glyph; transform: number[] }[]',
      does: 'Its parts: glyphs with six numbers each (xx, xy, yx, yy, dx, dy).',
    },
    (s, [g, m]) => withParts(s.drawing(g, m).components),
  ),
  value(
    'Drawing',
    'anchors',
    { gives: '{ name: string; x: number; y: number }[]', does: 'Its anchors.' },
    (s, [g, m]) => s.drawing(g, m).anchors.map(({ name, x, y }) => ({ name, x, y })),
  ),
  value(
    'Drawing',
    'guides',
    { gives: '{ x: number; y: number; angle: number }[]', does: 'Its own guides, with their angles in degrees.' },
    (s, [g, m]) => s.drawing(g, m).guides.map(({ x, y, angle }) => ({ x, y, angle })),
  ),
  value(
    'Drawing',
    'box',
    { gives: 'Box | undefined', does: 'What its ink covers, in font units; nothing where nothing is drawn.' },
    (s, [g, m]) => {
      const box = drawingBounds(s.drawing(g, m), drawingsOf(s.project, m));
      return isEmptyBox(box) ? undefined : box;
    },
  ),
  value(
    'Drawing',
    'left',
    {
      gives: 'number | undefined',
      does: 'Its left side bearing, along the angle of slanted masters; nothing where nothing is drawn.',
    },
    (s, [g, m]) => {
      s.master(m);
      const sides = sidesOf(s.project, s.glyph(g), m);
      return 'left' in sides ? sides.left : undefined;
    },
  ),
  value('Drawing', 'right', { gives: 'number | undefined', does: 'Its right side bearing.' }, (s, [g, m]) => {
    s.master(m);
    const sides = sidesOf(s.project, s.glyph(g), m);
    return 'right' in sides ? sides.right : undefined;
  }),
  value(
    'Drawing',
    'area',
    { gives: 'number', does: 'The area of its outlines, counters taken off, in square units.' },
    (s, [g, m]) =>
      Math.abs(
        flattened(s.drawing(g, m), drawingsOf(s.project, m)).reduce(
          (sum, c) => sum + (c.closed ? signedArea(c) : 0),
          0,
        ),
      ),
  ),
  value(
    'Drawing',
    'strokes',
    {
      gives: "{ kind: 'vertical' | 'horizontal' | 'diagonal' | 'curved'; width: number }[]",
      does: 'Its strokes as they are measured from edge to edge, with their widths in the middle.',
    },
    (s, [g, m]) => {
      const d = s.drawing(g, m);
      const contours = flattened(d, drawingsOf(s.project, m));
      return strokesIn(contours, d.advance, s.project.unitsPerEm * 0.3).map(({ kind, width }) => ({ kind, width }));
    },
  ),
];
