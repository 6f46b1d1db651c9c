import { RotateCcw } from 'lucide-react';
import { type ComponentProps, useState } from 'react';
import { changeSettings } from '../../../core/project/edits';
import {
  EMBEDDING,
  embeddingOf,
  MASTER_FACTS,
  masterFact,
  STYLE_LINKS,
  setEmbedding,
  setItalicAngle,
  setMasterFact,
  setStyleLink,
} from '../../../core/project/masterFacts';
import type { Master } from '../../../core/project/model';
import { run } from '../../state/bench';
import { useCalmProject } from '../../state/calm';
import { Pick } from '../../ui/controls';
import { IconButton, NumberField, Section } from '../../ui/parts';
import { useRuledFacts } from './useRuledFacts';

const BY_NAME = 'by its name';

/** What the font file says of a master: by rule, or set outright; the rule is one press away. */
export function FactsSection({ master }: { master: Master }) {
  const project = useCalmProject();
  const now = useRuledFacts(master);
  // While one of a master’s is typed over, rules that come to another number meanwhile leave the fields alone.
  const [held, hold] = useState<{ master: string; facts: typeof now }>();
  const ruled = held?.master === master.id ? held.facts : now;
  const link = String(master.info?.styleMapStyleName ?? BY_NAME);
  return (
    <Section title="In the font file">
      <p className="mb-2 text-[12.5px] text-quiet">Grey numbers follow by rule; type over one to set it outright.</p>
      <fieldset
        className="grid min-w-0 gap-1.5"
        onFocus={({ target }) => target instanceof HTMLInputElement && hold({ master: master.id, facts: now })}
        onBlur={() => hold(undefined)}
      >
        <NumberField
          label="Italic angle °"
          value={master.italicAngle}
          onChange={(angle) => run((p) => setItalicAngle(p, { master: master.id, angle }))}
        />
        <PickRow
          label="Style link"
          value={STYLE_LINKS.find((l) => l === link) ?? BY_NAME}
          options={[BY_NAME, ...STYLE_LINKS].map((value) => ({ value, text: value }))}
          onChange={(v) => run((p) => setStyleLink(p, { master: master.id, link: STYLE_LINKS.find((l) => l === v) }))}
        />
        <PickRow
          label="Embedding"
          value={embeddingOf(master)}
          options={EMBEDDING.map((e) => ({ value: e.value, text: e.title }))}
          onChange={(embedding) => run((p) => setEmbedding(p, { embedding }))}
        />
        <PickRow
          label="Coordinates"
          tip="Only OpenType (CFF) fonts of one place can hold fractions."
          value={project.settings.fractions ? 'fractions' : 'whole'}
          options={[
            { value: 'whole', text: 'Whole units' },
            { value: 'fractions', text: 'With fractions' },
          ]}
          onChange={(v) => run((p) => changeSettings(p, { fractions: v === 'fractions' }))}
        />
        {MASTER_FACTS.map((f) => {
          const own = masterFact(master, f.key);
          return (
            <div
              key={f.key}
              data-fact={f.key}
              data-own={own !== undefined}
              className={`grid grid-cols-[1fr_26px] items-center gap-1 ${own === undefined ? '[&_input]:text-quiet' : '[&_input]:font-semibold'}`}
            >
              <NumberField
                label={f.title}
                value={own ?? ruled[f.key]}
                onChange={(value) => run((p) => setMasterFact(p, { master: master.id, fact: f.key, value }))}
              />
              {own !== undefined && (
                <IconButton
                  label={`${f.title} by rule again`}
                  tip={`By rule again${ruled[f.key] === undefined ? '' : `: ${ruled[f.key]}`}`}
                  className="rounded p-1 text-quiet hover:bg-kelp-tint"
                  onClick={() => run((p) => setMasterFact(p, { master: master.id, fact: f.key }))}
                >
                  <RotateCcw size={14} />
                </IconButton>
              )}
            </div>
          );
        })}
      </fieldset>
    </Section>
  );
}

type PickRowProps<T extends string> = ComponentProps<typeof Pick<T>> & { tip?: string };

/** One choice of several, its words at the left. */
function PickRow<T extends string>({ tip, ...pick }: PickRowProps<T>) {
  return (
    <div className="grid grid-cols-[1fr_130px] items-center gap-2" title={tip}>
      <span className="text-quiet">{pick.label}</span>
      <Pick {...pick} />
    </div>
  );
}
