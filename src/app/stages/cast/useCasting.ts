import { useMutation } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Format } from '../../../core/casting/outputs';
import { noteCast } from '../../../core/project/changes';
import type { Project } from '../../../core/project/model';
import { filesWorker } from '../../../workers/clients';
import type { CastFile } from '../../../workers/files';
import { runAside, useBench } from '../../state/bench';

export type CastChoice = { formats: Format[]; masters: string[]; keepOverlaps: boolean; blanks: boolean };

/** Casting in a worker of its own, told as it goes, stopped when the page is left. */
export function useCasting(project: Project) {
  const [progress, setProgress] = useState<string | undefined>();
  const stop = useRef<() => void>(() => {});
  useEffect(() => () => stop.current(), []);

  const cast = useMutation({
    mutationFn: async (choice: CastChoice) => {
      const made = project;
      const began = Date.now();
      const { service, stop: end } = filesWorker();
      let cancel: () => void = () => {};
      const cancelled = new Promise<never>((_, reject) => {
        cancel = () => reject(new Error('Casting was cancelled; nothing was made.'));
      });
      stop.current = () => {
        end();
        cancel();
      };
      try {
        const tell = (done: number, total: number, now: string) =>
          setProgress(total === done ? undefined : `${done + 1} of ${total}: ${now}`);
        const result = await Promise.race([service.cast(made, choice, proxy(tell)), cancelled]);
        if (!result.ok) throw new Error(result.reason);
        const isSame = useBench.getState().settled === made;
        runAside((p) => noteCast(p, { at: began }));
        // The note of the cast is no change that makes the files old.
        const from = isSame ? (useBench.getState().settled ?? made) : made;
        return { files: result.value as CastFile[], from };
      } finally {
        end();
        setProgress(undefined);
      }
    },
  });
  return { cast, progress, cancel: () => stop.current() };
}
