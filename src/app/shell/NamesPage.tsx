import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { ArrowLeft, Download, FolderOpen } from 'lucide-react';
import { type DragEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Toaster, toast } from 'sonner';
import { plannedFaults, postScriptFault } from '../../core/fontnames/planned';
import type { Naming } from '../../core/fontnames/rename';
import { filesWorker } from '../../workers/clients';
import type { NamedFile } from '../../workers/names';
import { download } from '../state/projectFiles';
import { FileInput } from '../ui/FileInput';
import { Button, TextField } from '../ui/parts';
import { filesIn } from './droppedFiles';
import { FontCard, type Typed } from './FontCard';
import { NamesTable } from './NamesTable';

const FONT_FILE = /\.(otf|ttf|otc|ttc|woff2?)$/i;

/** One worker for the page: it holds the font files. */
function useFonts() {
  const held = useRef<ReturnType<typeof filesWorker>>(undefined);
  useEffect(
    () => () => {
      held.current?.stop();
      held.current = undefined;
    },
    [],
  );
  return () => {
    held.current ??= filesWorker();
    return held.current.service;
  };
}

/** Names of finished fonts: what they say, what contradicts what, and new names that follow from family and style. */
export function NamesPage() {
  const fonts = useFonts();
  const [files, setFiles] = useState<readonly NamedFile[]>([]);
  const [family, setFamily] = useState<string | undefined>();
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>({});

  useEffect(() => {
    document.title = 'Names of finished fonts – Wendril';
  }, []);

  const add = useMutation({
    mutationFn: async (list: readonly File[]) =>
      fonts().addFonts(
        await Promise.all(list.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) }))),
      ),
    onSuccess: (result) => {
      setFiles(result.files);
      for (const sentence of result.refused) toast.error(sentence, { duration: 12_000 });
    },
    onError: () => toast.error('The files could not be read.'),
  });

  const common = family ?? files[0]?.facts.family ?? '';
  const namings = namingsOf(files, common, typed);
  const plan = useQuery({
    queryKey: ['names', namings],
    queryFn: () => fonts().planNames(namings),
    enabled: files.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

  const faults = useMemo(() => {
    const found = plannedFaults(plan.data ?? {});
    // A name that is typed is held to what it may be before it is put right by rule.
    for (const [file, { postScriptName: own }] of Object.entries(typed)) {
      const fault = own ? postScriptFault(own) : undefined;
      if (fault) found[file] = [...(found[file] ?? []), fault];
    }
    return found;
  }, [plan.data, typed]);
  const wrong = files.filter((f) => (faults[f.name]?.length ?? 0) > 0).length;

  const make = useMutation({
    mutationFn: () => fonts().makeFonts(namings),
    onSuccess: ({ fileName, bytes, notes }) => {
      download(bytes, fileName);
      for (const note of notes) toast.message(note, { duration: 10_000 });
    },
    onError: () => toast.error('The fonts could not be made.'),
  });

  const take = (list: readonly File[]) => {
    const found = list.filter((f) => FONT_FILE.test(f.name));
    if (found.length > 0) add.mutate(found);
    else
      toast.error(list.length === 1 ? `${list[0]!.name} is no font file.` : 'There are no font files in that folder.');
  };
  const drop = (e: DragEvent) => {
    e.preventDefault();
    void filesIn(e.dataTransfer).then(take);
  };
  const type = (name: string, change: Typed | undefined) =>
    setTyped({ ...typed, [name]: change ? { ...typed[name], ...change } : {} });

  return (
    <main className="h-full overflow-auto" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Toaster position="bottom-center" style={{ fontFamily: 'inherit' }} />
      <div className="mx-auto max-w-[1160px] px-8 pt-8 pb-16">
        <Link to="/" className="mb-4 inline-flex items-center gap-1.5 text-kelp hover:underline">
          <ArrowLeft size={15} /> Start page
        </Link>
        <h1 className="mb-1 text-[24px] font-semibold">Names of finished fonts</h1>
        <p className="mb-5 text-quiet">
          Type the family and the styles; all other names follow. Outlines, spacing and every other table stay byte for
          byte as they are.
        </p>
        <div className="mb-6 flex items-end gap-3">
          <OpenFonts first={files.length === 0} onTake={take} />
          {files.length > 0 && (
            <>
              <label className="w-72">
                <span className="mb-1 block text-quiet">Family of all</span>
                <TextField className="h-9" value={common} onChange={(e) => setFamily(e.target.value)} />
              </label>
              <Button
                kind="primary"
                className="ml-auto h-9 px-4"
                disabled={make.isPending || common.trim() === '' || wrong > 0}
                title={wrong > 0 ? 'Some names cannot be as they are; see below' : undefined}
                onClick={() => make.mutate()}
              >
                <Download size={16} /> {files.length === 1 ? 'Download the font' : `Download ${files.length} fonts`}
              </Button>
            </>
          )}
        </div>
        {files.length === 0 && (
          <p className="rounded-xl border border-dashed border-line px-6 py-12 text-center text-quiet">
            Open OpenType, TrueType, WOFF or WOFF2 files or collections, or drop them or their folder here: as many as
            the family has.
          </p>
        )}
        {files.length > 0 && <NamesTable files={files} />}
        <ul aria-label="Fonts" className="space-y-3">
          {files.map((file) => (
            <FontCard
              key={file.name}
              file={file}
              typed={typed[file.name] ?? {}}
              names={plan.data?.[file.name]}
              faults={faults[file.name] ?? []}
              onType={(change) => type(file.name, change)}
              onRemove={async () => setFiles(await fonts().removeFont(file.name))}
            />
          ))}
        </ul>
      </div>
    </main>
  );
}

/** What each file is to be called, as far as it is said; the rest follows by rule. */
function namingsOf(
  files: readonly NamedFile[],
  family: string,
  typed: Readonly<Record<string, Typed>>,
): Record<string, Naming> {
  return Object.fromEntries(
    files.map(({ name, facts }) => {
      const { style, ...own } = typed[name] ?? {};
      const said = Object.fromEntries(Object.entries(own).filter(([, v]) => v !== undefined && v !== ''));
      const naming: Naming = {
        family: family.trim() || (facts.family ?? 'Untitled'),
        style: style?.trim() || facts.style || 'Regular',
        ...said,
      };
      return [name, naming];
    }),
  );
}

/** Two ways to more fonts: single files, or a folder of them. */
function OpenFonts({ first, onTake }: { first: boolean; onTake: (files: readonly File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button kind={first ? 'primary' : 'plain'} className="h-9 px-4" onClick={() => input.current?.click()}>
        <FolderOpen size={16} /> {first ? 'Open fonts' : 'Open more'}
      </Button>
      <FileInput ref={input} name="open-fonts" multiple accept=".otf,.ttf,.otc,.ttc,.woff,.woff2" onFiles={onTake} />
      <Button className="h-9 px-4" onClick={() => folder.current?.click()}>
        Open a folder
      </Button>
      <FileInput
        ref={(element) => {
          folder.current = element;
          element?.setAttribute('webkitdirectory', '');
        }}
        name="open-font-folder"
        multiple
        onFiles={onTake}
      />
    </>
  );
}
