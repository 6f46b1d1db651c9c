import { useState } from 'react';
import { blendWith } from '../../../core/variation/blendWith';
import { run } from '../../state/bench';
import { Button, Section } from '../../ui/parts';
import { FromFile } from './FromFile';

/** Blends the family with another font along an axis of its own; what does not match is told first. */
export function Blend() {
  const [isOpen, setOpen] = useState(false);
  return (
    <Section title="Blend with another font">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
        <p className="text-quiet">
          An axis leads from this family to another font or project; any place between can be taken as a master or a
          project of its own.
        </p>
        {isOpen ? (
          <FromFile>
            {({ family, master, taken: { drawings, facts } }) => (
              <Button
                kind="primary"
                onClick={() =>
                  run((p) =>
                    blendWith(p, { name: `${family} ${master}`.slice(0, 200), drawings: { ...drawings }, facts }),
                  ) && setOpen(false)
                }
              >
                Blend with it
              </Button>
            )}
          </FromFile>
        ) : (
          <Button onClick={() => setOpen(true)}>Choose the font…</Button>
        )}
      </div>
    </Section>
  );
}
