import type { SettingChoices } from '../../core/features/settingChoices';
import type { CompileService } from '../../workers/compile';
import { useBench } from './bench';
import { compiler } from './followers';
import { useWorkedOut } from './workedOut';

const NOTHING: SettingChoices = { features: [], scripts: [], languages: [] };

/** What texts can be set with, by the rules as they stand and the tables that a font brought; read where the rules are compiled. */
export function useSettingChoices(): SettingChoices {
  const features = useBench((s) => s.settled!.features);
  const kept = useBench((s) => s.settled!.kept);
  const { data } = useWorkedOut<CompileService, SettingChoices>(
    compiler,
    'setting choices',
    { same: [], by: [features, kept] },
    (s) => s.settingChoices(),
  );
  return data ?? NOTHING;
}
