import { proxy } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Collision } from '../../../core/kerning/collisions';
import { pairsLeft } from '../../../core/kerning/edits';
import { kerningOf, membersOf, sideName } from '../../../core/kerning/lookup';
import { pairKey, pairSides } from '../../../core/kerning/pairs';
import { kerningQueue, textGlyphs } from '../../../core/kerning/proposal';
import { masterOf } from '../../../core/project/queries';
import { filesWorker } from '../../../workers/clients';
import { useBench } from '../../state/bench';
import { type Pair, STEP, signed, useKernBench } from './kernBench';

/** A pair in the list: what it is called, what is said beside it. */
export type Entry = { key: string; label: string; note: string; pair: Pair };

/** A pair that strays less than this, in units, is not worth a look. */
const WORTH = 8;

/** What the list holds in the present mode. */
export function useEntries(filter: string, touching: readonly Collision[]): readonly Entry[] {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { mode, line } = useKernBench();
  const { glyphs, groups, texts } = project;
  const { lib } = project;
  const left = useMemo(() => pairsLeft({ lib }), [lib]);
  // The queue's order is that of the shapes; a value that has become even takes its pair out, wherever it stands.
  const latest = useRef(project);
  latest.current = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a queue is made of shapes and groups, not of the values it changes.
  const queue = useMemo(() => (mode === 'queue' ? kerningQueue(latest.current, masterId, left, STEP, WORTH) : []), [mode, masterId, glyphs, groups, left]);
  return useMemo(() => {
    const master = masterOf(project, masterId)!;
    const name = (id: string) => project.glyphs[id]?.name ?? 'missing';
    const valueNow = (p: Pair) => kerningOf(project, master, p.first, p.second)?.value ?? 0;
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
    if (mode === 'touch')
      return touching.map(
        (c): Entry => ({
          key: `${c.first} ${c.second}`,
          label: `${name(c.first)} ${name(c.second)}`,
          note: c.distance <= 0 ? 'touch' : `${c.distance} apart`,
          pair: { first: c.first, second: c.second },
        }),
      );
    if (mode === 'words') {
      const ids = glyphsOfLine(project, texts.pairs[line] ?? texts.galley).glyphs;
      return ids.slice(1).map((second, i): Entry => {
        const pair = { first: ids[i]!, second };
        return { key: `${i}`, label: `${name(pair.first)} ${name(second)}`, note: signed(valueNow(pair)), pair };
      });
    }
    return Object.entries(master.kerning)
      .sort((p, q) => Math.abs(q[1]) - Math.abs(p[1]))
      .flatMap(([key, value]): Entry[] => {
        const sides = pairSides(key);
        const [a, b] = sides ? [membersOf(project, sides[0])[0], membersOf(project, sides[1])[0]] : [];
        return sides && a && b ? [{ key, label: `${sideName(project, sides[0])} · ${sideName(project, sides[1])}`, note: signed(value), pair: { first: a, second: b } }] : [];
      })
      .filter((e) => filter === '' || e.label.toLowerCase().includes(filter.toLowerCase()));
  }, [project, masterId, mode, line, queue, texts, filter, touching]);
}

/** Distance, in units, below which a pair is shown as touching. */
export const NEAR = 12;

/** Pairs of letters, figures and punctuation that come too near, looked for beside the pointer while the list is open. */
export function useTouching(open: boolean): { found: readonly Collision[]; share: number | undefined } {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [state, setState] = useState<{ found: readonly Collision[]; share: number | undefined }>({ found: [], share: undefined });
  useEffect(() => {
    if (!open) return;
    const { service, stop } = filesWorker();
    setState((s) => ({ ...s, share: 0 }));
    const progress = proxy((done: number, total: number) => setState((s) => (s.share === undefined ? s : { ...s, share: done / total })));
    void service.collisions(project, master, textGlyphs(project), NEAR, progress).then((found) => {
      setState({ found: found as readonly Collision[], share: undefined });
      stop();
    });
    return stop;
  }, [open, project, master]);
  return state;
}
