import { Layers, Play, Square } from 'lucide-react';
import { type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { GlyphId, Master, Project } from '../../../core/project/model';
import { type Place, placeInWords, wholePlace } from '../../../core/project/places';
import { type GlyphAt, glyphAt } from '../../../core/variation/glyphAt';
import { setHandover } from '../../../core/variation/handovers';
import { wordAt } from '../../../core/variation/wordAt';
import { layHands } from '../../keys/hands';
import { run, useBench, visitPlace } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { useWidth } from '../../ui/useWidth';
import { LetterAt } from './LetterAt';
import { Lines } from './Lines';

const STEPS = 9;
const SIZE = 62;
/** How high a line of a word stands. */
const ROW = 58;
/** Room for words at the left of the lines, and for numbers at their right. */
const GUTTER = { left: 84, right: 40 };

/**
 * One glyph, or a word, at even steps between two masters, side by side or one over the other, with its numbers as lines beneath,
 * which show lumps. A press on a letter tells its place; limits of handovers are dragged.
 */
export function Strip({ glyph, onSpot }: { glyph: GlyphId; onSpot: (place: Place) => void }) {
  const project = useBench((s) => s.settled)!;
  const { masters } = project;
  const box = useRef<HTMLElement>(null);
  const wide = useWidth(box, 800);
  const cell = (wide - GUTTER.left - GUTTER.right) / STEPS;
  const at = (i: number) => GUTTER.left + cell * (i + 0.5);
  const [ends, setEnds] = useState<readonly [string, string]>(() => farthest(project));
  const [word, setWord] = useState('');
  const [isOver, setOver] = useState(false);
  const [from, to] = ends.map((id) => masters.find((m) => m.id === id)) as [Master | undefined, Master | undefined];
  const places = useMemo(() => (from && to ? stepsBetween(project, from, to) : []), [project, from, to]);
  const letters = useMemo(() => places.map((p) => glyphAt(project, glyph, p)!), [project, glyph, places]);
  const words = useMemo(
    () => (word.trim() === '' ? [] : places.map((p) => wordAt(project, word, p))),
    [project, word, places],
  );
  const [seconds, setSeconds] = useState(5);
  const film = useFilm(project, from, to, seconds);
  const { toggle } = film;
  useEffect(() => layHands('strip', { film: toggle }), [toggle]);
  const pick = (k: 0 | 1) => (
    <Pick
      label={k === 0 ? 'From the master' : 'To the master'}
      className="w-36"
      value={ends[k]}
      options={masters.map((m) => ({ value: m.id, text: m.name }))}
      onChange={(id) => setEnds(k === 0 ? [id, ends[1]] : [ends[0], id])}
    />
  );
  if (!from || !to || letters.length === 0) return null;
  const em = project.unitsPerEm;
  const shown = words.length > 0 ? words : letters;
  const high = isOver ? SIZE * 2.6 : words.length > 0 ? ROW * STEPS : SIZE * 1.5;
  return (
    <section ref={box} aria-label="Between two masters" className="mt-3">
      <div className="mb-1 flex flex-wrap items-center gap-2 text-[13px]">
        <input
          aria-label="A word on the strip"
          value={word}
          maxLength={40}
          placeholder={project.glyphs[glyph]!.name}
          title="A word instead of the one glyph"
          onChange={(e) => setWord(e.target.value)}
          className="h-7.5 w-28 rounded-lg border border-edge bg-paper px-2 font-semibold placeholder:text-ink"
        />
        <span className="text-quiet">from</span> {pick(0)} <span className="text-quiet">to</span> {pick(1)}
        <Button
          title="All steps one over the other"
          aria-pressed={isOver}
          className={isOver ? '!border-kelp !bg-kelp-tint !text-kelp' : ''}
          onClick={() => setOver(!isOver)}
        >
          <Layers size={13} /> Overlaid
        </Button>
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
        {shown.some((l) => l.stuck) && (
          <span className="text-marigold">
            ▲ {words.length > 0 ? 'where masters' : 'its masters'} do not agree the default’s drawing stands everywhere
          </span>
        )}
      </div>
      {/* biome-ignore lint/a11y/useSemanticElements: a strip of letters is no set of fields. */}
      <svg
        height={high + (words.length > 0 ? 12 : 112)}
        className="block w-full rounded-xl border border-line bg-panel"
        role="group"
        aria-label={`${word.trim() || project.glyphs[glyph]!.name} at ${STEPS} steps from ${from.name} to ${to.name}`}
        data-testid="strip"
      >
        {isOver ? (
          <Overlaid
            letters={shown}
            em={em}
            size={Math.min(SIZE * 2, fitting(shown, em, wide))}
            x={wide / 2}
            y={SIZE * 1.9}
          />
        ) : (
          shown.map((letter, i) => (
            // biome-ignore lint/a11y/useSemanticElements: a letter at its place is no button of the page.
            <g
              // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
              key={i}
              role="button"
              tabIndex={0}
              aria-label={placeInWords(project.axes, places[i]!)}
              className="cursor-pointer fill-ink outline-none focus-visible:fill-kelp hover:fill-kelp"
              transform={
                words.length > 0 ? `translate(${wide / 2} ${ROW * (i + 0.78)})` : `translate(${at(i)} ${SIZE * 1.1})`
              }
              onClick={() => onSpot(places[i]!)}
              onKeyDown={(e) => e.key === 'Enter' && onSpot(places[i]!)}
            >
              <title>{placeInWords(project.axes, places[i]!)}</title>
              <LetterAt
                letter={letter}
                em={em}
                size={words.length > 0 ? Math.min(ROW * 0.72, fitting(shown, em, wide)) : SIZE}
              />
            </g>
          ))
        )}
        {words.length === 0 && <Lines letters={letters} top={high} at={at} wide={wide} />}
        {words.length === 0 && !isOver && (
          <Limits glyph={glyph} ends={[from, to]} x0={at(0)} x1={at(STEPS - 1)} bottom={SIZE * 1.4} />
        )}
      </svg>
    </section>
  );
}

/** The size in pixels at which the longest line fits. */
const fitting = (letters: readonly GlyphAt[], em: number, wide: number): number =>
  ((wide - 40) * em) / Math.max(1, ...letters.map((l) => l.advance));

function Overlaid({
  letters,
  em,
  size,
  x,
  y,
}: {
  letters: readonly GlyphAt[];
  em: number;
  size: number;
  x: number;
  y: number;
}) {
  return (
    <g transform={`translate(${x} ${y})`} fill="none" stroke="var(--ink)">
      {letters.map((letter, i) => (
        <g
          // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
          key={i}
          strokeWidth={(em / size) * (i === 0 || i === letters.length - 1 ? 1.6 : 0.7)}
          strokeOpacity={i === 0 || i === letters.length - 1 ? 1 : 0.55}
        >
          <LetterAt letter={letter} em={em} size={size} />
        </g>
      ))}
    </g>
  );
}

/** Limits of the glyph’s handovers along the strip, dragged to where another glyph takes its place. */
function Limits({
  glyph: id,
  ends: [from, to],
  x0,
  x1,
  bottom,
}: {
  glyph: GlyphId;
  ends: readonly [Master, Master];
  x0: number;
  x1: number;
  bottom: number;
}) {
  const project = useBench((s) => s.settled)!;
  const [dragged, setDragged] = useState<{ index: number; key: 'from' | 'to'; value: number }>();
  const glyph = project.glyphs[id]!;
  const [p, q] = [from, to].map((m) => wholePlace(project.axes, m.place)) as [Place, Place];
  return glyph.handovers.flatMap((h, index) => {
    const [a, b] = [p[h.axis], q[h.axis]];
    if (a === undefined || b === undefined || a === b) return [];
    const xOf = (v: number) => x0 + ((v - a) / (b - a)) * (x1 - x0);
    const valueAt = (x: number) =>
      Math.round(Math.min(Math.max(a + ((x - x0) / (x1 - x0)) * (b - a), Math.min(a, b)), Math.max(a, b)));
    const axis = project.axes.find((x) => x.tag === h.axis)!;
    return (['from', 'to'] as const).flatMap((key) => {
      const value = dragged?.index === index && dragged.key === key ? dragged.value : h[key];
      // Where it holds on to the end of the strip there is no limit.
      if (value <= Math.min(a, b) || value >= Math.max(a, b)) return [];
      const put = (v: number) => run((pr) => setHandover(pr, { glyph: id, index, handover: { ...h, [key]: v } }));
      const follow = (e: PointerEvent<SVGGElement>) => {
        const left = e.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
        return valueAt(e.clientX - left);
      };
      return (
        <g
          // biome-ignore lint/suspicious/noArrayIndexKey: handovers keep their places.
          key={`${index} ${key}`}
          role="slider"
          tabIndex={0}
          aria-label={`Limit of the handover to ${project.glyphs[h.glyph]?.name}`}
          aria-valuenow={value}
          aria-valuetext={`${axis.name} ${value}`}
          data-testid="limit"
          className="cursor-ew-resize touch-none outline-none [&>line]:stroke-violet focus-visible:[&>line]:stroke-kelp"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            setDragged({ index, key, value: h[key] });
          }}
          onPointerMove={(e) => dragged && setDragged({ index, key, value: follow(e) })}
          onPointerUp={(e) => {
            if (!dragged) return;
            const v = follow(e);
            setDragged(undefined);
            if (v !== h[key]) put(v);
          }}
          onPointerCancel={() => setDragged(undefined)}
          onKeyDown={(e) => {
            const by = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0;
            if (by === 0) return;
            e.preventDefault();
            e.stopPropagation();
            put(h[key] + by * (e.shiftKey ? 10 : 1) * (b > a ? 1 : -1));
          }}
        >
          <rect x={xOf(value) - 7} y={4} width={14} height={bottom} fill="transparent" />
          <line x1={xOf(value)} x2={xOf(value)} y1={4} y2={bottom} strokeWidth={1.6} />
          <text x={xOf(value) + 5} y={15} className="fill-quiet text-[12px]">
            {value}
          </text>
        </g>
      );
    });
  });
}

/** The places of the steps from one master to another. */
function stepsBetween(project: Project, from: Master, to: Master): Place[] {
  const [a, b] = [wholePlace(project.axes, from.place), wholePlace(project.axes, to.place)];
  return Array.from({ length: STEPS }, (_, i) => {
    const t = i / (STEPS - 1);
    return Object.fromEntries(project.axes.map((x) => [x.tag, a[x.tag]! + (b[x.tag]! - a[x.tag]!) * t]));
  });
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
