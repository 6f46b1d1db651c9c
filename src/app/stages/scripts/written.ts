import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { StateEffect, StateField } from '@codemirror/state';
import {
  type EditorView,
  hoverTooltip,
  showTooltip,
  type Tooltip,
  ViewPlugin,
  type ViewUpdate,
} from '@codemirror/view';
import type { About } from '../../../workers/typing';
import { askTyping } from './typed';
import { words } from './words';

/** What a script can name, at hand while it is written: completion, what is pointed at, and the call that one is in. */

const line = (text: string, look: string): HTMLElement => {
  const made = document.createElement('div');
  made.className = look;
  made.textContent = text;
  return made;
};

/** What a thing is, in a small box: how it is written, and what it does, with its example. */
function boxOf({ form, does }: About, argument?: string): HTMLElement {
  const box = document.createElement('div');
  box.className = 'max-w-[460px] p-2 text-[13px]';
  box.append(line(form.replace(/\s+/g, ' '), 'font-mono text-[12.5px] break-words'));
  if (argument !== undefined)
    box.append(line(argument.replace(/\s+/g, ' '), 'mt-1 font-mono text-[12.5px] font-semibold break-words'));
  const [said, example] = does.split(/\s*Example: /);
  if (said) box.append(line(said, 'mt-1'));
  if (example) box.append(line(example, 'mt-1 font-mono text-[12.5px] text-quiet'));
  return box;
}

/** Behind a point the members of what stands before it; else what stands by itself. */
export async function completions(context: CompletionContext): Promise<CompletionResult | null> {
  const text = context.state.doc.toString();
  const member = context.matchBefore(/\.\w*$/);
  if (member) {
    const members = await askTyping((s) => s.members(text, context.pos));
    if (!members || members.length === 0) return null;
    const options = members.map(
      ({ name, call }): Completion => ({
        label: name,
        type: call ? 'function' : 'property',
        info: async () => {
          const about = await askTyping((s) => s.about(text, context.pos, name));
          return about ? boxOf(about) : null;
        },
      }),
    );
    return { from: member.from + 1, options, validFor: /^\w*$/ };
  }
  const word = context.matchBefore(/\w+$/);
  if (!word && !context.explicit) return null;
  const options = words().flatMap((e): Completion[] =>
    e.of === 'global'
      ? [
          {
            label: e.name,
            type: e.form.includes('(') ? 'function' : 'property',
            info: () =>
              boxOf({ form: `${e.form}: ${e.type}`, does: e.example ? `${e.does} Example: ${e.example}` : e.does }),
          },
        ]
      : [],
  );
  return { from: word?.from ?? context.pos, options, validFor: /^\w*$/ };
}

/** A name that is pointed at is told. */
export const pointed = hoverTooltip(async (view, pos) => {
  if (!/\w/.test(view.state.sliceDoc(pos, pos + 1) + view.state.sliceDoc(pos - 1, pos))) return null;
  const found = await askTyping((s) => s.named(view.state.doc.toString(), pos));
  return found ? { pos: found.from, end: found.to, create: () => ({ dom: boxOf(found) }) } : null;
});

const setCall = StateEffect.define<Tooltip | null>();
const shownCall = StateField.define<Tooltip | null>({
  create: () => null,
  update: (shown, transaction) => {
    for (const e of transaction.effects) if (e.is(setCall)) return e.value;
    return shown && transaction.docChanged ? { ...shown, pos: transaction.changes.mapPos(shown.pos) } : shown;
  },
  provide: (field) => showTooltip.from(field),
});

/** How long the hand rests before the call that it is in is looked up, in milliseconds. */
const REST = 150;

/** Above the line that is written: the call whose arguments are being typed, with the one that is. */
class CallBeside {
  private wait = 0;
  private round = 0;

  constructor(private readonly view: EditorView) {}

  update(update: ViewUpdate): void {
    if (!update.docChanged && !update.selectionSet) return;
    window.clearTimeout(this.wait);
    const own = ++this.round;
    // Only writing brings it; walking about takes it away where it no longer holds.
    if (!update.docChanged && !update.state.field(shownCall)) return;
    this.wait = window.setTimeout(() => void this.look(own), REST);
  }

  private async look(own: number): Promise<void> {
    const { state } = this.view;
    const at = state.selection.main.head;
    const call = state.selection.main.empty ? await askTyping((s) => s.callAt(state.doc.toString(), at)) : undefined;
    if (own !== this.round) return;
    const shown = this.view.state.field(shownCall);
    if (!call && !shown) return;
    const tooltip = call && {
      pos: at,
      above: true,
      strictSide: true,
      create: () => ({ dom: boxOf({ form: call.form, does: call.does.split(/\s*Example: /)[0]! }, call.argument) }),
    };
    this.view.dispatch({ effects: setCall.of(tooltip ?? null) });
  }

  destroy(): void {
    window.clearTimeout(this.wait);
    this.round++;
  }
}

/** The call that one is in; Escape puts it away. */
export const callBeside = [shownCall, ViewPlugin.fromClass(CallBeside)];
export const closeCall = (view: EditorView): boolean => {
  if (!view.state.field(shownCall)) return false;
  view.dispatch({ effects: setCall.of(null) });
  return true;
};
