import { parentPort, workerData } from 'node:worker_threads';
import { type CastJob, castOne } from './castJobs';

parentPort!.postMessage(await castOne(workerData as CastJob));
