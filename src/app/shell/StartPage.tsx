import { FolderOpen, FolderTree, type LucideIcon, Plus, ScanLine, Tag } from 'lucide-react';
import { type DragEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Toaster } from 'sonner';
import { droppedFolder, opensFolders } from '../../browser/folders';
import { FileInput } from '../ui/FileInput';
import { Bin } from './Bin';
import { NewFamily } from './NewFamily';
import { OpenFileDialogs } from './OpenFileDialogs';
import { ProjectList } from './ProjectList';
import { Unkept } from './Unkept';
import { useOpenFile } from './useOpenFile';

/** The projects in this browser; a new one; a file opened by dialog or drop. */
export function StartPage() {
  const [making, setMaking] = useState<'plan' | 'sheet'>();
  const navigate = useNavigate();
  const opening = useOpenFile();
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    document.title = 'Wendril';
  }, []);

  const drop = (e: DragEvent) => {
    e.preventDefault();
    const folder = droppedFolder(e.dataTransfer);
    const file = e.dataTransfer.files[0];
    if (folder) opening.openFolder(folder);
    else if (file) opening.open(file);
  };

  return (
    <main className="h-full overflow-auto" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Toaster position="bottom-center" style={{ fontFamily: 'inherit' }} />
      <Unkept />
      <div className="mx-auto max-w-[840px] px-8 pt-[9vh] pb-16">
        <header className="mb-10 flex items-end gap-4">
          <img src="/mark.svg" alt="" className="size-12" />
          <div>
            <h1 className="text-[32px] leading-9 font-semibold tracking-tight">Wendril</h1>
            <p className="text-[15px] text-quiet">A type foundry in this tab: draw, space and cast fonts.</p>
          </div>
        </header>
        <ul className="mb-3 grid grid-cols-1 gap-2.5 min-[640px]:grid-cols-2" aria-label="Ways to begin">
          <Door icon={Plus} title="New family" onOpen={() => setMaking('plan')}>
            Draw letters of your own, from a name and five lines on.
          </Door>
          <Door icon={ScanLine} title="From lettering on paper" onOpen={() => setMaking('sheet')}>
            Scan or photograph a sheet; its letters go to their glyphs.
          </Door>
          <Door icon={FolderOpen} title="Open a file" onOpen={() => input.current?.click()}>
            A project, a font of any kind, a .ufoz, a zip with a designspace, an SVG letter; or drop one here.
          </Door>
          {opensFolders() && (
            <Door icon={FolderTree} title="Open a folder" onOpen={() => opening.openFolder()}>
              A UFO, or a designspace with its UFOs, as version control keeps it; what you change goes back into it.
            </Door>
          )}
          <Door icon={Tag} title="Names of finished fonts" onOpen={() => void navigate('/names')}>
            Families that fall apart in menus, put right, outlines untouched.
          </Door>
        </ul>
        <FileInput ref={input} name="open-file" onFiles={([file]) => opening.open(file)} />
        {opening.progress && (
          <div className="mb-4 flex items-center justify-between rounded-lg bg-kelp-tint px-3 py-2 text-kelp">
            <p role="status">{opening.progress}</p>
            <button type="button" className="font-semibold hover:underline" onClick={opening.stop}>
              Stop
            </button>
          </div>
        )}
        <h2 className="mt-7 mb-2 text-[15px] font-semibold">In this browser</h2>
        <ProjectList />
        <Bin />
      </div>
      <NewFamily open={making !== undefined} then={making ?? 'plan'} onClose={() => setMaking(undefined)} />
      <OpenFileDialogs {...opening} />
    </main>
  );
}

/** A way to begin, with what it is for. */
function Door({
  icon: Icon,
  title,
  children,
  onOpen,
}: {
  icon: LucideIcon;
  title: string;
  children: ReactNode;
  onOpen: () => void;
}) {
  return (
    <li className="min-[640px]:odd:last:col-span-2">
      <button
        type="button"
        aria-label={title}
        className="flex h-full w-full items-start gap-3 rounded-xl border border-edge bg-panel px-4 py-3 text-left hover:border-kelp hover:bg-kelp-tint"
        onClick={onOpen}
      >
        <Icon size={20} className="mt-0.5 shrink-0 text-kelp" />
        <span>
          <span className="block text-[15px] font-semibold">{title}</span>
          <span className="block text-quiet">{children}</span>
        </span>
      </button>
    </li>
  );
}
