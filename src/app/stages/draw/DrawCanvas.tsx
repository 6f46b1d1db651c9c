import { type PointerEvent, useCallback, useEffect, useMemo, useRef } from 'react';
import { masterOf } from '../../../core/project/queries';
import { TOOLS } from '../../canvas/tools/registry';
import type { Hand, Tool, ToolName } from '../../canvas/tools/tool';
import { currentInks, useCanvas } from '../../canvas/useCanvas';
import { useWheelView } from '../../canvas/useWheelView';
import { panned, toFontX, toFontY, type View, zoomAt } from '../../canvas/view';
import { type DrawHands, layHands } from '../../keys/hands';
import { MOD } from '../../keys/keys';
import { useBench } from '../../state/bench';
import { setHints, setView, useDrawBench } from './drawBench';
import { fitView, paintSheet } from './drawPainting';
import { workplace } from './workplace';

/** How far from a point, in pixels, the hand may be and still mean it. */
const REACH_PX = 8;
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
    tellView(view.current);
    const sheet = { context, width, height, view: view.current, inks: currentInks(), repaint: invalidate };
    paintSheet(sheet, { project, glyph, master, selection }, bare.current ? 'bare' : active.current);
  });

  /** Where font units lie on the canvas, for assistive tools and tests: scale, and the origin in pixels. */
  const toldView = useRef<View | undefined>(undefined);
  const tellView = (v: View) => {
    if (toldView.current === v || !ref.current) return;
    toldView.current = v;
    ref.current.dataset.view = `${v.scale} ${v.originX} ${v.originY}`;
    queueMicrotask(() => setView(v));
  };

  /** Tells the foot of the sheet what the keys do, when that changes. */
  const toldHints = useRef<unknown>(undefined);
  const refreshHints = useCallback(() => {
    const hints = active.current?.hints?.();
    if (hints === toldHints.current) return;
    toldHints.current = hints;
    setHints((hints ?? []).map(([key, does]) => [key.replace('Ctrl', MOD), does] as const));
  }, []);

  const place = useMemo(() => workplace(invalidate), [invalidate]);
  const tools = useMemo(
    () => Object.fromEntries(TOOLS.map((t) => [t.name, t.make(place)])) as Record<ToolName, Tool>,
    [place],
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
    if (e.pointerType !== 'mouse') e.currentTarget.focus();
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

  useWheelView(ref, view, invalidate);

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
