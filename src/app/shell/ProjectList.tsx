import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import {
  binProject,
  demoWasStored,
  type LibraryEntry,
  listProjects,
  rememberDemo,
  storeProject,
} from '../state/library';
import { readProject } from '../state/projectFiles';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';

/** The demo and its italic partner, by their addresses. */
const DEMOS = { velmarrow: 'velmarrow-sans.wendril', 'velmarrow-italic': 'velmarrow-sans-italic.wendril' } as const;
let storingDemo: Promise<void> | undefined;

/** Puts the demo into a browser that has not had it yet. */
async function ensureDemo(): Promise<void> {
  if (await demoWasStored()) return;
  // The italic first, so that the roman stands above it as the newer one.
  for (const [id, file] of Object.entries(DEMOS).reverse()) {
    const response = await fetch(`/demo/${file}`);
    if (!response.ok) return;
    const read = await readProject(new File([await response.blob()], file));
    if ('faces' in read) return;
    if (!read.ok) throw new Error(read.reason);
    await storeProject(read.value.project, id);
  }
  await rememberDemo();
}

/** The projects in this browser, each by its name in its own letters. */
export function ProjectList() {
  const queries = useQueryClient();
  const projects = useQuery({ queryKey: ['library'], queryFn: listProjects });
  // What is there is shown at once; the demo is put beside it when it has come.
  const demo = useQuery({
    queryKey: ['demo'],
    queryFn: async () => {
      storingDemo ??= ensureDemo();
      await storingDemo;
      void queries.invalidateQueries({ queryKey: ['library'] });
      return true;
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  const onlyDemo = projects.data?.length !== 0 && projects.data?.every((p) => p.id in DEMOS);
  const [doomed, setDoomed] = useState<{ id: string; name: string } | undefined>();

  const remove = useMutation({
    mutationFn: binProject,
    onError: (error) => toast.error(error.message, { duration: 12_000 }),
    onSettled: () => {
      setDoomed(undefined);
      void queries.invalidateQueries({ queryKey: ['library'] });
    },
  });

  return (
    <>
      {demo.isError && <p className="text-brick">{demo.error.message}</p>}
      {demo.isPending && !projects.data?.some((p) => p.id === 'velmarrow') && (
        <div
          role="status"
          className="mb-2 flex items-center gap-4 rounded-xl border border-line bg-panel px-4 py-4 text-quiet"
        >
          <span className="text-[26px] font-light">Velmarrow Sans</span>
          <span className="ml-auto">The demo is being put here…</span>
        </div>
      )}
      {onlyDemo && (
        <p className="mb-2 text-quiet">
          Velmarrow Sans is the demo: a family of six masters, and the beginnings of its italic, to look around in and
          to change at will. What is yours stands beside it.
        </p>
      )}
      {projects.isError && <p className="text-brick">{projects.error.message}</p>}
      {projects.data?.length === 0 && !demo.isPending && (
        <p className="text-quiet">Nothing yet. Start a family or open a file.</p>
      )}
      <ul
        aria-label="Projects in this browser"
        className="divide-y divide-line rounded-xl border border-line bg-panel empty:hidden"
      >
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
      <Modal open={doomed !== undefined} onClose={() => setDoomed(undefined)} title={`Remove ${doomed?.name ?? ''}?`}>
        <p className="mb-4">It goes into the bin, its history too, and is kept there for 30 days.</p>
        <div className="flex justify-end gap-2">
          <Button onClick={() => setDoomed(undefined)}>Keep it</Button>
          <Button kind="danger" onClick={() => doomed && remove.mutate(doomed.id)}>
            Remove
          </Button>
        </div>
      </Modal>
    </>
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
