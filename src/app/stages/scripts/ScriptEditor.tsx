import { autocompletion, type Completion, type CompletionContext, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import { bracketMatching, HighlightStyle, indentUnit, syntaxHighlighting } from '@codemirror/language';
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState } from '@codemirror/state';
import { EditorView, hoverTooltip, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useRef } from 'react';
import type { Entry } from '../../../core/scripting/declarations';
import { useLatest } from '../../keys/useLatest';
import { editorTheme } from '../../ui/editorTheme';
import { words } from './words';

const looks = HighlightStyle.define([
  { tag: [tags.keyword, tags.controlKeyword, tags.definitionKeyword], class: 'text-kelp font-semibold' },
  { tag: [tags.number, tags.bool, tags.null], class: 'text-brick' },
  { tag: [tags.string, tags.regexp], class: 'text-quiet' },
  { tag: tags.comment, class: 'text-quiet italic' },
]);

const theme = editorTheme({ height: '100%' });

/** What an entry is, in a small box: how it is written, what it gives, what it does. */
function told(e: Entry): HTMLElement {
  const box = document.createElement('div');
  box.className = 'max-w-[420px] p-2 text-[13px]';
  const form = document.createElement('div');
  form.className = 'font-mono text-[12.5px] break-words';
  form.textContent = `${e.of === 'global' ? '' : `${ownerWord(e)}.`}${e.form}${e.of === 'edits' ? '' : ` → ${e.type}`}`;
  const does = document.createElement('p');
  does.className = 'mt-1';
  does.textContent = e.does;
  box.append(form, does);
  if (e.example) {
    const example = document.createElement('div');
    example.className = 'mt-1 font-mono text-[12.5px] text-quiet';
    example.textContent = e.example;
    box.append(example);
  }
  return box;
}

const ownerWord = (e: Entry): string => (/^[A-Z]/.test(e.of) ? e.of.toLowerCase() : e.of);

const completionOf = (e: Entry): Completion => ({
  label: e.name,
  type: e.form.includes('(') ? 'function' : 'property',
  detail: /^[A-Z]/.test(e.of) ? e.of : '',
  info: () => told(e),
});

/** Behind a point the members of what stands before it; else what stands by itself. */
function completions(context: CompletionContext) {
  const member = context.matchBefore(/\b(\w+)?(\([^()]*\)|\[[^[\]]*\])?\.\w*$/);
  if (member) {
    const owner = /^(\w+)/.exec(member.text)?.[1] ?? '';
    const from = member.from + member.text.lastIndexOf('.') + 1;
    const exact = owner === 'font' || owner === 'edits' || owner === 'shapes' ? owner : undefined;
    const options = words().filter((e) => (exact ? e.of === exact && !member.text.includes(')') : /^[A-Z]/.test(e.of)));
    return { from, options: options.map(completionOf), validFor: /^\w*$/ };
  }
  const word = context.matchBefore(/\w+$/);
  if (!word && !context.explicit) return null;
  return {
    from: word?.from ?? context.pos,
    options: words()
      .filter((e) => e.of === 'global')
      .map(completionOf),
    validFor: /^\w*$/,
  };
}

/** A word that is pointed at is told. */
const pointed = hoverTooltip((view, pos) => {
  const line = view.state.doc.lineAt(pos);
  for (const found of line.text.matchAll(/(?:(\w+)\.)?(\w+)/g)) {
    const from = line.from + found.index + (found[1] ? found[1].length + 1 : 0);
    const to = line.from + found.index + found[0].length;
    if (pos < from || pos > to) continue;
    const entry =
      words().find((e) => e.name === found[2] && e.of === found[1]) ??
      words().find((e) => e.name === found[2] && (found[1] ? /^[A-Z]/.test(e.of) : e.of === 'global'));
    return entry ? { pos: from, end: to, create: () => ({ dom: told(entry) }) } : null;
  }
  return null;
});

export type LineFault = { readonly line: number | undefined; readonly reason: string };

/** The text of a script, with completion of all that scripts can name, and faults at their lines. */
export function ScriptEditor({
  text,
  label,
  fault,
  onChange,
}: {
  text: string;
  label: string;
  fault: LineFault | undefined;
  onChange: (text: string) => void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const change = useLatest(onChange);
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once; later texts are brought in below.
  useEffect(() => {
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          history(),
          bracketMatching(),
          indentUnit.of('  '),
          search({ top: true }),
          highlightSelectionMatches(),
          javascript(),
          autocompletion({ override: [completions] }),
          lintGutter(),
          syntaxHighlighting(looks),
          pointed,
          keymap.of([
            // The stage's own key: it adds no line here.
            { key: 'Mod-Enter', run: () => true },
            ...completionKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            ...searchKeymap,
            indentWithTab,
          ]),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false' }),
          EditorView.updateListener.of((u) => {
            if (u.docChanged && !u.transactions.some((t) => t.isUserEvent('outside')))
              change.current(u.state.doc.toString());
          }),
          theme,
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const v = view.current;
    if (!v || v.state.doc.toString() === text) return;
    v.dispatch({ changes: { from: 0, to: v.state.doc.length, insert: text }, userEvent: 'outside' });
  }, [text]);
  useEffect(() => {
    const v = view.current;
    if (!v) return;
    const list: Diagnostic[] = [];
    if (fault) {
      const line = v.state.doc.line(Math.min(v.state.doc.lines, Math.max(1, fault.line ?? 1)));
      list.push({ from: line.from, to: line.to, severity: 'error', message: fault.reason });
    }
    v.dispatch(setDiagnostics(v.state, list));
  }, [fault]);
  return <div ref={host} className="h-full min-h-0 overflow-hidden rounded-lg border border-edge bg-paper" />;
}
