import { Play, Square } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { curvesOf } from '../../../core/geometry/contour';
import { boundsOf, isEmptyBox } from '../../../core/geometry/curve';
import type { GlyphId, Master, Project } from '../../../core/project/model';
import { type GlyphAt, glyphAt } from '../../../core/variation/glyphAt';
import { type Place, wholePlace } from '../../../core/variation/places';
import { layHands } from '../../keys/hands';
import { useBench, visitPlace } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { useWidth } from '../../ui/useWidth';
import { LetterAt } from './LetterAt';

const STEPS = 9;
const SIZE = 62;
/** Room for words at the left of the lines, and for numbers at their right. */
const GUTTER = { left: 84, right: 40 };

/** One glyph at even steps between two masters, its advance and sides as lines beneath, which show lumps. */
export function Strip({ glyph }: { glyph: GlyphId }) {
  const project = useBench((s) => s.settled)!;
  const { masters } = project;
  const box = useRef<HTMLElement>(null);
  const wide = useWidth(box, 800);
  const cell = (wide - GUTTER.left - GUTTER.right) / STEPS;
  const at = (i: number) => GUTTER.left + cell * (i + 0.5);
  const [ends, setEnds] = useState<readonly [string, string]>(() => farthest(project));
  const [from, to] = ends.map((id) => masters.find((m) => m.id === id)) as [Master | undefined, Master | undefined];
  const letters = useMemo(() => {
    if (!from || !to) return [];
    const [a, b] = [wholePlace(project.axes, from.place), wholePlace(project.axes, to.place)];
    return Array.from({ length: STEPS }, (_, i) => {
      const t = i / (STEPS - 1);
      const place: Place = Object.fromEntries(
        project.axes.map((x) => [x.tag, a[x.tag]! + (b[x.tag]! - a[x.tag]!) * t]),
      );
      return glyphAt(project, glyph, place)!;
    });
  }, [project, glyph, from, to]);
  const [seconds, setSeconds] = useState(5);
  const film = useFilm(project, from, to, seconds);
  const { toggle } = film;
  useEffect(() => layHands('strip', { film: toggle }), [toggle]);
  const pick = (k: 0 | 1) => (
    <Pick
      label={k === 0 ? 'From the master' : 'To the master'}
      className="w-40"
      value={ends[k]}
      options={masters.map((m) => ({ value: m.id, text: m.name }))}
      onChange={(id) => setEnds(k === 0 ? [id, ends[1]] : [ends[0], id])}
    />
  );
  if (!from || !to || letters.length === 0) return null;
  const em = project.unitsPerEm;
  return (
    <section ref={box} aria-label="Between two masters" className="mt-3">
      <div className="mb-1 flex items-center gap-2 text-[13px]">
        <span className="font-semibold">{project.glyphs[glyph]!.name}</span>
        <span className="text-quiet">from</span> {pick(0)} <span className="text-quiet">to</span> {pick(1)}
        <Button
          title="The galley goes from one to the other and back (F)"
          aria-pressed={film.running}
          onClick={film.toggle}
        >
          {film.running ? <Square size={13} /> : <Play size={13} />} {film.running ? 'Stop the film' : 'Film'}
        </Button>
        <Pick
          label="Time of the film there and back"
          className="w-24"
          value={String(seconds)}
          options={[2, 5, 10, 20].map((s) => ({ value: String(s), text: `${s} s` }))}
          onChange={(s) => setSeconds(Number(s))}
        />
        {letters.some((l) => l.stuck) && (
          <span className="text-marigold">▲ its masters do not agree, so the default’s drawing stands everywhere</span>
        )}
      </div>
      <svg
        height={SIZE * 1.5 + 70}
        className="block w-full rounded-xl border border-line bg-panel"
        role="img"
        aria-label={`${project.glyphs[glyph]!.name} at ${STEPS} steps from ${from.name} to ${to.name}`}
        data-testid="strip"
      >
        {letters.map((letter, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
          <g key={i} transform={`translate(${at(i)} ${SIZE * 1.1})`} className="fill-ink">
            <LetterAt letter={letter} em={em} size={SIZE} />
          </g>
        ))}
        <Lines letters={letters} top={SIZE * 1.5} at={at} wide={wide} />
      </svg>
    </section>
  );
}

/** The galley on its way between two masters, there and back in so many seconds, until it is stopped. */
function useFilm(project: Project, from: Master | undefined, to: Master | undefined, seconds: number) {
  const [running, setRunning] = useState(false);
  useEffect(() => {
    if (!running || !from || !to) return;
    const [a, b] = [wholePlace(project.axes, from.place), wholePlace(project.axes, to.place)];
    const before = useBench.getState().visit;
    const begun = performance.now();
    let frame = 0;
    const step = (now: number) => {
      const turn = (((now - begun) / 1000 / seconds) * 2) % 2;
      const t = turn < 1 ? turn : 2 - turn;
      visitPlace(
        Object.fromEntries(project.axes.map((x) => [x.tag, Math.round(a[x.tag]! + (b[x.tag]! - a[x.tag]!) * t)])),
      );
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => {
      cancelAnimationFrame(frame);
      visitPlace(before);
    };
  }, [running, project, from, to, seconds]);
  const toggle = useCallback(() => setRunning((was) => !was), []);
  return { running, toggle };
}

/** The two masters that lie farthest apart. */
function farthest({ masters, axes }: Project): [string, string] {
  let best: { ids: [string, string]; apart: number } | undefined;
  for (const a of masters)
    for (const b of masters) {
      const [p, q] = [wholePlace(axes, a.place), wholePlace(axes, b.place)];
      // Along one axis rather than across several.
      const moved = axes.filter((x) => p[x.tag] !== q[x.tag]);
      const apart = moved.length === 1 ? q[moved[0]!.tag]! - p[moved[0]!.tag]! : 0;
      if (a !== b && (!best || apart > best.apart)) best = { ids: [a.id, b.id], apart };
    }
  return best?.ids ?? [masters[0]!.id, masters[0]!.id];
}

const MEASURES = [
  { name: 'advance', of: (l: GlyphAt) => l.advance },
  { name: 'left', of: (l: GlyphAt) => boxOf(l).xMin },
  { name: 'right', of: (l: GlyphAt) => l.advance - boxOf(l).xMax },
] as const;

const boxOf = (l: GlyphAt) => boundsOf(l.contours.flatMap((c) => curvesOf(c)));

/** Numbers of the steps as lines, each in its own scale, with the first and last written out. */
function Lines({
  letters,
  top,
  at,
  wide,
}: {
  letters: readonly GlyphAt[];
  top: number;
  at: (step: number) => number;
  wide: number;
}) {
  const drawn = letters.every((l) => l.contours.length > 0 && !isEmptyBox(boxOf(l)));
  return (
    <g className="text-[12px] fill-quiet">
      {MEASURES.filter((m) => drawn || m.name === 'advance').map((m, row) => {
        const values = letters.map(m.of);
        const [low, high] = [Math.min(...values), Math.max(...values)];
        const y = (v: number) => top + row * 21 + 12 - (high > low ? ((v - low) / (high - low)) * 10 : 5);
        const points = values.map((v, i) => `${at(i)},${y(v)}`).join(' ');
        return (
          <g key={m.name}>
            <polyline points={points} fill="none" stroke="var(--violet)" strokeWidth={1.2} />
            {values.map((v, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
              <circle key={i} cx={at(i)} cy={y(v)} r={1.8} fill="var(--violet)" />
            ))}
            <text x={8} y={top + row * 21 + 10}>
              {m.name} {Math.round(values[0]!)}
            </text>
            <text x={wide - 6} y={top + row * 21 + 10} textAnchor="end">
              {Math.round(values.at(-1)!)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
