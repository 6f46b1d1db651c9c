import { useEffect, useState } from 'react';
import { isRefused, type Refusal } from '../../../../core/base/result';
import { keyParts, type PointKey } from '../../../../core/drawing/points';
import { type StrokeKind, takeWorked } from '../../../../core/drawing/strokes';
import type { Drawing } from '../../../../core/project/model';
import { EdgeFields } from '../../../edges/EdgeFields';
import { EDGE_KINDS, type EdgeSettings, edgeSettings, edgeWork, rememberEdges } from '../../../edges/settings';
import { cancelPreview, preview, run, select } from '../../../state/bench';
import { useJob } from '../../../state/useJob';
import { Button, Section } from '../../../ui/parts';
import { setEdges, useDrawBench } from '../drawBench';
import { place } from './place';

/** Asks for work on the edges. */
export function EdgeButtons() {
  return (
    <div className="mt-1.5 flex flex-wrap gap-1.5">
      {EDGE_KINDS.map(({ kind, title, hint }) => (
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
  const [asked, setAsked] = useState(edgeSettings);
  const [contours] = useState(() => [...new Set(keys.map((k) => keyParts(k)[0]))]);
  const at = place();
  const work = edgeWork(kind, asked);
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
  const set = (change: Partial<EdgeSettings>) => {
    const next = { ...asked, ...change };
    rememberEdges(next);
    setAsked(next);
  };
  const { title, hint } = EDGE_KINDS.find((k) => k.kind === kind)!;
  return (
    <Section title={title}>
      <p className="mb-2 text-quiet">
        {hint}.{' '}
        {contours.length > 0
          ? `On ${contours.length === 1 ? 'the chosen contour' : `${contours.length} chosen contours`}.`
          : ''}
      </p>
      <EdgeFields kind={kind} asked={asked} onChange={set} />
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
