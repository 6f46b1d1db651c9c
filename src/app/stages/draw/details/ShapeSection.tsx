import { memo } from 'react';
import type { z } from 'zod';
import { keyParts, type PointKey } from '../../../../core/drawing/points';
import { combineContours, removeOverlap } from '../../../../core/drawing/shapeEdits';
import type { ShapeOperation } from '../../../../core/geometry/overlaps';
import type { Edit } from '../../../../core/project/edit';
import { drawingOf } from '../../../../core/project/queries';
import { select, useBench } from '../../../state/bench';
import { openDialog } from '../../../state/dialogs';
import { runFar } from '../../../state/far';
import { Button, Section } from '../../../ui/parts';
import { EdgeButtons } from './EdgeSection';
import { place } from './place';

const OPERATIONS: readonly { operation: ShapeOperation; title: string; hint: string }[] = [
  { operation: 'unite', title: 'Unite', hint: 'One outline around the chosen contours and the others' },
  { operation: 'subtract', title: 'Subtract', hint: 'Takes the chosen contours out of the others' },
  { operation: 'intersect', title: 'Intersect', hint: 'Keeps only what the chosen contours and the others share' },
  {
    operation: 'exclude',
    title: 'Exclude',
    hint: 'Keeps what is in the chosen contours or in the others, but not in both',
  },
];

/** Arithmetic of areas: the chosen contours against the rest of the drawing. */
export const ShapeSection = memo(function ShapeSection({
  contours,
  keys,
}: {
  /** How many the drawing has. */
  contours: number;
  keys: readonly PointKey[];
}) {
  const chosen = [...new Set(keys.map((k) => keyParts(k)[0]))];
  const all = chosen.length === contours;
  const some = chosen.length > 0 && chosen.length < contours;
  const shape = <A, S extends z.ZodType>(edit: Edit<A, S>, args: A) => {
    const { glyph, master, settled } = useBench.getState();
    const drawing = drawingOf(settled!.glyphs[glyph!]!, master);
    const points = drawing.contours.reduce((n, c) => n + c.points.length, 0);
    void runFar(edit, args, { points }).then((done) => done && select(new Set()));
  };
  return (
    <Section title="Shapes">
      <div className="flex flex-wrap gap-1.5">
        {(contours > 1 ? OPERATIONS : []).map(({ operation, title, hint }) => {
          // With all chosen there are no others: they are united with each other.
          const among = all && operation === 'unite';
          return (
            <Button
              key={operation}
              title={
                among
                  ? 'One outline of all that overlap'
                  : some
                    ? hint
                    : 'Choose a point of some contours first; they are put together with the others'
              }
              disabled={!some && !among}
              onClick={() =>
                among
                  ? shape(removeOverlap, { at: place(), contours: [] })
                  : shape(combineContours, { at: place(), contours: chosen, operation })
              }
            >
              {title}
            </Button>
          );
        })}
        <Button
          title={
            some
              ? 'Joins what overlaps among the chosen contours'
              : 'Joins everything that overlaps into single outlines'
          }
          onClick={() => shape(removeOverlap, { at: place(), contours: some ? chosen : [] })}
        >
          Remove overlap
        </Button>
        <Button
          title="Extremes, needless points, nearly straight sides and more, here or in all glyphs"
          onClick={() => openDialog('tidy')}
        >
          Tidy…
        </Button>
      </div>
      <EdgeButtons />
    </Section>
  );
});
