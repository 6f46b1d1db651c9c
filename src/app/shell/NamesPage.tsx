import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { ArrowLeft, Download, FolderOpen, TriangleAlert, X } from 'lucide-react';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Toaster, toast } from 'sonner';
import type { StyleNames } from '../../core/casting/names';
import type { Naming } from '../../core/fontnames/rename';
import { filesWorker } from '../../workers/clients';
import type { NamedFile } from '../../workers/names';
import { Button, NumberField, TextField } from '../ui/parts';
import { download } from './projectFiles';

/** What the designer typed for one file; the rest follows by rule. */
type Typed = { style?: string; postScriptName?: string; weightClass?: number };

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

  useEffect(() => {
    document.title = 'Names of finished fonts – Wendril';
  }, []);

  const add = useMutation({
    mutationFn: async (list: readonly File[]) => fonts().addFonts(await Promise.all(list.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })))),
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
      return [name, { family: common.trim() || (facts.family ?? 'Untitled'), style: style?.trim() || facts.style || 'Regular', ...own }];
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

  const drop = (e: DragEvent) => {
    e.preventDefault();
    if (e.dataTransfer.files.length > 0) add.mutate([...e.dataTransfer.files]);
  };
  const type = (name: string, change: Typed) => setTyped({ ...typed, [name]: { ...typed[name], ...change } });

  return (
    <main className="h-full overflow-auto" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Toaster position="bottom-center" />
      <div className="mx-auto max-w-[1160px] px-8 pt-8 pb-16">
        <Link to="/" className="mb-4 inline-flex items-center gap-1.5 text-kelp hover:underline">
          <ArrowLeft size={15} /> Start page
        </Link>
        <h1 className="mb-1 text-[24px] font-semibold">Names of finished fonts</h1>
        <p className="mb-5 text-quiet">Type the family and the styles; all other names follow. Outlines, spacing and every other table stay byte for byte as they are.</p>
        <div className="mb-6 flex items-end gap-3">
          <Button kind={files.length === 0 ? 'primary' : 'plain'} className="h-9 px-4" onClick={() => input.current?.click()}>
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
              if (e.target.files?.length) add.mutate([...e.target.files]);
              e.target.value = '';
            }}
          />
          {files.length > 0 && (
            <>
              <label className="w-72">
                <span className="mb-1 block text-quiet">Family of all</span>
                <TextField className="h-9" value={common} onChange={(e) => setFamily(e.target.value)} />
              </label>
              <Button kind="primary" className="ml-auto h-9 px-4" disabled={make.isPending || common.trim() === ''} onClick={() => make.mutate()}>
                <Download size={16} /> {files.length === 1 ? 'Download the font' : `Download ${files.length} fonts`}
              </Button>
            </>
          )}
        </div>
        {files.length === 0 && (
          <p className="rounded-xl border border-dashed border-line px-6 py-12 text-center text-quiet">
            Open OpenType, TrueType, WOFF or WOFF2 files, or drop them here: as many as the family has.
          </p>
        )}
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
  onType: (change: Typed) => void;
  onRemove: () => void;
}) {
  const { facts } = file;
  const now = [facts.family, facts.style].filter(Boolean).join(' ') || 'no names';
  return (
    <li className="rounded-xl border border-line bg-panel px-5 py-4" data-testid="font-card">
      <div className="mb-3 flex items-baseline gap-3">
        <h2 className="font-semibold">{file.name}</h2>
        <p className="text-quiet">
          now {now} · weight {facts.weightClass} · width {facts.widthClass}
          {facts.slope === 0 ? '' : ` · leans ${Math.abs(facts.slope)}°`}
          {facts.axes.length > 0 ? ` · varies by ${facts.axes.join(', ')}` : ''} · {facts.version ?? 'no version'}
        </p>
        <button type="button" aria-label={`Take ${file.name} from the list`} className="ml-auto self-center rounded-md p-1 text-quiet hover:bg-kelp-tint" onClick={onRemove}>
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
      <div className="grid grid-cols-[170px_230px_180px_1fr] items-end gap-4">
        <label>
          <span className="mb-1 block text-quiet">Style</span>
          <TextField value={typed.style ?? facts.style ?? ''} onChange={(e) => onType({ style: e.target.value })} />
        </label>
        <label>
          <span className="mb-1 block text-quiet">PostScript name</span>
          <TextField value={typed.postScriptName ?? names?.postScriptName ?? ''} onChange={(e) => onType({ postScriptName: e.target.value })} />
        </label>
        <div className="pb-0">
          <NumberField label="Weight class" value={names?.weightClass} onChange={(v) => onType({ weightClass: Math.max(1, Math.min(1000, Math.round(v))) })} />
        </div>
        {names && (
          <p className="min-w-0 pb-1 leading-snug">
            <span className="font-semibold">{names.fullName}</span>
            <br />
            <span className="text-quiet">
              links as {names.linkedFamily} {names.linkedStyle}
            </span>
          </p>
        )}
      </div>
    </li>
  );
}
