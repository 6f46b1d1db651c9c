import { memo } from 'react';
import { codePointsForName } from '../../core/project/glyphNames';
import type { Glyph, MasterId, Project } from '../../core/project/model';
import { drawingIn } from '../../core/project/outline';
import { drawingPath } from '../../core/project/pathData';
import { isBlank, isEmptyDrawing } from '../../core/project/queries';
import { type Reach, reachOf } from './reach';

/** What a glyph stands for, as text, for pencilling an empty one. */
export function characterOf(glyph: Pick<Glyph, 'name' | 'unicodes'>): string {
  const codes = glyph.unicodes.length > 0 ? glyph.unicodes.slice(0, 1) : codePointsForName(glyph.name);
  return codes
    .filter((c) => c > 0x20)
    .map((c) => (/\p{M}/u.test(String.fromCodePoint(c)) ? `◌${String.fromCodePoint(c)}` : String.fromCodePoint(c)))
    .join('');
}

/** `reach`: the heights shown, where a row of glyphs is to stand in one scale; else the glyph's own need. */
type Props = { project: Project; glyph: Glyph; master: MasterId; size: number; reach?: Reach };

/** A glyph as drawn, filled, centred in a square of `size` pixels; an empty one is pencilled. */
export const GlyphShape = memo(function GlyphShape({ project, glyph, master, size, reach }: Props) {
  const drawing = drawingIn(project, glyph, master);
  const { top, bottom } = reach ?? reachOf(project, master, [glyph]);
  const height = top - bottom;
  const width = Math.max(height, drawing.advance * 1.05);
  if (isEmptyDrawing(drawing) && !isBlank(glyph)) {
    return (
      <span
        aria-hidden
        className="flex items-center justify-center overflow-hidden font-light text-quiet opacity-45"
        style={{ width: size, height: size, fontSize: size * 0.5 }}
      >
        {characterOf(glyph) || <span style={{ fontSize: Math.max(9, size * 0.15) }}>{glyph.name}</span>}
      </span>
    );
  }
  return (
    <svg
      aria-hidden
      width={size}
      height={size}
      viewBox={`${drawing.advance / 2 - width / 2} ${-top} ${width} ${height}`}
    >
      <path d={drawingPath(project, master, drawing)} transform="scale(1 -1)" fill="currentColor" />
    </svg>
  );
});
