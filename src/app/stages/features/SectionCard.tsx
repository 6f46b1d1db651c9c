import { ChevronDown, ChevronRight, Trash2 } from 'lucide-react';
import { lazy, memo, Suspense, useRef } from 'react';
import {
  giveSectionBack,
  joinSections,
  removeSection,
  renameSection,
  setSectionText,
  splitSection,
  switchSection,
} from '../../../core/features/edits';
import { formatted } from '../../../core/features/format';
import { isOff } from '../../../core/features/ground';
import { lineAndColumn } from '../../../core/features/sections';
import type { SectionView } from '../../../core/features/view';
import { addGlyphs } from '../../../core/project/glyphEdits';
import { encodingForName } from '../../../core/project/glyphNames';
import type { Project } from '../../../core/project/model';
import { run, say } from '../../state/bench';
import { Check } from '../../ui/controls';
import { Button, EntryField, IconButton } from '../../ui/parts';
import { rowId, SortableRow } from '../../ui/SortableList';
import { FormsTaken } from './FormsTaken';
import { Questions } from './Questions';
import { RulesDrawn } from './RulesDrawn';
import type { Place } from './SymbolBar';
import { Trial } from './Trial';

const Editor = lazy(() => import('./Editor'));

/** An empty glyph of a name, with the character that the name stands for. */
const requestNamed = (name: string) => {
  const code = encodingForName(name);
  return { name, unicodes: code === undefined ? [] : [code] };
};

type Props = {
  /** Its place in the order. */
  index: number;
  section: Project['features']['sections'][number];
  view: SectionView | undefined;
  /** Nothing stands behind it. */
  isLast: boolean;
  isOpen: boolean;
  /** A stretch of its text to go to. */
  place: Place | undefined;
  writable: readonly string[];
  onToggle: (id: string) => void;
};

/** One section: what it says in words and letters, whether it writes itself, what is wrong, its text, its trial. */
export const SectionCard = memo(function SectionCard({
  index,
  section,
  view,
  isLast,
  isOpen,
  place,
  writable,
  onToggle,
}: Props) {
  const { id, title, automatic } = section;
  const cursor = useRef(0);
  const text = automatic === undefined ? section.text : (view?.text ?? '');
  // What is wrong is told of the text that it was found in.
  const faults = view?.text === text ? view.faults : [];
  const missing = faults.flatMap((f) => /^Glyph (\S+) is not in the project/.exec(f.reason)?.[1] ?? []);
  // A section by hand that has one feature only may be given back to its rule.
  const own =
    automatic === undefined && view?.tags.length === 1 && writable.includes(view.tags[0]!) ? view.tags[0] : undefined;
  return (
    <SortableRow id={rowId(index)} grip={`Move ${title || automatic}`} className="!items-start !px-0">
      <article
        id={`section-${id}`}
        aria-label={title || automatic}
        data-testid="section"
        className={`min-w-0 flex-1 rounded-xl border bg-panel px-3 py-2.5 ${isOff(section) ? 'border-line opacity-60' : 'border-line'}`}
      >
        <header className="flex items-center gap-2">
          <Check
            label={`${title || automatic} in fonts`}
            checked={!isOff(section)}
            onChange={(on) => run((p) => switchSection(p, { id, on }))}
          >
            <span className="sr-only">in fonts</span>
          </Check>
          <span className="min-w-0 flex-1">
            <EntryField
              aria-label={`Title of ${title || automatic}`}
              value={title}
              onApply={(to) => to !== title && run((p) => renameSection(p, { id, title: to }))}
            />
          </span>
          <span className="shrink-0 text-[13px] text-quiet">{view?.tags.join(' ')}</span>
          <span
            className={`shrink-0 rounded-full px-2 text-[12px] ${automatic === undefined ? 'bg-marigold-tint text-ink' : 'bg-kelp-tint text-kelp'}`}
          >
            {automatic === undefined ? 'by hand' : 'writes itself'}
          </span>
          <IconButton label={`Take ${title || automatic} away`} onClick={() => run((p) => removeSection(p, { id }))}>
            <Trash2 size={15} />
          </IconButton>
        </header>
        {view && <p className="mt-1 text-[13px] text-quiet">{view.words}</p>}
        {faults.length > 0 && (
          <ul role="alert" aria-label="What is wrong" className="mt-1 text-[13px]">
            {faults.slice(0, 6).map((f) => {
              const { line } = lineAndColumn(text, f.from);
              return (
                <li key={`${f.from} ${f.reason}`} className={f.severity === 'error' ? 'text-brick' : 'text-marigold'}>
                  Line {line}: {f.reason}
                </li>
              );
            })}
            {faults.length > 6 && <li className="text-quiet">and {faults.length - 6} more.</li>}
          </ul>
        )}
        {missing.length > 0 && (
          <Button
            className="mt-1"
            title={missing.join(', ')}
            onClick={() => run((p) => addGlyphs(p, { requests: missing.map((name) => requestNamed(name)) }))}
          >
            Add {missing.length === 1 ? `the glyph ${missing[0]}` : `the ${missing.length} glyphs`} that are named here,
            empty
          </Button>
        )}
        {view?.order.map((said) => (
          <p key={said} data-testid="order-note" className="text-[13px] text-quiet">
            ↕ {said}
          </p>
        ))}
        {view && <Questions questions={view.questions} />}
        {view && <RulesDrawn rules={view.rules} />}
        {view && automatic !== undefined && <FormsTaken id={id} forms={view.forms} />}
        <div className="mt-1.5 flex flex-wrap items-center gap-2">
          <button
            type="button"
            aria-expanded={isOpen}
            className="inline-flex items-center gap-1 text-[13px] text-kelp"
            onClick={() => onToggle(id)}
          >
            {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />} Text and trial
          </button>
          {own && (
            <Button
              title="The rule that the glyphs’ names call for takes its place; Undo brings yours back"
              onClick={() => run((p) => giveSectionBack(p, { id, automatic: own }))}
            >
              Let it write itself
            </Button>
          )}
        </div>
        {isOpen && (
          <>
            {automatic !== undefined && (
              <p className="mt-1 text-[13px] text-quiet">
                This text follows the names of glyphs. Type into it, and it is yours from then on.
              </p>
            )}
            <Suspense fallback={<p className="py-2 text-quiet">Getting the editor…</p>}>
              <Editor
                text={text}
                faults={faults}
                place={place}
                cursor={cursor}
                label={`Text of ${title || automatic}`}
                onChange={(to) => run((p) => setSectionText(p, { id, text: to }), `features ${id}`)}
              />
            </Suspense>
            {automatic === undefined && (
              <div className="mt-1.5 flex flex-wrap gap-2">
                <Button
                  title="One statement a line, blocks indented; the words stay what they are"
                  onClick={() => {
                    const even = formatted(text);
                    if (!even.ok) say(even.reason);
                    else if (even.value === text) say('The text is tidy already.');
                    else run((p) => setSectionText(p, { id, text: even.value }));
                  }}
                >
                  Tidy the text
                </Button>
                <Button
                  title="Between two blocks, where the cursor stands"
                  onClick={() => run((p) => splitSection(p, { id, at: cursor.current }))}
                >
                  Cut in two at the cursor
                </Button>
                {!isLast && <Button onClick={() => run((p) => joinSections(p, { id }))}>Join with the next</Button>}
              </div>
            )}
            {view && <Trial id={id} tags={view.tags} rules={view.rules} />}
          </>
        )}
      </article>
    </SortableRow>
  );
});
