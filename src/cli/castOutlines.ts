import { cleanedOf, keepCleaned, outlinesToClean } from '../core/casting/cleaned';
import type { Contour } from '../core/geometry/contour';
import { removeOverlaps } from '../core/geometry/overlaps';
import { type PackedContours, packContours, unpackContours } from '../core/geometry/packedContours';
import type { MasterId, Project } from '../core/project/model';
import { answerOf, usualJobs } from './threads';

/** Outlines whose overlaps a thread removes. */
export type OutlinesJob = { kind: 'outlines'; packed: PackedContours };
/** What became of them: those that changed, by their numbers, and which of these could not be put together. */
type Cleaned = { changed: number[]; packed: PackedContours; failed: number[] };

/** Fewer points than this are not worth a thread, which takes a tenth of a second to begin. */
const WORTH_POINTS = 60_000;

/** What a thread does with the outlines that it is given. */
export function cleanPacked({ packed }: OutlinesJob): Cleaned {
  const changed: number[] = [];
  const failed: number[] = [];
  const lists: (readonly Contour[])[] = [];
  unpackContours(packed).forEach((contours, i) => {
    const result = removeOverlaps(contours);
    if (result.failed) failed.push(i);
    if (!result.changed) return;
    changed.push(i);
    lists.push(result.contours);
  });
  return { changed, packed: packContours(lists), failed };
}

/**
 * Removes the overlaps of a master’s drawings in several threads, ahead of casting, which then finds them done. Nothing is done
 * where there are too few to be worth it.
 */
export async function cleanInThreads(project: Project, master: MasterId, jobs = usualJobs()): Promise<void> {
  if (jobs < 2) return;
  const outlines = outlinesToClean(project, master);
  const points = outlines.reduce((sum, list) => sum + list.reduce((n, c) => n + c.points.length, 0), 0);
  if (points < WORTH_POINTS) return;
  // Every so many go to one thread, so that heavy ones, which stand together, are spread.
  const shares = Array.from({ length: jobs }, (_, k) => outlines.filter((_, i) => i % jobs === k));
  const [own, ...others] = shares;
  const answers = others.map((share) =>
    answerOf<Cleaned>({ kind: 'outlines', packed: packContours(share) } as OutlinesJob),
  );
  for (const outline of own!) cleanedOf(outline);
  (await Promise.all(answers)).forEach(({ changed, packed, failed }, k) => {
    const lists = unpackContours(packed);
    const results = new Map(changed.map((at, i) => [at, lists[i]!]));
    others[k]!.forEach((outline, i) => {
      const contours = results.get(i);
      keepCleaned(outline, {
        contours: contours ?? outline,
        changed: contours !== undefined,
        failed: failed.includes(i),
      });
    });
  });
}
