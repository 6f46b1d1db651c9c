import { useMutation } from '@tanstack/react-query';
import { proxy, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { DocumentService } from '../../workers/document';
import type { MeasureService } from '../../workers/measure';
import { type Follower, measurer } from './followers';

export type Progress = (done: number, total: number) => void;
type Job<S> = (service: Remote<S>, progress: Progress) => Promise<unknown>;

/**
 * A long job on the document, beside the pointer: how far it is (0 to 1, undefined when none runs), what it found, what went
 * wrong, how to begin it, to stop it and to forget what it found.
 */
export const useJob = <T>() => useJobOn<MeasureService, T>(measurer);

/** The same in another worker that follows the document. */
export function useJobOn<S extends DocumentService, T>(worker: Follower<S>) {
  const [share, setShare] = useState<number>();
  const running = useRef(0);
  const { mutateAsync, data, error, reset, isPending } = useMutation({
    mutationFn: async (job: Job<S>) => {
      setShare(0);
      const tell = proxy((done: number, total: number) => setShare((s) => (s === undefined ? s : done / total)));
      return (await job(await worker.synced(), tell)) as T;
    },
    onSettled: () => setShare(undefined),
  });
  /** Ends what runs; the worker is started anew when it is needed next. */
  const end = useCallback(() => {
    if (running.current === 0) return;
    running.current = 0;
    worker.stop();
  }, [worker]);
  useEffect(() => end, [end]);
  const stop = useCallback(() => {
    end();
    reset();
    setShare(undefined);
  }, [end, reset]);
  const start = useCallback(
    (job: Job<S>): void => {
      end();
      running.current++;
      mutateAsync(job)
        .catch(() => {})
        .finally(() => {
          running.current = Math.max(0, running.current - 1);
        });
    },
    [end, mutateAsync],
  );
  return {
    share: isPending ? (share ?? 0) : undefined,
    found: isPending ? undefined : data,
    fault: error && !/stopped/.test(error.message) ? error.message : undefined,
    start,
    stop,
    clear: stop,
  };
}
