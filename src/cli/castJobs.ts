import { type Result, success } from '../core/base/result';
import { CastCache } from '../core/casting/cache';
import { castOutputs, type OutputFile, type OutputOptions, plannedFiles } from '../core/casting/outputs';
import { distinctThings } from '../core/casting/things';
import type { Project } from '../core/project/model';
import { cleanInThreads } from './castOutlines';
import { leaveParts, madeInThreads, partsOf, type SharedJob, takeParts, usualJobs } from './threads';

/** A file that was made, as the command line tells of it. */
export type MadeFile = {
  fileName: string;
  format: string;
  bytes: Uint8Array;
  glyphs: number;
  kerningPairs: number;
  notes: readonly string[];
};
type Choice = Pick<OutputOptions, 'formats' | 'things' | 'terms'>;
/** What a thread that casts fonts is told. */
export type FontsJob = SharedJob & { kind: 'fonts'; project: Project; choice: Choice };

/** Fewer fonts than this are made one after the other unless asked otherwise: a thread has to begin, too. */
const WORTH_THREADS = 4;

export const madeFile = ({ fileName, format, bytes, font, said }: OutputFile): MadeFile => ({
  fileName,
  format,
  bytes,
  glyphs: font.glyphIds.length,
  kerningPairs: font.kerningPairs,
  notes: [...font.notes.map((n) => n.reason), ...said],
});

const cast = async (project: Project, options: OutputOptions): Promise<Result<MadeFile[]>> => {
  const made = await castOutputs(project, options);
  return made.ok ? success(made.value.map(madeFile)) : made;
};

/** Casts one font after the other in all its formats; of a refusal the rest need not be made. */
export function takeFonts(job: FontsJob, tell: (at: number, made: Result<MadeFile[]>) => void): Promise<void> {
  const cache = new CastCache();
  const { project, choice } = job;
  return takeParts(
    job,
    (at) => cast(project, { ...choice, things: [choice.things[at]!], cache }),
    (at, made) => {
      if (!made.ok) leaveParts(job);
      tell(at, made);
    },
  );
}

type HowCast = {
  jobs: number | undefined;
  progress: (done: number, total: number) => void;
  /** What was made before, for a project that is cast again and again: masters are then made one after the other, from what is kept. */
  cache?: CastCache;
};

/** Every font of a choice, several at once in threads of their own; the files and their order are the same however many. */
export async function castInJobs(
  project: Project,
  choice: Choice,
  { jobs, progress, cache }: HowCast,
): Promise<Result<MadeFile[]>> {
  const things = distinctThings(project, choice.things);
  const few = things.length < WORTH_THREADS || (cache !== undefined && things.every((t) => 'master' in t));
  const threads = Math.min(things.length, jobs ?? (few ? 1 : usualJobs()));
  if (threads <= 1) {
    // One font is too many glyphs for one thread, where overlaps are removed.
    if (choice.terms?.keepOverlaps !== true)
      for (const thing of things) if ('master' in thing) await cleanInThreads(project, thing.master, jobs);
    return cast(project, { ...choice, progress, ...(cache && { cache }) });
  }
  const names = await plannedFiles(project, choice);
  if (!names.ok) return names;
  const job: FontsJob = { kind: 'fonts', project, choice: { ...choice, things }, ...partsOf(things.length) };
  const files: MadeFile[] = [];
  let done = 0;
  for await (const made of madeInThreads<Result<MadeFile[]>>(job, threads, (tell) => takeFonts(job, tell))) {
    if (!made.ok) return made;
    files.push(...made.value);
    progress(++done, things.length);
  }
  return success(files.sort((a, b) => names.value.indexOf(a.fileName) - names.value.indexOf(b.fileName)));
}
