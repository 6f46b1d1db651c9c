import type { Master } from '../../../core/project/model';
import { useCalmProject } from '../../state/calm';
import { useMeasured } from '../../state/workedOut';

const NOTHING: Readonly<Record<string, number>> = {};

/** What the rules give for the facts of a master, worked out beside the page: heights of a whole family take their time. */
export function useRuledFacts(master: Master): Readonly<Record<string, number>> {
  const project = useCalmProject();
  const { data } = useMeasured<Readonly<Record<string, number>>>(
    'ruled facts',
    { same: [], by: [master.id, project] },
    (s) => s.ruledFacts(master.id),
  );
  return data ?? NOTHING;
}
