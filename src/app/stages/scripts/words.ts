import type { Entry } from '../../../core/scripting/declarations';
import { scripter } from '../../state/followers';

let known: readonly Entry[] = [];

/** All that a script can name, once it has come from the worker, where every edit is loaded. */
export const words = (): readonly Entry[] => known;

export async function bringWords(): Promise<void> {
  if (known.length === 0) known = await (await scripter.synced()).words();
}
