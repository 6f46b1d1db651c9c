import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalDistributeCenter,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalDistributeCenter,
} from 'lucide-react';
import { useEffect, useState } from 'react';
import {
  type Alignment,
  alignPoints,
  distributePoints,
  handleOf,
  setBetween,
  setHandle,
} from '../../../../core/drawing/arrange';
import { deletePoints, placePoint, resizePoints, setSmooth } from '../../../../core/drawing/edits';
import { cutAtPoint } from '../../../../core/drawing/ends';
import { evenOut, fullnesses, setFullness } from '../../../../core/drawing/fullness';
import { between } from '../../../../core/drawing/gauge';
import { lineAngle } from '../../../../core/drawing/guides';
import { type PointKey, pointOf } from '../../../../core/drawing/points';
import type { Drawing } from '../../../../core/project/model';
import { run, say, select } from '../../../state/bench';
import { Button, Choice, NumberField, Section } from '../../../ui/parts';
import { setMoving } from '../drawBench';
import { place } from './place';

/** What can be said and done by number about the chosen points. */
export function PointSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place('places');
  const whole = place('structure');
  const points = keys.map((k) => pointOf(drawing, k)!);
  const only = keys.length === 1 ? points[0] : undefined;
  const handle = only?.type === 'off' ? handleOf(drawing, keys[0]!) : undefined;
  const onCurve = points.filter((p) => p.type !== 'off');
  const full = fullnesses(drawing, keys);
  const width = Math.max(...points.map((p) => p.x)) - Math.min(...points.map((p) => p.x));
  const height = Math.max(...points.map((p) => p.y)) - Math.min(...points.map((p) => p.y));
  return (
    <Section title={only ? (only.type === 'off' ? 'Handle' : only.smooth ? 'Smooth point' : 'Corner point') : 'Points'}>
      {only ? (
        <div className="mb-2 grid gap-1.5">
          <NumberField
            label="x"
            value={only.x}
            onChange={(x) => run((p) => placePoint(p, { at: place(), point: keys[0]!, x }))}
          />
          <NumberField
            label="y"
            value={only.y}
            onChange={(y) => run((p) => placePoint(p, { at: place(), point: keys[0]!, y }))}
          />
          {handle && (
            <>
              <NumberField
                label="Length"
                value={handle.distance}
                onChange={(length) => run((p) => setHandle(p, { at, handle: keys[0]!, length }))}
              />
              <NumberField
                label="Angle °"
                value={handle.angle}
                onChange={(angle) => run((p) => setHandle(p, { at, handle: keys[0]!, angle }))}
              />
            </>
          )}
        </div>
      ) : (
        <div className="mb-2 grid gap-1.5">
          <NumberField
            label="Width"
            value={Math.round(width * 100) / 100}
            disabled={width === 0}
            onChange={(v) => run((p) => resizePoints(p, { at, points: keys, width: v }))}
          />
          <NumberField
            label="Height"
            value={Math.round(height * 100) / 100}
            disabled={height === 0}
            onChange={(v) => run((p) => resizePoints(p, { at, points: keys, height: v }))}
          />
        </div>
      )}
      {full.length > 0 && <FullnessRow keys={keys} full={full} />}
      {keys.length === 2 && <PairRow drawing={drawing} keys={keys} />}
      {onCurve.length > 1 && <ArrangeRow keys={keys} count={onCurve.length} />}
      <div className="flex flex-wrap gap-1.5">
        {onCurve.length > 0 && (
          <>
            <Button
              disabled={onCurve.every((p) => p.smooth)}
              onClick={() => run((p) => setSmooth(p, { at: whole, points: keys, smooth: true }))}
            >
              Smooth
            </Button>
            <Button
              disabled={onCurve.every((p) => !p.smooth)}
              onClick={() => run((p) => setSmooth(p, { at: whole, points: keys, smooth: false }))}
            >
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
        {only && only.type !== 'off' && (
          <Button
            title="Opens the outline at this point"
            onClick={() => run((p) => cutAtPoint(p, { at: whole, point: keys[0]! })) && select(new Set())}
          >
            Cut here
          </Button>
        )}
        <Button
          kind="danger"
          onClick={() => {
            if (run((p) => deletePoints(p, { at: whole, points: keys }))) select(new Set());
          }}
        >
          Delete
        </Button>
      </div>
    </Section>
  );
}

/** Distance and angle copied from one pair of points, to be given to another. */
let copied: { distance: number; angle: number } | undefined;

/** Two chosen points by where they lie, whatever the order they were chosen in: lower before upper, or left before right. */
function endsOf(drawing: Drawing, keys: readonly PointKey[]) {
  const [a, b] = [pointOf(drawing, keys[0]!)!, pointOf(drawing, keys[1]!)!];
  const upright = Math.abs(b.y - a.y) >= Math.abs(b.x - a.x);
  const inOrder = upright ? a.y <= b.y : a.x <= b.x;
  const [first, second] = inOrder ? [keys[0]!, keys[1]!] : [keys[1]!, keys[0]!];
  return [
    { key: first, name: upright ? 'Lower' : 'Left' },
    { key: second, name: upright ? 'Upper' : 'Right' },
  ] as const;
}

/**
 * Distance and angle of two points; a terminal's cut is copied from one place and given to another. A cut is a line: its
 * angle is told from 0 to 180 degrees. The end that moves is chosen, and ringed on the sheet.
 */
function PairRow({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  const ends = endsOf(drawing, keys);
  const [which, setWhich] = useState<'0' | '1'>('1');
  const to = ends[which === '1' ? 1 : 0].key;
  const from = ends[which === '1' ? 0 : 1].key;
  const pair = between(pointOf(drawing, from)!, pointOf(drawing, to)!);
  const angle = Math.round(lineAngle(pair.angle) * 100) / 100;
  useEffect(() => {
    setMoving(to);
    return () => setMoving(undefined);
  }, [to]);
  return (
    <div className="mb-2 grid gap-1.5">
      <NumberField
        label="Distance"
        value={Math.round(pair.distance * 100) / 100}
        onChange={(distance) => run((p) => setBetween(p, { at, from, to, distance }))}
      />
      <NumberField
        label="Angle °"
        value={angle}
        onChange={(typed) => run((p) => setBetween(p, { at, from, to, angle: typed }))}
      />
      <div className="flex items-center gap-2">
        <span className="text-quiet">Moves</span>
        <Choice
          label="The end that moves"
          value={which}
          options={[
            { value: '0', text: ends[0].name },
            { value: '1', text: ends[1].name },
          ]}
          onChange={setWhich}
        />
      </div>
      <div className="flex gap-1.5">
        <Button
          title="Remembers this distance and angle"
          onClick={() => {
            copied = { distance: pair.distance, angle };
            say(`Copied ${Math.round(pair.distance * 10) / 10} at ${Math.round(angle * 10) / 10}°.`);
          }}
        >
          Copy both
        </Button>
        <Button
          title="Gives these two points the distance and angle that were copied; the ringed end moves"
          onClick={() =>
            copied
              ? run((p) => setBetween(p, { at, from, to, ...copied! }))
              : say('Copy a distance and angle first, from two other points.')
          }
        >
          Give both
        </Button>
      </div>
    </div>
  );
}

const ALIGN: readonly { to: Alignment; title: string; Icon: typeof AlignStartVertical }[] = [
  { to: 'left', title: 'Align left', Icon: AlignStartVertical },
  { to: 'centre', title: 'Align on an upright line between', Icon: AlignCenterVertical },
  { to: 'right', title: 'Align right', Icon: AlignEndVertical },
  { to: 'top', title: 'Align top', Icon: AlignStartHorizontal },
  { to: 'middle', title: 'Align on a level line between', Icon: AlignCenterHorizontal },
  { to: 'bottom', title: 'Align bottom', Icon: AlignEndHorizontal },
];
const SPREAD = [
  { axis: 'x', title: 'Space evenly across', Icon: AlignHorizontalDistributeCenter },
  { axis: 'y', title: 'Space evenly upwards', Icon: AlignVerticalDistributeCenter },
] as const;

/** Aligns and spaces the chosen points. */
function ArrangeRow({ keys, count }: { keys: readonly PointKey[]; count: number }) {
  const at = place();
  const icon = 'rounded-md p-1 text-quiet hover:bg-kelp-tint hover:text-ink disabled:opacity-40';
  return (
    <div className="mb-2 flex justify-between rounded-lg border border-line bg-paper p-0.5">
      {ALIGN.map(({ to, title, Icon }) => (
        <button
          key={to}
          type="button"
          aria-label={title}
          title={title}
          className={icon}
          onClick={() => run((p) => alignPoints(p, { at, points: keys, to }))}
        >
          <Icon size={16} />
        </button>
      ))}
      {SPREAD.map(({ axis, title, Icon }) => (
        <button
          key={axis}
          type="button"
          aria-label={title}
          title={title}
          disabled={count < 3}
          className={icon}
          onClick={() => run((p) => distributePoints(p, { at, points: keys, axis }))}
        >
          <Icon size={16} />
        </button>
      ))}
    </div>
  );
}

const PRESETS = [
  { fullness: 0.5, title: 'Slack', hint: '50 %: a diamond-like round' },
  { fullness: 0.552, title: 'Circle', hint: '55 %: a quarter of a circle' },
  { fullness: 0.62, title: 'Full', hint: '62 %: rounder shoulders' },
  { fullness: 0.7, title: 'Square', hint: '70 %: nearly a rounded corner' },
] as const;
let copiedFullness: number | undefined;

/** Fullness of the chosen curves by number, by preset, or as another curve has it; each keeps its own proportions. */
function FullnessRow({ keys, full }: { keys: readonly PointKey[]; full: readonly number[] }) {
  const at = place();
  const [least, most] = [Math.min(...full), Math.max(...full)];
  const mean = full.reduce((a, b) => a + b, 0) / full.length;
  const give = (fullness: number) => run((p) => setFullness(p, { at, points: keys, fullness }));
  return (
    <div
      className="mb-2 grid gap-1.5"
      title="How full the curves between the chosen points are; each keeps the proportion of its own handles"
    >
      <NumberField
        label={
          most - least < 0.005 ? 'Fullness %' : `Fullness % (${Math.round(least * 100)}–${Math.round(most * 100)})`
        }
        value={Math.round(mean * 1000) / 10}
        onChange={(v) => give(v / 100)}
      />
      <div className="flex flex-wrap gap-1">
        {PRESETS.map((preset) => (
          <button
            key={preset.title}
            type="button"
            title={preset.hint}
            className="rounded-full border border-line px-2 text-[12.5px] hover:bg-kelp-tint"
            onClick={() => give(preset.fullness)}
          >
            {preset.title}
          </button>
        ))}
        <button
          type="button"
          className="px-1 text-[12.5px] text-kelp"
          title="Remembers this fullness"
          onClick={() => {
            copiedFullness = mean;
            say(`Copied a fullness of ${Math.round(mean * 1000) / 10} %.`);
          }}
        >
          Copy
        </button>
        <button
          type="button"
          className="px-1 text-[12.5px] text-kelp"
          title="Gives the fullness that was copied"
          onClick={() => (copiedFullness ? give(copiedFullness) : say('Copy a fullness first, from another curve.'))}
        >
          Give
        </button>
      </div>
    </div>
  );
}
