import { type DragEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { sidesOf } from '../../../core/fitting/sides';
import type { GlyphId } from '../../../core/project/model';
import { placeInWords } from '../../../core/project/places';
import { masterOf } from '../../../core/project/queries';
import { waypointPlace } from '../../../core/project/waypoints';
import { currentInks, useCanvas } from '../../canvas/useCanvas';
import { useWheel } from '../../canvas/useWheelView';
import { layHands } from '../../keys/hands';
import { chooseGlyph, chooseMaster, run, useBench } from '../../state/bench';
import { takesGlyph } from '../../ui/glyphDrag';
import { type FitLine, gripAt, type Line, layOut, lineReach, openSpot } from './fitLines';
import {
  type FitPainting,
  outOf,
  paintEdges,
  paintGlyph,
  paintOpen,
  paintSaid,
  paintStart,
  paintWhite,
  startOf,
} from './fitPainting';
import { useFitDrag } from './useFitDrag';

const MARGIN = 28;

/** Lines of glyphs; the selected one shows its two edges, which are dragged. */
export function FitCanvas({
  lines,
  size,
  putIn,
  together,
}: {
  lines: readonly FitLine[];
  size: number;
  putIn: (line: number, index: number, glyph: GlyphId) => void;
  /** A change is made in every master, each from its own values. */
  together: boolean;
}) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const id = useBench((s) => s.glyph);
  const [open, setOpen] = useState({ line: 0, index: -1 });
  const scroll = useRef({ y: 0 });
  const current = masterOf(project, master)!;
  const { zones } = current;
  const scale = size / project.unitsPerEm;
  const drag = useFitDrag({ id, masters: together ? project.masters.map((m) => m.id) : [master], scale });
  const reach = useMemo(() => lineReach(project, lines), [project, lines]);
  const [wide, setWide] = useState(0);
  // Room above for the open letter's numbers, whatever its ascenders need.
  const leading = (reach.top - reach.bottom) * scale + 26;
  const laid = layOut(project, lines, {
    top: reach.top * scale + 34,
    leading,
    room: Math.max(project.unitsPerEm, (wide - 2 * MARGIN) / scale),
  });
  const opened = openSpot(laid, open, id, master);
  /** The pixel of a place along a row; one that runs from the right ends at the right of the sheet. */
  const xIn = (line: Line | undefined) => (x: number) =>
    (line?.rightToLeft ? wide - MARGIN - line.width * scale : MARGIN) + x * scale;
  const xPx = xIn(opened && laid[opened.line]);
  const out = outOf(current, scale);

  const { ref, invalidate } = useCanvas(({ context, width }) => {
    if (width !== wide) return setWide(width);
    const inks = currentInks();
    laid.forEach((line, l) => {
      const painting: FitPainting = { context, project, master, inks, scale, zones, xPx: xIn(line), out };
      const baseline = line.baseline - scroll.current.y;
      context.fillStyle = painting.inks.line;
      context.fillRect(
        MARGIN - 8,
        Math.round(baseline - zones.descender.position * scale) + 2,
        width - 2 * MARGIN + 16,
        1,
      );
      if (line.looked) paintSaid(painting, placeInWords(project.axes, waypointPlace(line.master) ?? {}), baseline);
      const own = opened?.line === l ? line.glyphs[opened.index] : undefined;
      if (own) paintOpen(painting, own, baseline);
      for (const g of line.glyphs) paintGlyph(painting, g, baseline, line.master);
      if (!own) return;
      paintWhite(painting, own, baseline);
      paintStart(painting, own, baseline);
      paintEdges(painting, own, baseline);
    });
  });
  useEffect(invalidate);

  const drop = (glyph: GlyphId, e: DragEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const py = e.clientY - box.top + scroll.current.y;
    const px = e.clientX - box.left;
    const row = laid.find((l) => py < l.baseline - zones.descender.position * scale + 8);
    if (!row) return;
    const x = xIn(row);
    const after = row.glyphs.findIndex((g) =>
      row.rightToLeft ? px > x(g.x + g.advance / 2) : px < x(g.x + g.advance / 2),
    );
    putIn(row.line, row.from + (after < 0 ? row.glyphs.length : after), glyph);
  };

  const position = (e: PointerEvent) => {
    const box = ref.current!.getBoundingClientRect();
    return { px: e.clientX - box.left, py: e.clientY - box.top };
  };

  const grip = (px: number, py: number) => {
    const line = opened && laid[opened.line];
    const glyph = opened && line?.glyphs[opened.index];
    if (!line || !glyph) return undefined;
    const baseline = line.baseline - scroll.current.y;
    // Edges of slanted letters lean; where the hand is, they stand out so far.
    return gripAt(project, current, { glyph, baseline, px: px - out(baseline - py), py }, { scale, xPx });
  };

  const down = (e: PointerEvent<HTMLCanvasElement>) => {
    const { px, py } = position(e);
    if (e.pointerType !== 'mouse') e.currentTarget.focus();
    const held = grip(px, py);
    if (held && id) {
      // What is not drawn has an advance only.
      if (held.side === 'left' && !('left' in sidesOf(project, project.glyphs[id]!, master))) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      return drag.begin(held, px, e.shiftKey);
    }
    laid.forEach((line, l) => {
      const baseline = line.baseline - scroll.current.y;
      if (py < baseline - reach.top * scale - 12 || py > baseline - reach.bottom * scale + 12) return;
      const x = xIn(line);
      const index = line.glyphs.findIndex((g) => px >= x(g.x) && px < x(g.x + g.advance));
      if (index < 0) return;
      setOpen({ line: l, index });
      if (line.master !== master && !line.looked) chooseMaster(line.master);
      chooseGlyph(line.glyphs[index]!.id);
    });
  };

  const move = (e: PointerEvent<HTMLCanvasElement>) => {
    const { px, py } = position(e);
    e.currentTarget.style.cursor = drag.isOn() || grip(px, py) ? 'ew-resize' : 'default';
    drag.move(px);
  };
  useWheel(ref, (e, canvas) => {
    const most = Math.max(0, laid.length * leading + 60 - canvas.clientHeight);
    scroll.current.y = Math.min(most, Math.max(0, scroll.current.y + e.deltaY));
    invalidate();
  });

  const walk = (by: 1 | -1): boolean => {
    const line = opened && laid[opened.line];
    if (!opened || !line) return false;
    const index = (opened.index + by + line.glyphs.length) % line.glyphs.length;
    setOpen({ line: opened.line, index });
    chooseGlyph(line.glyphs[index]!.id);
    return true;
  };
  useEffect(() =>
    layHands('fit', {
      sides: (left, right) => {
        if (id) run(drag.sidesBy(left, right), `fit ${id} ${Math.sign(left)} ${Math.sign(right)}`);
      },
      walk,
      drop: drag.letGo,
    }),
  );

  const edges = opened && laid[opened.line]?.glyphs[opened.index];
  const start = edges && startOf(project, master, edges);
  return (
    // biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the fitting lines take keys.
    <canvas
      ref={ref}
      tabIndex={0}
      role="application"
      aria-label="Fitting lines"
      data-testid="fit-canvas"
      data-left={edges ? xPx(edges.x) : ''}
      data-right={edges ? xPx(edges.x + edges.advance) : ''}
      data-start={start ? xPx(start.right) : ''}
      data-baseline={opened ? laid[opened.line]!.baseline : ''}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={(e) => drag.end(position(e).px)}
      onPointerCancel={drag.letGo}
      {...takesGlyph(drop)}
      className="block min-h-0 w-full flex-1 touch-none outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--kelp)]"
    />
  );
}
