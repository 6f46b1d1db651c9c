import { memo } from 'react';
import type { Finding } from '../../../core/preflight/finding';
import { drawingIn, drawingsOf, heightsOf } from '../../../core/project/outline';
import { drawingPath } from '../../../core/project/pathData';
import { isEmptyDrawing, masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
import { PairLetters } from '../../ui/PairLetters';
import { pairOf } from './spots';

/** The letter of a finding with its place marked; where it is about several, the first of them; where it is about none, nothing. */
export const MarkedLetter = memo(function MarkedLetter({ finding, size }: { finding: Finding; size: number }) {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const glyph = project.glyphs[finding.glyph ?? finding.others?.[0] ?? ''];
  if (!glyph) return <span aria-hidden className="shrink-0" style={{ width: size, height: size }} />;
  const [first] = finding.masters;
  const master =
    first !== undefined && masterOf(project, first) ? first : masterOf(project, shown) ? shown : project.masters[0]!.id;
  const pair = pairOf(finding);
  if (pair)
    return (
      <span className="flex shrink-0 justify-center" style={{ width: size }}>
        <PairLetters project={project} master={master} first={pair[0]} second={pair[1]} size={size * 0.72} />
      </span>
    );
  const drawing = drawingIn(project, glyph, master);
  if (finding.spots.length === 0 || isEmptyDrawing(drawing))
    return <GlyphShape project={project} glyph={glyph} master={master} size={size} />;
  const m = masterOf(project, master)!;
  const xs = finding.spots.map((s) => s.x);
  const ys = finding.spots.map((s) => s.y);
  const ends = heightsOf(drawing, drawingsOf(project, master)) ?? [0, 0];
  const em = project.unitsPerEm;
  // A point far out of its letter does not make the letter vanish.
  const within = (v: number) => Math.max(-2 * em, Math.min(3 * em, v));
  const top = within(Math.max(m.zones.capHeight.position, ends[1], ...ys)) + 0.05 * em;
  const bottom = within(Math.min(m.zones.baseline.position, ends[0], ...ys)) - 0.05 * em;
  const [left, right] = [within(Math.min(0, ...xs)) - 20, within(Math.max(drawing.advance, ...xs)) + 20];
  const side = Math.max(top - bottom, right - left);
  const scale = size / side;
  return (
    <svg
      aria-hidden
      className="shrink-0"
      width={size}
      height={size}
      viewBox={`${(left + right) / 2 - side / 2} ${-(top + bottom) / 2 - side / 2} ${side} ${side}`}
    >
      <path d={drawingPath(project, master, drawing)} transform="scale(1 -1)" className="fill-ink" />
      {finding.spots.slice(0, 24).map((s, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: spots are known by their places.
          key={i}
          cx={s.x}
          cy={-s.y}
          r={4.2 / scale}
          fill="none"
          stroke="var(--violet)"
          strokeWidth={1.8 / scale}
        />
      ))}
    </svg>
  );
});
