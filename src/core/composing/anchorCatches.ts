import type { Catch } from '../drawing/snapping';
import { isEmptyBox } from '../geometry/curve';
import type { GlyphId, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, masterOf } from '../project/queries';
import { proposedAnchor } from './anchorPlaces';
import { ANCHOR_NAMES } from './marks';

/** What an anchor catches on by the shape of its glyph: the middle of it, along the slant, and where the shape itself would place it. */
export function placesByShape(
  project: Project,
  { glyph: id, master: masterId }: { glyph: GlyphId; master: MasterId },
  name: string,
): Catch[] {
  const glyph = project.glyphs[id];
  const master = masterOf(project, masterId);
  if (!glyph || !master) return [];
  const box = drawingBounds(drawingOf(glyph, masterId), drawingsOf(project, masterId));
  if (isEmptyBox(box)) return [];
  const [x, y] = [(box.xMin + box.xMax) / 2, (box.yMin + box.yMax) / 2];
  const middle: Catch =
    master.italicAngle === 0
      ? { kind: 'upright', x, name: 'middle of the shape', weight: 0 }
      : {
          kind: 'line',
          x,
          y,
          angle: Math.PI / 2 - (-master.italicAngle * Math.PI) / 180,
          name: 'middle of the shape',
          weight: 0,
        };
  const kind = ANCHOR_NAMES.find((n) => n === name.replace(/^_/, ''));
  const at = kind && proposedAnchor(project, glyph, master, kind, name.startsWith('_') ? 'isMark' : 'takesMark');
  return at
    ? [
        middle,
        { kind: 'upright', x: at.x, name: 'place by the shape', weight: 0 },
        { kind: 'level', y: at.y, name: 'place by the shape', weight: 0 },
      ]
    : [middle];
}
