import { useEffect, useMemo, useRef, useState } from 'react';
import { takeTracing } from '../../../../core/drawing/lettering';
import { placedOutlines } from '../../../../core/drawing/placedOutlines';
import { plural } from '../../../../core/project/edit';
import type { Backdrop, Drawing } from '../../../../core/project/model';
import type { TraceOptions } from '../../../../core/tracing/trace';
import { tracingWorker } from '../../../../workers/clients';
import type { PictureTraced } from '../../../../workers/tracing';
import { cancelPreview, preview, run, select, useBench } from '../../../state/bench';
import { Slide } from '../../../ui/controls';
import { Button, CheckRow, Section } from '../../../ui/parts';
import { setTracing, useDrawBench } from '../drawBench';
import { place } from './place';

/** Asks for a picture's outlines. */
export function TraceButton({ id }: { id: string }) {
  return (
    <Button title="Outlines of the ink in this picture, looked at before they are taken" onClick={() => setTracing(id)}>
      Trace…
    </Button>
  );
}

type Settings = { threshold: number | undefined; speckle: number; detail: number };
const USUAL: Settings = { threshold: undefined, speckle: 12, detail: 1.5 };

/** Threshold, specks and detail with the outline over the picture, until it is taken or left. */
export function TraceSection({ drawing }: { drawing: Drawing }) {
  const id = useDrawBench((s) => s.tracing);
  const backdrop = drawing.backdrops.find((b) => b.id === id);
  const picture = useBench((s) => (backdrop?.picture ? s.project?.pictures[backdrop.picture] : undefined));
  return backdrop && picture ? (
    <Tracing
      key={id}
      backdrop={backdrop}
      bytes={picture.bytes}
      name={picture.name}
      drawn={drawing.contours.length > 0}
    />
  ) : null;
}

function Tracing({
  backdrop,
  bytes,
  name,
  drawn,
}: {
  backdrop: Backdrop;
  bytes: Uint8Array;
  name: string;
  drawn: boolean;
}) {
  const worker = useMemo(tracingWorker, []);
  const [settings, setSettings] = useState(USUAL);
  // What was drawn before the outlines were shown over it.
  const [hadContours] = useState(drawn);
  const [keep, setKeep] = useState(false);
  const [found, setFound] = useState<PictureTraced>();
  const [problem, setProblem] = useState<string>();
  const at = place();
  const grid = useBench((s) => s.settled?.settings.grid ?? 1);
  const units =
    Math.sqrt(
      Math.abs(backdrop.transform[0] * backdrop.transform[3] - backdrop.transform[1] * backdrop.transform[2]),
    ) || 1;
  useEffect(() => {
    return () => {
      worker.stop();
      cancelPreview();
    };
  }, [worker]);

  const [opened, setOpened] = useState(false);
  useEffect(() => {
    void worker.service
      .openPicture(bytes, name)
      .then((refused) => (refused ? setProblem(refused.reason) : setOpened(true)));
  }, [worker, bytes, name]);

  // While one tracing runs only the newest other one waits: a slider never runs ahead of its outline.
  const wanted = useRef<TraceOptions>(undefined);
  const working = useRef(false);
  useEffect(() => {
    if (!opened) return;
    wanted.current = {
      threshold: settings.threshold,
      speckle: (settings.speckle / units) ** 2,
      tolerance: settings.detail / units,
    };
    if (working.current) return;
    const work = async () => {
      working.current = true;
      while (wanted.current) {
        const asked = wanted.current;
        wanted.current = undefined;
        const result = await worker.service.trace(asked);
        if (result) setFound(result);
      }
      working.current = false;
    };
    void work();
  }, [worker, opened, settings, units]);

  const outlines = useMemo(
    () => (found ? placedOutlines(found.contours, found.height, backdrop.transform, grid) : undefined),
    [found, backdrop.transform, grid],
  );
  useEffect(() => {
    if (!outlines) return;
    select(new Set());
    preview((p) => takeTracing(p, { at: { glyph: at.glyph, master: at.master }, contours: outlines, keep }));
  }, [outlines, keep, at.glyph, at.master]);

  const level = settings.threshold ?? found?.threshold ?? 128;
  return (
    <Section title={`Trace ${name}`}>
      {problem && (
        <p role="alert" className="mb-2 text-brick">
          {problem}
        </p>
      )}
      <Slider
        label="Ink darker than"
        value={Math.round((level / 255) * 100)}
        min={5}
        max={95}
        unit="%"
        onChange={(v) => setSettings({ ...settings, threshold: (v / 100) * 255 })}
      />
      <Slider
        label="Leave out specks under"
        value={settings.speckle}
        min={0}
        max={60}
        unit="units"
        onChange={(v) => setSettings({ ...settings, speckle: v })}
      />
      <Slider
        label="Keep within"
        value={settings.detail}
        min={0.5}
        max={8}
        step={0.5}
        unit="units"
        onChange={(v) => setSettings({ ...settings, detail: v })}
      />
      {hadContours && <CheckRow label="Keep what is drawn" checked={keep} onChange={setKeep} />}
      <p className="mb-2 text-quiet" data-testid="trace-result">
        {!found
          ? 'Tracing…'
          : found.contours.length === 0
            ? 'No ink at this threshold.'
            : `${plural(found.contours.length, 'contour')}, ${plural(found.points, 'point')}`}
      </p>
      <div className="flex gap-1.5">
        <Button
          kind="primary"
          disabled={!outlines || outlines.length === 0}
          onClick={() => {
            if (run((p) => takeTracing(p, { at, contours: outlines!, keep }))) setTracing(undefined);
          }}
        >
          Take the outline
        </Button>
        <Button onClick={() => setTracing(undefined)}>Leave</Button>
      </div>
    </Section>
  );
}

function Slider({
  label,
  value,
  min,
  max,
  step = 1,
  unit,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  unit: string;
  onChange: (v: number) => void;
}) {
  return (
    <div className="mb-2 grid gap-0.5">
      <span className="flex justify-between">
        <span className="text-quiet">{label}</span>
        <span>
          {value} {unit}
        </span>
      </span>
      <Slide label={label} min={min} max={max} step={step} value={value} onChange={onChange} className="w-full" />
    </div>
  );
}
