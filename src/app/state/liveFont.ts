import { changesOf } from '../../core/project/changes';
import type { Project } from '../../core/project/model';
import { isEmptyPatch, patchBetween } from '../../core/project/patch';
import { compileWorker } from '../../workers/clients';
import type { SetLine } from '../../workers/compile';
import { useBench } from './bench';

let sent: { projectId: string; project: Project } | undefined;
let working = false;
type Request = { texts: string[]; features: string[]; show: (lines: SetLine[], fault: string | undefined) => void };
const wanted = new Map<string, Request>();

/** Brings the worker's copy of the document up to date: whole at first, then by patches. */
async function synchronise(): Promise<void> {
  const { projectId, project } = useBench.getState();
  if (!project) return;
  const worker = compileWorker();
  if (sent?.projectId !== projectId) await worker.load(project);
  else {
    const patch = patchBetween(sent.project, project);
    if (!isEmptyPatch(patch)) await worker.update(changesOf(patch));
  }
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

async function work(): Promise<void> {
  working = true;
  try {
    for (let [next] = wanted; next; [next] = wanted) {
      const [asker, { texts, features, show }] = next;
      wanted.delete(asker);
      await synchronise();
      const { lines, fault } = await compileWorker().setLines({ texts, master: useBench.getState().master, features });
      show(lines, fault);
    }
  } finally {
    working = false;
  }
}
