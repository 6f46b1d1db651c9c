import { useMutation } from '@tanstack/react-query';
import { proxy, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { MeasureService } from '../../workers/measure';
import { measurer } from './followers';

export type Progress = (done: number, total: number) => void;
type Job = (service: Remote<MeasureService>, progress: Progress) => Promise<unknown>;

/**
 * A long job on the document, beside the pointer: how far it is (0 to 1, undefined when none runs), what it found, what went
 * wrong, how to begin it, to stop it and to forget what it found.
 */
export function useJob<T>() {
  const [share, setShare] = useState<number>();
  const running = useRef(0);
  const { mutateAsync, data, error, reset, isPending } = useMutation({
    mutationFn: async (job: Job) => {
      setShare(0);
      const tell = proxy((done: number, total: number) => setShare((s) => (s === undefined ? s : done / total)));
      return (await job(await measurer.synced(), tell)) as T;
    },
    onSettled: () => setShare(undefined),
  });
  /** Ends what runs; the worker is started anew when it is needed next. */
  const end = useCallback(() => {
    if (running.current === 0) return;
    running.current = 0;
    measurer.stop();
  }, []);
  useEffect(() => end, [end]);
  const stop = useCallback(() => {
    end();
    reset();
    setShare(undefined);
  }, [end, reset]);
  const start = useCallback(
    (job: Job): void => {
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
