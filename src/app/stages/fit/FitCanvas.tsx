import { type DragEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { addToSides, type SideName, sidesOf } from '../../../core/fitting/sides';
import { changeSettings } from '../../../core/project/edits';
import type { GlyphId, Project } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { currentInks, useCanvas } from '../../canvas/useCanvas';
import { layHands } from '../../keys/hands';
import { cancelPreview, chooseGlyph, chooseMaster, preview, run, useBench } from '../../state/bench';
import { takesGlyph } from '../../ui/glyphDrag';
import { type FitLine, gripAt, layOut, openSpot } from './fitLines';
import { type FitPainting, paintEdges, paintGlyph, paintOpen, paintStart, paintWhite, startOf } from './fitPainting';

const MARGIN = 28;

/** What the hand has: an edge, and where it was taken; or a starting line, with the ink that it is measured from, in pixels. */
type Drag =
  | { what: 'edge'; edge: SideName; from: number; both: boolean }
  | { what: 'start'; ink: number; counter: number }
  | undefined;

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
  const drag = useRef<Drag>(undefined);
  const scroll = useRef({ x: 0, y: 0 });
  const current = masterOf(project, master)!;
  const { zones } = current;
  const masters = project.masters.map((m) => m.id);
  const scale = size / project.unitsPerEm;
  const leading = size * 1.28;
  const laid = layOut(project, lines, { size, top: 18, leading });
  const opened = openSpot(laid, open, id, master);
  const xPx = (x: number) => MARGIN + x * scale - scroll.current.x;

  const { ref, invalidate } = useCanvas(({ context, width }) => {
    const painting: FitPainting = { context, project, master, inks: currentInks(), scale, zones, xPx };
    laid.forEach((line, l) => {
      const baseline = line.baseline - scroll.current.y;
      context.fillStyle = painting.inks.line;
      context.fillRect(
        MARGIN - 8,
        Math.round(baseline - zones.descender.position * scale) + 2,
        width - 2 * MARGIN + 16,
        1,
      );
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
    const line = laid.findIndex((l) => py < l.baseline + size * 0.33);
    if (line < 0) return;
    const after = laid[line]!.glyphs.findIndex((g) => px < xPx(g.x + g.advance / 2));
    putIn(line, after < 0 ? laid[line]!.glyphs.length : after, glyph);
  };

  const position = (e: PointerEvent) => {
    const box = ref.current!.getBoundingClientRect();
    return { px: e.clientX - box.left, py: e.clientY - box.top };
  };

  const grip = (px: number, py: number) => {
    const line = opened && laid[opened.line];
    const glyph = opened && line?.glyphs[opened.index];
    if (!line || !glyph) return undefined;
    return gripAt(project, current, { glyph, baseline: line.baseline - scroll.current.y, px, py }, { scale, xPx });
  };

  const down = (e: PointerEvent<HTMLCanvasElement>) => {
    const { px, py } = position(e);
    if (e.pointerType !== 'mouse') e.currentTarget.focus();
    const held = grip(px, py);
    if (held && id) {
      // What is not drawn has an advance only.
      if (held.side === 'left' && !('left' in sidesOf(project, project.glyphs[id]!, master))) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current =
        held.what === 'start'
          ? { what: 'start', ink: held.ink, counter: held.counter }
          : { what: 'edge', edge: held.side, from: px, both: e.shiftKey };
      return;
    }
    laid.forEach((line, l) => {
      const baseline = line.baseline - scroll.current.y;
      if (py < baseline - size * 0.95 || py > baseline + size * 0.33) return;
      const index = line.glyphs.findIndex((g) => px >= xPx(g.x) && px < xPx(g.x + g.advance));
      if (index < 0) return;
      setOpen({ line: l, index });
      if (line.master !== master) chooseMaster(line.master);
      chooseGlyph(line.glyphs[index]!.id);
    });
  };

  /** More room on the sides of the open glyph, in this master or in all. */
  const sidesBy = (left: number, right: number) => (p: Project) =>
    addToSides(p, { glyph: id!, masters: together ? masters : [master], left, right });
  const dragEdit = (e: PointerEvent) => {
    const d = drag.current;
    if (!d || !id) return undefined;
    if (d.what === 'start') {
      const startShare = Math.round((100 * Math.abs(position(e).px - d.ink)) / d.counter) / 100;
      return (p: Project) => changeSettings(p, { startShare: Math.max(0.05, Math.min(2, startShare)) });
    }
    const moved = Math.round((position(e).px - d.from) / scale);
    // Pulling an edge outwards gives that side more room: the left edge is pulled to the left.
    const by = d.edge === 'left' ? -moved : moved;
    if (by === 0) return undefined;
    return sidesBy(d.both || d.edge === 'left' ? by : 0, d.both || d.edge === 'right' ? by : 0);
  };
  const move = (e: PointerEvent<HTMLCanvasElement>) => {
    const { px, py } = position(e);
    e.currentTarget.style.cursor = drag.current || grip(px, py) ? 'ew-resize' : 'default';
    const edit = dragEdit(e);
    if (edit) preview(edit);
  };
  const up = (e: PointerEvent<HTMLCanvasElement>) => {
    const edit = dragEdit(e);
    drag.current = undefined;
    if (edit) run(edit);
  };

  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const most = Math.max(0, laid.length * leading + 60 - canvas.clientHeight);
      scroll.current.y = Math.min(most, Math.max(0, scroll.current.y + (e.shiftKey ? 0 : e.deltaY)));
      scroll.current.x = Math.max(0, scroll.current.x + e.deltaX + (e.shiftKey ? e.deltaY : 0));
      invalidate();
    };
    canvas.addEventListener('wheel', wheel, { passive: false });
    return () => {
      canvas.removeEventListener('wheel', wheel);
    };
  });

  const walk = (by: 1 | -1): boolean => {
    const line = opened && laid[opened.line];
    if (!opened || !line) return false;
    const index = (opened.index + by + line.glyphs.length) % line.glyphs.length;
    setOpen({ line: opened.line, index });
    chooseGlyph(line.glyphs[index]!.id);
    return true;
  };
  const letGo = (): boolean => {
    if (!drag.current) return false;
    drag.current = undefined;
    cancelPreview();
    return true;
  };
  useEffect(() =>
    layHands('fit', {
      sides: (left, right) => {
        if (id) run(sidesBy(left, right), `fit ${id} ${Math.sign(left)} ${Math.sign(right)}`);
      },
      walk,
      drop: letGo,
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
      onPointerUp={up}
      onPointerCancel={letGo}
      {...takesGlyph(drop)}
      className="block min-h-0 w-full flex-1 touch-none outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--kelp)]"
    />
  );
}
