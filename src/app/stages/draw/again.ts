import { type Origin, type TransformBy, transformPoints } from '../../../core/drawing/transform';
import { run, say, useBench } from '../../state/bench';

type Done = { by: TransformBy; origin: Origin; copy: boolean };
let last: Done | undefined;

/** Remembers a transform, done by numbers or by the box, so that it can be done again. */
export const rememberTransform = ({ by, origin, copy }: Done): void => {
  last = { by, origin, copy };
};

/** Does the last transform once more, on what is chosen now. */
export function transformAgain(): void {
  const { glyph, master, selection } = useBench.getState();
  if (!glyph) return;
  if (!last) {
    say('There is no transform to do again yet.');
    return;
  }
  const { by, origin, copy } = last;
  run((p) => transformPoints(p, { at: { glyph, master }, points: [...selection], by, origin, copy }));
}
