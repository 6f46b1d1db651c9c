import { EditorView } from '@codemirror/view';

/** The look of texts that are written: rules and scripts; `size` says how high they stand. */
export const editorTheme = (size: { height?: string; maxHeight?: string }) =>
  EditorView.theme({
    '&': { fontSize: '13px', ...size },
    '.cm-scroller': { fontFamily: 'ui-monospace, monospace', overflow: 'auto' },
    '&.cm-focused': { outline: '2px solid var(--color-kelp)' },
    '.cm-content': { caretColor: 'var(--color-ink)' },
    '.cm-gutters': { background: 'transparent', color: 'var(--color-quiet)', border: 'none' },
    '.cm-tooltip': {
      background: 'var(--color-panel)',
      color: 'var(--color-ink)',
      border: '1px solid var(--color-line)',
      borderRadius: '8px',
    },
    '.cm-tooltip-autocomplete ul li[aria-selected]': {
      background: 'var(--color-kelp-tint)',
      color: 'var(--color-ink)',
    },
    '.cm-panels': { background: 'var(--color-panel)', color: 'var(--color-ink)' },
  });
