import { deletePoints, placePoint, resizePoints, setSmooth } from '../../../../core/drawing/edits';
import { evenOut, fullnesses, setFullness } from '../../../../core/drawing/fullness';
import { type PointKey, pointOf } from '../../../../core/drawing/points';
import type { Drawing } from '../../../../core/project/model';
import { run, select } from '../../../state/bench';
import { Button, NumberField, Section } from '../../../ui/parts';
import { place } from './place';

/** What can be said and done by number about the chosen points. */
export function PointSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  const points = keys.map((k) => pointOf(drawing, k)!);
  const only = keys.length === 1 ? points[0] : undefined;
  const onCurve = points.filter((p) => p.type !== 'off');
  const full = fullnesses(drawing, keys);
  const spread = full.length > 0 ? Math.max(...full) - Math.min(...full) : 0;
  const width = Math.max(...points.map((p) => p.x)) - Math.min(...points.map((p) => p.x));
  const height = Math.max(...points.map((p) => p.y)) - Math.min(...points.map((p) => p.y));
  return (
    <Section title={only ? (only.type === 'off' ? 'Handle' : only.smooth ? 'Smooth point' : 'Corner point') : 'Points'}>
      {only ? (
        <div className="mb-2 grid gap-1.5">
          <NumberField label="x" value={only.x} onChange={(x) => run((p) => placePoint(p, { at, point: keys[0]!, x }))} />
          <NumberField label="y" value={only.y} onChange={(y) => run((p) => placePoint(p, { at, point: keys[0]!, y }))} />
        </div>
      ) : (
        <div className="mb-2 grid gap-1.5">
          <NumberField label="Width" value={Math.round(width * 100) / 100} disabled={width === 0} onChange={(v) => run((p) => resizePoints(p, { at, points: keys, width: v }))} />
          <NumberField
            label="Height"
            value={Math.round(height * 100) / 100}
            disabled={height === 0}
            onChange={(v) => run((p) => resizePoints(p, { at, points: keys, height: v }))}
          />
        </div>
      )}
      {full.length > 0 && (
        <div className="mb-2" title="How full the curves between the chosen points are: 55 % is a circle's quarter; each keeps the proportion of its own handles">
          <NumberField
            label={spread < 0.005 ? 'Fullness %' : `Fullness % (${Math.round(Math.min(...full) * 100)}–${Math.round(Math.max(...full) * 100)})`}
            value={Math.round((full.reduce((a, b) => a + b, 0) / full.length) * 1000) / 10}
            onChange={(v) => run((p) => setFullness(p, { at, points: keys, fullness: v / 100 }))}
          />
        </div>
      )}
      <div className="flex flex-wrap gap-1.5">
        {onCurve.length > 0 && (
          <>
            <Button disabled={onCurve.every((p) => p.smooth)} onClick={() => run((p) => setSmooth(p, { at, points: keys, smooth: true }))}>
              Smooth
            </Button>
            <Button disabled={onCurve.every((p) => !p.smooth)} onClick={() => run((p) => setSmooth(p, { at, points: keys, smooth: false }))}>
              Corner
            </Button>
            <Button
              disabled={onCurve.every((p) => !p.smooth)}
              title="Curvature runs on through the chosen smooth points"
              onClick={() => run((p) => evenOut(p, { at, points: keys }))}
            >
              Even out
            </Button>
          </>
        )}
        <Button
          kind="danger"
          onClick={() => {
            if (run((p) => deletePoints(p, { at, points: keys }))) select(new Set());
          }}
        >
          Delete
        </Button>
      </div>
    </Section>
  );
}
