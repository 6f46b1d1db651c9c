import { SlidersHorizontal } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useMemo } from 'react';
import { featureDoes, isUsual } from '../../core/features/known';
import { tagsIn } from '../../core/features/sections';
import type { Project } from '../../core/project/model';
import { useBench } from '../state/bench';

/** Features that are set otherwise than text would have them, by tag. */
export type FeatureSettings = Readonly<Record<string, boolean>>;

/** Settings as a shaper takes them. */
export const settingsOf = (settings: FeatureSettings): string[] =>
  Object.entries(settings).map(([tag, on]) => `${tag}=${on ? 1 : 0}`);

/** Features that the rules of the project have, in the order of their sections. */
function tagsOf({ sections }: Project['features']): string[] {
  const tags = sections.flatMap((s) =>
    s.options.off === true ? [] : s.automatic !== undefined ? [s.automatic] : [...tagsIn([s.text])],
  );
  return [...new Set(tags)].filter((t) => t !== 'aalt');
}

/** The galley’s features: each by name, as text would have it, on or off. */
export function GalleyFeatures({
  settings,
  onChange,
  language,
  onLanguage,
}: {
  settings: FeatureSettings;
  onChange: (settings: FeatureSettings) => void;
  /** The language that the text is set in, as a code; empty for none in particular. */
  language: string;
  onLanguage: (code: string) => void;
}) {
  const features = useBench((s) => s.settled!.features);
  const tags = useMemo(() => tagsOf(features), [features]);
  const titles = useMemo(
    () =>
      new Map(
        features.sections.flatMap((s) => {
          const own = s.automatic !== undefined ? [s.automatic] : [...tagsIn([s.text])];
          return own.length === 1 && s.title ? [[own[0]!, s.title] as const] : [];
        }),
      ),
    [features],
  );
  if (tags.length === 0) return null;
  const count = Object.keys(settings).length + (language ? 1 : 0);
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`flex h-6.5 items-center gap-1 rounded-md px-1.5 hover:bg-kelp-tint ${count > 0 ? 'font-semibold text-kelp' : ''}`}
      >
        <SlidersHorizontal size={14} /> features{count > 0 ? ` ${count}` : ''}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={6}
          className="z-[60] max-h-[60vh] w-72 overflow-y-auto rounded-xl border border-line bg-panel p-3 text-[13.5px] shadow-xl"
        >
          <ul aria-label="Features of the galley">
            {tags.map((tag) => {
              const on = settings[tag] ?? isUsual(tag);
              return (
                <li key={tag}>
                  <label className="flex min-h-7 items-center gap-2">
                    <input
                      type="checkbox"
                      checked={on}
                      onChange={(e) => {
                        const { [tag]: _, ...others } = settings;
                        onChange(e.target.checked === isUsual(tag) ? others : { ...others, [tag]: e.target.checked });
                      }}
                      className="size-4 accent-(--color-kelp)"
                    />
                    <span className="min-w-0 flex-1 truncate">{titles.get(tag) ?? featureDoes(tag) ?? tag}</span>
                    <span className="text-[12px] text-quiet">{tag}</span>
                  </label>
                </li>
              );
            })}
          </ul>
          <label className="mt-2 flex items-center gap-2">
            <span className="flex-1 text-quiet">Language of the text</span>
            <input
              value={language}
              placeholder="tr, ro…"
              spellCheck={false}
              onChange={(e) => onLanguage(e.target.value.trim().slice(0, 12))}
              className="h-7.5 w-24 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
            />
          </label>
          {count > 0 && (
            <button
              type="button"
              className="mt-1 text-kelp underline"
              onClick={() => {
                onChange({});
                onLanguage('');
              }}
            >
              As text would have it
            </button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
