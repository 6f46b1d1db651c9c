import { availableParallelism } from 'node:os';
import { RefusalError } from '../core/base/result';
import type { Format } from '../core/casting/outputs';
import type { MadeFile } from './castJobs';
import { type CastValues, castSource } from './castSource';
import { startThread } from './threads';

/** What a thread that casts sources is told: which there are, and where the number of the next one is counted. */
export type SourcesJob = {
  kind: 'sources';
  sources: readonly string[];
  next: SharedArrayBuffer;
  values: CastValues;
  formats: readonly Format[];
};
/** What becomes of a source: its fonts, or why there are none. */
export type CastSource = { files: MadeFile[]; notes: string[] } | { reason: string };

async function tryToCast(source: string, { values, formats }: SourcesJob): Promise<CastSource> {
  try {
    return await castSource(source, values, formats, { jobs: 1, progress: () => {} });
  } catch (error) {
    if (error instanceof RefusalError) return { reason: error.message };
    throw error;
  }
}

/** Casts one source after the other, as long as there are any that no other thread has taken. */
export async function takeSources(job: SourcesJob, tell: (at: number, made: CastSource) => void): Promise<void> {
  const next = new Int32Array(job.next);
  for (let at = Atomics.add(next, 0, 1); at < job.sources.length; at = Atomics.add(next, 0, 1)) {
    tell(at, await tryToCast(job.sources[at]!, job));
    // What other threads have sent meanwhile is heard.
    await new Promise(setImmediate);
  }
}

/** The fonts of several sources in their order, made side by side; the thread of the command takes its share. */
export async function* castSources(
  sources: readonly string[],
  { jobs = availableParallelism(), ...how }: Pick<SourcesJob, 'values' | 'formats'> & { jobs: number | undefined },
): AsyncGenerator<{ source: string } & CastSource> {
  const job: SourcesJob = { kind: 'sources', sources, next: new SharedArrayBuffer(4), ...how };
  const made = new Map<number, CastSource>();
  let failure: Error | undefined;
  let wake = () => {};
  const tell = (at: number, one: CastSource) => {
    made.set(at, one);
    wake();
  };
  const fail = (error: Error) => {
    failure = error;
    wake();
  };
  const threads = Array.from({ length: Math.min(jobs, sources.length) - 1 }, () => startThread(job));
  for (const thread of threads) {
    thread.on('message', ([at, one]: [number, CastSource]) => tell(at, one));
    thread.once('error', fail);
    thread.once('exit', (code) => code !== 0 && fail(new Error(`A thread that cast ended with ${code}.`)));
  }
  takeSources(job, tell).catch(fail);
  try {
    for (const [at, source] of sources.entries()) {
      while (!made.has(at)) {
        if (failure) throw failure;
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
      }
      yield { source, ...made.get(at)! };
      made.delete(at);
    }
  } finally {
    for (const thread of threads) void thread.terminate();
  }
}
