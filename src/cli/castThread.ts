import { parentPort, workerData } from 'node:worker_threads';
import { type CastJob, castOne } from './castJobs';
import { cleanPacked, type OutlinesJob } from './castOutlines';
import { type SourcesJob, takeSources } from './castSources';

const job = workerData as CastJob | SourcesJob | OutlinesJob;
if (job.kind === 'sources') await takeSources(job, (at, made) => parentPort!.postMessage([at, made]));
else if (job.kind === 'outlines') parentPort!.postMessage(cleanPacked(job));
else parentPort!.postMessage(await castOne(job));
