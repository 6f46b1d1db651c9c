import { type AskedFields, type AskedValue, type AskedValues, labelOf, usualOf } from '../../../core/scripting/asked';
import { Pick } from '../../ui/controls';
import { CheckRow, NumberField, Section, TextField } from '../../ui/parts';

/** What a script asks for, as a form; what is given is kept for the next time. */
export function AskForm({
  asked,
  given,
  onGive,
}: {
  asked: AskedFields;
  given: AskedValues;
  onGive: (values: AskedValues) => void;
}) {
  const fields = Object.entries(asked);
  if (fields.length === 0) return null;
  return (
    <Section title="It asks for">
      <div data-testid="script-asks" className="grid gap-2">
        {fields.map(([name, f]) => {
          const value: AskedValue = given[name] ?? usualOf(f);
          const label = labelOf(name, f);
          const set = (v: AskedValue) => onGive({ [name]: v });
          if ('number' in f)
            return <NumberField key={name} label={label} value={Number(value)} onChange={(v) => set(v)} />;
          if ('yes' in f)
            return <CheckRow key={name} label={label} checked={value === true || value === 'yes'} onChange={set} />;
          if ('choice' in f)
            return (
              <div key={name} className="grid gap-1">
                <span className="text-quiet">{label}</span>
                <Pick
                  label={label}
                  value={f.of.includes(String(value)) ? String(value) : f.choice}
                  options={f.of.map((v) => ({ value: v, text: v }))}
                  onChange={set}
                />
              </div>
            );
          const long = 'glyphs' in f || f.text.includes('\n') || f.text.length > 30 || f.text === '';
          if (!long)
            return (
              <label key={name} className="grid gap-1">
                <span className="text-quiet">{label}</span>
                <TextField value={String(value)} spellCheck={false} onChange={(e) => set(e.target.value)} />
              </label>
            );
          return (
            <label key={name} className="grid gap-1">
              <span className="text-quiet">
                {label}
                {'glyphs' in f && ', by names or characters'}
              </span>
              <textarea
                rows={'text' in f ? 4 : 2}
                spellCheck={false}
                value={String(value)}
                onChange={(e) => set(e.target.value)}
                className="w-full resize-y rounded-lg border border-line bg-paper px-2 py-1.5"
              />
            </label>
          );
        })}
      </div>
    </Section>
  );
}
