import { ChevronDown, ChevronUp, Contrast } from 'lucide-react';
import { setGalleyText } from '../../core/project/edits';
import { placeInWords } from '../../core/project/places';
import type { Setting } from '../../core/project/setting';
import { run, useBench } from '../state/bench';
import { useSettingChoices } from '../state/settingChoices';
import { Check, Slide } from '../ui/controls';
import { MeasuredAt } from '../ui/MeasuredAt';
import { IconToggle } from '../ui/parts';
import { SettingMenu } from '../ui/SettingMenu';

/** How the galley is set: its size, as a waterfall, with ink and paper swapped. */
export type GalleyLook = { size: number; grown: boolean; swapped: boolean };

/** The galley's head: its text, what went wrong, and how it is set. */
export function GalleyBar({
  text,
  fault,
  kerning,
  onKerning,
  setting,
  onSetting,
  look,
  onLook,
}: {
  text: string;
  fault: string | undefined;
  kerning: boolean;
  onKerning: (on: boolean) => void;
  setting: Setting;
  onSetting: (setting: Setting) => void;
  look: GalleyLook;
  onLook: (change: Partial<GalleyLook>) => void;
}) {
  const choices = useSettingChoices();
  const visit = useBench((s) => s.visit);
  const axes = useBench((s) => s.settled!.axes);
  const tool = 'flex h-6.5 items-center gap-1 rounded-md px-1.5 hover:bg-kelp-tint';
  return (
    <div className="flex h-9 items-center gap-3 border-b border-line/60 bg-panel px-5 text-[13px] text-quiet">
      <span className="font-semibold text-ink">Galley</span>
      <input
        aria-label="Text of the galley"
        spellCheck={false}
        className="h-6.5 min-w-0 flex-1 rounded-md border border-transparent bg-transparent px-1.5 text-[13.5px] text-ink hover:border-line focus:border-line"
        value={text}
        onChange={(e) => run((p) => setGalleyText(p, { text: e.target.value }), 'galley')}
      />
      {fault ? (
        <span role="alert" className="text-brick">
          {fault}
        </span>
      ) : (
        <span className="hidden whitespace-nowrap min-[1150px]:inline" data-testid="galley-place">
          {visit ? `the family at ${placeInWords(axes, visit)}` : 'the font as it would be cast now'}
          {visit && <MeasuredAt place={visit} className="ml-2 hidden min-[1500px]:inline" />}
        </span>
      )}
      <SettingMenu of="the galley" setting={setting} onChange={onSetting} choices={choices} />
      <Check label="kerning" className="items-center" checked={kerning} onChange={onKerning} />
      <span className="flex items-center gap-1.5">
        <Slide
          label="Size of the galley"
          min={14}
          max={160}
          value={look.size}
          disabled={look.grown}
          className="w-24"
          onChange={(size) => onLook({ size })}
        />
        <span className="w-10 text-right">{look.size} px</span>
      </span>
      <IconToggle
        className={tool}
        label="Swap ink and paper"
        pressed={look.swapped}
        onPressed={(swapped) => onLook({ swapped })}
      >
        <Contrast size={15} />
      </IconToggle>
      <IconToggle
        className={tool}
        label={look.grown ? 'One line' : 'Waterfall of sizes'}
        pressed={look.grown}
        onPressed={(grown) => onLook({ grown })}
      >
        {look.grown ? <ChevronDown size={16} /> : <ChevronUp size={16} />}
      </IconToggle>
    </div>
  );
}
