import { Plus } from 'lucide-react';
import { useState } from 'react';
import { addAxis } from '../../../core/variation/familyEdits';
import { REGISTERED_AXES } from '../../../core/variation/registeredAxes';
import { run, useBench } from '../../state/bench';
import { Button, Section } from '../../ui/parts';
import { AxisCard } from './AxisCard';

/** The axes: their ends and defaults; new ones, registered or of one’s own. */
export function Axes() {
  const axes = useBench((s) => s.settled!.axes);
  const [own, setOwn] = useState('');
  const left = REGISTERED_AXES.filter((r) => !axes.some((a) => a.tag === r.tag));
  return (
    <Section title="Axes">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
        {axes.map((a) => (
          <AxisCard key={a.tag} axis={a} />
        ))}
        {axes.length === 0 && <p className="text-quiet">No axis yet. A second master stands on one: weight, say.</p>}
        <div className="flex flex-wrap gap-1.5">
          {left.map((r) => (
            <Button key={r.tag} onClick={() => run((p) => addAxis(p, r))}>
              <Plus size={13} /> {r.name}
            </Button>
          ))}
        </div>
        <form
          className="flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            const tag = own.trim().toUpperCase();
            if (run((p) => addAxis(p, { tag, name: own.trim(), minimum: 0, default: 0, maximum: 1000 }))) setOwn('');
          }}
        >
          <input
            aria-label="Tag of an axis of one’s own"
            value={own}
            maxLength={4}
            placeholder="own: four letters"
            onChange={(e) => setOwn(e.target.value)}
            className="h-7.5 min-w-0 flex-1 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
          />
          <Button type="submit" disabled={own.trim().length !== 4}>
            Add
          </Button>
        </form>
      </div>
    </Section>
  );
}
