import { useEffect, useState } from 'react';
import { isRefused, type Refusal } from '../../../../core/base/result';
import { keyParts, type PointKey } from '../../../../core/drawing/points';
import { type FRAME_SIDES, type StrokeKind, type StrokeWork, takeWorked } from '../../../../core/drawing/strokes';
import { CAPS, JOINS } from '../../../../core/geometry/stroke';
import type { Drawing } from '../../../../core/project/model';
import { cancelPreview, preview, run, select } from '../../../state/bench';
import { useJob } from '../../../state/useJob';
import { Button, CheckRow, Choice, NumberField, Section } from '../../../ui/parts';
import { setEdges, useDrawBench } from '../drawBench';
import { place } from './place';

const KINDS: readonly { kind: StrokeKind; title: string; hint: string }[] = [
  { kind: 'stroke', title: 'Stroke', hint: 'Contours become strokes of a width' },
  { kind: 'grow', title: 'Grow', hint: 'Every edge moves outwards, or inwards for a negative number' },
  { kind: 'hollow', title: 'Hollow', hint: 'An open face: a wall along the edge, nothing inside' },
  { kind: 'frame', title: 'Frame', hint: 'A box or a key around the letter, drawn or filled' },
];

const SIDES = [
  { value: 'around', text: 'Kept around', hint: 'The sides that the letter had, now around the frame' },
  { value: 'frame', text: 'The frame is all', hint: 'The advance is as wide as the frame' },
  { value: 'as it is', text: 'As it is', hint: 'Advance and letter stay where they are' },
] as const;

let settings = {
  width: 40,
  by: 10,
  wall: 20,
  margin: 40,
  frame: 30,
  radius: 60,
  reversed: false,
  sides: 'around',
  join: 'round',
  cap: 'round',
} as {
  width: number;
  by: number;
  wall: number;
  margin: number;
  frame: number;
  radius: number;
  reversed: boolean;
  sides: (typeof FRAME_SIDES)[number];
  join: (typeof JOINS)[number];
  cap: (typeof CAPS)[number];
};

const workOf = (kind: StrokeKind, s: typeof settings): StrokeWork => {
  if (kind === 'stroke') return { kind, width: s.width, join: s.join, cap: s.cap };
  if (kind === 'grow') return { kind, by: s.by, join: s.join };
  if (kind === 'hollow') return { kind, wall: s.wall, join: s.join };
  return { kind, margin: s.margin, wall: s.frame, radius: s.radius, reversed: s.reversed, sides: s.sides };
};

/** Asks for work on the edges. */
export function EdgeButtons() {
  return (
    <div className="mt-1.5 flex flex-wrap gap-1.5">
      {KINDS.map(({ kind, title, hint }) => (
        <Button key={kind} title={hint} onClick={() => setEdges(kind)}>
          {title}…
        </Button>
      ))}
    </div>
  );
}

/** Strokes, growing, hollow letters and frames: shown on the drawing while the numbers are chosen. */
export function EdgeSection({ keys }: { keys: readonly PointKey[] }) {
  const kind = useDrawBench((s) => s.edges);
  return kind ? <Working key={kind} kind={kind} keys={keys} /> : null;
}

function Working({ kind, keys }: { kind: StrokeKind; keys: readonly PointKey[] }) {
  const [asked, setAsked] = useState(settings);
  const [contours] = useState(() => [...new Set(keys.map((k) => keyParts(k)[0]))]);
  const at = place();
  const work = workOf(kind, asked);
  const key = JSON.stringify(work);
  const { share, found, fault, start, stop } = useJob<{ of: string; drawing: Drawing | Refusal }>();
  // What was worked out for other numbers is not what is asked for now.
  const now = found?.of === key ? found.drawing : undefined;
  const made = now && !isRefused(now) ? now : undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out anew when a number changes.
  useEffect(() => {
    select(new Set());
    // Numbers that follow each other quickly are worked out once.
    const timer = setTimeout(
      () => start(async (service) => ({ of: key, drawing: await service.edges(at.glyph, at.master, contours, work) })),
      60,
    );
    return () => clearTimeout(timer);
  }, [key]);
  useEffect(() => {
    if (made) preview((p) => takeWorked(p, { at: { glyph: at.glyph, master: at.master }, kind, made }));
    else cancelPreview();
  }, [made, kind, at.glyph, at.master]);
  useEffect(() => () => cancelPreview(), []);
  const why = fault ?? (now && isRefused(now) ? now.reason : undefined);
  const set = (change: Partial<typeof settings>) => {
    settings = { ...asked, ...change };
    setAsked(settings);
  };
  const { title, hint } = KINDS.find((k) => k.kind === kind)!;
  return (
    <Section title={title}>
      <p className="mb-2 text-quiet">
        {hint}.{' '}
        {contours.length > 0
          ? `On ${contours.length === 1 ? 'the chosen contour' : `${contours.length} chosen contours`}.`
          : ''}
      </p>
      <div className="mb-3 grid gap-1.5">
        {kind === 'stroke' && <NumberField label="Width" value={asked.width} onChange={(width) => set({ width })} />}
        {kind === 'grow' && <NumberField label="By" value={asked.by} onChange={(by) => set({ by })} />}
        {kind === 'hollow' && <NumberField label="Wall" value={asked.wall} onChange={(wall) => set({ wall })} />}
        {kind === 'frame' && (
          <>
            <NumberField label="Margin" value={asked.margin} onChange={(margin) => set({ margin })} />
            {!asked.reversed && <NumberField label="Wall" value={asked.frame} onChange={(frame) => set({ frame })} />}
            <NumberField label="Corner radius" value={asked.radius} onChange={(radius) => set({ radius })} />
            <p className="text-quiet">Sides</p>
            <Choice label="Sides" value={asked.sides} options={SIDES} onChange={(sides) => set({ sides })} />
            <CheckRow
              label="Filled, the letter left out"
              checked={asked.reversed}
              onChange={(reversed) => set({ reversed })}
            />
          </>
        )}
      </div>
      {kind !== 'frame' && (
        <div className="mb-3">
          <p className="mb-1 text-quiet">Corners</p>
          <Choice
            label="Corners"
            value={asked.join}
            options={JOINS.map((v) => ({ value: v, text: v }))}
            onChange={(join) => set({ join })}
          />
        </div>
      )}
      {kind === 'stroke' && (
        <div className="mb-3">
          <p className="mb-1 text-quiet">Ends</p>
          <Choice
            label="Ends"
            value={asked.cap}
            options={CAPS.map((v) => ({ value: v, text: v }))}
            onChange={(cap) => set({ cap })}
          />
        </div>
      )}
      {why && (
        <p role="alert" className="mb-2 text-brick">
          {why}
        </p>
      )}
      {share !== undefined && (
        <p role="status" className="mb-2 flex items-center justify-between gap-2 text-quiet">
          Working on the edges…
          <Button onClick={stop}>Stop</Button>
        </p>
      )}
      <div className="flex gap-1.5">
        <Button
          kind="primary"
          disabled={!made}
          onClick={() => {
            if (made && run((p) => takeWorked(p, { at, kind, made }))) setEdges(undefined);
          }}
        >
          Do it
        </Button>
        <Button title="Leaves the drawing as it is (Esc)" onClick={() => setEdges(undefined)}>
          Leave
        </Button>
      </div>
    </Section>
  );
}
