import { proxy } from 'comlink';
import { toast } from 'sonner';
import type { z } from 'zod';
import { type Edit, plural } from '../../core/project/edit';
import { MadeSteps, type Step } from '../../core/project/patch';
import { run, say, useBench } from './bench';
import { errands } from './followers';

/** An edit of so many drawings, or points, is made on the page; of more, beside it. */
const FEW_DRAWINGS = 240;
const FEW_POINTS = 300;
/** What takes longer than this is told, in milliseconds. */
const TOLD_AFTER = 250;

/** How much an edit has to do: glyphs in every master, or points of one drawing. */
export type Reach = { readonly glyphs: number } | { readonly points: number };

const mastersNow = () => useBench.getState().settled?.masters.length ?? 1;
const isFar = (reach: Reach): boolean => {
  const masters = mastersNow();
  return 'points' in reach ? reach.points > FEW_POINTS : reach.glyphs * masters > FEW_DRAWINGS;
};

const inWords = (reach: Reach): string =>
  'points' in reach
    ? `Working on a drawing of ${reach.points} points…`
    : `Working on ${plural(reach.glyphs, 'glyph')} in ${mastersNow() === 1 ? 'one master' : `${mastersNow()} masters`}…`;

let busy = false;
/** Is an edit being made beside the page, so that leaving would end it? */
export const isWorking = (): boolean => busy;

/**
 * Runs an edit that may reach many drawings: beside the page, with the way to stop it, where it does, so that the pointer is
 * never held up. As with `run` it is one step of the history; a refusal is shown. Resolves with whether it was done.
 */
export async function runFar<A, S extends z.ZodType>(edit: Edit<A, S>, args: A, reach: Reach): Promise<boolean> {
  const { settled: before, readOnly } = useBench.getState();
  if (!before || readOnly || !isFar(reach)) return run((p) => edit(p, args));
  if (busy) {
    say('One thing at a time: what was begun is not done yet.');
    return false;
  }
  busy = true;
  const note = told(inWords(reach));
  const made = new MadeSteps(before);
  try {
    const take = proxy((part: readonly Step[]) => {
      made.take(part);
    });
    const ran = await errands.borrow(async (service) => await service.edit(edit.facts.name, args, take));
    if (note.stopped()) return false;
    if (!ran.ok) say(ran.reason);
    else if (useBench.getState().settled !== before) say('The project was changed meanwhile; do it again.');
    else return run(() => ({ ok: true, project: made.made(), sentence: ran.value.sentence }));
  } catch (error) {
    if (!note.stopped()) say((error as Error).message);
  } finally {
    busy = false;
    note.away();
  }
  return false;
}

/** Says what is being done, with the way to stop it, once it takes long. */
function told(what: string): { stopped: () => boolean; away: () => void } {
  let stopped = false;
  let id: string | number | undefined;
  const wait = setTimeout(() => {
    id = toast.loading(what, {
      duration: Number.POSITIVE_INFINITY,
      // Notices let the pointer through; this one has a button.
      style: { pointerEvents: 'auto' },
      action: {
        label: 'Stop',
        onClick: () => {
          stopped = true;
          errands.stop();
        },
      },
    });
  }, TOLD_AFTER);
  return {
    stopped: () => stopped,
    away: () => {
      clearTimeout(wait);
      if (id !== undefined) toast.dismiss(id);
    },
  };
}

/** {@link runFar}, and then says what was done. */
export async function runFarAndSay<A, S extends z.ZodType>(edit: Edit<A, S>, args: A, reach: Reach): Promise<boolean> {
  const done = await runFar(edit, args, reach);
  if (done) say(useBench.getState().history.done.at(-1)?.sentence ?? '');
  return done;
}
