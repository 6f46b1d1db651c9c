import { curvesOf } from '../../../core/geometry/contour';
import { boundsOf, isEmptyBox } from '../../../core/geometry/curve';
import type { GlyphAt } from '../../../core/variation/glyphAt';
import { stemAndCounter } from '../../../core/variation/rows';

const boxOf = (l: GlyphAt) => boundsOf(l.contours.flatMap((c) => curvesOf(c)));

const MEASURES: readonly { name: string; of: (l: GlyphAt) => number | undefined }[] = [
  { name: 'advance', of: (l) => l.advance },
  { name: 'left', of: (l) => boxOf(l).xMin },
  { name: 'right', of: (l) => l.advance - boxOf(l).xMax },
  { name: 'stem', of: (l) => stemAndCounter(l).stem },
  { name: 'counter', of: (l) => stemAndCounter(l).counter },
];

/** Numbers of the steps as lines, each in its own scale, with the first and last written out. */
export function Lines({
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
  // What some step does not have (a counter, say) makes no line.
  const rows = MEASURES.filter((m) => drawn || m.name === 'advance').flatMap((m) => {
    const values = letters.map(m.of);
    return values.every((v) => v !== undefined) ? [{ name: m.name, values }] : [];
  });
  return (
    <g className="text-[12px] fill-quiet">
      {rows.map(({ name, values }, row) => {
        const [low, high] = [Math.min(...values), Math.max(...values)];
        const y = (v: number) => top + row * 21 + 12 - (high > low ? ((v - low) / (high - low)) * 10 : 5);
        const points = values.map((v, i) => `${at(i)},${y(v)}`).join(' ');
        return (
          <g key={name}>
            <polyline points={points} fill="none" stroke="var(--violet)" strokeWidth={1.2} />
            {values.map((v, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
              <circle key={i} cx={at(i)} cy={y(v)} r={1.8} fill="var(--violet)" />
            ))}
            <text x={8} y={top + row * 21 + 10}>
              {name} {Math.round(values[0]!)}
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
