import { RefreshCcw } from 'lucide-react';
import { memo } from 'react';
import {
  closeContour,
  directByNesting,
  orderContour,
  reverseContours,
  setStartPoint,
} from '../../../../core/drawing/edits';
import { keyParts, type PointKey, pointKey, pointOf } from '../../../../core/drawing/points';
import { type Contour, signedArea } from '../../../../core/geometry/contour';
import { hasMixedDirections } from '../../../../core/geometry/winding';
import { plural } from '../../../../core/project/edit';
import type { Drawing } from '../../../../core/project/model';
import { run, select } from '../../../state/bench';
import { Button, Section } from '../../../ui/parts';
import { SortableList, SortableRow } from '../../../ui/SortableList';
import { place } from './place';

/** The contours in their order: direction, start, what is open. */
export function ContourSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  if (drawing.contours.length === 0) {
    return (
      <Section title="Contours">
        <p className="text-quiet">
          {drawing.components.length > 0
            ? `Made of ${plural(drawing.components.length, 'component')}.`
            : 'Nothing drawn yet: take the Pen, Oval or Box, or put a picture behind and draw over it.'}
        </p>
      </Section>
    );
  }
  const wrong = hasMixedDirections(drawing.contours);
  const only = keys.length === 1 ? keys[0] : undefined;
  const single = only && pointOf(drawing, only);
  const canStart = single && single.type !== 'off' && drawing.contours[keyParts(only!)[0]]!.closed;
  const chosen = new Set(keys.map((k) => keyParts(k)[0]));
  return (
    <Section title={plural(drawing.contours.length, 'contour')}>
      <SortableList
        label="Contours"
        ids={drawing.contours.map((_, i) => `contour ${i}`)}
        onMove={(from, to) => run((p) => orderContour(p, { at: place(), from, to }))}
        className="mb-2 max-h-40 overflow-auto"
      >
        {drawing.contours.map((c, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a contour is its place in the order.
          <ContourRow key={i} contour={c} index={i} chosen={chosen.has(i)} />
        ))}
      </SortableList>
      <div className="flex flex-wrap gap-1.5">
        {canStart && <Button onClick={() => run((p) => setStartPoint(p, { at, point: only! }))}>Start here</Button>}
        {wrong && (
          <div className="w-full rounded-lg bg-marigold-tint p-2 text-[13px]">
            <p className="mb-1">▲ A contour goes the wrong way for where it lies; counters may fill.</p>
            <button
              type="button"
              className="font-semibold text-kelp"
              onClick={() => run((p) => directByNesting(p, { at }))}
            >
              Set directions by nesting
            </button>
          </div>
        )}
      </div>
    </Section>
  );
}

/** One contour in the list; drawn again only when it is another one. */
const ContourRow = memo(function ContourRow({
  contour,
  index,
  chosen,
}: {
  contour: Contour;
  index: number;
  chosen: boolean;
}) {
  return (
    <SortableRow
      id={`contour ${index}`}
      grip={`Contour ${index + 1}: another place in the order`}
      className={chosen ? 'bg-kelp-tint' : ''}
    >
      <button
        type="button"
        className="flex h-7 min-w-0 flex-1 items-center gap-2 text-left"
        onClick={() =>
          select(new Set(contour.points.flatMap((p, j) => (p.type === 'off' ? [] : [pointKey(index, j)]))))
        }
      >
        <b className="w-4 font-semibold">{index + 1}</b>
        <span className="truncate text-quiet">
          {contour.closed ? (signedArea(contour) > 0 ? 'counter-clockwise' : 'clockwise') : 'open'}
        </span>
      </button>
      {!contour.closed && (
        <button type="button" className="text-kelp" onClick={() => run((p) => closeContour(p, { at: place(), index }))}>
          close
        </button>
      )}
      <button
        type="button"
        aria-label={`Reverse contour ${index + 1}`}
        title="Reverse"
        className="rounded p-1 text-quiet hover:bg-kelp-tint"
        onClick={() => run((p) => reverseContours(p, { at: place(), contours: [index] }))}
      >
        <RefreshCcw size={14} />
      </button>
    </SortableRow>
  );
});
