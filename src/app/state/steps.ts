import type { Result } from '../../core/base/result';
import type { Project } from '../../core/project/model';
import { applyMade, type Step } from '../../core/project/patch';
import { run, say, useBench } from './bench';

/** What a worker made of the document: the steps to it, and the sentence of the history. */
export type MadeBeside = Result<{ steps: readonly Step[]; sentence: string }>;

/** Takes over what a worker made of a document as one step, if that was not changed meanwhile; says why where it is not. */
export function takeMade(before: Project | undefined, made: MadeBeside, again: string): boolean {
  if (!made.ok) say(made.reason);
  else if (useBench.getState().settled !== before) say(`The project was changed meanwhile; ${again}`);
  else return run((p) => ({ ok: true, project: applyMade(p, made.value.steps), sentence: made.value.sentence }));
  return false;
}
