import { useEffect, useState } from 'react';
import { addOutlineBackdrop } from '../../../../core/drawing/backdrops';
import { putTakeBack, removeTake, renameTake, restoreTake, type Take, takesOf } from '../../../../core/drawing/takes';
import { drawingsOf, flattened } from '../../../../core/project/outline';
import { pathData } from '../../../../core/project/pathData';
import { endTrial, run, runAside, tryOut, useBench } from '../../../state/bench';
import { Button, Section, TextField } from '../../../ui/parts';
import { bringBack, keepTakeNow, now } from '../takes';
import { place } from './place';

const dated = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** Kept versions of the drawing, the newest first: compared, tried in the galley, brought back. */
export function TakesSection() {
  const project = useBench((s) => s.settled)!;
  const at = place();
  const takes = takesOf(project.glyphs[at.glyph]!, at.master);
  const trying = useBench((s) => s.trial?.id);
  const [thrown, setThrown] = useState<{ glyph: string; take: Take }>();
  useEffect(() => endTrial, []);
  const toggle = (take: Take) => {
    if (trying === take.id) endTrial();
    else
      tryOut({ id: take.id, name: take.name, adopt: () => bringBack(take) }, (p) =>
        restoreTake(p, { at, take: take.id, date: now() }),
      );
  };
  return (
    <Section title="Takes">
      <Button className="mb-3 w-full" title="Keeps this drawing as it is now (T)" onClick={keepTakeNow}>
        Keep a take
      </Button>
      {thrown?.glyph === at.glyph && (
        <p role="status" className="mb-2 flex flex-wrap justify-between gap-2 text-quiet">
          “{thrown.take.name}” is thrown away.
          <button
            type="button"
            className="text-kelp"
            onClick={() => {
              if (runAside((p) => putTakeBack(p, thrown))) setThrown(undefined);
            }}
          >
            Put it back
          </button>
        </p>
      )}
      {takes.length === 0 && (
        <p className="text-quiet">
          A take is a version of this drawing that stays, whatever you do next. Keep one before a bold change.
        </p>
      )}
      <ul aria-label="Takes of this drawing" className="grid gap-3">
        {takes.map((take) => (
          <li
            key={take.id}
            data-testid="take"
            className={`grid grid-cols-[64px_1fr] gap-x-2.5 rounded-lg border p-2 ${trying === take.id ? 'border-kelp bg-kelp-tint' : 'border-line'}`}
          >
            <TakePicture take={take} />
            <div className="min-w-0">
              <TextField
                aria-label={`Name of ${take.name}`}
                defaultValue={take.name}
                className="mb-0.5 h-6! border-transparent! bg-transparent! px-0! font-semibold"
                onBlur={(e) => {
                  const name = e.target.value.trim();
                  if (name !== take.name && name !== '')
                    runAside((p) => renameTake(p, { glyph: at.glyph, take: take.id, name }));
                }}
              />
              <p className="mb-1 text-[12.5px] text-quiet">{dated.format(new Date(take.date))}</p>
            </div>
            <div className="col-span-2 flex flex-wrap gap-x-3 gap-y-1 text-kelp">
              <button
                type="button"
                aria-pressed={trying === take.id}
                title="Shows it in its place, in the galley too, without changing anything"
                onClick={() => toggle(take)}
              >
                {trying === take.id ? 'Stop trying' : 'Try'}
              </button>
              <button
                type="button"
                title="Brings it back; what is there now is kept as a take"
                onClick={() => bringBack(take)}
              >
                Bring back
              </button>
              <button
                type="button"
                title="Puts it behind the drawing"
                onClick={() => run((p) => addOutlineBackdrop(p, { at, outline: { kind: 'take', take: take.id } }))}
              >
                Compare
              </button>
              <button
                type="button"
                className="text-quiet"
                onClick={() => {
                  endTrial();
                  if (runAside((p) => removeTake(p, { glyph: at.glyph, take: take.id })))
                    setThrown({ glyph: at.glyph, take });
                }}
              >
                Throw away
              </button>
            </div>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function TakePicture({ take }: { take: Take }) {
  const project = useBench((s) => s.settled)!;
  const { zones } = project.masters.find((m) => m.id === take.master) ?? project.masters[0]!;
  const path = pathData(flattened(take.drawing, drawingsOf(project, take.master)).filter((c) => c.closed));
  const [top, bottom] = [zones.ascender.position + 40, zones.descender.position - 20];
  return (
    <svg
      aria-hidden="true"
      className="h-14 w-16"
      viewBox={`0 ${-top} ${Math.max(1, take.drawing.advance)} ${top - bottom}`}
    >
      <path d={path} transform="scale(1 -1)" className="fill-ink" />
    </svg>
  );
}
