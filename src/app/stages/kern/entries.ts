import { useEffect, useMemo } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Collision, Hole } from '../../../core/kerning/collisions';
import { pairsLeft } from '../../../core/kerning/edits';
import type { QueuedPair } from '../../../core/kerning/queue';
import { textGlyphs } from '../../../core/kerning/text';
import { kerningUnits, stepOf } from '../../../core/kerning/units';
import { kerningOf, membersOf } from '../../../core/project/kerningLookup';
import type { Project } from '../../../core/project/model';
import { pairKey, pairSides } from '../../../core/project/pairs';
import { drawingOf, isEmptyDrawing, masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { useMeasured } from '../../state/workedOut';
import { type Pair, useKernBench, type Wrong } from './kernBench';

/** A pair in the list: what it is called, what is said beside it. */
export type Entry = {
  key: string;
  label: string;
  note: string;
  pair: Pair;
  /** What the queue says would be even. */
  even?: number;
};

const NONE: readonly QueuedPair[] = [];

/** The queue of pairs worth a look, made beside the pointer: of shapes, groups and what was left, not of the values it changes. */
function useQueue(open: boolean): { queue: readonly QueuedPair[]; looking: boolean } {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const step = stepOf(project);
  const worth = kerningUnits(project, 'worth');
  const { data, isFetching } = useMeasured<QueuedPair[]>(
    'kerning queue',
    { same: [master], by: [step, worth, project.glyphs, project.groups, project.lib], asked: open },
    (s) => s.kerningQueue(master, step, worth),
  );
  return { queue: data ?? NONE, looking: isFetching && !data };
}

/** What the list holds in the present mode. */
export function useEntries(found: readonly (Collision | Hole)[]): { entries: readonly Entry[]; looking: boolean } {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { mode, line, fromGalley, order, showLeft } = useKernBench();
  const { lib, texts } = project;
  const left = useMemo(() => pairsLeft({ lib }), [lib]);
  const { queue, looking } = useQueue(mode === 'queue');
  const worth = kerningUnits(project, 'worth');
  const entries = useMemo((): readonly Entry[] => {
    const master = masterOf(project, masterId)!;
    const name = (id: string) => project.glyphs[id]?.name ?? 'missing';
    const valueNow = (p: Pair) => kerningOf(project, master, p.first, p.second)?.value ?? 0;
    if (mode === 'queue' && showLeft)
      return [...left].flatMap((key): Entry[] => {
        const [first, second] = (pairSides(key) ?? []).map((s) => membersOf(project, s)[0]);
        return first && second
          ? [
              {
                key,
                label: `${name(first)} ${name(second)}`,
                note: shownNumber(valueNow({ first, second })),
                pair: { first, second },
              },
            ]
          : [];
      });
    if (mode === 'queue')
      return queue
        .map((q) => ({ q, now: valueNow(q) }))
        .filter(({ q, now }) => Math.abs(q.proposed - now) >= worth)
        .map(
          ({ q, now }): Entry => ({
            key: pairKey(...q.sides),
            label: `${name(q.first)} ${name(q.second)}`,
            note: `${shownNumber(now)} → ${shownNumber(q.proposed)}`,
            pair: { first: q.first, second: q.second },
            even: q.proposed,
          }),
        );
    if (mode === 'wrong')
      return found.map(
        (c): Entry => ({
          key: `${c.first} ${c.second}`,
          label: `${name(c.first)} ${name(c.second)}`,
          note: 'tooOpen' in c ? `${c.tooOpen} too open` : c.distance <= 0 ? 'touch' : `${c.distance} apart`,
          pair: { first: c.first, second: c.second },
        }),
      );
    if (mode === 'words') {
      const ids = glyphsOfLine(project, lineShown(texts, line, fromGalley)).glyphs;
      const drawn = (id: string) => !isEmptyDrawing(drawingOf(project.glyphs[id]!, masterId));
      return ids.slice(1).flatMap((second, i): Entry | [] => {
        const pair = { first: ids[i]!, second };
        if (!drawn(pair.first) || !drawn(second)) return [];
        return { key: `${i}`, label: `${name(pair.first)} ${name(second)}`, note: shownNumber(valueNow(pair)), pair };
      });
    }
    if (mode === 'pairs') return order.map((pair, i): Entry => ({ key: `${i}`, label: '', note: '', pair }));
    return [];
  }, [project, masterId, mode, line, fromGalley, order, showLeft, left, queue, texts, found, worth]);
  return { entries, looking };
}

/** The next line from one on, upwards or downwards, that has a pair of drawn glyphs; undefined when none has. */
export function lineWithPairs(project: Project, master: string, from: number, by: number): number | undefined {
  const drawn = (id: string) => !isEmptyDrawing(drawingOf(project.glyphs[id]!, master));
  for (let i = from; i >= 0 && i < project.texts.pairs.length; i += by) {
    const ids = glyphsOfLine(project, project.texts.pairs[i]!).glyphs;
    if (ids.some((id, k) => k > 0 && drawn(id) && drawn(ids[k - 1]!))) return i;
  }
  return undefined;
}

/** The line of the word list that is stepped through, or the galley's text. */
export const lineShown = (texts: Project['texts'], line: number, fromGalley: boolean): string =>
  (fromGalley ? undefined : texts.pairs[line]) ?? texts.galley;

/** Pairs of letters, figures and punctuation that come too near, or leave a hole; looked for beside the pointer while the list is open. */
export function useWrong(
  open: boolean,
  wrong: Wrong,
): { found: readonly (Collision | Hole)[]; share: number | undefined; unlooked: boolean } {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const { share, found, start, stop } = useJob<readonly (Collision | Hole)[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a job is begun anew for what it is about.
  useEffect(() => {
    if (!open) return;
    const glyphs = textGlyphs(project);
    start((service, progress) =>
      wrong === 'touch'
        ? service.collisions(master, glyphs, kerningUnits(project, 'near'), progress)
        : service.holes(master, glyphs, kerningUnits(project, 'open'), progress),
    );
    return stop;
  }, [open, wrong, project, master]);
  // Before the first look has begun nothing can be said.
  return { found: found ?? [], share, unlooked: open && found === undefined };
}
