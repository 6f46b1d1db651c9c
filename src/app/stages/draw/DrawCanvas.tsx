import { type PointerEvent, useCallback, useEffect, useMemo, useRef } from 'react';
import { guidesFor } from '../../../core/drawing/guides';
import { sidesOf } from '../../../core/fitting/sides';
import { isEmptyBox } from '../../../core/geometry/curve';
import { wrongWay } from '../../../core/geometry/winding';
import { drawingBounds, drawingsOf, flattened } from '../../../core/project/outline';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, masterOf } from '../../../core/project/queries';
import { paintCombs, paintGauges, paintGuides, paintWrongWay } from '../../canvas/paint/aids';
import { paintLabel } from '../../canvas/paint/gestures';
import { paintBackdrops } from '../../canvas/paint/pictures';
import { paintPoints } from '../../canvas/paint/points';
import { paintEdges, paintGlyph, paintOutline, paintZoneNames, paintZones } from '../../canvas/paint/sheet';
import { TOOLS } from '../../canvas/tools/registry';
import type { Hand, Tool, ToolName, Workplace } from '../../canvas/tools/tool';
import { currentInks, useCanvas } from '../../canvas/useCanvas';
import { fitted, panned, toFontX, toFontY, type View, zoomAt } from '../../canvas/view';
import { type DrawHands, layHands } from '../../keys/hands';
import { MOD } from '../../keys/keys';
import { cancelPreview, preview, run, select, useBench } from '../../state/bench';
import { rememberTransform } from './again';
import { chooseParts, gaugesOf, layGauges, setHints, setView, useDrawBench } from './drawBench';
import { company } from './neighbours';

/** How far from a point, in pixels, the hand may be and still mean it. */
const REACH_PX = 8;
const place = (repaint: () => void): Workplace => ({
  project: () => useBench.getState().project!,
  master: () => masterOf(useBench.getState().project!, useBench.getState().master)!,
  at: () => ({ glyph: useBench.getState().glyph!, master: useBench.getState().master }),
  drawing: () => {
    const { project, glyph, master } = useBench.getState();
    return drawingOf(project!.glyphs[glyph!]!, master);
  },
  settled: () => {
    const { settled, glyph, master } = useBench.getState();
    return drawingOf(settled!.glyphs[glyph!]!, master);
  },
  selection: () => useBench.getState().selection,
  select,
  preview,
  commit: run,
  cancel: cancelPreview,
  repaint,
  parts: () => useDrawBench.getState().parts,
  chooseParts,
  gauges: () => gaugesOf(useBench.getState().glyph!),
  layGauges: (gauges) => layGauges(useBench.getState().glyph!, gauges),
  typedSize: () => useDrawBench.getState().typedSize,
  remember: rememberTransform,
});

/** The drawing surface: paints the sheet and feeds the tool with the pointer and keys in font units. */
export function DrawCanvas({ tool }: { tool: ToolName }) {
  const view = useRef<View>({ scale: 0.5, originX: 200, originY: 400 });
  const fittedTo = useRef('');
  const panning = useRef<{ x: number; y: number } | undefined>(undefined);
  const spaceHeld = useRef(false);
  const bare = useRef(false);
  const freeHeld = useRef(false);
  const active = useRef<Tool | undefined>(undefined);
  /** Where the canvas lies in the window; asked for anew at each press, since asking makes the browser lay the page out. */
  const frame = useRef<DOMRect | undefined>(undefined);

  const { ref, invalidate, size } = useCanvas(({ context, width, height }) => {
    const { project, glyph: id, master: masterId, selection } = useBench.getState();
    const glyph = id ? project?.glyphs[id] : undefined;
    const master = project && masterOf(project, masterId);
    if (!project || !glyph || !master) return;
    const key = `${useBench.getState().projectId} ${glyph.id} ${Math.round(width)}x${Math.round(height)}`;
    if (fittedTo.current !== key) {
      frame.current = undefined;
      view.current = fitView(width, height);
      fittedTo.current = key;
    }
    const v = view.current;
    tellView(v);
    const inks = currentInks();
    const drawing = drawingOf(glyph, masterId);
    const { combs, parts, company: words } = useDrawBench.getState();
    if (!bare.current) {
      paintZones(context, v, master, width, inks);
      paintBackdrops(context, v, { project, glyph, master: masterId, drawing }, inks, invalidate);
    }
    for (const { glyph: g, x } of company(project, glyph, masterId, words)) {
      paintGlyph(
        context,
        v,
        drawingPath(project, masterId, drawingOf(g, masterId)),
        x,
        bare.current ? inks.ink : inks.shade,
      );
    }
    if (bare.current) {
      paintGlyph(context, v, drawingPath(project, masterId, drawing), 0, inks.ink);
      return;
    }
    paintZoneNames(context, v, master, width, inks);
    paintGuides(context, v, guidesFor(master, drawing), width, height, inks);
    const sides = sidesOf(project, glyph, masterId);
    paintOutline(context, v, project, masterId, drawing, inks, parts);
    paintEdges(
      context,
      v,
      drawing.advance,
      'left' in sides ? sides : undefined,
      master.zones.descender.position,
      height,
      inks,
    );
    if (combs) paintCombs(context, v, drawing.contours, project.unitsPerEm, inks);
    const wrong = drawing.contours.length > 1 ? wrongWay(drawing.contours) : [];
    if (wrong.length > 0) paintWrongWay(context, v, drawing.contours, wrong, inks);
    paintPoints(context, v, drawing, selection, inks);
    const gauges = gaugesOf(glyph.id);
    if (gauges.length > 0) paintGauges(context, v, flattened(drawing, drawingsOf(project, masterId)), gauges, inks);
    active.current?.paint(context, v, inks);
    const label = active.current?.label?.();
    if (label) paintLabel(context, v, label, inks, width);
  });

  /** Where font units lie on the canvas, for assistive tools and tests: scale, and the origin in pixels. */
  const toldView = useRef<View | undefined>(undefined);
  const tellView = (v: View) => {
    if (toldView.current === v || !ref.current) return;
    toldView.current = v;
    ref.current.dataset.view = `${v.scale} ${v.originX} ${v.originY}`;
    queueMicrotask(() => setView(v));
  };

  /** Shows the glyph between its edges, from descender to ascender. */
  const fitView = (width: number, height: number): View => {
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
  };

  /** Tells the foot of the sheet what the keys do, when that changes. */
  const toldHints = useRef<unknown>(undefined);
  const refreshHints = useCallback(() => {
    const hints = active.current?.hints?.();
    if (hints === toldHints.current) return;
    toldHints.current = hints;
    setHints((hints ?? []).map(([key, does]) => [key.replace('Ctrl', MOD), does] as const));
  }, []);

  const workplace = useMemo(() => place(invalidate), [invalidate]);
  const tools = useMemo(
    () => Object.fromEntries(TOOLS.map((t) => [t.name, t.make(workplace)])) as Record<ToolName, Tool>,
    [workplace],
  );

  useEffect(() => {
    active.current?.leave();
    active.current = tools[tool];
    refreshHints();
    if (ref.current) ref.current.style.cursor = tools[tool].cursor();
    invalidate();
  }, [tool, tools, invalidate, ref, refreshHints]);

  useEffect(() => {
    const stops = [
      useBench.subscribe((now, then) => {
        if (now.glyph !== then.glyph || now.master !== then.master) active.current?.leave();
        invalidate();
      }),
      useDrawBench.subscribe((now, then) => {
        if (now.hints === then.hints && now.view === then.view) invalidate();
      }),
    ];
    return () => {
      for (const stop of stops) stop();
    };
  }, [invalidate]);

  const handOf = (e: PointerEvent | globalThis.PointerEvent): Hand => {
    frame.current ??= ref.current!.getBoundingClientRect();
    const box = frame.current;
    const v = view.current;
    return {
      x: toFontX(v, e.clientX - box.left),
      y: toFontY(v, e.clientY - box.top),
      shift: e.shiftKey,
      alt: e.altKey,
      mod: e.metaKey || e.ctrlKey,
      clicks: 1,
      reach: REACH_PX / v.scale,
      free: freeHeld.current,
    };
  };
  const lastDown = useRef({ at: 0, x: 0, y: 0 });

  const down = (e: PointerEvent<HTMLCanvasElement>) => {
    e.currentTarget.focus();
    e.currentTarget.setPointerCapture(e.pointerId);
    frame.current = undefined;
    if (e.button === 1 || spaceHeld.current) {
      panning.current = { x: e.clientX, y: e.clientY };
      return;
    }
    if (e.button !== 0) return;
    const last = lastDown.current;
    const again = e.timeStamp - last.at < 400 && Math.hypot(e.clientX - last.x, e.clientY - last.y) < 5;
    lastDown.current = again ? { at: 0, x: 0, y: 0 } : { at: e.timeStamp, x: e.clientX, y: e.clientY };
    active.current?.down({ ...handOf(e), clicks: again ? 2 : 1 });
    refreshHints();
    invalidate();
  };
  const move = (e: PointerEvent<HTMLCanvasElement>) => {
    if (panning.current) {
      view.current = panned(view.current, e.clientX - panning.current.x, e.clientY - panning.current.y);
      panning.current = { x: e.clientX, y: e.clientY };
      return invalidate();
    }
    active.current?.move(handOf(e));
    refreshHints();
    e.currentTarget.style.cursor = spaceHeld.current ? 'grab' : (active.current?.cursor() ?? 'default');
  };
  const up = (e: PointerEvent<HTMLCanvasElement>) => {
    if (panning.current) {
      panning.current = undefined;
      return;
    }
    if (e.button === 0) active.current?.up(handOf(e));
    refreshHints();
    invalidate();
  };

  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const box = canvas.getBoundingClientRect();
      if (e.ctrlKey || e.metaKey)
        view.current = zoomAt(
          view.current,
          Math.exp(-e.deltaY * (e.deltaMode === 1 ? 0.05 : 0.0022)),
          e.clientX - box.left,
          e.clientY - box.top,
        );
      else view.current = panned(view.current, e.shiftKey ? -e.deltaY : -e.deltaX, e.shiftKey ? 0 : -e.deltaY);
      invalidate();
    };
    canvas.addEventListener('wheel', wheel, { passive: false });
    return () => canvas.removeEventListener('wheel', wheel);
  }, [invalidate, ref]);

  const zoom = (by: number) => {
    const { width, height } = size.current;
    view.current = zoomAt(view.current, by, width / 2, height / 2);
    invalidate();
  };
  const hold = (what: { current: boolean }, on: boolean) => {
    what.current = on;
    if (ref.current) ref.current.style.cursor = spaceHeld.current ? 'grab' : (active.current?.cursor() ?? 'default');
    invalidate();
  };
  const onCanvas = () => document.activeElement === ref.current || document.activeElement === document.body;
  useEffect(() =>
    layHands('draw', {
      fit: () => {
        view.current = fitView(size.current.width, size.current.height);
        invalidate();
      },
      zoom,
      bare: (on) => hold(bare, on),
      free: (on) => hold(freeHeld, on),
      grab: (on) => {
        if (on && !onCanvas()) return false;
        hold(spaceHeld, on);
        return true;
      },
      key: (e) => {
        if (e.key === 'Tab' && !onCanvas()) return false;
        const modifiers = { shift: e.shiftKey, alt: e.altKey, mod: e.metaKey || e.ctrlKey };
        if (!active.current?.key(e.key, modifiers)) return false;
        refreshHints();
        invalidate();
        return true;
      },
    } satisfies DrawHands),
  );

  return (
    // biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the drawing surface takes keys.
    <canvas
      ref={ref}
      tabIndex={0}
      role="application"
      aria-label="Drawing surface"
      data-testid="draw-canvas"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerEnter={() => {
        frame.current = undefined;
      }}
      onPointerCancel={() => active.current?.leave()}
      onContextMenu={(e) => e.preventDefault()}
      className="block h-full w-full touch-none outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--kelp)]"
    />
  );
}
