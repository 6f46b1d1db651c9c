import { useEffect, useState } from 'react';
import { type Result, refused, success } from '../../../core/base/result';
import { linesOfWordList } from '../../../core/kerning/collisions';
import { setWordList } from '../../../core/kerning/edits';
import { run, say, useBench } from '../../state/bench';
import { Button, Choice } from '../../ui/parts';
import { readTextFile } from '../../ui/textFile';
import { recallLine, setFromGalley, setLine, useKernBench } from './kernBench';

const SOURCES = [
  { value: 'list', text: 'Word list' },
  { value: 'galley', text: 'Galley' },
] as const;

/** The lines of a text file; its letters are read as UTF-8, UTF-16 or, where they are neither, as Windows Latin, which is told. */
async function listFrom(file: File): Promise<Result<{ lines: string[]; note: string | undefined }>> {
  const read = await readTextFile(file, 'a word list', 2_000_000);
  if (!read.ok) return read;
  const { text, note } = read.value;
  const lines = linesOfWordList(text);
  return lines.length > 0 ? success({ lines, note }) : refused(`${file.name} holds no words.`);
}

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
            e.target.value = '';
            const list = await listFrom(file);
            setError(list.ok ? '' : list.reason);
            if (list.ok && run((p) => setWordList(p, { lines: list.value.lines }))) {
              if (list.value.note) say(list.value.note);
              go(0);
            }
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
