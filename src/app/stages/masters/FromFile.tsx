import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { Result } from '../../../core/base/result';
import { plural } from '../../../core/project/edit';
import type { TakenFrom } from '../../../workers/measure';
import { useBench } from '../../state/bench';
import { listProjects } from '../../state/library';
import { useJob } from '../../state/useJob';
import { Bar, Pick } from '../../ui/controls';
import { FileInput } from '../../ui/FileInput';
import { Button } from '../../ui/parts';

const listed = (names: readonly string[]): string =>
  names.length > 8 ? `${names.slice(0, 7).join(', ')} and ${names.length - 7} more` : names.join(', ');

type Source = { bytes: Uint8Array; name: string } | { id: string };
const FILE = 'file';

/** A master of another project or font file: which one, what of it matches, and what does not. */
export function FromFile({ children }: { children: (found: TakenFrom) => React.ReactNode }) {
  const input = useRef<HTMLInputElement>(null);
  const projectId = useBench((s) => s.projectId);
  const { data: others = [] } = useQuery({ queryKey: ['partners', projectId], queryFn: listProjects });
  const stored = others.filter((e) => e.id !== projectId);
  const [file, setFile] = useState<Source>();
  const { found, fault, share, start, stop } = useJob<Result<TakenFrom>>();
  const read = (from: Source, master?: string) => {
    setFile(from);
    start((service, tell) =>
      'id' in from ? service.takenFromStored(from.id, master) : service.takenFrom(from.bytes, from.name, master, tell),
    );
  };
  const taken = found?.ok ? found.value : undefined;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
      <Button onClick={() => input.current?.click()}>{taken ? 'Another file…' : 'Choose a file…'}</Button>
      {stored.length > 0 && (
        <Pick
          label="A project of this browser"
          value={file && 'id' in file ? file.id : FILE}
          options={[
            { value: FILE, text: 'or a project of this browser' },
            ...stored.map((e) => ({ value: e.id, text: e.name })),
          ]}
          onChange={(id) => id !== FILE && read({ id })}
        />
      )}
      <FileInput
        ref={input}
        name="master-file"
        accept=".wendril,.zip,.ufoz,.otf,.ttf,.woff,.woff2,.ttc,.otc"
        onFiles={([chosen]) =>
          void chosen.arrayBuffer().then((b) => read({ bytes: new Uint8Array(b), name: chosen.name }))
        }
      />
      {share !== undefined && (
        <div className="flex items-center gap-2">
          <Bar label="Reading the file" share={share} />
          <Button onClick={stop}>Stop</Button>
        </div>
      )}
      {(fault || (found && !found.ok)) && (
        <p role="alert" className="text-brick">
          {fault ?? (found && !found.ok ? found.reason : '')}
        </p>
      )}
      {taken && file && (
        <>
          {taken.masters.length > 1 && (
            <Pick
              label="Master of the file"
              value={taken.master}
              options={taken.masters.map((m) => ({ value: m, text: m }))}
              onChange={(master) => read(file, master)}
            />
          )}
          <p className="text-[13px] text-quiet" data-testid="taken">
            {matchedSentence(taken)}
          </p>
          {children(taken)}
        </>
      )}
    </div>
  );
}

/** What was matched and what was not, by what a designer would look for. */
function matchedSentence({ family, master, taken: { matched, byShape, lacking, over } }: TakenFrom): string {
  const { name, code, shape } = matched;
  const how = [
    name > 0 ? `${name} by name` : '',
    code > 0 ? `${code} by character` : '',
    shape > 0 ? `${shape} by shape (${listed(byShape.map(([a, b]) => `${a} from ${b}`))})` : '',
  ].filter(Boolean);
  return [
    `${family}, ${master}: ${plural(name + code + shape, 'glyph')} known${how.length > 0 ? `, ${how.join(', ')}` : ''}.`,
    lacking.length > 0
      ? `${plural(lacking.length, 'glyph')} without a fellow there would have the default’s drawing: ${listed(lacking)}.`
      : '',
    over.length > 0
      ? `Not taken, since there is no place for ${over.length === 1 ? 'it' : 'them'} here: ${listed(over)}.`
      : '',
  ]
    .filter(Boolean)
    .join(' ');
}
