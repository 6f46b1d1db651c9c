import { Plus, Trash2 } from 'lucide-react';
import type { Project } from '../../../core/project/model';
import { setAxis } from '../../../core/variation/familyEdits';
import { run } from '../../state/bench';
import { Check } from '../../ui/controls';
import { Button, EntryField, IconButton, NumberField } from '../../ui/parts';

type Axis = Project['axes'][number];
type Stop = NonNullable<Axis['stops']>[number];

/** Named values along an axis, which menus put names together from; the usual one goes without saying. */
export function AxisStops({ axis }: { axis: Axis }) {
  const stops = axis.stops ?? [];
  const set = (next: readonly Stop[]) => run((p) => setAxis(p, { tag: axis.tag, change: { stops: next } }));
  const free = [axis.default, axis.minimum, axis.maximum].find((v) => !stops.some((s) => s.value === v));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
      {stops.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stops keep their places.
        <div key={i} className="grid grid-cols-[minmax(0,1fr)] gap-1 rounded-lg border border-line p-1.5">
          <div className="flex items-center gap-1.5">
            <span className="min-w-0 flex-1">
              <EntryField
                aria-label={`Name of stop ${i + 1} of ${axis.name}`}
                value={s.name}
                onApply={(name) => set(stops.with(i, { ...s, name }))}
              />
            </span>
            <span className="w-16">
              <NumberField
                hideLabel
                label={`Value of ${s.name}`}
                value={s.value}
                onChange={(value) => set(stops.with(i, { ...s, value }))}
              />
            </span>
            <IconButton label={`Take the stop ${s.name} away`} onClick={() => set(stops.filter((_, k) => k !== i))}>
              <Trash2 size={14} />
            </IconButton>
          </div>
          <Check
            label={`${s.name} goes without saying`}
            checked={s.elidable}
            onChange={(elidable) => set(stops.with(i, { ...s, elidable }))}
          >
            goes without saying
          </Check>
        </div>
      ))}
      <Button
        onClick={() =>
          set([
            ...stops,
            {
              name: `${axis.name} ${free ?? axis.maximum + 1}`,
              value: free ?? axis.maximum + 1,
              elidable: free === axis.default,
              older: false,
            },
          ])
        }
      >
        <Plus size={13} /> A stop
      </Button>
    </div>
  );
}
