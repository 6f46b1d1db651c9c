import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';

/** So many threads work at once where nothing else is asked: one processor is left to what the engine compiles meanwhile. */
export const usualJobs = (): number => Math.max(1, availableParallelism() - 1);

/** Starts a thread of the command, from the same kept code; what it does is told by its job. */
const startThread = (job: { kind: string }): Worker =>
  new Worker(join(dirname(fileURLToPath(import.meta.url)), '../bin/wendril.mjs'), {
    argv: ['cast'],
    workerData: job,
    resourceLimits: { maxYoungGenerationSizeMb: 384 },
  });

const broke = (code: number): Error => new Error(`A thread that cast ended with ${code}.`);

/** The one thing that a thread sends; a thread that breaks off fails it. */
export const answerOf = <T>(job: { kind: string }): Promise<T> =>
  new Promise((resolve, reject) => {
    const thread = startThread(job);
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', (code) => reject(broke(code)));
  });

/** Work in parts, of which every thread takes the next as long as there are any. */
export type SharedJob = { kind: string; count: number; next: SharedArrayBuffer };
type Tell<T> = (at: number, made: T) => void;

/** A count of parts of which none is taken yet. */
export const partsOf = (count: number) => ({ count, next: new SharedArrayBuffer(4) });

/** Makes one part after the other, as long as there are any that no other thread has taken. */
export async function takeParts<T>(job: SharedJob, make: (at: number) => Promise<T>, tell: Tell<T>): Promise<void> {
  const next = new Int32Array(job.next);
  for (let at = Atomics.add(next, 0, 1); at < job.count; at = Atomics.add(next, 0, 1)) {
    tell(at, await make(at));
    // What other threads have sent meanwhile is heard.
    await new Promise(setImmediate);
  }
}

/** Nothing of what is left is begun any more. */
export const leaveParts = (job: SharedJob): number => Atomics.store(new Int32Array(job.next), 0, job.count);

/**
 * What becomes of a job’s parts, in their order, made in so many threads; the thread of the command takes its share by `take`. Threads
 * end with the caller's interest.
 */
export async function* madeInThreads<T>(
  job: SharedJob,
  jobs: number,
  take: (tell: Tell<T>) => Promise<void>,
): AsyncGenerator<T> {
  const made = new Map<number, T>();
  let failure: Error | undefined;
  let wake = () => {};
  const tell = (at: number, one: T) => {
    made.set(at, one);
    wake();
  };
  const fail = (error: Error) => {
    failure = error;
    wake();
  };
  const threads = Array.from({ length: Math.min(jobs, job.count) - 1 }, () => startThread(job));
  for (const thread of threads) {
    thread.on('message', ([at, one]: [number, T]) => tell(at, one));
    thread.once('error', fail);
    thread.once('exit', (code) => code !== 0 && fail(broke(code)));
  }
  take(tell).catch(fail);
  try {
    for (let at = 0; at < job.count; at++) {
      while (!made.has(at)) {
        if (failure) throw failure;
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
      }
      yield made.get(at)!;
      made.delete(at);
    }
  } finally {
    leaveParts(job);
    for (const thread of threads) void thread.terminate();
  }
}
