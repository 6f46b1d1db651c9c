import { type PointerEvent, useRef, useState } from 'react';
import type { Region } from '../../core/tracing/regions';
import type { LetteredLine } from '../../core/tracing/sheetEdits';

export type Chosen = { line: number; region: number };
type Drag =
  | { kind: 'edge'; at: Chosen; edge: keyof Region }
  | { kind: 'baseline'; line: number }
  | { kind: 'new'; from: { x: number; y: number }; to: { x: number; y: number } };

type Props = {
  url: string;
  width: number;
  height: number;
  lines: readonly LetteredLine[];
  chosen: Chosen | undefined;
  onChoose: (chosen: Chosen | undefined) => void;
  onRemove: () => void;
  onEdge: (at: Chosen, edge: keyof Region, to: number) => void;
  onBaseline: (line: number, to: number) => void;
  onNew: (region: Region) => void;
};

const EDGES: readonly { edge: keyof Region; css: string }[] = [
  { edge: 'left', css: 'top-0 -left-1 h-full w-2 cursor-ew-resize' },
  { edge: 'right', css: 'top-0 -right-1 h-full w-2 cursor-ew-resize' },
  { edge: 'top', css: '-top-1 left-0 h-2 w-full cursor-ns-resize' },
  { edge: 'bottom', css: '-bottom-1 left-0 h-2 w-full cursor-ns-resize' },
];

/** The straight sheet with the letters found on it: edges and baselines can be dragged, a drag over paper adds a letter. */
export function SheetPicture({
  url,
  width,
  height,
  lines,
  chosen,
  onChoose,
  onRemove,
  onEdge,
  onBaseline,
  onNew,
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag>();
  const at = (e: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    return { x: ((e.clientX - box.left) / box.width) * width, y: ((e.clientY - box.top) / box.height) * height };
  };
  const begin = (e: PointerEvent, next: Drag) => {
    e.stopPropagation();
    frame.current!.setPointerCapture(e.pointerId);
    setDrag(next);
  };
  const percent = (r: Region) => ({
    left: `${(r.left / width) * 100}%`,
    top: `${(r.top / height) * 100}%`,
    width: `${((r.right - r.left) / width) * 100}%`,
    height: `${((r.bottom - r.top) / height) * 100}%`,
  });
  const drawn = (d: Extract<Drag, { kind: 'new' }>): Region => ({
    left: Math.round(Math.min(d.from.x, d.to.x)),
    top: Math.round(Math.min(d.from.y, d.to.y)),
    right: Math.round(Math.max(d.from.x, d.to.x)),
    bottom: Math.round(Math.max(d.from.y, d.to.y)),
  });
  return (
    <div
      ref={frame}
      data-testid="sheet"
      className="relative cursor-crosshair touch-none select-none overflow-hidden rounded-lg border border-line"
      onPointerDown={(e) => {
        onChoose(undefined);
        begin(e, { kind: 'new', from: at(e), to: at(e) });
      }}
      onPointerMove={(e) => {
        if (!drag) return;
        const { x, y } = at(e);
        if (drag.kind === 'new') setDrag({ ...drag, to: { x, y } });
        else if (drag.kind === 'baseline') onBaseline(drag.line, y);
        else onEdge(drag.at, drag.edge, drag.edge === 'left' || drag.edge === 'right' ? x : y);
      }}
      onPointerUp={() => {
        if (drag?.kind === 'new') {
          const region = drawn(drag);
          if (region.right - region.left > width / 120 && region.bottom - region.top > width / 120) onNew(region);
        }
        setDrag(undefined);
      }}
    >
      <img src={url} alt="The sheet, made straight" className="block w-full" draggable={false} />
      {lines.map((line, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place on the sheet.
        <div key={i}>
          <div
            className="absolute left-0 h-[7px] w-full -translate-y-1/2 cursor-ns-resize"
            style={{ top: `${(line.baseline / height) * 100}%` }}
            title="Baseline: drag it to where the letters stand"
            onPointerDown={(e) => begin(e, { kind: 'baseline', line: i })}
          >
            <div className="mt-[3px] border-violet border-t border-dashed" />
          </div>
          {line.regions.map((region, k) => {
            const on = chosen?.line === i && chosen.region === k;
            const character = line.characters[k];
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: a region is its place in the line.
              <div key={k} className="absolute" style={percent(region)}>
                <button
                  type="button"
                  aria-label={`Letter ${k + 1} of line ${i + 1}${character ? `, ${character}` : ''}`}
                  aria-pressed={on}
                  onPointerDown={(e) => {
                    e.stopPropagation();
                    onChoose({ line: i, region: k });
                  }}
                  onClick={() => onChoose({ line: i, region: k })}
                  onKeyDown={(e) => {
                    if (e.key === 'Delete' || e.key === 'Backspace') onRemove();
                  }}
                  className={`absolute inset-0 cursor-default rounded-[3px] border ${on ? 'border-2 border-kelp' : character ? 'border-kelp/60' : 'border-marigold border-dashed'}`}
                />
                <span
                  className={`pointer-events-none absolute -top-[18px] left-1/2 min-w-5 -translate-x-1/2 rounded px-1 text-center font-semibold text-[12px] leading-4 ${character ? 'bg-kelp text-on-kelp' : 'bg-marigold-tint text-marigold'}`}
                >
                  {character ?? '?'}
                </span>
                {on &&
                  EDGES.map(({ edge, css }) => (
                    <div
                      key={edge}
                      className={`absolute ${css}`}
                      onPointerDown={(e) => begin(e, { kind: 'edge', at: { line: i, region: k }, edge })}
                    />
                  ))}
              </div>
            );
          })}
        </div>
      ))}
      {drag?.kind === 'new' && <div className="absolute border border-kelp bg-kelp/10" style={percent(drawn(drag))} />}
    </div>
  );
}
