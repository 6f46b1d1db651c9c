import type { Parts, Project } from '../core/project/model';
import { applySteps, type Step } from '../core/project/patch';
import { unpackedProject } from '../core/storage/records';

/** A copy of the document in a worker: taken in whole or as storage has it, then led on by steps. */
export function documentHolder() {
  let project: Project | undefined;
  return {
    /** The document as it is now; undefined before it has come. */
    now: () => project,
    service: {
      load(next: Project): void {
        project = next;
      },
      /** The same from storage's own text, read here and not on the page. */
      loadPacked(parts: Parts, segments: readonly string[]): void {
        project = unpackedProject({ parts, segments });
      },
      update(steps: readonly Step[]): void {
        if (project) project = applySteps(project, steps);
      },
    },
  };
}

export type DocumentService = ReturnType<typeof documentHolder>['service'];
