import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { agreementOf } from '../../../core/variation/agreement';
import { type Broken, brokenGlyph } from '../../../core/variation/between';
import { useBench } from '../../state/bench';
import { useCalmProject } from '../../state/calm';

/** So large a drawing is looked at between its masters in the stage of masters only, to keep the hand free. */
const MOST_POINTS = 400;

/** Says, while one draws, that the masters of the glyph do not agree, or what goes wrong between them; a press leads there. */
export function BetweenMark() {
  const project = useCalmProject();
  const glyph = project.glyphs[useBench((s) => s.glyph) ?? ''];
  const navigate = useNavigate();
  const said = useMemo(() => {
    if (!glyph || project.masters.length < 2) return undefined;
    const faults = agreementOf(project, glyph);
    const [fault] = [...faults.filter((f) => !f.suspicion), ...faults.filter((f) => f.suspicion)];
    if (fault) return { text: fault.reason, grave: !fault.suspicion };
    const points = Object.values(glyph.drawings).reduce(
      (n, d) => n + d.contours.reduce((m, c) => m + c.points.length, 0),
      0,
    );
    const broken = points <= MOST_POINTS * project.masters.length ? brokenGlyph(project, glyph) : undefined;
    return broken && { text: worstOf(broken), grave: false };
  }, [project, glyph]);
  if (!said || !glyph) return null;
  return (
    <button
      type="button"
      data-testid="between-mark"
      title="To Masters, where it is shown"
      className="absolute bottom-9 left-4 max-w-[70%] truncate rounded-lg border border-line bg-panel px-2 py-1 text-[13px] hover:bg-kelp-tint"
      onClick={() => void navigate(`../masters?glyph=${encodeURIComponent(glyph.name)}`, { relative: 'path' })}
    >
      <span className={said.grave ? 'text-brick' : 'text-marigold'}>▲</span> {said.text}
    </button>
  );
}

function worstOf({ kinks, tangles, lumps }: Broken): string {
  if (tangles[0]) return 'Between its masters outlines cross.';
  if (lumps[0])
    return `Between its masters a ${lumps[0].of === 'ink' ? 'stem swells or thins' : 'counter closes'}, by ${Math.round(Math.abs(lumps[0].units))} units.`;
  return `Between its masters a smooth point breaks, by ${kinks[0]!.degrees.toFixed(1)}°.`;
}
