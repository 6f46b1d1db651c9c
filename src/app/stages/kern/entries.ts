import { useEffect, useMemo, useRef } from 'react';
import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Collision, Hole } from '../../../core/kerning/collisions';
import { pairsLeft } from '../../../core/kerning/edits';
import { kerningQueue, stepOf, textGlyphs } from '../../../core/kerning/proposal';
import { kerningOf, membersOf } from '../../../core/project/kerningLookup';
import type { Project } from '../../../core/project/model';
import { pairKey, pairSides } from '../../../core/project/pairs';
import { drawingOf, isEmptyDrawing, masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useWork } from '../../state/useWork';
import { type Pair, signed, useKernBench, type Wrong } from './kernBench';

/** A pair in the list: what it is called, what is said beside it. */
export type Entry = { key: string; label: string; note: string; pair: Pair };

/** A pair that strays less than this, in units, is not worth a look. */
const WORTH = 8;

/** What the list holds in the present mode. */
export function useEntries(found: readonly (Collision | Hole)[]): readonly Entry[] {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { mode, line, fromGalley, order, showLeft } = useKernBench();
  const { glyphs, groups, texts } = project;
  const { lib } = project;
  const step = stepOf(project);
  const left = useMemo(() => pairsLeft({ lib }), [lib]);
  // The queue's order is that of the shapes; a value that has become even takes its pair out, wherever it stands.
  const latest = useRef(project);
  latest.current = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a queue is made of shapes and groups, not of the values it changes.
  const queue = useMemo(
    () => (mode === 'queue' ? kerningQueue(latest.current, masterId, left, step, WORTH) : []),
    [mode, masterId, glyphs, groups, left, step],
  );
  return useMemo(() => {
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
                note: signed(valueNow({ first, second })),
                pair: { first, second },
              },
            ]
          : [];
      });
    if (mode === 'queue')
      return queue
        .map((q) => ({ q, now: valueNow(q) }))
        .filter(({ q, now }) => Math.abs(q.proposed - now) >= WORTH)
        .map(
          ({ q, now }): Entry => ({
            key: pairKey(...q.sides),
            label: `${name(q.first)} ${name(q.second)}`,
            note: `${signed(now)} → ${signed(q.proposed)}`,
            pair: { first: q.first, second: q.second },
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
        return { key: `${i}`, label: `${name(pair.first)} ${name(second)}`, note: signed(valueNow(pair)), pair };
      });
    }
    if (mode === 'pairs') return order.map((pair, i): Entry => ({ key: `${i}`, label: '', note: '', pair }));
    return [];
  }, [project, masterId, mode, line, fromGalley, order, showLeft, left, queue, texts, found]);
}

/** The line of the word list that is stepped through, or the galley's text. */
export const lineShown = (texts: Project['texts'], line: number, fromGalley: boolean): string =>
  (fromGalley ? undefined : texts.pairs[line]) ?? texts.galley;

/** Distance, in units, below which a pair is shown as touching, and above which it is a hole. */
export const NEAR = 12;
export const OPEN = 25;

/** Pairs of letters, figures and punctuation that come too near, or leave a hole; looked for beside the pointer while the list is open. */
export function useWrong(
  open: boolean,
  wrong: Wrong,
): { found: readonly (Collision | Hole)[]; share: number | undefined } {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const { share, found, start, stop } = useWork<readonly (Collision | Hole)[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a job is begun anew for what it is about.
  useEffect(() => {
    if (!open) return;
    const glyphs = textGlyphs(project);
    void start((service, progress) =>
      wrong === 'touch'
        ? service.collisions(project, master, glyphs, NEAR, progress)
        : service.holes(project, master, glyphs, OPEN, progress),
    );
    return stop;
  }, [open, wrong, project, master]);
  return { found: found ?? [], share };
}
