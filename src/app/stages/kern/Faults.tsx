import { useMemo } from 'react';
import { dissolveGroups, removePairs } from '../../../core/kerning/edits';
import { kerningFaults } from '../../../core/kerning/faults';
import { masterOf } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';

/** What contradicts itself or is needless, with its mend. */
export function Faults() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const faults = useMemo(() => kerningFaults(project, masterOf(project, master)!), [project, master]);
  return faults.map((f) => (
    <p key={f.what} className="mx-5 mb-2 rounded-lg bg-marigold-tint px-3 py-1">
      ▲ {f.what}.{' '}
      {f.groups ? (
        <button
          type="button"
          className="font-semibold text-kelp"
          title="Their pairs go to their glyphs, so that nothing moves"
          onClick={() => run((p) => dissolveGroups(p, { groups: f.groups! }))}
        >
          Dissolve {f.groups.length === 1 ? 'it' : 'them'}
        </button>
      ) : (
        <button
          type="button"
          className="font-semibold text-kelp"
          onClick={() => run((p) => removePairs(p, { master, keys: f.keys }))}
        >
          Take {f.keys.length === 1 ? 'it' : 'them'} away
        </button>
      )}
    </p>
  ));
}
