import { useEffect, useState } from 'react';
import { recordsOf } from '../../browser/stores';
import { isRefused, type Refusal } from '../../core/base/result';
import { becomeReader, leaveProject, say, showProject } from './bench';
import { followHome } from './home';
import { takeProject } from './tabLock';

export type Opening =
  | { kind: 'opening' }
  | { kind: 'open'; faults: readonly Refusal[]; damaged: readonly string[] }
  /** `exists`: there are records of it, which can be saved as they are. */
  | { kind: 'fault'; sentence: string; exists: boolean };

/** Opens the project of the address, holding it against other tabs. */
export function useOpenProject(projectId: string): Opening {
  const [state, setState] = useState<Opening>({ kind: 'opening' });
  useEffect(() => {
    let left = false;
    let release = () => {};
    const load = async () => {
      const lock = await takeProject(projectId);
      release = lock.release;
      if (left) return release();
      const records = recordsOf(projectId);
      performance.mark('opening-locked');
      const found = await records.open(lock.mine);
      performance.mark('opening-read');
      if (left) return;
      if (!lock.mine)
        lock.freed.then(
          () => {
            if (!left) void load();
          },
          () => {},
        );
      if (!found)
        return setState({ kind: 'fault', sentence: 'There is no such project in this browser.', exists: false });
      if (isRefused(found)) return setState({ kind: 'fault', sentence: found.reason, exists: true });
      showProject(projectId, found, lock.mine ? records : undefined);
      void followHome(projectId);
      performance.mark('project-opened');
      setState({ kind: 'open', faults: found.faults, damaged: found.damaged });
      if (lock.mine)
        void lock.lost.then(() => {
          if (left) return;
          becomeReader();
          say('Another tab has taken this project over; here it can only be looked at.');
        });
    };
    load().catch((error: unknown) => {
      if (left) return;
      const why = error instanceof Error ? error.message : String(error);
      setState({ kind: 'fault', sentence: `The browser’s storage cannot be read (${why}).`, exists: false });
    });
    return () => {
      left = true;
      void leaveProject().finally(() => release());
    };
  }, [projectId]);
  return state;
}
