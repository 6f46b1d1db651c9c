import { useCallback, useEffect, useMemo, useRef } from 'react';
import { masterOf } from '../../../core/project/queries';
import { TOOLS } from '../../canvas/tools/registry';
import type { Tool, ToolName } from '../../canvas/tools/tool';
import { currentInks, useCanvas } from '../../canvas/useCanvas';
import { useWheelView } from '../../canvas/useWheelView';
import { type View, zoomAt } from '../../canvas/view';
import { type DrawHands, layHands } from '../../keys/hands';
import { MOD } from '../../keys/keys';
import { useBench } from '../../state/bench';
import { useBeside } from '../../state/beside';
import { usePartner } from '../../state/partner';
import { setHints, setView, useDrawBench } from './drawBench';
import { fitView, paintSheet } from './drawPainting';
import { cursorOf, moved, newSurface, pressed, released, type Surface } from './surface';
import { workplace } from './workplace';

/** The drawing surface: paints the sheet and feeds the tool with the pointer and keys in font units. */
export function DrawCanvas({ tool }: { tool: ToolName }) {
  const held = useRef<Surface>(undefined);
  held.current ??= newSurface();
  const surface = held.current;

  const { ref, invalidate, size } = useCanvas(({ context, width, height }) => {
    const { project, glyph: id, master: masterId, selection, projectId } = useBench.getState();
    const glyph = id ? project?.glyphs[id] : undefined;
    const master = project && masterOf(project, masterId);
    if (!project || !glyph || !master) return;
    const key = `${projectId} ${glyph.id} ${Math.round(width)}x${Math.round(height)}`;
    if (surface.fittedTo !== key) {
      surface.frame = undefined;
      surface.view = fitView(width, height);
      surface.fittedTo = key;
    }
    const { view } = surface;
    tellView(view);
    const sheet = { context, width, height, view, inks: currentInks(), repaint: invalidate };
    paintSheet(sheet, { project, glyph, master, selection }, surface.bare ? 'bare' : surface.tool);
  });

  /** Where font units lie on the canvas, for assistive tools and tests: scale, and the origin in pixels. */
  const toldView = useRef<View | undefined>(undefined);
  const tellView = (v: View) => {
    if (toldView.current === v || !ref.current) return;
    toldView.current = v;
    ref.current.dataset.view = `${v.scale} ${v.originX} ${v.originY}`;
    queueMicrotask(() => setView(v));
  };

  const place = useMemo(() => workplace(invalidate), [invalidate]);
  const tools = useMemo(
    () => Object.fromEntries(TOOLS.map((t) => [t.name, t.make(place)])) as Record<ToolName, Tool>,
    [place],
  );
  const refreshHints = useHints(surface);
  const changed = () => {
    refreshHints();
    invalidate();
  };

  useEffect(() => {
    surface.tool?.leave();
    surface.tool = tools[tool];
    refreshHints();
    if (ref.current) ref.current.style.cursor = cursorOf(surface);
    invalidate();
  }, [surface, tool, tools, invalidate, ref, refreshHints]);

  useEffect(() => {
    const stops = [
      useBench.subscribe((now, then) => {
        if (now.glyph !== then.glyph || now.master !== then.master) surface.tool?.leave();
        invalidate();
      }),
      useBeside.subscribe(invalidate),
      usePartner.subscribe(invalidate),
      useDrawBench.subscribe((now, then) => {
        if (now.hints !== then.hints || now.view !== then.view) return;
        refreshHints();
        invalidate();
      }),
    ];
    return () => {
      for (const stop of stops) stop();
    };
  }, [surface, invalidate, refreshHints]);

  const look = useCallback(
    (change: (view: View) => View) => {
      surface.view = change(surface.view);
      invalidate();
    },
    [surface, invalidate],
  );
  useWheelView(ref, look);

  const hold = (what: 'grab' | 'bare' | 'free', on: boolean) => {
    surface[what] = on;
    if (ref.current) ref.current.style.cursor = cursorOf(surface);
    invalidate();
  };
  const onCanvas = () => document.activeElement === ref.current || document.activeElement === document.body;
  useEffect(() =>
    layHands('draw', {
      fit: () => look(() => fitView(size.current.width, size.current.height)),
      zoom: (by) => look((v) => zoomAt(v, by, size.current.width / 2, size.current.height / 2)),
      bare: (on) => hold('bare', on),
      free: (on) => hold('free', on),
      grab: (on) => {
        if (on && !onCanvas()) return false;
        hold('grab', on);
        return true;
      },
      key: (e) => {
        if (e.key === 'Tab' && !onCanvas()) return false;
        const modifiers = { shift: e.shiftKey, alt: e.altKey, mod: e.metaKey || e.ctrlKey };
        if (!surface.tool?.key(e.key, modifiers)) return false;
        changed();
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
      onPointerDown={(e) => pressed(surface, e) && changed()}
      onPointerMove={(e) => (moved(surface, e) ? invalidate() : refreshHints())}
      onPointerUp={(e) => {
        released(surface, e);
        changed();
      }}
      onPointerEnter={() => {
        surface.frame = undefined;
      }}
      onPointerCancel={() => surface.tool?.leave()}
      onContextMenu={(e) => e.preventDefault()}
      className="block h-full w-full touch-none outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--kelp)]"
    />
  );
}

/** Tells the foot of the sheet what the keys do, when that changes. */
function useHints(surface: Surface): () => void {
  const told = useRef<unknown>(undefined);
  return useCallback(() => {
    const hints = surface.tool?.hints?.();
    if (hints === told.current) return;
    told.current = hints;
    setHints((hints ?? []).map(([key, does]) => [key.replace('Ctrl', MOD), does] as const));
  }, [surface]);
}
