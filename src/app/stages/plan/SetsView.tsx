import { useQuery } from '@tanstack/react-query';
import { Download, Trash2 } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { drawnCodes } from '../../../core/coverage/drawn';
import { dropList, keepList } from '../../../core/coverage/edits';
import { readList } from '../../../core/coverage/lists';
import {
  type CharacterSet,
  characterSets,
  loadBlocks,
  quoteSets,
  SET_GROUPS,
  type SetGroup,
} from '../../../core/coverage/sets';
import type { Project } from '../../../core/project/model';
import { drawingOf, glyphNamed, isEmptyDrawing } from '../../../core/project/queries';
import { run, say, useBench } from '../../state/bench';
import { useLanguages } from '../../state/languages';
import { download } from '../../state/projectFiles';
import { FileInput } from '../../ui/FileInput';
import { Button, IconButton, TextField } from '../../ui/parts';
import { readTextFile } from '../../ui/textFile';
import { MissingGlyphs } from './MissingGlyphs';

/** A text file with a list may be this large. */
const MOST_BYTES = 400_000;

/** Sets of a kind are shown up to so many; a search finds the others. */
const MOST_SETS = 40;

/** All sets of the project: those that are always there, quotation marks of its languages, blocks; undefined while they load. */
function useSets(): readonly CharacterSet[] {
  const aimed = useBench((s) => s.settled!.settings.languages);
  const { data: languages } = useLanguages();
  const { data: blocks } = useQuery({ queryKey: ['blocks'], queryFn: loadBlocks, staleTime: Infinity });
  return useMemo(() => {
    const wanted = languages?.all.filter((l) => aimed?.includes(l.code)) ?? [];
    return [...characterSets(), ...quoteSets(wanted), ...(blocks ?? [])];
  }, [aimed, languages, blocks]);
}

/** Sets by purpose, lists of one’s own, blocks, older code pages: how much of each is drawn, and what lacks. */
export function SetsView() {
  const project = useBench((s) => s.settled)!;
  const have = useMemo(() => drawnCodes(project), [project]);
  const [search, setSearch] = useState('');
  const lists = project.settings.lists ?? [];
  const sets = useSets();
  const typed = search.trim().toLowerCase();
  const asked = useMemo(() => {
    const code = [...typed].length === 1 ? typed.codePointAt(0) : undefined;
    return sets.filter(
      (s) => typed === '' || s.title.toLowerCase().includes(typed) || (code !== undefined && s.codes.includes(code)),
    );
  }, [sets, typed]);
  const rowsOf = (group: SetGroup) =>
    asked
      .filter((s) => s.group === group)
      // Of the many blocks those that are begun, unless one is looked for.
      .filter((s) => group !== 'Block' || typed !== '' || s.codes.some((c) => have.has(c)));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-5">
      <h2 className="mt-1 mb-2 font-semibold">Lists of your own</h2>
      <NewList />
      {lists.length > 0 && (
        <ul aria-label="Lists of your own" className="mb-5 divide-y divide-line rounded-xl border border-line bg-panel">
          {lists.map((l) => (
            <OwnList key={l.name} project={project} have={have} list={l} />
          ))}
        </ul>
      )}
      <div className="mt-5 w-72">
        <TextField
          aria-label="Find a set"
          placeholder="Find a set, a block, or the sets of a character"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
      </div>
      {typed !== '' && asked.length === 0 && <p className="mt-3 text-quiet">No set is called so.</p>}
      {SET_GROUPS.map(({ group, title }) => {
        const rows = rowsOf(group);
        if (rows.length === 0) return null;
        return (
          <section key={group}>
            <h2 className="mt-4 mb-2 font-semibold">{title}</h2>
            {group === 'Block' && typed === '' && (
              <p className="mb-2 text-[13px] text-quiet">Those that are begun; the others are found by their names.</p>
            )}
            <ul aria-label={title} className="divide-y divide-line rounded-xl border border-line bg-panel">
              {rows.slice(0, MOST_SETS).map((s) => (
                <Row
                  key={s.id}
                  title={s.title}
                  wanted={s.codes.length + (s.names?.length ?? 0)}
                  missing={missingOf(project, have, s)}
                />
              ))}
            </ul>
            {rows.length > MOST_SETS && (
              <p className="mt-1 text-[13px] text-quiet">
                and {rows.length - MOST_SETS} more: say which in the search.
              </p>
            )}
          </section>
        );
      })}
    </div>
  );
}

/** What of a set is not drawn, characters first. */
const missingOf = (project: Project, have: ReadonlySet<number>, set: Pick<CharacterSet, 'codes' | 'names'>) => [
  ...set.codes.filter((c) => !have.has(c)),
  ...(set.names ?? []).filter((n) => !isDrawn(project, n)),
];

function Row({
  title,
  wanted,
  missing,
  children,
}: {
  title: string;
  wanted: number;
  missing: readonly (number | string)[];
  children?: React.ReactNode;
}) {
  return (
    <li
      className="grid grid-cols-[minmax(140px,210px)_minmax(0,1fr)_auto] items-start gap-3 px-3 py-2.5"
      data-testid="set"
    >
      <div>
        <p className="font-semibold">{title}</p>
        <p className="text-[12.5px] text-quiet">
          {missing.length === 0 ? `all ${wanted} drawn` : `${wanted - missing.length} of ${wanted} drawn`}
        </p>
      </div>
      <MissingGlyphs missing={missing} what={title} />
      <div className="flex gap-1">{children}</div>
    </li>
  );
}

/** Is a glyph of this name drawn in every master? */
const isDrawn = (project: Project, name: string): boolean => {
  const glyph = glyphNamed(project, name);
  return glyph !== undefined && project.masters.every((m) => !isEmptyDrawing(drawingOf(glyph, m.id)));
};

function OwnList({
  project,
  have,
  list,
}: {
  project: Project;
  have: ReadonlySet<number>;
  list: { name: string; text: string };
}) {
  const read = useMemo(() => readList(list.text), [list.text]);
  const missing = missingOf(project, have, read);
  return (
    <Row title={list.name} wanted={read.codes.length + read.names.length} missing={missing}>
      <IconButton
        label={`Save ${list.name} as text`}
        onClick={() =>
          download(new TextEncoder().encode(list.text), `${list.name.replace(/[^\w -]/g, '')}.txt`, 'text/plain')
        }
      >
        <Download size={15} />
      </IconButton>
      <IconButton label={`Take ${list.name} away; its glyphs stay`} onClick={() => run((p) => dropList(p, list))}>
        <Trash2 size={15} />
      </IconButton>
    </Row>
  );
}

/** Text that is pasted, typed or taken from a file, with a name. */
function NewList() {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const read = useMemo(() => readList(text), [text]);
  const count = read.codes.length + read.names.length;
  const take = async (chosen: File) => {
    const content = await readTextFile(chosen, 'a list of characters', MOST_BYTES);
    if (!content.ok) return say(content.reason);
    if (content.value.note) say(content.value.note);
    setText(content.value.text);
    setName((n) => n || chosen.name.replace(/\.\w+$/, ''));
  };
  return (
    <div className="mb-4 rounded-xl border border-line bg-panel p-3">
      <textarea
        aria-label="Characters of a list"
        value={text}
        rows={3}
        spellCheck={false}
        maxLength={MOST_BYTES}
        onChange={(e) => setText(e.target.value)}
        placeholder="Paste any text, characters, U+0100–U+017F, names as /a.ss01; one a line or with spaces"
        className="mb-2 w-full resize-y rounded-lg border border-edge bg-paper px-2 py-1.5 placeholder:text-quiet"
      />
      {read.faults.length > 0 && (
        <ul role="alert" aria-label="Lines that could not be read" className="mb-2 text-[13px] text-brick">
          {read.faults.slice(0, 5).map((f) => (
            <li key={`${f.line} ${f.reason}`}>
              Line {f.line}: {f.reason}
            </li>
          ))}
          {read.faults.length > 5 && <li>and {read.faults.length - 5} more lines.</li>}
        </ul>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <div className="w-52">
          <TextField
            aria-label="Name of the list"
            placeholder="name of the list"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </div>
        <Button
          kind="primary"
          disabled={count === 0 || name.trim() === ''}
          onClick={() => {
            if (!run((p) => keepList(p, { name, text }))) return;
            setName('');
            setText('');
          }}
        >
          Keep the list
        </Button>
        <Button onClick={() => file.current?.click()}>From a text file…</Button>
        <FileInput ref={file} name="list-file" accept=".txt,text/plain" onFiles={([chosen]) => void take(chosen)} />
        {count > 0 && <span className="text-quiet">{count} in it</span>}
      </div>
    </div>
  );
}
