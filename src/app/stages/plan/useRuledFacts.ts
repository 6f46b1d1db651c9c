import { useQuery } from '@tanstack/react-query';
import type { Master } from '../../../core/project/model';
import { useCalmProject } from '../../state/calm';
import { measurer } from '../../state/followers';
import { identityOf } from '../../state/identity';

const NOTHING: Readonly<Record<string, number>> = {};

/** What the rules give for the facts of a master, worked out beside the page: heights of a whole family take their time. */
export function useRuledFacts(master: Master): Readonly<Record<string, number>> {
  const project = useCalmProject();
  const { data } = useQuery({
    queryKey: ['ruled facts', master.id, identityOf(project)],
    queryFn: async () => (await measurer.synced()).ruledFacts(master.id),
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    retry: 2,
  });
  return data ?? NOTHING;
}
