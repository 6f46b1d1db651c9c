import { plural } from '../../../../core/project/edit';
import { agreeingMasters } from '../../../../core/project/structure';
import { useCalmProject } from '../../../state/calm';
import { Choice } from '../../../ui/parts';
import { REACHING, setReaching, useDrawBench } from '../drawBench';
import { place } from './place';

/** Which masters a change of this drawing reaches; nothing in a project of one. */
export function ReachRow() {
  const project = useCalmProject();
  const reaching = useDrawBench((s) => s.reaching);
  const { glyph, master } = place();
  const others = project.masters.length - 1;
  if (others === 0) return null;
  const agree = agreeingMasters(project, project.glyphs[glyph]!, master);
  const differ = project.masters.filter((m) => m.id !== master && !agree.includes(m.id));
  return (
    <div className="mb-3.5 border-b border-line pb-2.5" data-testid="reach">
      <p className="mb-1 text-[12.5px] text-quiet">
        {reaching === 'one'
          ? 'Changes are made in this master only.'
          : agree.length === 0
            ? 'No other master has this build; changes stay here.'
            : `${reaching === 'all' ? 'Changes' : 'Points and parts come and go'} in ${plural(agree.length + 1, 'master')}.`}
        {reaching !== 'one' &&
          agree.length > 0 &&
          differ.length > 0 &&
          ` ${differ.map((m) => m.name).join(', ')} built differently, left alone.`}
      </p>
      <Choice label="Changes reach" value={reaching} options={REACHING} onChange={setReaching} />
    </div>
  );
}
