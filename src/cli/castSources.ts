import { RefusalError } from '../core/base/result';
import type { Format } from '../core/casting/outputs';
import type { MadeFile } from './castJobs';
import { type CastValues, castSource } from './castSource';
import { madeInThreads, partsOf, type SharedJob, takeParts, usualJobs } from './threads';

/** What a thread that casts sources is told. */
export type SourcesJob = SharedJob & {
  kind: 'sources';
  sources: readonly string[];
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

/** Casts one source after the other. */
export const takeSources = (job: SourcesJob, tell: (at: number, made: CastSource) => void): Promise<void> =>
  takeParts(job, (at) => tryToCast(job.sources[at]!, job), tell);

/** The fonts of several sources in their order, made side by side. */
export async function* castSources(
  sources: readonly string[],
  { jobs = usualJobs(), ...how }: Pick<SourcesJob, 'values' | 'formats'> & { jobs: number | undefined },
): AsyncGenerator<{ source: string } & CastSource> {
  const job: SourcesJob = { kind: 'sources', sources, ...partsOf(sources.length), ...how };
  let at = 0;
  for await (const made of madeInThreads<CastSource>(job, jobs, (tell) => takeSources(job, tell)))
    yield { source: sources[at++]!, ...made };
}
