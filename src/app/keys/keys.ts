import { matchKeyBindingPress, parseKeybinding } from 'tinykeys';
import type { Command } from './command';

const mac = navigator.platform.startsWith('Mac');
/** The name of the key that commands are given with. */
export const MOD = mac ? '⌘' : 'Ctrl';

const NAMES: Readonly<Record<string, string>> = {
  $mod: MOD,
  Alt: mac ? '⌥' : 'Alt',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Escape: 'Esc',
  Delete: 'Delete',
  PageDown: 'Page down',
  PageUp: 'Page up',
};

/** A key in the notation of tinykeys as it is printed: “Ctrl Shift Z”. */
export const printed = (keys: string): string =>
  keys
    .split(/\b\+/)
    .map((part) => NAMES[part] ?? part.replace(/^(Key|Digit)/, ''))
    .join(' ');

/** How a command's keys are printed; undefined where it has none. */
export const shownKeys = (c: Command): string | undefined => c.shown ?? (c.keys?.[0] && printed(c.keys[0]));

const parsed = new Map<string, ReturnType<typeof parseKeybinding>[0]>();

/** Is this key press one of the command's? */
export const pressed = (c: Command, event: KeyboardEvent): boolean =>
  (c.keys ?? []).some((keys) => {
    const press = parsed.get(keys) ?? parseKeybinding(keys)[0]!;
    parsed.set(keys, press);
    return matchKeyBindingPress(event, press);
  });

/** Is the key meant for a text field? */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.tagName === 'TEXTAREA' ||
      (target instanceof HTMLInputElement && !['checkbox', 'radio', 'range', 'button', 'file'].includes(target.type)))
  );
}

/** Parts of the interface that step through their own values with keys. */
const KEEPS =
  'input[type="range"],select,[role="slider"],[role="radio"],[role="radiogroup"],[role="tab"],[role="listbox"],[role="option"],[role="combobox"],[role="menu"],[role="menuitem"],[role="spinbutton"],[data-keeps-keys]';
const STEPPING = /^(Arrow(Left|Right|Up|Down)|Home|End|PageUp|PageDown| |Enter)$/;
const PRESSES = 'button,a[href],summary,[role="button"],[role="checkbox"],[role="switch"],[role="menuitem"]';

/** Is this a control that has keys of its own? */
export const isControl = (target: EventTarget | null): target is HTMLElement =>
  target instanceof HTMLElement && (target.closest(KEEPS) !== null || target.matches(PRESSES));

/** Does what has the focus use this key itself? A slider keeps its arrows, a button its Enter. */
export function keptByFocus(event: KeyboardEvent): boolean {
  const { target } = event;
  if (!(target instanceof HTMLElement) || event.ctrlKey || event.metaKey) return false;
  if (target.closest(KEEPS)) return STEPPING.test(event.key);
  return target.matches(PRESSES) && (event.key === 'Enter' || event.key === ' ');
}

/** Which way an arrow key goes: left and down are less. */
export const signOf = (e?: KeyboardEvent): 1 | -1 => (e?.key === 'ArrowLeft' || e?.key === 'ArrowDown' ? -1 : 1);
