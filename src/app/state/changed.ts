import { useQuery } from '@tanstack/react-query';
import { entriesSince, glyphsTouched } from '../../core/project/changes';
import { entriesOf, useBench } from './bench';

/** Since when changes are asked for. */
export type Since = 'today' | 'yesterday' | 'cast' | `day:${string}`;

/** The beginning of a day here, so many days ago, in milliseconds since 1970. */
function startOfDay(daysAgo: number): number {
  const day = new Date();
  day.setHours(0, 0, 0, 0);
  day.setDate(day.getDate() - daysAgo);
  return day.getTime();
}

function timeOf(since: Since, castAt: number | undefined): number {
  if (since === 'today') return startOfDay(0);
  if (since === 'yesterday') return startOfDay(1);
  if (since === 'cast') return castAt ?? 0;
  const day = new Date(`${since.slice(4)}T00:00:00`).getTime();
  return Number.isNaN(day) ? startOfDay(0) : day;
}

/** Entries are read from storage so many at a time. */
const AT_ONCE = 200;

/** Ids of glyphs that changed since a time, from the history; undefined while it is read or nothing is asked. */
export function useChanged(since: Since | undefined): ReadonlySet<string> | undefined {
  const position = useBench((s) => s.history.position);
  const castAt = useBench((s) => s.settled?.settings.castAt);
  const id = useBench((s) => s.projectId);
  const { data } = useQuery({
    queryKey: ['changed', id, since, castAt, position],
    enabled: since !== undefined,
    placeholderData: (before) => before,
    queryFn: async () => {
      const { history } = useBench.getState();
      const time = timeOf(since!, castAt);
      const touched = new Set<string>();
      const take = (entries: Parameters<typeof entriesSince>[0]): boolean => {
        const { found, all } = entriesSince(entries, time);
        for (const glyph of glyphsTouched(found)) touched.add(glyph);
        return all;
      };
      let more = take(history.done);
      let to = history.position - history.done.length;
      while (more && to >= history.first) {
        const from = Math.max(history.first, to - AT_ONCE + 1);
        more = take(await entriesOf(from, to));
        to = from - 1;
      }
      return touched;
    },
  });
  return since === undefined ? undefined : data;
}
