import { FolderOpen, Plus, Tag } from 'lucide-react';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Toaster } from 'sonner';
import { Button } from '../ui/parts';
import { Bin } from './Bin';
import { NewFamily } from './NewFamily';
import { OpenFileDialogs } from './OpenFileDialogs';
import { ProjectList } from './ProjectList';
import { useOpenFile } from './useOpenFile';

/** The projects in this browser; a new one; a file opened by dialog or drop. */
export function StartPage() {
  const [making, setMaking] = useState(false);
  const opening = useOpenFile();
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    document.title = 'Wendril';
  }, []);

  const drop = (e: DragEvent) => {
    e.preventDefault();
    const file = e.dataTransfer.files[0];
    if (file) opening.open(file);
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
              if (file) opening.open(file);
              e.target.value = '';
            }}
          />
        </div>
        {opening.progress && (
          <div className="mb-4 flex items-center justify-between rounded-lg bg-kelp-tint px-3 py-2 text-kelp">
            <p role="status">{opening.progress}</p>
            <button type="button" className="font-semibold hover:underline" onClick={opening.stop}>
              Stop
            </button>
          </div>
        )}
        <h2 className="mb-2 text-[15px] font-semibold">In this browser</h2>
        <ProjectList />
        <Bin />
      </div>
      <NewFamily open={making} onClose={() => setMaking(false)} />
      <OpenFileDialogs {...opening} />
    </main>
  );
}
