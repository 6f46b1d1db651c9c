import { masterOf } from '../../../core/project/queries';
import type { BeforeAfter } from '../../../workers/preflight';
import { useBench } from '../../state/bench';

/** A letter as a mend would leave it, in ink; what it was shows as a line where it differs. */
export function BeforeAfterLetter({ letter, size }: { letter: BeforeAfter; size: number }) {
  const project = useBench((s) => s.settled)!;
  const zones = (masterOf(project, letter.master) ?? project.masters[0]!).zones;
  const top = Math.max(zones.ascender.position, zones.capHeight.position) + 80;
  const bottom = zones.descender.position - 40;
  const side = Math.max(top - bottom, letter.advance * 1.05);
  const line = (side / size) * 1.4;
  return (
    <svg
      aria-hidden
      width={size}
      height={size}
      viewBox={`${letter.advance / 2 - side / 2} ${-(top + bottom) / 2 - side / 2} ${side} ${side}`}
    >
      <g transform="scale(1 -1)">
        <path d={letter.after} className="fill-ink" />
        {letter.before !== letter.after && (
          <path d={letter.before} fill="none" stroke="var(--violet)" strokeWidth={line} />
        )}
      </g>
    </svg>
  );
}
