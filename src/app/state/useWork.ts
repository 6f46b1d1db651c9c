import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { filesWorker } from '../../workers/clients';

type Service = ReturnType<typeof filesWorker>['service'];
export type Progress = (done: number, total: number) => void;

/** A long job beside the pointer: how far it is (0 to 1, undefined when none runs), what it found, how to begin and to stop it. */
export function useWork<T>(): {
  share: number | undefined;
  found: T | undefined;
  start: (job: (service: Service, progress: Progress) => Promise<unknown>) => Promise<void>;
  stop: () => void;
  clear: () => void;
} {
  const [share, setShare] = useState<number>();
  const [found, setFound] = useState<T>();
  const worker = useRef<ReturnType<typeof filesWorker>>(undefined);
  const stop = () => {
    worker.current?.stop();
    worker.current = undefined;
    setShare(undefined);
  };
  const clear = () => {
    stop();
    setFound(undefined);
  };
  const start = async (job: (service: Service, progress: Progress) => Promise<unknown>) => {
    clear();
    setShare(0);
    const own = filesWorker();
    worker.current = own;
    const result = await job(
      own.service,
      proxy((done: number, total: number) => setShare((s) => (s === undefined ? s : done / total))),
    );
    if (worker.current !== own) return;
    stop();
    setFound(result as T);
  };
  useEffect(
    () => () => {
      worker.current?.stop();
    },
    [],
  );
  return { share, found, start, stop, clear };
}
