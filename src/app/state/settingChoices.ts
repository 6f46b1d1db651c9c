import { useMemo } from 'react';
import { type SettingChoices, settingChoices } from '../../core/features/settingChoices';
import { useBench } from './bench';

/** What texts can be set with, by the rules as they stand and the tables that a font brought. */
export function useSettingChoices(): SettingChoices {
  const features = useBench((s) => s.settled!.features);
  const kept = useBench((s) => s.settled!.kept);
  return useMemo(() => settingChoices({ features, kept }), [features, kept]);
}
