import { isMainThread } from 'node:worker_threads';
import { call } from './call';
import { endProgress } from './progress';
import { leaveNothingHalf } from './writing';

// Who reads along may have had enough (`| head`): nobody is left to be told anything.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error;
  leaveNothingHalf();
  process.exit();
});

// Stopped by hand: what is half written goes, what was there stays.
process.once('SIGINT', () => {
  endProgress();
  leaveNothingHalf();
  process.exit(130);
});

if (isMainThread) void call(process.argv.slice(2));
else void import('./castThread').then(({ workInThread }) => workInThread());
