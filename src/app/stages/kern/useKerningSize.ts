import { useMemo } from 'react';
import { pairsServed } from '../../../core/project/kerningLookup';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useMeasured } from '../../state/workedOut';

/** What the kerning of the master comes to: its values, the pairs of glyphs they serve, the bytes in the font. */
export function useKerningSize(): { pairs: number; served: number; bytes: number } | undefined {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { kerning } = masterOf(project, masterId)!;
  const { data } = useMeasured<{ pairs: number; bytes: number }>(
    'kerning size',
    { same: [], by: [masterId, kerning, project.groups] },
    (s) => s.kerningSize(masterId),
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: values and groups decide.
  const served = useMemo(() => pairsServed(project, kerning), [kerning, project.groups]);
  return data && { ...data, served };
}
