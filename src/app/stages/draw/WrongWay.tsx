import { reverseContours } from '../../../core/drawing/edits';
import { contourBounds } from '../../../core/geometry/contour';
import { wrongWay } from '../../../core/geometry/winding';
import { drawingOf } from '../../../core/project/queries';
import { toPxX, toPxY } from '../../canvas/view';
import { run, useBench } from '../../state/bench';
import { useDrawBench } from './drawBench';

/** Says at each contour that goes the wrong way what comes of it, with the mend. */
export function WrongWay() {
  // Of the settled document: during a gesture the canvas shows what goes wrong.
  const contours = useBench((s) =>
    s.glyph && s.settled?.glyphs[s.glyph] ? drawingOf(s.settled.glyphs[s.glyph]!, s.master).contours : undefined,
  );
  const view = useDrawBench((s) => s.view);
  const wrong = contours && contours.length > 1 ? wrongWay(contours) : [];
  if (!view || !contours || wrong.length === 0) return null;
  const mend = () => {
    const { glyph, master } = useBench.getState();
    run((p) => reverseContours(p, { at: { glyph: glyph!, master }, contours: wrong }));
  };
  return wrong.map((i) => {
    const box = contourBounds(contours[i]!);
    return (
      <div
        key={i}
        className="pointer-events-none absolute w-max -translate-x-1/2 -translate-y-1/2 rounded-lg border border-marigold bg-marigold-tint px-2 py-1 text-center text-[13px]"
        style={{ left: toPxX(view, (box.xMin + box.xMax) / 2), top: toPxY(view, (box.yMin + box.yMax) / 2) }}
      >
        ▲ {i + 1} goes the wrong way, so it fills{' '}
        <button type="button" className="pointer-events-auto font-semibold text-kelp" onClick={mend}>
          Turn it round
        </button>
      </div>
    );
  });
}
