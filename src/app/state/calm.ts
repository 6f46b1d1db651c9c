import { useEffect, useState } from 'react';
import type { Project } from '../../core/project/model';
import { useBench } from './bench';

/** How often a running gesture is followed by what only tells about it, in milliseconds. */
const FOLLOW_MS = 250;

/**
 * The document for what tells about it beside the canvas: at once when it has settled, a few times a second while a gesture
 * runs, so that the pointer never waits for numbers that nobody could read.
 */
export function useCalmProject(): Project {
  const [shown, setShown] = useState(() => useBench.getState().project!);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const follow = () => {
      timer = undefined;
      const { project } = useBench.getState();
      if (project) setShown(project);
    };
    const stop = useBench.subscribe(({ project, settled }, then) => {
      if (project === then.project) return;
      if (project === settled) {
        clearTimeout(timer);
        follow();
      } else timer ??= setTimeout(follow, FOLLOW_MS);
    });
    follow();
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, []);
  const settled = useBench((s) => s.settled);
  // Undo, another project: never a moment with what is no longer there.
  return useBench.getState().project === settled ? settled! : shown;
}
