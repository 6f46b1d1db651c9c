import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { GlyphId, Project } from '../../core/project/model';
import type { ManyReweighed, ReweightAsked } from '../../core/reweighting/many';
import { startMeasurer } from '../../workers/clients';
import type { MeasureService } from '../../workers/measure';
import { Follower } from '../state/followers';

/**
 * A worker with the document as it was when it was begun: what is tried in the galley meanwhile must not be reweighted
 * once more.
 */
function useStill(project: Project) {
  const service = useRef<ReturnType<Follower<MeasureService>['synced']>>(undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: begun anew for another document.
  useEffect(() => {
    const own = new Follower<MeasureService>(startMeasurer);
    service.current = own.synced();
    service.current.catch(() => {});
    return () => own.stop();
  }, [project]);
  return service;
}

/** Glyphs worked out in one go once those in sight are done: a newer question waits no longer than that. */
const PIECE = 24;

/**
 * What reweighting comes to while its numbers change: the glyphs asked for first, then `rest` piece by piece, so that all of the
 * project is seen at the new stems. Only the newest question waits. `all` works out every glyph.
 */
export function useReweighed(project: Project, asked: ReweightAsked | undefined, rest: readonly GlyphId[]) {
  const service = useStill(project);
  const [found, setFound] = useState<ManyReweighed & { of: string }>();
  const [fault, setFault] = useState<string>();
  const [share, setShare] = useState<number>();
  const waiting = useRef<ReweightAsked>(undefined);
  const busy = useRef(false);
  const gone = useRef(false);
  const of = asked ? JSON.stringify(asked) : '';
  const restNow = useRef(rest);
  restNow.current = rest;
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew for what it is about.
  useEffect(() => {
    if (!asked) return;
    waiting.current = asked;
    if (!busy.current) void answer();
  }, [of]);
  const answer = async () => {
    busy.current = true;
    while (waiting.current && !gone.current) {
      const next = waiting.current;
      waiting.current = undefined;
      const key = JSON.stringify(next);
      const others = restNow.current;
      try {
        let done: ManyReweighed = { made: [], left: [] };
        for (let at = -PIECE; at < others.length && !waiting.current && !gone.current; at += PIECE) {
          const glyphs = at < 0 ? next.glyphs : withParts(project, others.slice(at, at + PIECE));
          const { made, left } = (await (await service.current!).reweighed({ ...next, glyphs })) as ManyReweighed;
          done = { made: [...done.made, ...made], left: [...done.left, ...left] };
          // Every few pieces: what is shown of all glyphs is put into the document again each time.
          const last = at + PIECE >= others.length;
          if (!gone.current && (at < 0 || last || (at / PIECE) % 6 === 5)) setFound({ of: key, ...done });
        }
      } catch (error) {
        if (!gone.current) setFault(error instanceof Error ? error.message : String(error));
      }
    }
    busy.current = false;
  };
  /** Works out every glyph; undefined where it failed, or was left before it was done. */
  const all = async (whole: ReweightAsked): Promise<ManyReweighed | undefined> => {
    setShare(0);
    try {
      const tell = proxy((done: number, total: number) => !gone.current && setShare(done / total));
      const made = (await (await service.current!).reweighed(whole, tell)) as ManyReweighed;
      return gone.current ? undefined : made;
    } catch (error) {
      if (!gone.current) setFault(error instanceof Error ? error.message : String(error));
      return undefined;
    } finally {
      if (!gone.current) setShare(undefined);
    }
  };
  return { found, fault, share, all, late: found?.of !== of };
}

/** Glyphs and the parts that they are built of: what is built follows its parts. */
export function withParts(project: Project, glyphs: readonly GlyphId[]): GlyphId[] {
  const all = new Set(glyphs);
  for (const id of all)
    for (const drawing of Object.values(project.glyphs[id]?.drawings ?? {}))
      for (const { glyph } of drawing.components) if (project.glyphs[glyph]) all.add(glyph);
  return [...all];
}
