import { shownNumber } from '../../../core/base/notation';
import { START_SHARE, stemAndCounter } from '../../../core/fitting/counter';
import { followOf } from '../../../core/fitting/follows';
import { whiteLines, zoneOf } from '../../../core/fitting/optical';
import { leanAt, lineHeight, profileOf } from '../../../core/fitting/profile';
import { sidesOf } from '../../../core/fitting/sides';
import type { Master, MasterId, Project } from '../../../core/project/model';
import { drawingIn } from '../../../core/project/outline';
import { drawingPath } from '../../../core/project/pathData';
import { isEmptyDrawing, leanOf, masterOf } from '../../../core/project/queries';
import type { Inks } from '../../canvas/useCanvas';
import { characterOf } from '../../ui/GlyphShape';
import { path2d } from '../../ui/path2d';
import type { Placed } from '../../ui/placed';

/** What the painters of fitting lines share; `xPx` gives the pixel of a place along a line. */
export type FitPainting = {
  context: CanvasRenderingContext2D;
  project: Project;
  master: MasterId;
  inks: Inks;
  scale: number;
  zones: Master['zones'];
  xPx: (x: number) => number;
  /** How far the edge of a slanted letter stands out so many pixels over the baseline, in pixels. */
  out: (height: number) => number;
};

/** {@link FitPainting.out} of a master at a scale. */
export const outOf =
  (master: Master, scale: number) =>
  (height: number): number => {
    const { lean, pivot } = leanOf(master);
    return lean * (height - pivot * scale);
  };

export function paintGlyph(
  { context, project, inks, scale, xPx }: FitPainting,
  g: Placed,
  baseline: number,
  master: MasterId,
): void {
  const drawing = drawingIn(project, project.glyphs[g.id]!, master);
  if (isEmptyDrawing(drawing)) {
    // What is not drawn yet is pencilled in its width.
    const character = characterOf(project.glyphs[g.id]!);
    context.font = `300 ${Math.round((masterOf(project, master)!.zones.capHeight.position / 0.66) * scale)}px "Source Sans 3 Variable", sans-serif`;
    context.fillStyle = inks.shade;
    context.textAlign = 'center';
    context.textBaseline = 'alphabetic';
    if (character) context.fillText(character, xPx(g.x + g.advance / 2), baseline);
    return;
  }
  context.save();
  context.translate(xPx(g.x), baseline);
  context.scale(scale, -scale);
  context.fillStyle = inks.ink;
  context.fill(path2d(drawingPath(project, master, drawing)));
  context.restore();
}

/** What a line that is only looked at shows. */
export function paintSaid({ context, inks, scale, zones, xPx }: FitPainting, said: string, baseline: number): void {
  context.font = '12px "Source Sans 3 Variable", sans-serif';
  context.fillStyle = inks.quiet;
  context.textAlign = 'left';
  context.textBaseline = 'alphabetic';
  context.fillText(said, xPx(0), baseline - zones.ascender.position * scale - 6);
}

/** The ground under the open glyph. */
export function paintOpen({ context, inks, scale, zones, xPx, out }: FitPainting, g: Placed, baseline: number): void {
  context.fillStyle = inks['kelp-tint'];
  const [top, bottom] = edgeEnds(zones, scale);
  const [left, right] = [xPx(g.x), xPx(g.x) + g.advance * scale];
  context.beginPath();
  context.moveTo(left + out(top), baseline - top);
  context.lineTo(right + out(top), baseline - top);
  context.lineTo(right + out(bottom), baseline - bottom);
  context.lineTo(left + out(bottom), baseline - bottom);
  context.fill();
}

/** How far edges reach over the baseline and under it, in pixels. */
const edgeEnds = (zones: Master['zones'], scale: number): readonly [top: number, bottom: number] => [
  zones.ascender.position * scale + 10,
  zones.descender.position * scale - 2,
];

/** The white that counts on each side of the open glyph, as far as the eye looks into it. */
export function paintWhite(
  { context, project, master, inks, scale, xPx }: FitPainting,
  g: Placed,
  baseline: number,
): void {
  const profile = profileOf(project, g.id, master);
  const zone = zoneOf(project, project.glyphs[g.id]!, masterOf(project, master)!);
  context.fillStyle = inks.violet;
  context.globalAlpha = 0.22;
  for (const side of ['left', 'right'] as const) {
    const white = whiteLines(profile, side, zone, project.unitsPerEm);
    white?.depths.forEach((depth, i) => {
      const y = baseline - lineHeight(profile, white.from + i) * scale;
      const [from, to] = side === 'left' ? [0, white.inside + depth] : [white.inside - depth, g.advance];
      if (to > from)
        context.fillRect(xPx(g.x + from + leanAt(profile, white.from + i)), y - 0.75, (to - from) * scale, 1.5);
    });
  }
  context.globalAlpha = 1;
}

/** Where the edges of a letter lie that starts with a share of its counter on each side, and its ink, along the line; undefined without a counter. */
export function startOf(
  project: Project,
  master: MasterId,
  g: Placed,
): { counter: number; ink: { left: number; right: number }; left: number; right: number } | undefined {
  const glyph = project.glyphs[g.id]!;
  const sides = sidesOf(project, glyph, master);
  const { counter } = stemAndCounter(project, glyph, masterOf(project, master)!);
  if (counter === undefined || !('left' in sides)) return undefined;
  const reach = counter * (project.settings.startShare ?? START_SHARE);
  const ink = { left: g.x + sides.left, right: g.x + g.advance - sides.right };
  return { counter, ink, left: ink.left - reach, right: ink.right + reach };
}

/** The starting lines of the open glyph: dashed, beside its ink. */
export function paintStart(
  { context, project, master, inks, scale, zones, xPx }: FitPainting,
  g: Placed,
  baseline: number,
): void {
  const start = startOf(project, master, g);
  if (!start) return;
  context.strokeStyle = inks.violet;
  context.lineWidth = 1;
  context.setLineDash([3, 3]);
  context.beginPath();
  for (const x of [start.left, start.right]) {
    context.moveTo(Math.round(xPx(x)) + 0.5, baseline - zones.xHeight.position * scale);
    context.lineTo(Math.round(xPx(x)) + 0.5, baseline);
  }
  context.stroke();
  context.setLineDash([]);
}

/** The edges of the open glyph, each with its grip and its value. */
export function paintEdges(
  { context, project, master, inks, scale, zones, xPx, out }: FitPainting,
  g: Placed,
  baseline: number,
): void {
  const sides = sidesOf(project, project.glyphs[g.id]!, master);
  const [over, under] = edgeEnds(zones, scale);
  const [top, bottom] = [baseline - over, baseline - under];
  const middle = (over + under) / 2;
  const glyph = project.glyphs[g.id]!;
  const edges = [
    {
      x: xPx(g.x),
      value: 'left' in sides ? sides.left : undefined,
      align: -1,
      follow: followOf(glyph, 'left', master),
    },
    {
      x: xPx(g.x + g.advance),
      value: 'left' in sides ? sides.right : sides.advance,
      align: 1,
      follow: followOf(glyph, 'right', master),
    },
  ];
  for (const { x, value, align, follow } of edges) {
    // A side that follows another says whose.
    context.fillStyle = follow ? inks.sea : inks.kelp;
    context.strokeStyle = context.fillStyle;
    context.lineWidth = 1.5;
    context.beginPath();
    context.moveTo(Math.round(x) + out(over), top);
    context.lineTo(Math.round(x) + out(under), bottom);
    context.stroke();
    context.beginPath();
    context.roundRect(x + out(middle) - 3.5, (top + bottom) / 2 - 11, 7, 22, 3.5);
    context.fill();
    if (value === undefined) continue;
    const number = shownNumber(value, 1);
    const text = follow ? `${number} as ${project.glyphs[follow.glyph]?.name ?? '?'}` : number;
    context.font = '600 13px "Source Sans 3 Variable", sans-serif';
    const w = context.measureText(text).width + 16;
    const left = (align < 0 ? x - w + 4 : x - 4) + out(over);
    context.beginPath();
    context.roundRect(left, top - 12, w, 20, 10);
    context.fill();
    context.fillStyle = inks.panel;
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    context.fillText(text, left + w / 2, top - 1.5);
  }
}
