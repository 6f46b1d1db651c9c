import { availableParallelism } from 'node:os';
import { type Result, success } from '../core/base/result';
import type { CastCache } from '../core/casting/cache';
import { castOutputs, type OutputFile, type OutputOptions, plannedFiles } from '../core/casting/outputs';
import { distinctThings } from '../core/casting/things';
import type { Project } from '../core/project/model';
import { cleanInThreads } from './castOutlines';
import { answerOf } from './threads';

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
export type CastJob = { kind: 'fonts'; project: Project; choice: Choice };

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

/** What a thread is given, made: the files of a part of the fonts. */
export async function castOne({ project, choice }: CastJob): Promise<Result<MadeFile[]>> {
  const made = await castOutputs(project, choice);
  return made.ok ? success(made.value.map(madeFile)) : made;
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
  const threads = Math.min(things.length, jobs ?? (few ? 1 : availableParallelism()));
  if (threads <= 1) {
    // One font is too many glyphs for one thread, where overlaps are removed.
    if (choice.terms?.keepOverlaps !== true)
      for (const thing of things) if ('master' in thing) await cleanInThreads(project, thing.master, jobs);
    const made = await castOutputs(project, { ...choice, progress, ...(cache && { cache }) });
    return made.ok ? success(made.value.map(madeFile)) : made;
  }
  const names = await plannedFiles(project, choice);
  if (!names.ok) return names;
  const made: Result<MadeFile[]>[] = [];
  let next = 0;
  let done = 0;
  const work = async () => {
    for (let i = next++; i < things.length; i = next++) {
      made[i] = await answerOf<Result<MadeFile[]>>({
        kind: 'fonts',
        project,
        choice: { ...choice, things: [things[i]!] },
      } as CastJob);
      progress(++done, things.length);
      // Of a refusal the rest need not be made.
      if (!made[i]!.ok) next = things.length;
    }
  };
  await Promise.all(Array.from({ length: threads }, work));
  const fault = made.find((m) => m && !m.ok);
  if (fault) return fault;
  const files = made.flatMap((m) => (m.ok ? m.value : []));
  return success(files.sort((a, b) => names.value.indexOf(a.fileName) - names.value.indexOf(b.fileName)));
}
