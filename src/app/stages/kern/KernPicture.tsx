import { type UIEvent, useEffect, useRef, useState } from 'react';
import { controlsFor } from '../../../core/fitting/lines';
import { zoneOf } from '../../../core/fitting/optical';
import { lineAt, lineHeight, profileOf } from '../../../core/fitting/profile';
import { setPair } from '../../../core/kerning/edits';
import { pairZone } from '../../../core/kerning/optical';
import { plural } from '../../../core/project/edit';
import { kerningOf, membersOf, sidesToChange } from '../../../core/project/kerningLookup';
import type { GlyphId, Master, Project } from '../../../core/project/model';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, glyphForCodePoint, masterOf } from '../../../core/project/queries';
import { cancelPreview, preview, run, useBench } from '../../state/bench';
import { placed } from '../../ui/placed';
import { SetGlyphs } from '../../ui/SetGlyphs';
import { choosePair, type Pair } from './kernBench';

/** The pair between controls, large, with the white between it shaded; a drag moves the second glyph. */
export function KernPicture({ pair, before }: { pair: Pair; before: boolean }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const svg = useRef<SVGSVGElement>(null);
  /** From where in pixels, in what scale, and what was in sight when it began: its own preview must not change these. */
  const drag = useRef<{ x: number; perPixel: number; width: number; value: number; now: number } | undefined>(
    undefined,
  );
  const control = (id: GlyphId) =>
    glyphForCodePoint(project, (controlsFor(project.glyphs[id]!)[0] === 'n' ? 'n' : 'H').charCodeAt(0))?.id;
  const [left, right] = [control(pair.first), control(pair.second)];
  const ids = [...(left ? [left] : []), pair.first, pair.second, ...(right ? [right] : [])];
  const { glyphs, width } = placed(project, master, ids, before);
  const at = left ? 1 : 0;
  const { zones } = master;
  const [top, bottom] = [zones.ascender.position + 60, zones.descender.position - 20];
  const value = kerningOf(project, master, pair.first, pair.second)?.value ?? 0;
  const target = sidesToChange(project, master, pair.first, pair.second);
  /** Font units to a pixel, as the picture stands: the whole of it is fitted into its frame. */
  const perPixel = () => {
    const box = svg.current?.getBoundingClientRect();
    return box ? Math.max((width + 120) / (box.width || 1), (top - bottom) / (box.height || 1)) : 1;
  };
  const edit = (v: number) => (p: Project) =>
    setPair(p, { master: masterId, first: target[0], second: target[1], value: v });
  const drop = (commit: boolean) => {
    const d = drag.current;
    drag.current = undefined;
    cancelPreview();
    if (commit && d && d.now !== d.value) run(edit(d.now));
  };
  return (
    <svg
      ref={svg}
      role="img"
      aria-label={`${project.glyphs[pair.first]!.name} and ${project.glyphs[pair.second]!.name}, kerned by ${value}`}
      data-testid="kern-picture"
      className="block h-full w-full cursor-ew-resize touch-none"
      viewBox={`-60 ${-top} ${(drag.current?.width ?? width) + 120} ${top - bottom}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { x: e.clientX, perPixel: perPixel(), width, value, now: value };
      }}
      onPointerMove={(e) => {
        const d = drag.current;
        if (!d) return;
        d.now = Math.round(d.value + (e.clientX - d.x) * d.perPixel);
        preview(edit(d.now));
      }}
      onPointerUp={() => drop(true)}
      onPointerCancel={() => drop(false)}
    >
      <g transform="scale(1 -1)">
        {[0, zones.xHeight.position, zones.capHeight.position].map((y) => (
          <line key={y} x1={-60} x2={width + 60} y1={y} y2={y} className="stroke-line" strokeWidth={2} />
        ))}
        <White project={project} master={master} pair={pair} x0={glyphs[at]!.x} x1={glyphs[at + 1]!.x} />
        {glyphs.map(({ id, x }, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: a glyph is its place in the line.
            key={i}
            transform={`translate(${x} 0)`}
            d={drawingPath(project, masterId, drawingOf(project.glyphs[id]!, masterId))}
            className={i === at || i === at + 1 ? 'fill-ink' : 'fill-shade'}
          />
        ))}
      </g>
    </svg>
  );
}

/** The white that the eye weighs between two shapes, line by line. */
function White({
  project,
  master,
  pair,
  x0,
  x1,
}: {
  project: Project;
  master: Master;
  pair: Pair;
  x0: number;
  x1: number;
}) {
  const zone = pairZone(
    zoneOf(project, project.glyphs[pair.first]!, master),
    zoneOf(project, project.glyphs[pair.second]!, master),
  );
  const [a, b] = [profileOf(project, pair.first, master.id, true), profileOf(project, pair.second, master.id, true)];
  const bars: string[] = [];
  for (let i = lineAt(a, zone.bottom); i <= lineAt(a, zone.top); i++) {
    const [from, to] = [a.right[i]!, b.left[i]!];
    if (Number.isNaN(from) || Number.isNaN(to) || x1 + to <= x0 + from) continue;
    bars.push(`M${x0 + from} ${lineHeight(a, i)}H${x1 + to}`);
  }
  return <path d={bars.join('')} className="stroke-violet" strokeOpacity={0.28} strokeWidth={5} />;
}

/** What else a change moves: every pair that has its value from the same place. */
export function AlsoMoved({ pair }: { pair: Pair }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const [first, second] = sidesToChange(project, master, pair.first, pair.second);
  const pairs = membersOf(project, first).flatMap((a) =>
    membersOf(project, second).map((b) => ({ first: a, second: b })),
  );
  const others = pairs.filter(
    (p) =>
      (p.first !== pair.first || p.second !== pair.second) && drawingOf(project.glyphs[p.first]!, masterId).advance > 0,
  );
  // As many as have been scrolled to; a pair of large groups moves thousands.
  const [shown, setShown] = useState(60);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another pair begins at the top.
  useEffect(() => setShown(60), [pair.first, pair.second]);
  const more = ({ currentTarget: box }: UIEvent<HTMLUListElement>) => {
    if (box.scrollTop + box.clientHeight > box.scrollHeight - 60 && shown < others.length) setShown(shown + 60);
  };
  const { zones } = master;
  const [top, bottom] = [zones.ascender.position + 190, zones.descender.position - 40];
  return (
    <section aria-label="What else moves" className="border-t border-line px-5 py-2">
      <p className="mb-1 text-[13px] text-quiet">
        {others.length === 0 ? 'Only this pair moves.' : `Moves with it: ${plural(others.length, 'pair')}`}
      </p>
      <ul
        aria-label="Pairs that move with it"
        className="flex flex-wrap gap-x-3 gap-y-1 overflow-y-auto"
        style={{ maxHeight: 112 }}
        onScroll={more}
      >
        {others.slice(0, shown).map((p) => {
          const { glyphs, width } = placed(project, master, [p.first, p.second], false);
          return (
            <li key={`${p.first} ${p.second}`}>
              <button
                type="button"
                aria-label={`${project.glyphs[p.first]!.name} ${project.glyphs[p.second]!.name}`}
                className="block rounded hover:bg-kelp-tint"
                onClick={() => choosePair(p)}
              >
                <svg aria-hidden="true" height={54} viewBox={`0 ${-top} ${Math.max(1, width)} ${top - bottom}`}>
                  <SetGlyphs project={project} master={masterId} glyphs={glyphs} />
                </svg>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
