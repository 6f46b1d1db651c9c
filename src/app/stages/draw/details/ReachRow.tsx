import { agreeingMasters } from '../../../../core/project/structure';
import { useCalmProject } from '../../../state/calm';
import { Pick } from '../../../ui/controls';
import { REACHING, setReaching, useDrawBench } from '../drawBench';
import { place } from './place';

/** Which masters a change of this drawing reaches; nothing in a project of one. */
export function ReachRow() {
  const project = useCalmProject();
  const reaching = useDrawBench((s) => s.reaching);
  const { glyph, master } = place();
  if (project.masters.length === 1) return null;
  const agree = agreeingMasters(project, project.glyphs[glyph]!, master);
  const differ = project.masters.filter((m) => m.id !== master && !agree.includes(m.id));
  return (
    <div className="mb-3.5 border-b border-line pb-2.5" data-testid="reach">
      <div className="grid gap-1">
        <span className="text-quiet" title="Masters that are built alike: the same contours, points and parts">
          Changes in
        </span>
        <Pick
          label="Changes reach"
          value={reaching}
          options={REACHING.map((r) => ({ value: r.value, text: r.text(agree.length + 1) }))}
          onChange={setReaching}
        />
      </div>
      {reaching !== 'one' && differ.length > 0 && (
        <p className="mt-1 text-[12.5px] text-quiet">
          Built otherwise, left alone: {differ.map((m) => m.name).join(', ')}.
        </p>
      )}
    </div>
  );
}
