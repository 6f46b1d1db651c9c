import { setSides, sidesOf } from '../../../../core/fitting/sides';
import { run } from '../../../state/bench';
import { useCalmProject } from '../../../state/calm';
import { NumberField, Section } from '../../../ui/parts';
import { place } from './place';

/** Side bearings and advance by number. */
export function SideSection() {
  const project = useCalmProject();
  const { glyph, master } = place();
  const at = { glyph, master };
  const sides = sidesOf(project, project.glyphs[glyph]!, master);
  const drawn = 'left' in sides;
  return (
    <Section title="Sides">
      <div className="grid gap-1.5">
        {drawn && (
          <NumberField label="Left" value={sides.left} onChange={(left) => run((p) => setSides(p, { at, left }))} />
        )}
        {drawn && (
          <NumberField label="Right" value={sides.right} onChange={(right) => run((p) => setSides(p, { at, right }))} />
        )}
        <NumberField
          label="Advance"
          value={sides.advance}
          onChange={(advance) => run((p) => setSides(p, { at, advance }))}
        />
      </div>
    </Section>
  );
}
