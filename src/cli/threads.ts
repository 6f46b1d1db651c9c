import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';

/** Starts a thread that casts; what it does is told by its job. */
export const startThread = (job: { kind: string }): Worker =>
  new Worker(join(dirname(fileURLToPath(import.meta.url)), 'castThread.mjs'), {
    workerData: job,
    resourceLimits: { maxYoungGenerationSizeMb: 384 },
  });

/** The one thing that a thread sends; a thread that breaks off fails it. */
export const answerOf = <T>(job: { kind: string }): Promise<T> =>
  new Promise((resolve, reject) => {
    const thread = startThread(job);
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', (code) => reject(new Error(`A thread that cast ended with ${code}.`)));
  });
