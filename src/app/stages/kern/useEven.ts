import { useBench } from '../../state/bench';
import { useCalmProject } from '../../state/calm';
import { measurer } from '../../state/followers';
import { useMeasured } from '../../state/workedOut';
import type { Pair } from './kernBench';

/** What would make a pair as even as the others, worked out beside the page. */
export const askEven = async (master: string, { first, second }: Pair): Promise<number> =>
  (await measurer.synced()).pairEven(master, first, second);

/** What would make a pair as even as the others; undefined while that is worked out, or where it could not be (`isLost`). */
export type Even = { value: number | undefined; isLost: boolean };

/** The same of a pair: as the queue `said`, else worked out. */
export function useEven(pair: Pair | undefined, said: number | undefined): Even {
  const project = useCalmProject();
  const master = useBench((s) => s.master);
  const { first = '', second = '' } = pair ?? {};
  const { data, isError } = useMeasured<number>(
    'even',
    { same: [master, first, second], by: [project], asked: pair !== undefined && said === undefined },
    (s) => s.pairEven(master, first, second),
  );
  return { value: said ?? data, isLost: said === undefined && isError };
}
