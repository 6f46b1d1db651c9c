import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { plural } from '../../core/project/edit';
import { glyphForCodePoint, masterOf } from '../../core/project/queries';
import { withLetterCount } from '../../core/tracing/regions';
import { unitsPerPixel } from '../../core/tracing/sheet';
import {
  addRegion,
  charactersOf,
  joinWithNext,
  lettered,
  moveBaseline,
  moveEdge,
  removeRegion,
} from '../../core/tracing/sheetEdits';
import type { tracingWorker } from '../../workers/clients';
import type { SheetFound } from '../../workers/tracing';
import { say, useBench } from '../state/bench';
import { Bar } from '../ui/controls';
import { Button, CheckRow, NumberField, TextField } from '../ui/parts';
import { codeOf, type OpenedSheet, putBehind } from './putBehind';
import { type Chosen, SheetPicture } from './SheetPicture';

/** The lines of a sheet with what each says; typing sets how many letters a line has. */
function useLetterLines(sheet: OpenedSheet) {
  const [texts, setTexts] = useState<readonly string[]>(() => sheet.lines.map(() => ''));
  const [found, setFound] = useState(sheet.lines);
  const lines = found.map((l, i) => lettered(l, texts[i] ?? ''));

  const retype = (index: number, text: string) => {
    setTexts(lines.map((_, i) => (i === index ? text : (texts[i] ?? ''))));
    const count = charactersOf(text).length;
    if (count === 0) return;
    setFound(
      found.map((l, i) => {
        if (i !== index) return l;
        // From the letters as they were found, so that typing on takes a joining back.
        const whole =
          sheet.lines[i] && sheet.lines[i].regions.length >= l.regions.length && count > l.regions.length
            ? { ...sheet.lines[i], baseline: l.baseline }
            : l;
        return withLetterCount(whole, count);
      }),
    );
  };
  return { lines, texts, retype, found, setFound };
}

/** The letters that were found: named by typing, put right by hand, and sent to their glyphs. */
export function LettersStep({
  sheet,
  worker,
  onBack,
  onClose,
}: {
  sheet: OpenedSheet;
  worker: ReturnType<typeof tracingWorker>;
  onBack: () => void;
  onClose: () => void;
}) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const { zones, name: masterName } = masterOf(project, master)!;
  const { lines, texts, retype, found, setFound } = useLetterLines(sheet);
  const [chosen, setChosen] = useState<Chosen>();
  const [trace, setTrace] = useState(false);
  const [typedSize, setTypedSize] = useState<number>();
  const [progress, setProgress] = useState(0);
  const heights = {
    xHeight: zones.xHeight.position,
    capHeight: zones.capHeight.position,
    ascender: zones.ascender.position,
  };
  const measured = unitsPerPixel(
    lines,
    lines.map((l) => l.characters),
    heights,
  );
  const scale = typedSize === undefined ? measured : typedSize / sheet.height;
  const wanted = lines.flatMap((l, line) =>
    l.characters.flatMap((character, region) => (character && l.regions[region] ? [{ line, region, character }] : [])),
  );
  const fresh = wanted.filter((w) => !glyphForCodePoint(project, codeOf(w.character)));
  const doubled = wanted.find((w, i) => wanted.findIndex((o) => o.character === w.character) !== i);

  const drop = () => {
    if (!chosen) return;
    setFound(removeRegion(found, chosen));
    setChosen(undefined);
  };

  const put = useMutation({
    mutationFn: async (unitsPerPixel: number) => {
      const order = [...new Map(wanted.map((w) => [w.character, w])).values()];
      return putBehind({ sheet, worker, lines, order, trace, master, unitsPerPixel }, setProgress);
    },
    onSuccess: (done) => done && onClose(),
    onError: () => say('The letters could not be cut out of this sheet.'),
  });

  if (lines.length === 0)
    return (
      <div>
        <p className="mb-3">No letters were found on this sheet: it is empty, or its ink is as light as the paper.</p>
        <Button onClick={onBack}>Another sheet</Button>
      </div>
    );
  return (
    <div className="grid grid-cols-[1fr_270px] gap-5">
      <SheetPicture
        url={sheet.url}
        width={sheet.width}
        height={sheet.height}
        lines={lines}
        chosen={chosen}
        onChoose={setChosen}
        onRemove={drop}
        onEdge={(at, edge, to) => setFound(moveEdge(found, at, edge, to))}
        onBaseline={(line, to) => setFound(moveBaseline(found, line, to))}
        onNew={(region) => setFound(addRegion(found, region))}
      />
      <div className="flex min-w-0 flex-col">
        <p className="mb-2 text-quiet">
          {plural(lines.length, 'line')},{' '}
          {plural(
            lines.reduce((n, l) => n + l.regions.length, 0),
            'letter',
          )}
          {Math.abs(sheet.skewDegrees) >= 0.05 ? `; lay ${Math.abs(sheet.skewDegrees).toFixed(1)}° askew` : ''}. Type
          what each line says:
        </p>
        <LineTexts lines={lines} texts={texts} onText={retype} />
        {chosen && (
          <div className="mb-3 flex flex-wrap gap-1.5">
            <Button
              title="One letter of this piece and the one to its right"
              onClick={() => setFound(joinWithNext(found, chosen))}
            >
              Join with next
            </Button>
            <Button kind="danger" title="This is no letter (Delete)" onClick={drop}>
              Remove
            </Button>
          </div>
        )}
        <div className="mb-3 border-line border-t pt-3">
          <NumberField
            label="Sheet height, units"
            value={scale === undefined ? undefined : Math.round(scale * sheet.height)}
            onChange={(v) => setTypedSize(Math.max(100, Math.min(100000, v)))}
          />
          <p className="mt-1 text-[12.5px] text-quiet">
            {typedSize !== undefined
              ? 'As typed.'
              : measured
                ? `So that its letters reach the heights of ${masterName}.`
                : 'Known once some letters are typed.'}
          </p>
        </div>
        <CheckRow label="Trace them to outlines" checked={trace} onChange={setTrace} />
        <p className="mb-3 text-[12.5px] text-quiet">
          {trace
            ? 'Outlines take the place of what these glyphs have in this master.'
            : 'Each letter goes behind its glyph, to draw over or to trace.'}
          {fresh.length > 0 ? ` ${plural(fresh.length, 'glyph')} will be added.` : ''}
          {doubled ? ` ▲ “${doubled.character}” stands there twice; the last one is taken.` : ''}
        </p>
        <div className="mt-auto flex items-center justify-end gap-2">
          {put.isPending && <Bar label="Cutting letters" share={progress} className="min-w-0 flex-1" />}
          <Button onClick={onBack}>Another sheet</Button>
          <Button
            kind="primary"
            disabled={wanted.length === 0 || !scale || put.isPending}
            onClick={() => scale && put.mutate(scale)}
          >
            {trace ? `Trace ${wanted.length}` : `Put behind ${wanted.length}`}
          </Button>
        </div>
      </div>
    </div>
  );
}

/** A field for what each line says, with a word where it does not agree with what was found. */
function LineTexts({
  lines,
  texts,
  onText,
}: {
  lines: SheetFound['lines'];
  texts: readonly string[];
  onText: (line: number, text: string) => void;
}) {
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <div className="mb-3 grid gap-2">
      {lines.map((line, i) => {
        const typed = charactersOf(texts[i] ?? '').length;
        const off = typed > 0 && typed !== line.regions.length;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place on the sheet.
          <label key={i} className="grid grid-cols-[46px_1fr] items-baseline gap-x-2">
            <span className="text-quiet">Line {i + 1}</span>
            <TextField
              ref={i === 0 ? first : undefined}
              value={texts[i] ?? ''}
              onChange={(e) => onText(i, e.target.value)}
            />
            {off && (
              <span className="col-start-2 text-[12.5px] text-marigold">
                ▲ {plural(typed, 'character')} for {plural(line.regions.length, 'letter')}
              </span>
            )}
          </label>
        );
      })}
    </div>
  );
}
