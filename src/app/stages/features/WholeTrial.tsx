import { ChevronDown, ChevronUp } from 'lucide-react';
import { setTrial } from '../../../core/features/edits';
import { AS_TEXT } from '../../../core/features/setting';
import type { FeaturesView } from '../../../core/features/view';
import type { Setting, Trial } from '../../../core/project/setting';
import { run, useBench } from '../../state/bench';
import { useSettingChoices } from '../../state/settingChoices';
import { SettingMenu } from '../../ui/SettingMenu';
import { Explain, TwoLines } from './TrialLines';

/** One trial for all rules, at the foot of the sections: a text in two settings, kept with the project. */
export function WholeTrial({
  view,
  isOpen,
  onOpen,
}: {
  view: FeaturesView | undefined;
  isOpen: boolean;
  onOpen: (open: boolean) => void;
}) {
  const kept = useBench((s) => s.settled!.texts.trial);
  const galley = useBench((s) => s.settled!.texts.galley);
  const choices = useSettingChoices();
  const expected = (view?.sections ?? []).map(({ id, rules }) => ({ section: id, rules }));
  const trial: Trial = kept ?? { text: galley, settings: [AS_TEXT, AS_TEXT] };
  const change = (next: Partial<Trial>) => run((p) => setTrial(p, { trial: { ...trial, ...next } }), 'trial');
  const way = (k: 0 | 1) => {
    const name = k === 0 ? 'Above' : 'Below';
    const set = (setting: Setting) =>
      change({ settings: k === 0 ? [setting, trial.settings[1]] : [trial.settings[0], setting] });
    return {
      name,
      setting: trial.settings[k],
      menu: (
        <SettingMenu
          of={k === 0 ? 'the line above' : 'the line below'}
          setting={trial.settings[k]}
          onChange={set}
          choices={choices}
          className="w-28 justify-start text-[13px] text-quiet"
        />
      ),
    };
  };
  return (
    <section aria-label="Trial of all rules" className="shrink-0 border-t border-line bg-panel px-4 py-1">
      <div className="flex items-center gap-3">
        <button
          type="button"
          aria-expanded={isOpen}
          className="inline-flex h-7 items-center gap-1 text-[13px] font-semibold text-kelp"
          onClick={() => onOpen(!isOpen)}
        >
          {isOpen ? <ChevronDown size={14} /> : <ChevronUp size={14} />} Trial of all rules
        </button>
        {isOpen ? (
          <input
            aria-label="Text of the trial of all rules"
            className="h-7 min-w-0 flex-1 rounded-md border border-line bg-paper px-2"
            value={trial.text}
            spellCheck={false}
            onChange={(e) => change({ text: e.target.value.slice(0, 4000) })}
          />
        ) : (
          <span className="truncate text-[13px] text-quiet">
            one text in two settings of features, script and language
          </span>
        )}
      </div>
      {isOpen && (
        <div className="max-h-[38vh] overflow-y-auto pb-1">
          <TwoLines id="whole trial" text={trial.text} ways={[way(0), way(1)]} />
          <Explain text={trial.text} setting={trial.settings[1]} expected={expected} />
        </div>
      )}
    </section>
  );
}
