import { useEffect, useState } from 'react';
import { addOutlineBackdrop } from '../../../../core/drawing/backdrops';
import { removeTake, renameTake, restoreTake, type Take, takesOf } from '../../../../core/drawing/takes';
import { drawingsOf, flattened } from '../../../../core/project/outline';
import { pathData } from '../../../../core/project/pathData';
import { cancelPreview, preview, run, useBench } from '../../../state/bench';
import { Button, Section, TextField } from '../../../ui/parts';
import { keepTakeNow, now } from '../takes';
import { place } from './place';

const dated = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** Kept versions of the drawing, the newest first: compared, tried in the galley, brought back. */
export function TakesSection() {
  const project = useBench((s) => s.settled)!;
  const at = place();
  const takes = takesOf(project.glyphs[at.glyph]!, at.master);
  const [trying, setTrying] = useState<string>();
  useEffect(() => () => cancelPreview(), []);
  const tryOut = (take: Take) => {
    const on = trying !== take.id;
    setTrying(on ? take.id : undefined);
    if (on) preview((p) => restoreTake(p, { at, take: take.id, date: now() }));
    else cancelPreview();
  };
  return (
    <Section title="Takes">
      <Button className="mb-3 w-full" title="Keeps this drawing as it is now (T)" onClick={keepTakeNow}>
        Keep a take
      </Button>
      {takes.length === 0 && (
        <p className="text-quiet">
          A take is a version of this drawing that stays, whatever you do next. Keep one before a bold change.
        </p>
      )}
      <ul className="grid gap-3">
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
                    run((p) => renameTake(p, { glyph: at.glyph, take: take.id, name }));
                }}
              />
              <p className="mb-1 text-[12.5px] text-quiet">{dated.format(new Date(take.date))}</p>
            </div>
            <div className="col-span-2 flex flex-wrap gap-x-3 gap-y-1 text-kelp">
              <button
                type="button"
                aria-pressed={trying === take.id}
                title="Shows it in its place, in the galley too, without changing anything"
                onClick={() => tryOut(take)}
              >
                {trying === take.id ? 'Stop trying' : 'Try'}
              </button>
              <button
                type="button"
                title="Brings it back; what is there now is kept as a take"
                onClick={() => {
                  setTrying(undefined);
                  run((p) => restoreTake(p, { at, take: take.id, date: now() }));
                }}
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
                onClick={() => run((p) => removeTake(p, { glyph: at.glyph, take: take.id }))}
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
