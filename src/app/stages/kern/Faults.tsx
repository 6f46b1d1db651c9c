import { useMemo } from 'react';
import { kerningFaults } from '../../../core/kerning/faults';
import { runEdit } from '../../../core/project/edit';
import { masterOf } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';

/** What contradicts itself or is needless, with its mend. */
export function Faults() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const faults = useMemo(() => kerningFaults(project, masterOf(project, master)!), [project, master]);
  return faults.map(({ kind, reason, mend }) => (
    <p key={kind} className="mx-5 mb-2 rounded-lg bg-marigold-tint px-3 py-1">
      ▲ {reason}{' '}
      {mend && (
        <button
          type="button"
          className="font-semibold text-kelp"
          title={mend.keeps}
          onClick={() => run((p) => runEdit(p, mend.edit, mend.args))}
        >
          {mend.title}
        </button>
      )}
    </p>
  ));
}
