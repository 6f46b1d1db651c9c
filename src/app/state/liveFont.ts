import type { Project } from '../../core/project/model';
import { isEmptyPatch, patchBetween, stepsOf } from '../../core/project/patch';
import { compileWorker } from '../../workers/clients';
import type { SetLine } from '../../workers/compile';
import { packedProject, useBench } from './bench';

let sent: { projectId: string; project: Project } | undefined;
let working = false;
type Request = { texts: string[]; features: string[]; show: (lines: SetLine[], fault: string | undefined) => void };
const wanted = new Map<string, Request>();

/** Brings the worker's copy of the document up to date: from storage's own text or whole at first, then by steps. */
async function synchronise(): Promise<void> {
  const { projectId, project } = useBench.getState();
  if (!project) return;
  const worker = compileWorker(() => {
    sent = undefined;
  });
  if (sent?.projectId !== projectId) {
    const packed = packedProject();
    if (packed && packed.segments.length > 0) {
      await worker.loadPacked(packed.parts, packed.segments);
      sent = { projectId, project: packed.base };
    } else {
      await worker.load(project);
      sent = { projectId, project };
    }
  }
  const patch = patchBetween(sent.project, project);
  if (!isEmptyPatch(patch)) await worker.update(stepsOf(patch));
  sent = { projectId, project };
}

/**
 * Asks for lines of text in the font as it would be cast now. While one request runs only the newest other one of each asker waits,
 * so the galley keeps up with the hand however fast it moves.
 */
export function requestLines(asker: string, request: Request): void {
  wanted.set(asker, request);
  if (!working) void work();
}

/** How often in a row the worker may die before it is said. */
const MOST_DEATHS = 2;
let deaths = 0;

async function work(): Promise<void> {
  working = true;
  try {
    for (let [next] = wanted; next; [next] = wanted) {
      const [asker, request] = next;
      wanted.delete(asker);
      try {
        await synchronise();
        const { master, project } = useBench.getState();
        if (!project) continue;
        const { lines, fault } = await compileWorker().setLines({
          texts: request.texts,
          place: { master },
          features: request.features,
        });
        deaths = 0;
        request.show(lines, fault);
      } catch (error) {
        sent = undefined;
        deaths++;
        const said = error instanceof Error ? error.message : String(error);
        if (deaths >= MOST_DEATHS) request.show([], `The font cannot be made just now: ${said}`);
        else if (!wanted.has(asker)) wanted.set(asker, request);
      }
    }
  } finally {
    working = false;
  }
}
