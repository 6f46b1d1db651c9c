import { autocompletion, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import { bracketMatching, HighlightStyle, indentUnit, syntaxHighlighting } from '@codemirror/language';
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useRef } from 'react';
import type { TypeFault } from '../../../workers/typing';
import { useLatest } from '../../keys/useLatest';
import { editorTheme } from '../../ui/editorTheme';
import { callBeside, closeCall, completions, pointed } from './written';

const looks = HighlightStyle.define([
  { tag: [tags.keyword, tags.controlKeyword, tags.definitionKeyword], class: 'text-kelp font-semibold' },
  { tag: [tags.number, tags.bool, tags.null], class: 'text-brick' },
  { tag: [tags.string, tags.regexp], class: 'text-quiet' },
  { tag: tags.comment, class: 'text-quiet italic' },
]);

const theme = editorTheme({ height: '100%' });

export type LineFault = { readonly line: number | undefined; readonly reason: string };

/** The text of a script, with completion of all that scripts can name, and faults at their lines. */
export function ScriptEditor({
  text,
  label,
  fault,
  misfits,
  onChange,
}: {
  text: string;
  label: string;
  fault: LineFault | undefined;
  /** What does not fit by its type: it is marked where it stands, and keeps no script from running. */
  misfits: readonly TypeFault[];
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
          callBeside,
          keymap.of([
            // The stage's own key: it adds no line here.
            { key: 'Mod-Enter', run: () => true },
            ...completionKeymap,
            { key: 'Escape', run: closeCall },
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
    const most = v.state.doc.length;
    for (const m of misfits)
      list.push({ from: Math.min(m.from, most), to: Math.min(m.to, most), severity: 'warning', message: m.reason });
    v.dispatch(setDiagnostics(v.state, list));
  }, [fault, misfits]);
  return <div ref={host} className="h-full min-h-0 overflow-hidden rounded-lg border border-edge bg-paper" />;
}
