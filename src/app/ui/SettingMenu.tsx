import { SlidersHorizontal } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type ReactNode, useMemo } from 'react';
import { isUsual } from '../../core/features/known';
import { featureLetters } from '../../core/features/letters';
import { AS_TEXT, isoScript, saidIn } from '../../core/features/setting';
import type { SettingChoices } from '../../core/features/settingChoices';
import { glyphNamed } from '../../core/project/queries';
import type { Setting } from '../../core/project/setting';
import { useBench } from '../state/bench';
import { Pick } from './controls';
import { GlyphShape } from './GlyphShape';

/** A choice that is left to the text. */
const BY_TEXT = 'text';
/** Languages offered by their tags; others are typed. */
const MOST_LANGUAGES = 18;

const scriptNames = new Intl.DisplayNames(['en'], { type: 'script' });
const scriptName = (tag: string): string => `${scriptNames.of(isoScript(tag)) ?? tag} (${tag})`;

type Props = {
  /** What is set: “Galley”, say. */
  of: string;
  setting: Setting;
  onChange: (setting: Setting) => void;
  choices: SettingChoices;
  className?: string;
};

/** How a text is set: features by name, as text would have them, on or off or which form; script, language, direction. */
export function SettingMenu({ of, setting, onChange, choices, className = '' }: Props) {
  const count = saidIn(setting);
  const setFeature = (tag: string, value: number) => {
    const { [tag]: _, ...others } = setting.features;
    const usual = isUsual(tag) ? 1 : 0;
    onChange({ ...setting, features: value === usual ? others : { ...others, [tag]: value } });
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Features and language of ${of}`}
        className={`flex h-6.5 shrink-0 items-center gap-1 rounded-md px-1.5 hover:bg-kelp-tint ${count > 0 ? 'font-semibold text-kelp' : ''} ${className}`}
      >
        <SlidersHorizontal size={14} /> features{count > 0 ? ` ${count}` : ''}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={6}
          collisionPadding={8}
          className="z-[60] max-h-(--radix-popover-content-available-height) w-80 overflow-y-auto rounded-xl border border-line bg-panel p-3 text-[13.5px] shadow-xl"
        >
          <Features {...{ of, setting, choices }} onSet={setFeature} />
          {choices.features.length === 0 && <p className="mb-1 text-quiet">The font has no features yet.</p>}
          <Written {...{ setting, onChange, choices }} />
          {count > 0 && (
            <button type="button" className="mt-2 text-kelp underline" onClick={() => onChange(AS_TEXT)}>
              As text would have it
            </button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** All features, each with some letters that it brings; looked for when the menu is opened. */
function Features({
  of,
  setting,
  choices,
  onSet,
}: Omit<Props, 'onChange' | 'className'> & { onSet: (tag: string, value: number) => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const letters = useMemo(() => featureLetters(project, master), [project, master]);
  return (
    <ul aria-label={`Features of ${of}`}>
      {choices.features.map(({ tag, title, most }) => (
        <li key={tag} className="flex min-h-7 items-center gap-2">
          <Form {...{ tag, title, most }} value={setting.features[tag]} onChange={(v) => onSet(tag, v)}>
            <span aria-hidden className="flex shrink-0 items-center text-ink" data-testid="feature-letters">
              {letters.get(tag)?.map((name) => {
                const glyph = glyphNamed(project, name);
                return glyph && <GlyphShape key={name} project={project} glyph={glyph} master={master} size={24} />;
              })}
            </span>
          </Form>
        </li>
      ))}
    </ul>
  );
}

/** One feature: on or off, or which of its forms. */
function Form({
  tag,
  title,
  most,
  value,
  onChange,
  children,
}: {
  tag: string;
  title: string;
  most: number;
  value: number | undefined;
  onChange: (value: number) => void;
  /** Letters of it. */
  children: ReactNode;
}) {
  const now = value ?? (isUsual(tag) ? 1 : 0);
  const name = <span className="min-w-0 flex-1 truncate">{title}</span>;
  const shown = <span className="text-[12px] text-quiet">{tag}</span>;
  if (most < 2)
    return (
      <label className="flex min-w-0 flex-1 items-center gap-2">
        <input
          type="checkbox"
          checked={now > 0}
          onChange={(e) => onChange(e.target.checked ? 1 : 0)}
          className="size-4 accent-(--color-kelp)"
        />
        {name}
        {children}
        {shown}
      </label>
    );
  return (
    <>
      <Pick
        label={`Form of ${title}`}
        className="w-16 !h-6.5"
        value={String(now)}
        options={Array.from({ length: Math.max(most, now) + 1 }, (_, i) => ({
          value: String(i),
          text: i === 0 ? 'off' : String(i),
        }))}
        onChange={(v) => onChange(Number(v))}
      />
      {name}
      {children}
      {shown}
    </>
  );
}

/** Script, language and direction of the text. */
function Written({ setting, onChange, choices }: Omit<Props, 'of' | 'className'>) {
  const scripts = [...new Set([...choices.scripts, ...(setting.script ? [setting.script] : [])])];
  const set = (change: Partial<Setting>) => {
    const next = { ...setting, ...change };
    onChange(
      Object.fromEntries(Object.entries(next).filter(([, v]) => v !== '' && v !== undefined)) as unknown as Setting,
    );
  };
  const row = 'mt-1.5 grid grid-cols-[84px_1fr] items-center gap-2';
  return (
    <div className="mt-2 border-t border-line pt-1">
      {scripts.length > 0 && (
        <div className={row}>
          <span className="text-quiet">Script</span>
          <Pick
            label="Script of the text"
            value={setting.script ?? BY_TEXT}
            options={[
              { value: BY_TEXT, text: 'that of its letters' },
              ...scripts.map((value) => ({ value, text: scriptName(value) })),
            ]}
            onChange={(v) => set({ script: v === BY_TEXT ? undefined : v })}
          />
        </div>
      )}
      <label className={row}>
        <span className="text-quiet">Language</span>
        <input
          aria-label="Language of the text"
          value={setting.language ?? ''}
          placeholder="none in particular; tr, ro…"
          spellCheck={false}
          onChange={(e) => set({ language: e.target.value.trim().slice(0, 12) })}
          className="h-7.5 w-full min-w-0 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
        />
      </label>
      {choices.languages.length > 0 && (
        <p className="mt-1 ml-[92px] flex flex-wrap gap-x-2 text-[12px]">
          {choices.languages.slice(0, MOST_LANGUAGES).map((tag) => (
            <button
              key={tag}
              type="button"
              aria-pressed={setting.language === tag}
              className={`rounded px-0.5 hover:bg-kelp-tint ${setting.language === tag ? 'font-semibold text-kelp' : 'text-quiet'}`}
              onClick={() => set({ language: setting.language === tag ? '' : tag })}
            >
              {tag}
            </button>
          ))}
          {choices.languages.length > MOST_LANGUAGES && (
            <span className="text-quiet">and {choices.languages.length - MOST_LANGUAGES} more, by their tags</span>
          )}
        </p>
      )}
      <div className={row}>
        <span className="text-quiet">Direction</span>
        <Pick
          label="Direction of the text"
          value={setting.direction ?? BY_TEXT}
          options={[
            { value: BY_TEXT, text: 'that of its letters' },
            { value: 'ltr', text: 'from the left' },
            { value: 'rtl', text: 'from the right' },
          ]}
          onChange={(v) => set({ direction: v === BY_TEXT ? undefined : (v as 'ltr' | 'rtl') })}
        />
      </div>
    </div>
  );
}
