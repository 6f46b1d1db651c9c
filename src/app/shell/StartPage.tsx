import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FolderOpen, Plus, Tag, Trash2 } from 'lucide-react';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Toaster, toast } from 'sonner';
import {
  binProject,
  demoWasStored,
  type LibraryEntry,
  listProjects,
  rememberDemo,
  storeProject,
} from '../state/library';
import { readProject } from '../state/projectFiles';
import { storageSentence } from '../state/stores';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';
import { Bin } from './Bin';
import { NewFamily } from './NewFamily';

const DEMO = '/demo/velmarrow-sans.wendril';
let storingDemo: Promise<void> | undefined;

/** Puts the demo into a browser that has not had it yet. */
async function ensureDemo(): Promise<void> {
  if (await demoWasStored()) return;
  const response = await fetch(DEMO);
  if (!response.ok) return;
  const read = await readProject(new File([await response.blob()], 'velmarrow-sans.wendril'));
  if ('faces' in read) return;
  if (!read.ok) throw new Error(read.reason);
  await storeProject(read.value.project, 'velmarrow');
  await rememberDemo();
}

async function library() {
  storingDemo ??= ensureDemo();
  await storingDemo;
  return listProjects();
}

/** The projects in this browser; a new one; a file opened by dialog or drop. */
export function StartPage() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const projects = useQuery({ queryKey: ['library'], queryFn: library });
  const [making, setMaking] = useState(false);
  const [doomed, setDoomed] = useState<{ id: string; name: string } | undefined>();
  const [progress, setProgress] = useState<string | undefined>();
  const [opened, setOpened] = useState<{ id: string; name: string; notes: readonly string[] } | undefined>();
  const [choice, setChoice] = useState<{ file: File; faces: readonly string[] } | undefined>();
  const stop = useRef<AbortController>(undefined);
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    document.title = 'Wendril';
  }, []);

  const open = useMutation({
    mutationFn: async ({ file, face }: { file: File; face?: number }) => {
      setProgress(`Opening ${file.name}…`);
      stop.current = new AbortController();
      const read = await readProject(file, {
        ...(face !== undefined && { face }),
        progress: (done, total) => setProgress(`Opening ${file.name}: ${done} of ${total} glyphs`),
        signal: stop.current.signal,
      });
      if ('faces' in read) return { choose: { file, faces: read.faces } };
      if (!read.ok) throw new Error(read.reason);
      try {
        return { id: await storeProject(read.value.project), name: file.name, notes: read.value.notes };
      } catch (error) {
        throw new Error(storageSentence(error));
      }
    },
    onSuccess: (result) => {
      if (result.choose) {
        setChoice(result.choose);
        return;
      }
      const { id, name, notes } = result;
      if (notes.length > 0) setOpened({ id, name, notes });
      else navigate(`/p/${id}/case`);
    },
    onError: (error) => toast.error(error.message, { duration: 12_000 }),
    onSettled: () => setProgress(undefined),
  });

  const remove = useMutation({
    mutationFn: binProject,
    onError: (error) => toast.error(error.message, { duration: 12_000 }),
    onSettled: () => {
      setDoomed(undefined);
      void queries.invalidateQueries({ queryKey: ['library'] });
    },
  });

  const drop = (e: DragEvent) => {
    e.preventDefault();
    const file = e.dataTransfer.files[0];
    if (file) open.mutate({ file });
  };

  return (
    <main className="h-full overflow-auto" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Toaster position="bottom-center" />
      <div className="mx-auto max-w-[840px] px-8 pt-[9vh] pb-16">
        <header className="mb-10 flex items-end gap-4">
          <img src="/mark.svg" alt="" className="size-12" />
          <div>
            <h1 className="text-[32px] leading-9 font-semibold tracking-tight">Wendril</h1>
            <p className="text-[15px] text-quiet">A type foundry in this tab: draw, space and cast fonts.</p>
          </div>
        </header>
        <div className="mb-8 flex flex-wrap items-center gap-2.5">
          <Button kind="primary" className="h-9 px-4" onClick={() => setMaking(true)}>
            <Plus size={16} /> New family
          </Button>
          <Button className="h-9 px-4" onClick={() => input.current?.click()}>
            <FolderOpen size={16} /> Open a file
          </Button>
          <Link
            to="/names"
            className="inline-flex h-9 items-center gap-1.5 rounded-lg border border-line bg-panel px-4 text-[13.5px] hover:bg-kelp-tint"
          >
            <Tag size={16} /> Names of finished fonts
          </Link>
          <span className="basis-full text-quiet">
            A project, a font of any kind, a .ufoz, a zip with a designspace, or an SVG letter; or drop one here.
          </span>
          <input
            ref={input}
            type="file"
            hidden
            data-testid="open-file"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) open.mutate({ file });
              e.target.value = '';
            }}
          />
        </div>
        {progress && (
          <div className="mb-4 flex items-center justify-between rounded-lg bg-kelp-tint px-3 py-2 text-kelp">
            <p role="status">{progress}</p>
            <button type="button" className="font-semibold hover:underline" onClick={() => stop.current?.abort()}>
              Stop
            </button>
          </div>
        )}
        <h2 className="mb-2 text-[15px] font-semibold">In this browser</h2>
        {projects.isPending && <p className="text-quiet">Looking…</p>}
        {projects.isError && <p className="text-brick">{projects.error.message}</p>}
        {projects.data?.length === 0 && <p className="text-quiet">Nothing yet. Start a family or open a file.</p>}
        <ul className="divide-y divide-line rounded-xl border border-line bg-panel empty:hidden">
          {projects.data?.map((p) => (
            <li key={p.id} className="flex items-center">
              <Link
                to={`/p/${p.id}/draw`}
                className="flex min-w-0 flex-1 items-center gap-4 rounded-xl px-4 py-4 hover:bg-kelp-tint"
              >
                <span className="min-w-0 flex-1">
                  <NameInItsOwnLetters entry={p} />
                </span>
                <span className="shrink-0 text-right text-quiet">
                  {p.name}
                  <br />
                  {p.glyphs} glyphs ·{' '}
                  {new Date(p.updated).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })}
                </span>
              </Link>
              <button
                type="button"
                aria-label={`Remove ${p.name}`}
                title="Remove from this browser"
                className="mx-2 rounded-md p-2 text-quiet hover:bg-marigold-tint hover:text-brick"
                onClick={() => setDoomed(p)}
              >
                <Trash2 size={16} />
              </button>
            </li>
          ))}
        </ul>
        <Bin />
      </div>
      <NewFamily open={making} onClose={() => setMaking(false)} />
      <Modal
        open={opened !== undefined}
        onClose={() => opened && navigate(`/p/${opened.id}/case`)}
        title={`${opened?.name ?? ''} is opened`}
      >
        <p className="mb-2">What came in otherwise than it stands in the file:</p>
        <ul className="mb-4 list-disc space-y-1 pl-5">
          {opened?.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
        <div className="flex justify-end">
          <Button kind="primary" onClick={() => opened && navigate(`/p/${opened.id}/case`)}>
            To its case
          </Button>
        </div>
      </Modal>
      <Modal
        open={choice !== undefined}
        onClose={() => setChoice(undefined)}
        title={`${choice?.file.name ?? ''} holds ${choice?.faces.length ?? 0} faces`}
      >
        <p className="mb-2">Which one is to be opened?</p>
        <ul className="grid gap-1">
          {choice?.faces.map((face, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two faces may bear one name; the place tells them apart.
            <li key={i}>
              <button
                type="button"
                className="w-full rounded-md border border-line px-3 py-1.5 text-left hover:bg-kelp-tint"
                onClick={() => {
                  setChoice(undefined);
                  open.mutate({ file: choice.file, face: i });
                }}
              >
                {face}
              </button>
            </li>
          ))}
        </ul>
      </Modal>
      <Modal open={doomed !== undefined} onClose={() => setDoomed(undefined)} title={`Remove ${doomed?.name ?? ''}?`}>
        <p className="mb-4">It goes into the bin, its history too, and is kept there for 30 days.</p>
        <div className="flex justify-end gap-2">
          <Button onClick={() => setDoomed(undefined)}>Keep it</Button>
          <Button kind="danger" onClick={() => doomed && remove.mutate(doomed.id)}>
            Remove
          </Button>
        </div>
      </Modal>
    </main>
  );
}

/** The family's name as it draws it; in our own face while nothing is drawn. */
function NameInItsOwnLetters({ entry }: { entry: LibraryEntry }) {
  const { specimen, name } = entry;
  if (!specimen) return <span className="text-[26px] font-light text-quiet">{name}</span>;
  const height = specimen.top - specimen.bottom;
  return (
    <svg
      role="img"
      aria-label={name}
      viewBox={`0 ${-specimen.top} ${specimen.width} ${height}`}
      className="block h-[58px] max-w-full"
      preserveAspectRatio="xMinYMid meet"
    >
      <path d={specimen.path} transform="scale(1 -1)" fill="currentColor" />
    </svg>
  );
}
