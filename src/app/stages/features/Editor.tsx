import { autocompletion, type Completion, type CompletionContext, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { codeFolding, foldGutter, foldKeymap, foldService, indentUnit } from '@codemirror/language';
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState, RangeSetBuilder, type Text } from '@codemirror/state';
import {
  Decoration,
  type DecorationSet,
  EditorView,
  hoverTooltip,
  keymap,
  lineNumbers,
  ViewPlugin,
  type ViewUpdate,
} from '@codemirror/view';
import { type RefObject, useContext, useEffect, useRef, useState } from 'react';
import { membersOf } from '../../../core/features/classes';
import { featureDoes, knownFeatures } from '../../../core/features/known';
import { definedIn, type SymbolPlace, symbolAt } from '../../../core/features/symbols';
import { tokensOf } from '../../../core/features/tokens';
import type { Fault } from '../../../core/features/tree';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, glyphNamed } from '../../../core/project/queries';
import { useLatest } from '../../keys/useLatest';
import { useBench } from '../../state/bench';
import { editorTheme } from '../../ui/editorTheme';
import { NotebookContext, type Place, SymbolBar } from './SymbolBar';

const KEYWORDS = new Set(
  'feature lookup sub substitute rsub reversesub pos position enum enumerate by from ignore script language languagesystem lookupflag markClass anchor anchorDef valueRecordDef table include subtable mark base ligature ligComponent cursive device contourpoint exclude_dflt include_dflt required useExtension parameters featureNames cvParameters name NULL RightToLeft IgnoreBaseGlyphs IgnoreLigatures IgnoreMarks MarkAttachmentType UseMarkFilteringSet anon anonymous'.split(
    ' ',
  ),
);

const LOOKS = {
  keyword: Decoration.mark({ class: 'text-kelp font-semibold' }),
  class: Decoration.mark({ class: 'text-marigold' }),
  number: Decoration.mark({ class: 'text-brick' }),
  string: Decoration.mark({ class: 'text-quiet' }),
  comment: Decoration.mark({ class: 'text-quiet italic' }),
};

const strings = new WeakMap<Text, string>();

/** A document as one string, made once. */
function textOf(doc: Text): string {
  const text = strings.get(doc) ?? doc.toString();
  strings.set(doc, text);
  return text;
}

type Mark = { from: number; to: number; look: keyof typeof LOOKS };

/** Colours from the language’s own tokens. */
function marksIn(text: string): Mark[] {
  const { tokens, comments } = tokensOf(text);
  const marks: Mark[] = comments.map((c) => ({ ...c, look: 'comment' }));
  for (const t of tokens) {
    const look =
      t.kind === 'word' && KEYWORDS.has(t.text)
        ? 'keyword'
        : t.kind === 'class' || t.kind === 'number' || t.kind === 'string'
          ? t.kind
          : undefined;
    if (look && t.to > t.from) marks.push({ from: t.from, to: t.to, look });
  }
  return marks.sort((a, b) => a.from - b.from);
}

/** Texts of more letters are coloured, line by line, where they are in sight only: a font may bring a million. */
const LONG = 60_000;

function coloured({ state: { doc }, visibleRanges }: EditorView): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  const add = (from: number, to: number) => {
    for (const m of marksIn(textOf(doc).slice(from, to)))
      if (m.to > m.from) builder.add(from + m.from, from + m.to, LOOKS[m.look]);
  };
  if (doc.length <= LONG) add(0, doc.length);
  else {
    let done = 0;
    for (const { from, to } of visibleRanges) {
      const [start, end] = [Math.max(done, doc.lineAt(from).from), doc.lineAt(to).to];
      if (end > start) add(start, end);
      done = end;
    }
  }
  return builder.finish();
}

const colours = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = coloured(view);
    }
    update({ view, docChanged, viewportChanged }: ViewUpdate) {
      if (docChanged || (viewportChanged && view.state.doc.length > LONG)) this.decorations = coloured(view);
    }
  },
  { decorations: (v) => v.decorations },
);

/** Blocks fold from their bracket to its end. */
const folding = foldService.of((state, lineStart, lineEnd) => {
  const line = state.doc.sliceString(lineStart, lineEnd);
  if (!/\{\s*$/.test(line)) return null;
  let depth = 0;
  const brackets = /[{}]/g;
  brackets.lastIndex = lineStart + line.lastIndexOf('{');
  const text = textOf(state.doc);
  for (let found = brackets.exec(text); found; found = brackets.exec(text)) {
    depth += found[0] === '{' ? 1 : -1;
    if (depth === 0) return found.index > lineEnd ? { from: lineEnd, to: found.index } : null;
  }
  return null;
});

/** A picture of a glyph, for completion and for pointing. */
function picture(name: string): HTMLElement | null {
  const { settled, master } = useBench.getState();
  const glyph = settled && glyphNamed(settled, name);
  if (!settled || !glyph) return null;
  const drawing = drawingOf(glyph, master);
  const em = settled.unitsPerEm;
  const box = document.createElement('div');
  box.className = 'p-1 text-center';
  box.innerHTML = `<svg width="64" height="64" viewBox="${drawing.advance / 2 - em * 0.65} ${-em} ${em * 1.3} ${em * 1.3}"><path transform="scale(1 -1)" fill="currentColor"></path></svg>`;
  box.querySelector('path')!.setAttribute('d', drawingPath(settled, master, drawing));
  const label = document.createElement('div');
  label.textContent = name;
  label.style.fontSize = '12px';
  box.append(label);
  return box;
}

const WORD = /[@A-Za-z_.][A-Za-z0-9_.-]*/;

/** Texts that a section’s names may come from, as they stand now. */
type Texts = () => readonly string[];

/** What may stand here: glyphs with their pictures, classes and lookups of all sections, features with what they are for, words. */
const completions = (texts: Texts) => (context: CompletionContext) => {
  const word = context.matchBefore(/[@A-Za-z_.\\][A-Za-z0-9_.-]*/);
  if (!word && !context.explicit) return null;
  const text = textOf(context.state.doc);
  const before = text.slice(Math.max(0, (word?.from ?? context.pos) - 40), word?.from ?? context.pos);
  const options: Completion[] = [];
  if (/\bfeature\s+$/.test(before))
    for (const tag of knownFeatures()) options.push({ label: tag, type: 'keyword', detail: featureDoes(tag) ?? '' });
  else {
    const defined = [...texts(), text].flatMap(definedIn);
    for (const [name, { kind }] of new Map(defined.map((s) => [s.name, s])))
      options.push(
        kind === 'class'
          ? { label: name, type: 'variable', boost: 2 }
          : { label: name, type: 'function', detail: 'lookup' },
      );
    const { settled } = useBench.getState();
    for (const id of settled?.glyphOrder ?? []) {
      const { name } = settled!.glyphs[id]!;
      options.push({ label: name, type: 'text', info: () => picture(name) });
    }
    for (const k of KEYWORDS) options.push({ label: k, type: 'keyword', boost: -1 });
  }
  return { from: word?.from ?? context.pos, options, validFor: /^[@A-Za-z_.\\][A-Za-z0-9_.-]*$/ };
};

/** A glyph or class that is pointed at is drawn. */
const pointed = (texts: Texts) =>
  hoverTooltip((view, pos) => {
    const line = view.state.doc.lineAt(pos);
    for (const found of line.text.matchAll(new RegExp(WORD, 'g'))) {
      const from = line.from + found.index;
      const to = from + found[0].length;
      if (pos < from || pos > to) continue;
      const names = found[0].startsWith('@')
        ? membersOf([...texts(), textOf(view.state.doc)], glyphNames(), found[0])
        : [found[0]];
      const drawn = names.slice(0, 24).flatMap((n) => picture(n) ?? []);
      if (drawn.length === 0) return null;
      return {
        pos: from,
        end: to,
        create: () => {
          const dom = document.createElement('div');
          dom.className = 'flex flex-wrap max-w-80';
          dom.append(...drawn);
          return { dom };
        },
      };
    }
    return null;
  });

const glyphNames = (): string[] => {
  const { settled } = useBench.getState();
  return settled ? settled.glyphOrder.map((id) => settled.glyphs[id]!.name) : [];
};

const theme = editorTheme({ maxHeight: '46vh' });

/** The one stretch in which two texts differ, so that the cursor stays where it is. */
function difference(was: string, now: string): { from: number; to: number; insert: string } {
  const most = Math.min(was.length, now.length);
  let from = 0;
  while (from < most && was[from] === now[from]) from++;
  let tail = 0;
  while (tail < most - from && was[was.length - 1 - tail] === now[now.length - 1 - tail]) tail++;
  return { from, to: was.length - tail, insert: now.slice(from, now.length - tail) };
}

/** What the cursor stands on is looked up so many milliseconds after it has come to rest. */
const REST = 120;

/** The text of a section, with colours, completion, faults at their lines, glyphs drawn where one points. */
export default function Editor({
  text,
  faults,
  label,
  place,
  cursor,
  onChange,
}: {
  text: string;
  faults: readonly Fault[];
  label: string;
  /** A stretch to go to, counted, so that it can be gone to again. */
  place: Place | undefined;
  /** Where the cursor stands, for what is done there. */
  cursor: RefObject<number>;
  onChange: (text: string) => void;
}) {
  const [symbol, setSymbol] = useState<SymbolPlace>();
  const resting = useRef<number>(undefined);
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const change = useLatest(onChange);
  const notebook = useLatest(useContext(NotebookContext));
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once; later texts are brought in below.
  useEffect(() => {
    const texts = () => notebook.current.texts.map((t) => t.text);
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          history(),
          folding,
          codeFolding(),
          foldGutter(),
          indentUnit.of('  '),
          search({ top: true }),
          highlightSelectionMatches(),
          autocompletion({ override: [completions(texts)] }),
          lintGutter(),
          colours,
          pointed(texts),
          keymap.of([
            ...completionKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            ...searchKeymap,
            ...foldKeymap,
            indentWithTab,
          ]),
          EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false' }),
          EditorView.lineWrapping,
          EditorView.updateListener.of((u) => {
            if (u.selectionSet || u.docChanged) {
              cursor.current = u.state.selection.main.head;
              window.clearTimeout(resting.current);
              resting.current = window.setTimeout(
                () => setSymbol(symbolAt(textOf(made.state.doc), made.state.selection.main.head)),
                REST,
              );
            }
            if (
              u.docChanged &&
              u.transactions.some(
                (t) =>
                  t.isUserEvent('input') ||
                  t.isUserEvent('delete') ||
                  t.isUserEvent('undo') ||
                  t.isUserEvent('redo') ||
                  t.isUserEvent('move'),
              )
            )
              change.current(textOf(u.state.doc));
          }),
          theme,
        ],
      }),
    });
    view.current = made;
    return () => {
      window.clearTimeout(resting.current);
      made.destroy();
    };
  }, []);
  useEffect(() => {
    const v = view.current;
    if (!v || textOf(v.state.doc) === text) return;
    v.dispatch({ changes: difference(textOf(v.state.doc), text) });
  }, [text]);
  useEffect(() => {
    const v = view.current;
    if (!v || textOf(v.state.doc) !== text) return;
    const end = v.state.doc.length;
    const diagnostics = faults.map(
      (f): Diagnostic => ({
        from: Math.min(f.from, end),
        to: Math.min(Math.max(f.to, f.from), end),
        severity: f.severity === 'error' ? 'error' : 'warning',
        message: f.reason,
      }),
    );
    v.dispatch(setDiagnostics(v.state, diagnostics));
  }, [faults, text]);
  useEffect(() => {
    const v = view.current;
    if (!v || !place) return;
    const end = v.state.doc.length;
    const anchor = Math.min(place.from, end);
    const head = Math.min(place.to, end);
    v.dispatch({ selection: { anchor, head }, effects: EditorView.scrollIntoView(anchor, { y: 'center' }) });
    v.focus();
    host.current?.scrollIntoView({ block: 'nearest' });
  }, [place]);
  return (
    <div className="mt-1.5 rounded-lg border border-edge bg-paper">
      <div ref={host} />
      {symbol && <SymbolBar key={symbol.name} symbol={symbol} />}
    </div>
  );
}
