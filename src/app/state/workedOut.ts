import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { DocumentService } from '../../workers/document';
import type { MeasureService } from '../../workers/measure';
import { useBench } from './bench';
import { type Follower, measurer } from './followers';
import { identityOf } from './identity';

/** Parts of the document count by their identity, names and numbers by what they are. */
type HangsOn = object | string | number | undefined;

/** What an answer hangs on, and whether it is asked for at all. */
type On = { readonly same: readonly HangsOn[]; readonly by?: readonly HangsOn[]; readonly asked?: boolean };

/**
 * What a worker that follows the document works out of it, beside the page; undefined while nothing is known. It is asked anew when one of `on`
 * changes: those in `same` decide what it is about, so that nothing is shown for another, those in `by` only what it comes to, so that what was
 * known stands until the new answer is there.
 */
export function useWorkedOut<S extends DocumentService, T>(
  worker: Follower<S>,
  name: string,
  on: On,
  ask: (service: Remote<S>) => Promise<unknown>,
): { data: T | undefined; isFetching: boolean; isError: boolean } {
  const projectId = useBench((s) => s.projectId);
  const said = (each: HangsOn) => (typeof each === 'object' ? identityOf(each) : each);
  const about = [name, projectId, ...on.same.map(said)].join(' ');
  const { data, isFetching, isError } = useQuery({
    queryKey: [about, ...(on.by ?? []).map(said)],
    queryFn: async () => (await ask(await worker.synced())) as T,
    placeholderData: (before, query) => (query?.queryKey[0] === about ? before : undefined),
    enabled: on.asked ?? true,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    retry: 2,
  });
  return { data, isFetching, isError };
}

/** The same by the worker that measures and proposes. */
export const useMeasured = <T>(name: string, on: On, ask: (service: Remote<MeasureService>) => Promise<unknown>) =>
  useWorkedOut<MeasureService, T>(measurer, name, on, ask);
