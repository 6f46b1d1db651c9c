import { useEffect, useRef } from 'react';
import type { FeaturesView } from '../../../core/features/view';
import { useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';

/** What was found, with the sections that say what they said before as the same objects, so that only others are shown anew. */
function keepingSame(was: FeaturesView | undefined, found: FeaturesView): FeaturesView {
  const before = new Map(was?.sections.map((s) => [s.id, s]));
  const same = (s: FeaturesView['sections'][number]) => {
    const held = before.get(s.id);
    return held && JSON.stringify(held) === JSON.stringify(s) ? held : s;
  };
  const writable = was && was.writable.join(' ') === found.writable.join(' ') ? was.writable : found.writable;
  return { ...found, writable, sections: found.sections.map(same) };
}

/** The rules as they stand, looked at anew after every change; what was found before stays in sight meanwhile. */
export function useView(): { view: FeaturesView | undefined; fault: string | undefined } {
  const features = useBench((s) => s.settled!.features);
  const glyphs = useBench((s) => s.settled!.glyphs);
  const master = useBench((s) => s.master);
  const { found, fault, start } = useJob<FeaturesView>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => start((service) => service.featuresView(master)), [features, glyphs, master]);
  const held = useRef<FeaturesView>(undefined);
  const seen = useRef<FeaturesView>(undefined);
  if (found && found !== seen.current) {
    seen.current = found;
    held.current = keepingSame(held.current, found);
  }
  return { view: held.current, fault };
}
