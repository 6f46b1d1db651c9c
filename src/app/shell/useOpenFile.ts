import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { storageSentence } from '../../browser/stores';
import { counted } from '../../core/base/notation';
import { plural } from '../../core/project/edit';
import { type FoundFolder, findFolder, openFolder } from '../state/home';
import { storeProject } from '../state/library';
import { readProject } from '../state/projectFiles';

/** A file that is opened as a new project: how far it is, the way to stop it, and what there is to ask or to tell. */
export function useOpenFile() {
  const navigate = useNavigate();
  const [progress, setProgress] = useState<string | undefined>();
  const [opened, setOpened] = useState<{ id: string; name: string; notes: readonly string[] } | undefined>();
  const [choice, setChoice] = useState<{ file: File; faces: readonly string[] } | undefined>();
  const stop = useRef<AbortController>(undefined);

  const open = useMutation({
    mutationFn: async ({ file, face }: { file: File; face?: number }) => {
      setProgress(`Opening ${file.name}…`);
      stop.current = new AbortController();
      const read = await readProject(file, {
        ...(face !== undefined && { face }),
        progress: (done, total) => setProgress(`Opening ${file.name}: ${counted(done)} of ${plural(total, 'glyph')}`),
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

  const [folder, setFolder] = useState<FoundFolder | undefined>();
  const openSource = useMutation({
    mutationFn: async ({ found, source }: { found: FoundFolder; source: string }) => {
      const label = source === '' ? found.handle.name : source;
      setProgress(`Opening ${label}…`);
      const read = await openFolder(found, source, (done, total) =>
        setProgress(`Opening ${label}: ${counted(done)} of ${plural(total, 'glyph')}`),
      );
      return { ...read, name: label };
    },
    onSuccess: ({ id, name, notes }) => {
      if (notes.length > 0) setOpened({ id, name, notes });
      else navigate(`/p/${id}/case`);
    },
    onError: (error) => toast.error(error.message, { duration: 12_000 }),
    onSettled: () => setProgress(undefined),
  });
  const lookInto = useMutation({
    mutationFn: findFolder,
    onSuccess: (found) => {
      if (found?.sources.length === 1) openSource.mutate({ found, source: found.sources[0]! });
      else setFolder(found);
    },
    onError: (error) => toast.error(error.message, { duration: 12_000 }),
  });

  return {
    openFolder: (dropped?: Promise<FileSystemDirectoryHandle>) => lookInto.mutate(dropped),
    folder,
    leaveFolder: () => setFolder(undefined),
    openSource: (source: string) => {
      if (folder) openSource.mutate({ found: folder, source });
      setFolder(undefined);
    },
    open: (file: File, face?: number) => {
      setChoice(undefined);
      open.mutate({ file, ...(face !== undefined && { face }) });
    },
    stop: () => stop.current?.abort(),
    progress,
    opened,
    toCase: () => opened && navigate(`/p/${opened.id}/case`),
    choice,
    leaveChoice: () => setChoice(undefined),
  };
}
