import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { pairsServed } from '../../../core/project/kerningLookup';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { measurer } from '../../state/followers';
import { identityOf } from '../../state/identity';

/** What the kerning of the master comes to: its values, the pairs of glyphs they serve, the bytes in the font. */
export function useKerningSize(): { pairs: number; served: number; bytes: number } | undefined {
  const project = useBench((s) => s.settled)!;
  const projectId = useBench((s) => s.projectId);
  const masterId = useBench((s) => s.master);
  const { kerning } = masterOf(project, masterId)!;
  const { data } = useQuery({
    queryKey: ['kerning size', projectId, masterId, identityOf(kerning), identityOf(project.groups)],
    queryFn: async () => (await measurer.synced()).kerningSize(masterId),
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    retry: 2,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: values and groups decide.
  const served = useMemo(() => pairsServed(project, kerning), [kerning, project.groups]);
  return data && { ...data, served };
}
