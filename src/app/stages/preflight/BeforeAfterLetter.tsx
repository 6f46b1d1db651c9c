import { useId } from 'react';
import type { Spot } from '../../../core/preflight/finding';
import { masterOf } from '../../../core/project/queries';
import type { BeforeAfter } from '../../../workers/preflight';
import { useBench } from '../../state/bench';

type Props = { letter: BeforeAfter; size: number; around?: Spot | undefined };

/**
 * A letter as a mend would leave it, in ink; what is added to it, and what is taken away, in colours of their own. Around a place, where one is
 * given, as outlines: what it was as a line under what it would be.
 */
export function BeforeAfterLetter({ letter, size, around }: Props) {
  const project = useBench((s) => s.settled)!;
  const clip = useId();
  const em = project.unitsPerEm;
  if (around) {
    const side = em * 0.2;
    const line = side / size;
    return (
      <svg
        aria-hidden
        width={size}
        height={size}
        viewBox={`${around.x - side / 2} ${-around.y - side / 2} ${side} ${side}`}
      >
        <g transform="scale(1 -1)" fill="none">
          <path d={letter.after} fill="var(--ink)" fillOpacity={0.18} />
          <path d={letter.before} stroke="var(--violet)" strokeWidth={line * 3.5} strokeOpacity={0.55} />
          <path d={letter.after} stroke="var(--ink)" strokeWidth={line * 1.5} />
        </g>
      </svg>
    );
  }
  const { zones } = masterOf(project, letter.master) ?? project.masters[0]!;
  const top = Math.max(zones.ascender.position, zones.capHeight.position) + em * 0.08;
  const bottom = zones.descender.position - em * 0.04;
  const side = Math.max(top - bottom, letter.advance * 1.05);
  const [x, y] = [letter.advance / 2 - side / 2, (top + bottom) / 2 - side / 2];
  return (
    <svg aria-hidden width={size} height={size} viewBox={`${x} ${-y - side} ${side} ${side}`}>
      <g transform="scale(1 -1)">
        {letter.before !== letter.after && <path d={letter.before} fill="var(--violet)" />}
        <path d={letter.after} className="fill-ink" />
        {letter.before !== letter.after && letter.before !== '' && (
          <>
            <mask id={clip} maskUnits="userSpaceOnUse" x={x} y={y} width={side} height={side}>
              <rect x={x} y={y} width={side} height={side} fill="white" />
              <path d={letter.before} fill="black" />
            </mask>
            <path d={letter.after} fill="var(--kelp)" mask={`url(#${clip})`} />
          </>
        )}
      </g>
    </svg>
  );
}
