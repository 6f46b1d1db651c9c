import { guidesFor } from '../../../core/drawing/guides';
import { type PointKey, pointOf } from '../../../core/drawing/points';
import { counterpart } from '../../../core/fitting/beside';
import { sidesOf } from '../../../core/fitting/sides';
import { isEmptyBox } from '../../../core/geometry/curve';
import { wrongWay } from '../../../core/geometry/winding';
import type { Drawing, Glyph, Master, Project } from '../../../core/project/model';
import { drawingBounds, drawingIn, drawingsOf, flattened } from '../../../core/project/outline';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, masterOf } from '../../../core/project/queries';
import { waypointId } from '../../../core/project/waypoints';
import {
  paintAnchors,
  paintCombs,
  paintGauges,
  paintGuides,
  paintStrokes,
  paintWrongWay,
} from '../../canvas/paint/aids';
import { paintLabel, paintTarget } from '../../canvas/paint/gestures';
import { paintBackdrops } from '../../canvas/paint/pictures';
import { paintPoints } from '../../canvas/paint/points';
import { paintEdges, paintGlyph, paintOutline, paintZoneNames, paintZones } from '../../canvas/paint/sheet';
import type { Tool } from '../../canvas/tools/tool';
import type { Brush } from '../../canvas/useCanvas';
import { fitted, type View } from '../../canvas/view';
import { useBench } from '../../state/bench';
import { besideNow, useBeside } from '../../state/beside';
import { usePartner } from '../../state/partner';
import { path2d } from '../../ui/path2d';
import { gaugesOf, useDrawBench } from './drawBench';
import { company } from './neighbours';
import { shownStrokes } from './shownStrokes';

/** The same letter in the font that lies beside, behind the drawing: its left edge on ours. */
function paintBeside(sheet: Brush, glyph: Glyph): void {
  const beside = useBeside.getState().inDraw ? besideNow() : undefined;
  const other = beside && counterpart(glyph, beside.face);
  if (!beside || !other) return;
  const { face, scale } = beside;
  const { context, view, inks } = sheet;
  const path = path2d(drawingPath(face.project, face.master.id, drawingOf(other, face.master.id)));
  context.save();
  context.translate(view.originX, view.originY);
  context.scale(view.scale * scale, -view.scale * scale);
  context.globalAlpha = 0.28;
  context.fillStyle = inks.sea;
  context.fill(path);
  context.restore();
}

/** The same letter in the partner, behind the drawing, its origin on ours. */
function paintPartner({ context, view, inks }: Brush, glyph: Glyph): void {
  const { inDraw, outline } = usePartner.getState();
  if (!inDraw || outline?.glyph !== glyph.id) return;
  context.save();
  context.translate(view.originX, view.originY);
  context.scale(view.scale, -view.scale);
  context.globalAlpha = 0.28;
  context.fillStyle = inks.sea;
  context.fill(path2d(outline.path));
  context.restore();
}

/** The glyph at the place that is kept in sight, as a thin line. */
function paintInSight({ context, view, inks }: Brush, project: Project, glyph: Glyph): void {
  const { watched } = useBench.getState();
  if (!watched) return;
  const id = waypointId(watched);
  context.save();
  context.translate(view.originX, view.originY);
  context.scale(view.scale, -view.scale);
  context.lineWidth = 1.25 / view.scale;
  context.setLineDash([5 / view.scale, 4 / view.scale]);
  context.strokeStyle = inks.violet;
  context.stroke(path2d(drawingPath(project, id, drawingIn(project, glyph, id))));
  context.restore();
}

/** A mark for each anchor that takes one: the first of the project that sits there. */
function ghostsOf(project: Project, master: Master, drawing: Drawing): { path: string; x: number; y: number }[] {
  const out: { path: string; x: number; y: number }[] = [];
  for (const { name, x, y } of drawing.anchors) {
    if (name.startsWith('_')) continue;
    for (const id of project.glyphOrder) {
      const mark = drawingIn(project, project.glyphs[id]!, master.id);
      const sits = mark.anchors.find((a) => a.name === `_${name}`);
      if (!sits) continue;
      out.push({ path: drawingPath(project, master.id, mark), x: x - sits.x, y: y - sits.y });
      break;
    }
  }
  return out;
}

/** Shows the glyph between its edges, from descender to ascender. */
export function fitView(width: number, height: number): View {
  const { project, glyph, master: masterId } = useBench.getState();
  const drawing = drawingOf(project!.glyphs[glyph!]!, masterId);
  const { zones } = masterOf(project!, masterId)!;
  const box = drawingBounds(drawing, drawingsOf(project!, masterId));
  const drawn = isEmptyBox(box) ? undefined : box;
  return fitted(
    {
      xMin: Math.min(0, drawn?.xMin ?? 0),
      xMax: Math.max(drawing.advance, drawn?.xMax ?? 0),
      yMin: Math.min(zones.descender.position, drawn?.yMin ?? 0),
      yMax: Math.max(zones.ascender.position, zones.capHeight.position, drawn?.yMax ?? 0),
    },
    width,
    height,
  );
}

/** Paints the open glyph with all that stands around it; bare, only the letters, as they will be set. */
export function paintSheet(
  sheet: Brush & { repaint: () => void },
  {
    project,
    glyph,
    master,
    selection,
  }: { project: Project; glyph: Glyph; master: Master; selection: ReadonlySet<PointKey> },
  tool: Tool | 'bare' | undefined,
): void {
  const { inks } = sheet;
  const bare = tool === 'bare';
  const drawing = drawingOf(glyph, master.id);
  const { combs, stems, parts, company: words, moving, tab } = useDrawBench.getState();
  if (!bare) {
    paintZones(sheet, master);
    paintBackdrops(sheet, { project, glyph, master: master.id, drawing }, sheet.repaint);
    paintBeside(sheet, glyph);
    paintPartner(sheet, glyph);
  }
  for (const { glyph: g, x } of company(project, glyph, master.id, words)) {
    paintGlyph(
      sheet,
      drawingPath(project, master.id, drawingIn(project, g, master.id)),
      x,
      bare ? inks.ink : inks.shade,
    );
  }
  if (bare) {
    paintGlyph(sheet, drawingPath(project, master.id, drawing), 0, inks.ink);
    return;
  }
  paintZoneNames(sheet, master);
  paintGuides(sheet, guidesFor(master, drawing));
  const sides = sidesOf(project, glyph, master.id);
  paintOutline(sheet, project, master.id, drawing, parts);
  paintInSight(sheet, project, glyph);
  paintEdges(sheet, { advance: drawing.advance, sides: 'left' in sides ? sides : undefined, master });
  if (combs) paintCombs(sheet, drawing.contours, project.unitsPerEm);
  if (stems) paintStrokes(sheet, shownStrokes(project, glyph, master.id, drawing));
  const wrong = drawing.contours.length > 1 ? wrongWay(drawing.contours) : [];
  if (wrong.length > 0) paintWrongWay(sheet, drawing.contours, wrong);
  paintPoints(sheet, drawing, selection);
  if (tab === 'parts') paintAnchors(sheet, drawing.anchors, ghostsOf(project, master, drawing));
  const ringed = moving && pointOf(drawing, moving);
  if (ringed) paintTarget(sheet, ringed);
  const gauges = gaugesOf(glyph.id);
  if (gauges.length > 0) paintGauges(sheet, flattened(drawing, drawingsOf(project, master.id)), gauges);
  tool?.paint(sheet);
  const label = tool?.label?.();
  if (label) paintLabel(sheet, label);
}
