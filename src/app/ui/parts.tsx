import { Toggle, ToggleGroup } from 'radix-ui';
import {
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import { shownNumber } from '../../core/base/notation';
import { Check } from './controls';
import { readNumber } from './number';
import { Tip } from './Tip';

type ButtonKind = 'plain' | 'primary' | 'quiet' | 'danger';
const KINDS: Record<ButtonKind, string> = {
  plain: 'border border-line bg-panel text-ink hover:bg-kelp-tint',
  primary: 'border border-kelp bg-kelp text-on-kelp hover:brightness-110',
  quiet: 'border border-transparent text-kelp hover:bg-kelp-tint',
  danger: 'border border-line bg-panel text-brick hover:bg-marigold-tint',
};

/** A push button in the bench's look. */
export function Button({
  kind = 'plain',
  className = '',
  title,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: ButtonKind }) {
  return (
    <Tip text={title}>
      <button
        type="button"
        className={`inline-flex h-7.5 items-center justify-center gap-1.5 whitespace-nowrap rounded-lg px-3 text-[13.5px] transition-colors disabled:opacity-45 disabled:hover:bg-transparent ${KINDS[kind]} ${className}`}
        {...rest}
      />
    </Tip>
  );
}

/** A button that shows a sign only; what it does is its name, and its tip unless that says more. */
export function IconButton({
  label,
  tip = label,
  className = 'rounded-md p-1.5 text-quiet hover:bg-kelp-tint disabled:opacity-35 disabled:hover:bg-transparent',
  ...rest
}: Omit<ButtonHTMLAttributes<HTMLButtonElement>, 'title'> & { label: string; tip?: string | undefined }) {
  return (
    <Tip text={tip}>
      <button type="button" aria-label={label} className={className} {...rest} />
    </Tip>
  );
}

/** A button with a sign only that stays pressed. */
export function IconToggle({
  label,
  className = '',
  children,
  pressed,
  onPressed,
}: {
  label: string;
  className?: string;
  children: ReactNode;
  pressed: boolean;
  onPressed: (pressed: boolean) => void;
}) {
  return (
    <Tip text={label}>
      <Toggle.Root aria-label={label} className={className} pressed={pressed} onPressedChange={onPressed}>
        {children}
      </Toggle.Root>
    </Tip>
  );
}

const FIELD =
  'h-7.5 w-full min-w-0 rounded-lg border border-edge bg-paper px-2 text-[13.5px] text-ink placeholder:text-quiet disabled:opacity-50';

export function TextField(props: InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> | undefined }) {
  return (
    <input
      type="text"
      spellCheck={false}
      autoComplete="off"
      {...props}
      className={`${FIELD} ${props.className ?? ''}`}
    />
  );
}

/**
 * A text that is applied when the field is left or Enter is pressed, and given back by Escape: what is typed in between (a
 * blank at the end of a word, nothing at all) is nobody's business.
 */
export function EntryField({
  value,
  onApply,
  ...rest
}: Omit<InputHTMLAttributes<HTMLInputElement>, 'value' | 'onChange' | 'onBlur' | 'onKeyDown'> & {
  value: string;
  onApply: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const dropped = useRef(false);
  const apply = () => {
    const typed = text.trim();
    // What is refused gives way to what there is.
    setText(value);
    if (typed !== value && !dropped.current) onApply(typed);
  };
  return (
    <TextField
      {...rest}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onFocus={() => {
        dropped.current = false;
      }}
      onBlur={apply}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== 'Escape') return;
        dropped.current = e.key === 'Escape';
        e.currentTarget.blur();
      }}
    />
  );
}

type NumberFieldProps = {
  label: string;
  value: number | undefined;
  onChange: (value: number) => void;
  disabled?: boolean;
  /** Shows the label to assistive technology only. */
  hideLabel?: boolean;
};

const shown = (v: number | undefined): string => (v === undefined ? '' : shownNumber(v));

/**
 * A number in font units, or a sum. Enter applies it and gives the keys back to the stage, Tab applies and goes on, Escape
 * restores and lets go; arrow keys step by 1 (10 with Shift). What is no number stays to be put right.
 */
export function NumberField({ label, value, onChange, disabled, hideLabel }: NumberFieldProps) {
  const id = useId();
  const [text, setText] = useState(shown(value));
  useEffect(() => setText(shown(value)), [value]);
  /** Escape has been pressed: leaving the field applies nothing. */
  const dropped = useRef(false);
  const changed = text.trim() !== shown(value);
  const wrong = changed && text.trim() !== '' && readNumber(text) === undefined;
  const apply = (v: number | undefined) => {
    // What was typed gives way to the value there is; an accepted change brings a new one.
    setText(shown(value));
    if (v !== undefined && v !== value) onChange(v);
  };
  return (
    <div className={hideLabel ? 'min-w-0' : 'grid min-w-0 grid-cols-[1fr_74px] items-center gap-2'}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'min-w-0 leading-tight text-quiet'}>
        {label}
      </label>
      <input
        id={id}
        type="text"
        inputMode="decimal"
        autoComplete="off"
        disabled={disabled}
        className={`${FIELD} text-right ${wrong ? 'text-brick' : ''}`}
        aria-invalid={wrong}
        title={wrong ? 'No number, and no sum of numbers' : undefined}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onFocus={(e) => {
          dropped.current = false;
          e.target.select();
        }}
        onBlur={() => {
          if (changed && !dropped.current) apply(readNumber(text));
          else setText(shown(value));
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            // In a form, Enter applies the number first; it does not send what is not applied yet.
            e.preventDefault();
            if (wrong) return;
            if (changed) apply(readNumber(text));
            dropped.current = true;
            // In a dialog the focus stays; on the bench the keys are the stage's again.
            if (!e.currentTarget.closest('[role="dialog"], form')) e.currentTarget.blur();
          } else if (e.key === 'Escape') {
            dropped.current = true;
            setText(shown(value));
            e.currentTarget.blur();
          } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
            e.preventDefault();
            apply((readNumber(text) ?? value ?? 0) + (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 10 : 1));
          }
        }}
      />
    </div>
  );
}

/** A part of the details column under its own heading. */
export function Section({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <section className="mb-4">
      <div className="mb-1.5 flex min-h-6 items-center justify-between">
        <h3 className="text-[13.5px] font-semibold">{title}</h3>
        {action}
      </div>
      {children}
    </section>
  );
}

/** A row of buttons of which one is chosen; arrows go along it. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; text: string; hint?: string }[];
  onChange: (v: T) => void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      onValueChange={(v) => v !== '' && onChange(v as T)}
      aria-label={label}
      className="inline-flex flex-wrap gap-1.5"
    >
      {options.map((o) => (
        <Tip key={o.value} text={o.hint}>
          <ToggleGroup.Item
            value={o.value}
            className={`h-7.5 rounded-full border px-3 text-[13.5px] ${o.value === value ? 'border-kelp bg-kelp-tint font-semibold text-kelp' : 'border-edge bg-panel text-ink hover:bg-kelp-tint'}`}
          >
            {o.text}
          </ToggleGroup.Item>
        </Tip>
      ))}
    </ToggleGroup.Root>
  );
}

/** A box to tick in a row of its own. */
export const CheckRow = Check;

/** A key or chord as it is printed on the shortcut sheet. */
export const Key = ({ children }: { children: ReactNode }) => (
  <kbd className="inline-block min-w-5 rounded border border-line bg-paper px-1.5 text-center font-sans text-[12px] leading-5 text-quiet">
    {children}
  </kbd>
);
