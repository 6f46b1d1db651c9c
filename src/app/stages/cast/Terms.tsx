import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { EMBEDDING, embeddingOf } from '../../../core/project/masterFacts';
import type { CastTerms } from '../../../core/project/model';
import { defaultMaster } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useSettingChoices } from '../../state/settingChoices';
import { Pick } from '../../ui/controls';
import { CheckRow, NumberField, Section } from '../../ui/parts';

/** How fonts are made: which glyphs and features, outlines, hints, what documents may do with them, lines. */
export function Terms({
  undrawn,
  terms,
  onChange,
}: {
  undrawn: number;
  terms: CastTerms;
  onChange: (change: Partial<CastTerms>) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const [open, setOpen] = useState(false);
  const { lists = [], languages = [] } = project.settings;
  const main = defaultMaster(project);
  const own = EMBEDDING.find((e) => e.value === embeddingOf(main))!;
  const embedding = EMBEDDING.find((e) => e.value === terms.embedding);
  const glyphs =
    terms.glyphs?.list !== undefined ? `list ${terms.glyphs.list}` : terms.glyphs?.languages ? 'languages' : 'all';
  const chooseGlyphs = (v: string) =>
    onChange({
      glyphs: v === 'all' ? undefined : v === 'languages' ? { languages: [...languages] } : { list: v.slice(5) },
    });
  const { features } = useSettingChoices();
  const without = terms.without ?? [];
  const { ascender, descender } = main.zones;
  const lines = terms.lines;
  return (
    <>
      <Section title="Glyphs">
        <Pick
          label="Which glyphs"
          value={glyphs}
          options={[
            { value: 'all', text: 'all' },
            ...(languages.length > 0 || glyphs === 'languages'
              ? [
                  {
                    value: 'languages',
                    text: `of the ${(terms.glyphs?.languages ?? languages).length} languages aimed at`,
                  },
                ]
              : []),
            ...lists.map((l) => ({ value: `list ${l.name}`, text: `of the list ${l.name}` })),
          ]}
          onChange={chooseGlyphs}
        />
        {glyphs !== 'all' && (
          <p className="mt-1 text-[12.5px] text-quiet">and what rules make of them; all else is left to other fonts</p>
        )}
        {undrawn > 0 && (
          <CheckRow
            label="Undrawn characters as blanks"
            checked={terms.blanks}
            onChange={(blanks) => onChange({ blanks })}
          />
        )}
        <CheckRow
          label="Web fonts in parts, by script"
          checked={terms.parts === true}
          onChange={(parts) => onChange({ parts: parts || undefined })}
        />
      </Section>
      <Section title="Outlines">
        <CheckRow
          label="Keep overlaps as drawn"
          checked={terms.keepOverlaps}
          onChange={(keepOverlaps) => onChange({ keepOverlaps })}
        />
        <CheckRow
          label="Hints in OpenType files"
          checked={terms.unhinted !== true}
          onChange={(on) => onChange({ unhinted: on ? undefined : true })}
        />
        <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">
          zones and stems; TrueType files ask for even grey and nothing more
        </p>
        {project.masters.length > 1 && (
          <CheckRow
            label="Stop where masters disagree"
            checked={terms.mustAgree === true}
            onChange={(on) => onChange({ mustAgree: on || undefined })}
          />
        )}
      </Section>
      <button
        type="button"
        aria-expanded={open}
        className="mb-2 flex items-center gap-1 text-[13.5px] font-semibold"
        onClick={() => setOpen(!open)}
      >
        {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />} Further terms
      </button>
      {open && (
        <>
          <Section title="Documents may">
            <Pick
              label="What documents may do with the font"
              value={embedding?.value ?? 'own'}
              options={[
                { value: 'own', text: `as the project says: ${own.title.toLowerCase()}` },
                ...EMBEDDING.map((e) => ({ value: e.value as string, text: e.title })),
              ]}
              onChange={(v) => onChange({ embedding: EMBEDDING.find((e) => e.value === v)?.value })}
            />
            <p className="mt-1 text-[12.5px] text-quiet">{(embedding ?? own).what}</p>
          </Section>
          <Section title="Lines">
            <CheckRow
              label="Line metrics of their own"
              checked={lines !== undefined}
              onChange={(on) =>
                onChange({
                  lines: on
                    ? { ascender: Math.round(ascender.position), descender: Math.round(descender.position), gap: 0 }
                    : undefined,
                })
              }
            />
            <div className="grid gap-1.5">
              {lines &&
                (
                  [
                    ['ascender', 'Ascender'],
                    ['descender', 'Descender'],
                    ['gap', 'Gap'],
                  ] as const
                ).map(([key, label]) => (
                  <NumberField
                    key={key}
                    label={label}
                    value={lines[key]}
                    onChange={(v) => {
                      const whole = Math.max(key === 'gap' ? 0 : -32768, Math.min(32767, Math.round(v)));
                      onChange({ lines: { ...lines, [key]: whole } });
                    }}
                  />
                ))}
            </div>
          </Section>
          <Section title="Characters">
            <CheckRow
              label="As a symbol font"
              checked={terms.symbol === true}
              onChange={(on) => onChange({ symbol: on || undefined })}
            />
            <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">
              for signs on keys, as older programs take them
            </p>
          </Section>
          {features.length > 0 && (
            <Section title="Features">
              <div className="max-h-56 overflow-y-auto">
                {features.map(({ tag, title }) => (
                  <CheckRow
                    key={tag}
                    label={title === tag || title === '' ? tag : `${tag} · ${title}`}
                    checked={!without.includes(tag)}
                    onChange={(on) => {
                      const next = on ? without.filter((t) => t !== tag) : [...without, tag].sort();
                      onChange({ without: next.length > 0 ? next : undefined });
                    }}
                  />
                ))}
              </div>
            </Section>
          )}
        </>
      )}
    </>
  );
}
