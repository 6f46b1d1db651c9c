import { useMemo, useState } from 'react';
import { automaticRules } from '../../../core/features/automatic';
import { mergeRules } from '../../../core/features/edits';
import { allTexts, projectGround } from '../../../core/features/ground';
import { comparedWith, type MergeItem } from '../../../core/features/merge';
import { plural } from '../../../core/project/edit';
import { defaultMaster } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';
import { toggled } from '../../ui/toggled';

/** A file of rules beside those of the project: what is new comes in, what differs is shown side by side and chosen. */
export function MergeDialog({ name, text, onClose }: { name: string; text: string; onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const items = useMemo(() => {
    const rules = automaticRules(projectGround(project, defaultMaster(project).id));
    return comparedWith(allTexts(project.features.sections, rules), text);
  }, [project, text]);
  const of = (state: MergeItem['state']) => items.filter((i) => i.state === state);
  const [fresh, same, others] = [of('new'), of('same'), of('other')];
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const take = [...fresh.filter((i) => !left.has(i.key)), ...others.filter((i) => taken.has(i.key))].map((i) => i.key);
  return (
    <Modal open onClose={onClose} title={`Rules of ${name}`} full>
      {same.length > 0 && (
        <p className="mb-3 text-quiet" title={same.map((i) => i.title).join(', ')}>
          {same.length === 1 ? 'One thing' : `${same.length} things`} of the file{' '}
          {same.length === 1 ? 'stands' : 'stand'} in the project already, alike.
        </p>
      )}
      {fresh.length > 0 && (
        <section aria-label="New in the file" className="mb-4">
          <h3 className="mb-1 font-semibold">New</h3>
          <ul aria-label="New" className="grid grid-cols-2 gap-x-6 gap-y-1">
            {fresh.map((i) => (
              <li key={i.key}>
                <label className="flex min-w-0 items-baseline gap-2" title={i.theirs.slice(0, 600)}>
                  <input
                    type="checkbox"
                    checked={!left.has(i.key)}
                    onChange={() => setLeft(toggled(left, i.key))}
                    className="size-4 shrink-0 translate-y-0.5 accent-(--color-kelp)"
                  />
                  <span className="shrink-0">{i.title}</span>
                  <code className="min-w-0 truncate text-[12px] text-quiet">{i.theirs.replace(/\s+/g, ' ')}</code>
                </label>
              </li>
            ))}
          </ul>
        </section>
      )}
      {others.map((i) => (
        <fieldset key={i.key} className="mb-4">
          <legend className="mb-1 font-semibold">{i.title}: the two differ</legend>
          <div className="grid grid-cols-2 gap-3">
            {([false, true] as const).map((theirs) => (
              <label
                key={String(theirs)}
                className={`flex min-w-0 flex-col rounded-lg border p-2 ${taken.has(i.key) === theirs ? 'border-kelp bg-kelp-tint/40' : 'border-line'}`}
              >
                <span className="mb-1 flex items-center gap-2">
                  <input
                    type="radio"
                    name={i.key}
                    checked={taken.has(i.key) === theirs}
                    onChange={() => setTaken(toggled(taken, i.key))}
                    className="size-4 accent-(--color-kelp)"
                  />
                  {theirs ? 'The file’s' : 'The project’s'}
                </span>
                <pre className="max-h-56 overflow-auto text-[12px] whitespace-pre-wrap">
                  {marked(theirs ? i.theirs : i.ours!, theirs ? i.ours! : i.theirs)}
                </pre>
              </label>
            ))}
          </div>
        </fieldset>
      ))}
      {fresh.length + others.length === 0 && <p className="mb-3">There is nothing in it that the project lacks.</p>}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave all as it is</Button>
        <Button
          kind="primary"
          disabled={take.length === 0}
          onClick={() => run((p) => mergeRules(p, { title: name, text, take })) && onClose()}
        >
          Take {plural(take.length, 'thing')}
        </Button>
      </div>
    </Modal>
  );
}

/** Lines that the other text has not are marked. */
function marked(text: string, other: string) {
  const there = new Set(other.split('\n').map((l) => l.trim()));
  return text.split('\n').map((line, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: lines of a text keep their places.
    <span key={i} className={`block ${there.has(line.trim()) ? '' : 'bg-marigold-tint'}`}>
      {line || ' '}
    </span>
  ));
}
