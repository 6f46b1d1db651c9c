import { parentPort, workerData } from 'node:worker_threads';
import { type FontsJob, takeFonts } from './castJobs';
import { cleanPacked, type OutlinesJob } from './castOutlines';
import { type SourcesJob, takeSources } from './castSources';

/** What a thread of the command does: the job that it was started with. */
export async function workInThread(): Promise<void> {
  const job = workerData as FontsJob | SourcesJob | OutlinesJob;
  const tell = (at: number, made: unknown) => parentPort!.postMessage([at, made]);
  if (job.kind === 'sources') await takeSources(job, tell);
  else if (job.kind === 'fonts') await takeFonts(job, tell);
  else parentPort!.postMessage(cleanPacked(job));
}
