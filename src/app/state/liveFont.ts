import { type Result, refused } from '../../core/base/result';
import type { Setting } from '../../core/project/setting';
import { waypointPlace } from '../../core/project/waypoints';
import type { SetLines } from '../../workers/compile';
import { useBench } from './bench';
import { compiler } from './followers';

let working = false;
type Request = {
  texts: string[];
  setting: Setting;
  /** Where on the axes, in design units; without one, what is worked on or visited. */
  place?: Readonly<Record<string, number>> | undefined;
  show: (set: Result<SetLines>) => void;
};
const wanted = new Map<string, Request>();

/**
 * Asks for lines of text in the font as it would be cast now. While one request runs only the newest other one of each asker waits,
 * so the galley keeps up with the hand however fast it moves.
 */
export function requestLines(asker: string, request: Request): void {
  wanted.set(asker, request);
  if (!working) void work();
}

let waiting: (() => void)[] = [];

/** Resolves when no line is being set; at once where none is. */
export const linesSet = (): Promise<void> =>
  working ? new Promise((resolve) => waiting.push(resolve)) : Promise.resolve();

/** How often in a row the worker may die before it is said. */
const MOST_DEATHS = 2;
let deaths = 0;

async function work(): Promise<void> {
  working = true;
  try {
    for (let [next] = wanted; next; [next] = wanted) {
      const [asker, request] = next;
      wanted.delete(asker);
      if (!useBench.getState().project) continue;
      try {
        await setLines(request);
        deaths = 0;
      } catch (error) {
        deaths++;
        if (deaths < MOST_DEATHS) {
          if (!wanted.has(asker)) wanted.set(asker, request);
        } else {
          const said = error instanceof Error ? error.message : String(error);
          request.show(refused(`The font cannot be made just now. ${said}`));
        }
      }
    }
  } finally {
    working = false;
    for (const done of waiting) done();
    waiting = [];
  }
}

async function setLines({ texts, setting, show, place: wanted }: Request): Promise<void> {
  const { master, visit } = useBench.getState();
  const between = wanted ?? visit ?? waypointPlace(master);
  const place = between ? { design: between, name: 'between' } : { master };
  const set: Result<SetLines> = await compiler.askWith<Result<SetLines>>((service, steps) =>
    service.setLines({ texts, place, setting, steps }),
  );
  show(set);
}
