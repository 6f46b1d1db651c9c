import { useEffect, useRef } from 'react';
import type { FeaturesView } from '../../../core/features/view';
import { useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';

/** The rules as they stand, looked at anew after every change; what was found before stays in sight meanwhile. */
export function useView(): { view: FeaturesView | undefined; fault: string | undefined } {
  const features = useBench((s) => s.settled!.features);
  const glyphs = useBench((s) => s.settled!.glyphs);
  const master = useBench((s) => s.master);
  const { found, fault, start } = useJob<FeaturesView>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => start((service) => service.featuresView(master)), [features, glyphs, master]);
  const held = useRef<FeaturesView>(undefined);
  if (found) held.current = found;
  return { view: held.current, fault };
}
