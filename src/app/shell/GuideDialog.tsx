import { Search } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import guide from '../../../docs/guide.md?raw';
import { MOD } from '../keys/keys';
import { closeDialog } from '../state/dialogs';
import { STAGES, type StageKey } from '../state/stages';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/parts';
import { type GuidePart, guideParts, partsWith } from './guideParts';

/** Pictures that the guide shows, by their path in it. */
const PICTURES = import.meta.glob<string>('../../../docs/screenshots/*.png', {
  eager: true,
  query: '?url',
  import: 'default',
});

/** The guide for designers, inside: opened at what one is doing, searched as one types. */
export default function GuideDialog({ stage }: { stage: StageKey | undefined }) {
  const parts = useMemo(() => guideParts(guide), []);
  const here = STAGES.find((s) => s.key === stage)?.title;
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      parts.findIndex((p) => p.title === here),
    ),
  );
  const [typed, setTyped] = useState('');
  const found = useMemo(() => partsWith(parts, typed), [parts, typed]);
  const shown: GuidePart | undefined = found.includes(parts[at]!) ? parts[at] : found[0];
  const page = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another part begins at its top.
  useEffect(() => {
    page.current?.scrollTo(0, 0);
  }, [shown]);
  return (
    <Modal open onClose={closeDialog} title="Guide" full>
      <div className="grid h-[76vh] grid-cols-[210px_minmax(0,1fr)] gap-5">
        <div className="flex min-h-0 flex-col">
          <span className="relative mb-2 block">
            <Search size={14} className="absolute top-2 left-2 text-quiet" />
            <TextField
              aria-label="Search the guide"
              placeholder="search"
              className="pl-7!"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
          </span>
          <nav aria-label="Parts of the guide" className="min-h-0 flex-1 overflow-auto">
            {found.map((p) => (
              <button
                key={p.title}
                type="button"
                aria-current={p === shown}
                className={`block w-full rounded-md py-1 text-left ${p.depth > 2 ? 'pl-5 text-[13px]' : 'px-2 font-semibold'} ${p === shown ? 'bg-kelp-tint text-kelp' : 'hover:bg-kelp-tint'}`}
                onClick={() => setAt(parts.indexOf(p))}
              >
                {p.title}
              </button>
            ))}
            {found.length === 0 && <p className="px-2 text-quiet">Nothing is said of that.</p>}
          </nav>
        </div>
        <article ref={page} data-testid="guide" className="guide min-h-0 overflow-auto pr-3" aria-live="polite">
          {shown && (
            <Markdown
              remarkPlugins={[remarkGfm]}
              urlTransform={(url) => PICTURES[`../../../docs/${url}`] ?? url}
              components={{
                a: ({ children }) => <b>{children}</b>,
                code: ({ children }) => <kbd>{String(children).replaceAll('⌘', MOD === '⌘' ? '⌘' : `${MOD} `)}</kbd>,
              }}
            >
              {shown.text}
            </Markdown>
          )}
        </article>
      </div>
    </Modal>
  );
}
