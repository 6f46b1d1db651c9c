import { useEffect, useState } from 'react';
import { linesOfWordList } from '../../../core/kerning/collisions';
import { setWordList } from '../../../core/kerning/edits';
import { run, useBench } from '../../state/bench';
import { Button, Choice } from '../../ui/parts';
import { recallLine, setFromGalley, setLine, useKernBench } from './kernBench';

const SOURCES = [
  { value: 'list', text: 'Word list' },
  { value: 'galley', text: 'Galley' },
] as const;

/** The word that is stepped through, and where the list comes from. */
export function WordBar({ line }: { line: number }) {
  const pairs = useBench((s) => s.settled!.texts.pairs);
  const projectId = useBench((s) => s.projectId);
  useEffect(() => recallLine(projectId, pairs.length), [projectId, pairs.length]);
  const go = (to: number) => setLine(to, projectId);
  const fromGalley = useKernBench((s) => s.fromGalley);
  const [error, setError] = useState('');
  return (
    <div className="px-3 pb-2">
      {pairs.length > 0 && (
        <Choice
          label="Words of"
          value={fromGalley ? 'galley' : 'list'}
          options={SOURCES}
          onChange={(v) => setFromGalley(v === 'galley')}
        />
      )}
      <p className="mt-1 truncate font-semibold">
        {fromGalley || pairs.length === 0 ? 'the galley’s text' : pairs[line]}
      </p>
      {!fromGalley && pairs.length > 0 && (
        <div className="mt-1 flex items-center gap-1.5">
          <Button disabled={line === 0} onClick={() => go(line - 1)} aria-label="The line before" title="Shift N">
            ↑
          </Button>
          <Button disabled={line >= pairs.length - 1} onClick={() => go(line + 1)} aria-label="The next line" title="N">
            ↓
          </Button>
          <span className="text-[12.5px] text-quiet">
            {line + 1} of {pairs.length}
          </span>
        </div>
      )}
      <label className="mt-1.5 inline-block text-kelp">
        A list from a file…
        <input
          type="file"
          accept=".txt,text/plain"
          className="sr-only"
          data-testid="word-list"
          onChange={async (e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            const lines = file.size > 2_000_000 ? [] : linesOfWordList(await file.text());
            if (lines.length === 0) setError(`${file.name} holds no words, or is larger than 2 MB.`);
            else if (run((p) => setWordList(p, { lines }))) go(0);
          }}
        />
      </label>
      {error && (
        <p role="alert" className="text-brick">
          {error}
        </p>
      )}
    </div>
  );
}
