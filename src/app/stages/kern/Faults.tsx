import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { Finding } from '../../../core/base/finding';
import { plural, runEdit } from '../../../core/project/edit';
import { run, useBench } from '../../state/bench';
import { useMeasured } from '../../state/workedOut';

/** What contradicts itself or is needless, with its mend: one line, opened where there is more to say. */
export function Faults() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [open, setOpen] = useState(false);
  const { data: faults = [], isFetching } = useMeasured<Finding[]>(
    'kerning faults',
    { same: [master], by: [project] },
    (s) => s.kerningFaults(master),
  );
  const [first, ...others] = faults;
  if (!first) return null;
  const shown = open ? faults : [first];
  return (
    <div className="mx-5 mb-2 rounded-lg bg-marigold-tint px-3 py-1" data-testid="kern-faults">
      {shown.map(({ kind, reason, mend }) => (
        <p key={kind} className="flex min-w-0 items-center gap-2">
          <span className={open ? 'min-w-0' : 'min-w-0 truncate'} title={reason}>
            ▲ {reason}
          </span>
          {mend && (
            <button
              type="button"
              className="shrink-0 font-semibold text-kelp"
              // What is told may have been mended meanwhile.
              disabled={isFetching}
              title={mend.keeps}
              onClick={() => run((p) => runEdit(p, mend.edit, mend.args))}
            >
              {mend.title}
            </button>
          )}
        </p>
      ))}
      {others.length > 0 && (
        <button
          type="button"
          aria-expanded={open}
          className="flex items-center gap-1 text-[12.5px] text-quiet"
          onClick={() => setOpen(!open)}
        >
          {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
          {open ? 'Only the first' : `${plural(others.length, 'more remark')}`}
        </button>
      )}
    </div>
  );
}
