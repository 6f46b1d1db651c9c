import { ChevronDown, Check as Mark } from 'lucide-react';
import { Checkbox, Progress, RadioGroup, Select, Slider } from 'radix-ui';
import { type ReactNode, useId } from 'react';

/** The kinds of controls, each on its primitive, skinned once. */

type CheckProps = {
  label: string;
  checked: boolean;
  onChange: (v: boolean) => void;
  disabled?: boolean;
  /** Shown in place of the label, which then is for assistive technology. */
  children?: ReactNode;
  className?: string;
};

/** A box to tick, with its words beside it. */
export function Check({
  label,
  checked,
  onChange,
  disabled,
  children,
  className = 'min-h-7 items-center',
}: CheckProps) {
  const id = useId();
  return (
    <span className={`flex gap-2 ${className}`}>
      <Checkbox.Root
        id={id}
        checked={checked}
        disabled={disabled ?? false}
        onCheckedChange={(v) => onChange(v === true)}
        aria-label={children ? label : undefined}
        className="mt-px flex size-4 shrink-0 items-center justify-center rounded border border-edge bg-panel data-[state=checked]:border-kelp data-[state=checked]:bg-kelp disabled:opacity-45"
      >
        <Checkbox.Indicator>
          <Mark size={12} strokeWidth={3} className="text-on-kelp" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="min-w-0">
        {children ?? label}
      </label>
    </span>
  );
}

type SlideProps = {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  disabled?: boolean;
  onChange: (v: number) => void;
  className?: string;
};

/** A value on a rail; arrows step it, Page keys by ten. */
export function Slide({ label, value, min, max, step = 1, disabled, onChange, className = 'w-28' }: SlideProps) {
  return (
    <Slider.Root
      min={min}
      max={max}
      step={step}
      value={[value]}
      disabled={disabled ?? false}
      onValueChange={([v]) => v !== undefined && onChange(v)}
      className={`relative flex h-5 shrink-0 touch-none items-center select-none data-[disabled]:opacity-45 ${className}`}
    >
      <Slider.Track className="relative h-1 grow rounded-full bg-edge">
        <Slider.Range className="absolute h-full rounded-full bg-kelp" />
      </Slider.Track>
      <Slider.Thumb
        aria-label={label}
        className="block size-4 rounded-full border border-kelp bg-panel shadow-sm outline-offset-2"
      />
    </Slider.Root>
  );
}

type PickProps<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; text: string }[];
  onChange: (v: T) => void;
  className?: string;
};

/** One of several, in a list that opens. */
export function Pick<T extends string>({ label, value, options, onChange, className = 'w-full' }: PickProps<T>) {
  return (
    <Select.Root value={value} onValueChange={(v) => onChange(v as T)}>
      <Select.Trigger
        aria-label={label}
        className={`inline-flex h-7.5 min-w-0 items-center justify-between gap-1.5 rounded-lg border border-edge bg-paper px-2 text-left text-[13.5px] ${className}`}
      >
        <span className="min-w-0 truncate">
          <Select.Value />
        </span>
        <Select.Icon>
          <ChevronDown size={14} className="text-quiet" />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          className="z-[60] max-h-[50vh] overflow-auto rounded-lg border border-line bg-panel p-1 shadow-xl"
        >
          <Select.Viewport>
            {options.map((o) => (
              <Select.Item
                key={o.value}
                value={o.value}
                className="flex cursor-default items-center gap-2 rounded-md px-2 py-1 text-[13.5px] outline-none data-[highlighted]:bg-kelp-tint"
              >
                <Select.ItemText>{o.text}</Select.ItemText>
                <Select.ItemIndicator>
                  <Mark size={13} className="text-kelp" />
                </Select.ItemIndicator>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

/** One of several, one below the other. */
export function Radios<T extends string>({ label, value, options, onChange }: PickProps<T>) {
  const id = useId();
  return (
    <RadioGroup.Root aria-label={label} value={value} onValueChange={(v) => onChange(v as T)} className="grid gap-1">
      {options.map((o) => (
        <span key={o.value} className="flex items-center gap-2 py-0.5">
          <RadioGroup.Item
            id={`${id}${o.value}`}
            value={o.value}
            className="flex size-4 shrink-0 items-center justify-center rounded-full border border-edge bg-panel data-[state=checked]:border-kelp"
          >
            <RadioGroup.Indicator className="size-2 rounded-full bg-kelp" />
          </RadioGroup.Item>
          <label htmlFor={`${id}${o.value}`} className="min-w-0 truncate">
            {o.text}
          </label>
        </span>
      ))}
    </RadioGroup.Root>
  );
}

/** How far a long job is, 0 to 1. */
export const Bar = ({
  label,
  share,
  className = 'mb-3 w-full',
}: {
  label: string;
  share: number;
  className?: string;
}) => (
  <Progress.Root
    aria-label={label}
    value={Math.round(share * 100)}
    className={`relative h-2 overflow-hidden rounded-full bg-line ${className}`}
  >
    <Progress.Indicator className="h-full bg-kelp" style={{ width: `${share * 100}%` }} />
  </Progress.Root>
);
