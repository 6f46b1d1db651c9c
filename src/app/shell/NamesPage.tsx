import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { ArrowLeft, ChevronDown, Download, FolderOpen, TriangleAlert, X } from 'lucide-react';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Toaster, toast } from 'sonner';
import type { StyleNames } from '../../core/fontfacts/names';
import type { Naming } from '../../core/fontnames/rename';
import { filesWorker } from '../../workers/clients';
import type { NamedFile } from '../../workers/names';
import { download } from '../state/projectFiles';
import { Pick } from '../ui/controls';
import { Button, NumberField, TextField } from '../ui/parts';
import { filesIn } from './droppedFiles';
import { NamesTable } from './NamesTable';

const FONT_FILE = /\.(otf|ttf|woff2?)$/i;

/** What the designer typed for one file; the rest follows by rule. */
type Typed = Partial<
  Pick<
    Naming,
    | 'style'
    | 'postScriptName'
    | 'fullName'
    | 'linkedFamily'
    | 'linkedStyle'
    | 'weightClass'
    | 'widthClass'
    | 'version'
    | 'uniqueID'
  >
>;

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
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);

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
  const namings: Record<string, Naming> = Object.fromEntries(
    files.map(({ name, facts }) => {
      const { style, ...own } = typed[name] ?? {};
      const said = Object.fromEntries(Object.entries(own).filter(([, v]) => v !== undefined && v !== ''));
      return [
        name,
        {
          family: common.trim() || (facts.family ?? 'Untitled'),
          style: style?.trim() || facts.style || 'Regular',
          ...said,
        },
      ];
    }),
  );
  const plan = useQuery({
    queryKey: ['names', namings],
    queryFn: () => fonts().planNames(namings),
    enabled: files.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

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
      <Toaster position="bottom-center" />
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
          <Button
            kind={files.length === 0 ? 'primary' : 'plain'}
            className="h-9 px-4"
            onClick={() => input.current?.click()}
          >
            <FolderOpen size={16} /> {files.length === 0 ? 'Open fonts' : 'Open more'}
          </Button>
          <input
            ref={input}
            type="file"
            multiple
            hidden
            data-testid="open-fonts"
            accept=".otf,.ttf,.woff,.woff2"
            onChange={(e) => {
              if (e.target.files?.length) take([...e.target.files]);
              e.target.value = '';
            }}
          />
          <Button className="h-9 px-4" onClick={() => folder.current?.click()}>
            Open a folder
          </Button>
          <input
            ref={(element) => {
              folder.current = element;
              element?.setAttribute('webkitdirectory', '');
            }}
            type="file"
            multiple
            hidden
            data-testid="open-font-folder"
            onChange={(e) => {
              take([...(e.target.files ?? [])]);
              e.target.value = '';
            }}
          />
          {files.length > 0 && (
            <>
              <label className="w-72">
                <span className="mb-1 block text-quiet">Family of all</span>
                <TextField className="h-9" value={common} onChange={(e) => setFamily(e.target.value)} />
              </label>
              <Button
                kind="primary"
                className="ml-auto h-9 px-4"
                disabled={make.isPending || common.trim() === ''}
                onClick={() => make.mutate()}
              >
                <Download size={16} /> {files.length === 1 ? 'Download the font' : `Download ${files.length} fonts`}
              </Button>
            </>
          )}
        </div>
        {files.length === 0 && (
          <p className="rounded-xl border border-dashed border-line px-6 py-12 text-center text-quiet">
            Open OpenType, TrueType, WOFF or WOFF2 files, or drop them or their folder here: as many as the family has.
          </p>
        )}
        {files.length > 0 && <NamesTable files={files} />}
        <ul className="space-y-3">
          {files.map((file) => (
            <FontCard
              key={file.name}
              file={file}
              typed={typed[file.name] ?? {}}
              names={plan.data?.[file.name]}
              onType={(change) => type(file.name, change)}
              onRemove={async () => setFiles(await fonts().removeFont(file.name))}
            />
          ))}
        </ul>
      </div>
    </main>
  );
}

/** One file: what it says now, what contradicts what, and what it will say. */
function FontCard({
  file,
  typed,
  names,
  onType,
  onRemove,
}: {
  file: NamedFile;
  typed: Typed;
  names: StyleNames | undefined;
  onType: (change: Typed | undefined) => void;
  onRemove: () => void;
}) {
  const { facts } = file;
  const [open, setOpen] = useState(false);
  return (
    <li className="rounded-xl border border-line bg-panel px-5 py-4" data-testid="font-card">
      <div className="mb-3 flex items-baseline gap-3">
        <h2 className="font-semibold">{file.name}</h2>
        {facts.axes.length > 0 && <p className="text-quiet">varies by {facts.axes.join(', ')}</p>}
        <button
          type="button"
          aria-label={`Take ${file.name} from the list`}
          className="ml-auto self-center rounded-md p-1 text-quiet hover:bg-kelp-tint"
          onClick={onRemove}
        >
          <X size={15} />
        </button>
      </div>
      {file.contradictions.length > 0 && (
        <ul className="mb-3 space-y-1 text-marigold">
          {file.contradictions.map((c) => (
            <li key={c} className="flex items-start gap-1.5">
              <TriangleAlert size={14} className="mt-0.5 shrink-0" /> {c}
            </li>
          ))}
        </ul>
      )}
      <div className="grid grid-cols-[170px_230px_180px_1fr_auto] items-end gap-4">
        <label>
          <span className="mb-1 block text-quiet">Style</span>
          <TextField value={typed.style ?? facts.style ?? ''} onChange={(e) => onType({ style: e.target.value })} />
        </label>
        <TextLine name="postScriptName" typed={typed} names={names} onType={onType} />
        <NumberField
          label="Weight class"
          value={names?.weightClass}
          onChange={(v) => onType({ weightClass: Math.max(1, Math.min(1000, Math.round(v))) })}
        />
        {names && (
          <p className="min-w-0 pb-1 leading-snug">
            <span className="font-semibold">{names.fullName}</span>
            <br />
            <span className="text-quiet">
              links as {names.linkedFamily} {names.linkedStyle}
            </span>
          </p>
        )}
        <button
          type="button"
          aria-expanded={open}
          className="flex items-center gap-1 rounded-md px-1.5 py-1 text-kelp hover:bg-kelp-tint"
          onClick={() => setOpen(!open)}
        >
          All names <ChevronDown size={15} className={open ? 'rotate-180' : ''} />
        </button>
      </div>
      {open && (
        <div
          className="mt-3 grid grid-cols-[1fr_230px_180px] items-end gap-x-4 gap-y-3 border-t border-line pt-3"
          data-testid="all-names"
        >
          <TextLine name="fullName" typed={typed} names={names} onType={onType} />
          <TextLine name="linkedFamily" typed={typed} names={names} onType={onType} />
          <div>
            <span className="mb-1 block text-quiet">Linked style</span>
            <Pick
              label="Linked style"
              value={names?.linkedStyle ?? 'Regular'}
              options={LINKED.map((style) => ({ value: style, text: style }))}
              onChange={(linkedStyle) => onType({ linkedStyle })}
            />
          </div>
          <TextLine name="uniqueID" typed={typed} names={names} onType={onType} />
          <TextLine name="version" typed={typed} names={names} onType={onType} />
          <NumberField
            label="Width class"
            value={names?.widthClass}
            onChange={(v) => onType({ widthClass: Math.max(1, Math.min(9, Math.round(v))) })}
          />
          {Object.keys(typed).length > 0 && (
            <button
              type="button"
              className="col-span-3 justify-self-start text-kelp hover:underline"
              onClick={() => onType(undefined)}
            >
              Let all names of this file follow the rule again
            </button>
          )}
        </div>
      )}
    </li>
  );
}

const LINKED: readonly StyleNames['linkedStyle'][] = ['Regular', 'Italic', 'Bold', 'Bold Italic'];
const TITLES = {
  postScriptName: 'PostScript name',
  fullName: 'Full name',
  linkedFamily: 'Linked family',
  uniqueID: 'Unique name',
  version: 'Version',
} as const;

/** One name: what follows by rule until something else is typed; an emptied field follows again. */
function TextLine({
  name,
  typed,
  names,
  onType,
}: {
  name: keyof typeof TITLES;
  typed: Typed;
  names: StyleNames | undefined;
  onType: (change: Typed | undefined) => void;
}) {
  return (
    <label className="min-w-0">
      <span className="mb-1 block text-quiet">{TITLES[name]}</span>
      <TextField
        value={typed[name] ?? names?.[name] ?? ''}
        onChange={(e) => onType({ [name]: e.target.value })}
        onBlur={(e) => e.target.value.trim() === '' && onType({ [name]: undefined })}
      />
    </label>
  );
}
