import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Project } from '../../core/project/model';
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

/** What reweighting comes to while its numbers change: only the newest question waits. `all` works out every glyph. */
export function useReweighed(project: Project, asked: ReweightAsked | undefined) {
  const service = useStill(project);
  const [found, setFound] = useState<ManyReweighed & { of: string }>();
  const [fault, setFault] = useState<string>();
  const [share, setShare] = useState<number>();
  const waiting = useRef<ReweightAsked>(undefined);
  const busy = useRef(false);
  const gone = useRef(false);
  const of = asked ? JSON.stringify(asked) : '';
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
      try {
        const made = await (await service.current!).reweighed(next);
        if (!gone.current) setFound({ of: JSON.stringify(next), ...(made as ManyReweighed) });
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
