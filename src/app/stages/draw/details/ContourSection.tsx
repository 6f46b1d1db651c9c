import { RefreshCcw } from 'lucide-react';
import { useMemo } from 'react';
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
import { run, select, useBench } from '../../../state/bench';
import { Button, IconButton, Section } from '../../../ui/parts';
import { rowId, SortableList, SortableRow } from '../../../ui/SortableList';
import { place } from './place';

/** The contours in their order: direction, start, what is open. */
export function ContourSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
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
      <ContourList drawing={drawing} chosen={chosen} />
      <div className="flex flex-wrap gap-1.5">
        {canStart && (
          <Button onClick={() => run((p) => setStartPoint(p, { at: place('structure'), point: only! }))}>
            Start here
          </Button>
        )}
        {wrong && (
          <div className="w-full rounded-lg bg-marigold-tint p-2 text-[13px]">
            <p className="mb-1">▲ A contour goes the wrong way for where it lies; counters may fill.</p>
            <button
              type="button"
              className="font-semibold text-kelp"
              onClick={() => run((p) => directByNesting(p, { at: place('structure') }))}
            >
              Set directions by nesting
            </button>
          </div>
        )}
      </div>
    </Section>
  );
}

const moveContour = (from: number, to: number) =>
  void run((p) => orderContour(p, { at: place('structure'), from, to }));

type Way = 'counter-clockwise' | 'clockwise' | 'open';
const wayOf = (c: Contour): Way => (!c.closed ? 'open' : signedArea(c) > 0 ? 'counter-clockwise' : 'clockwise');

/** The rows are made of what they say, so that a drag of points leaves them alone. */
function ContourList({ drawing, chosen }: { drawing: Drawing; chosen: ReadonlySet<number> }) {
  const said = drawing.contours.map((c, i) => `${wayOf(c)}${chosen.has(i) ? ' chosen' : ''}`).join();
  const row = useMemo(() => {
    const rows = said.split(',');
    return (i: number) => {
      const [way, isChosen] = rows[i]!.split(' ');
      return <ContourRow key={rowId(i)} index={i} way={way as Way} chosen={isChosen !== undefined} />;
    };
  }, [said]);
  return (
    <SortableList
      label="Contours"
      count={drawing.contours.length}
      onMove={moveContour}
      className="mb-2 max-h-40 overflow-auto"
      row={row}
    />
  );
}

/** Chooses all points of a contour that lie on it; beside what is chosen, or no longer, with `more`. */
function chooseContour(index: number, more: boolean): void {
  const { project, glyph, master, selection } = useBench.getState();
  const contour = glyph ? project?.glyphs[glyph]?.drawings[master]?.contours[index] : undefined;
  const own = contour?.points.flatMap((p, j) => (p.type === 'off' ? [] : [pointKey(index, j)])) ?? [];
  const others = more ? [...selection].filter((k) => keyParts(k)[0] !== index) : [];
  const drop = more && own.every((k) => selection.has(k));
  select(new Set(drop ? others : [...others, ...own]));
}

function ContourRow({ index, way, chosen }: { index: number; way: Way; chosen: boolean }) {
  return (
    <SortableRow
      id={rowId(index)}
      grip={`Contour ${index + 1}: another place in the order`}
      className={chosen ? 'bg-kelp-tint' : ''}
    >
      <button
        type="button"
        className="flex h-7 min-w-0 flex-1 items-center gap-2 text-left"
        aria-pressed={chosen}
        title="Shift adds to what is chosen"
        onClick={(e) => chooseContour(index, e.shiftKey)}
      >
        <b className="w-4 font-semibold">{index + 1}</b>
        <span className="truncate text-quiet">{way}</span>
      </button>
      {way === 'open' && (
        <button
          type="button"
          className="text-kelp"
          onClick={() => run((p) => closeContour(p, { at: place('structure'), index }))}
        >
          close
        </button>
      )}
      <IconButton
        label={`Reverse contour ${index + 1}`}
        className="rounded p-1 text-quiet hover:bg-kelp-tint"
        onClick={() => run((p) => reverseContours(p, { at: place('structure'), contours: [index] }))}
      >
        <RefreshCcw size={14} />
      </IconButton>
    </SortableRow>
  );
}
