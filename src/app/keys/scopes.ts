import { useEffect } from 'react';
import type { Command } from './command';
import { isControl, isTyping, keptByFocus, pressed } from './keys';
import { useLatest } from './useLatest';

/**
 * Who gets a key: the newest scope first. A dialog is a scope that lets nothing through but what always works; what has
 * the focus keeps the keys it steps through its values with, and a text field those that it types with.
 */
type Scope = { readonly closed: boolean; commands(): readonly Command[] };

const stack: Scope[] = [];
const held = new Map<string, Command>();

function push(scope: Scope): () => void {
  stack.push(scope);
  return () => {
    stack.splice(stack.lastIndexOf(scope), 1);
  };
}

/** Is a dialog open, so that keys and the clipboard are its own? */
export const isDialogOpen = (): boolean => stack.some((s) => s.closed);

const mayRun = (c: Command, event: KeyboardEvent): boolean => {
  if (isTyping(event.target) && !c.whileTyping) return false;
  if (keptByFocus(event) && !c.always) return false;
  return pressed(c, event) && (c.can?.() ?? true);
};

function onKeyDown(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.isComposing) return;
  // A control lets go of the keys by Escape, so that the stage has them again.
  if (event.key === 'Escape' && !isDialogOpen() && isControl(event.target)) event.target.blur();
  let closed = false;
  for (const scope of [...stack].reverse()) {
    for (const command of scope.commands()) {
      if (closed && !command.always) continue;
      if (!mayRun(command, event)) continue;
      if (command.release && event.repeat) {
        event.preventDefault();
        return;
      }
      if (command.run(event) === false) continue;
      if (command.release) held.set(event.code, command);
      event.preventDefault();
      return;
    }
    closed ||= scope.closed;
  }
}

function letGo(code: string): void {
  held.get(code)?.release?.();
  held.delete(code);
}

const letAllGo = () => {
  for (const code of [...held.keys()]) letGo(code);
};

let listeners = 0;

/** While the calling part is shown, its commands have keys; `closed` lets no other scope have any. */
export function useScope(commands: readonly Command[], { closed = false, on = true } = {}): void {
  const latest = useLatest(commands);
  useEffect(() => {
    if (!on) return;
    const leave = push({ closed, commands: () => latest.current });
    const up = (e: KeyboardEvent) => letGo(e.code);
    if (listeners++ === 0) window.addEventListener('keydown', onKeyDown);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', letAllGo);
    return () => {
      leave();
      if (--listeners === 0) window.removeEventListener('keydown', onKeyDown);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', letAllGo);
      letAllGo();
    };
  }, [closed, on, latest]);
}
