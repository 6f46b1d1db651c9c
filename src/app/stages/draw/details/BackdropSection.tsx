import { ImagePlus, Lock, LockOpen, ScanLine, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { addOutlineBackdrop, outlineName, removeBackdrop, setBackdrop } from '../../../../core/drawing/backdrops';
import { type Affine, type AffineFacts, affineFrom, factsOf } from '../../../../core/geometry/affine';
import { tidy } from '../../../../core/geometry/tidy';
import { glyphTyped } from '../../../../core/project/findGlyphs';
import type { BackdropOutline, Drawing } from '../../../../core/project/model';
import { run, say, useBench } from '../../../state/bench';
import { useCalmProject } from '../../../state/calm';
import { openDialog } from '../../../state/dialogs';
import { Check, Slide } from '../../../ui/controls';
import { Button, NumberField, Section, TextField } from '../../../ui/parts';
import { setLevelling, setTool } from '../drawBench';
import { place } from './place';
import { TraceButton } from './TraceSection';

/** Pictures behind the drawing: brought, dimmed, locked, traced. */
export function BackdropSection({ drawing, bringPicture }: { drawing: Drawing; bringPicture: () => void }) {
  const project = useCalmProject();
  const at = place();
  const icon = 'rounded p-1 text-quiet hover:bg-kelp-tint';
  return (
    <Section
      title="Behind the drawing"
      action={
        <span className="flex">
          <button
            type="button"
            className={icon}
            aria-label="Get a sheet"
            title="Get a sheet of lettering from the scanner"
            onClick={() => openDialog('sheet')}
          >
            <ScanLine size={16} />
          </button>
          <button
            type="button"
            className={icon}
            aria-label="Put a picture behind"
            title="Put a picture behind (PNG or JPEG; drop or paste works too)"
            onClick={bringPicture}
          >
            <ImagePlus size={16} />
          </button>
        </span>
      }
    >
      {drawing.backdrops.length === 0 && (
        <p className="text-quiet">
          Drop or paste a picture of your lettering to draw over, or get a sheet from the scanner.
        </p>
      )}
      {drawing.backdrops.map((b) => {
        const change = (c: Parameters<typeof setBackdrop>[1]['change'], merge?: string) =>
          run((p) => setBackdrop(p, { at, id: b.id, change: c }), merge);
        const name = b.outline
          ? (outlineName(project, project.glyphs[at.glyph], b.outline) ?? 'gone')
          : (project.pictures[b.picture]?.name ?? 'picture');
        return (
          <div key={b.id} className="mb-3 grid grid-cols-1 gap-1">
            <div className="flex items-center gap-1">
              <Check
                label={name}
                className="min-w-0 flex-1 items-center"
                checked={b.visible}
                onChange={(visible) => change({ visible })}
              >
                <span className="block truncate">{name}</span>
              </Check>
              <button
                type="button"
                className={icon}
                aria-label={b.locked ? `Unlock ${name}` : `Lock ${name}`}
                title={b.locked ? 'Unlock' : 'Lock in place'}
                onClick={() => change({ locked: !b.locked })}
              >
                {b.locked ? <Lock size={14} /> : <LockOpen size={14} />}
              </button>
              <button
                type="button"
                className={icon}
                aria-label={`Remove ${name}`}
                title="Remove"
                onClick={() => run((p) => removeBackdrop(p, { at, id: b.id }))}
              >
                <Trash2 size={14} />
              </button>
            </div>
            <div className="flex items-center gap-2 text-quiet">
              <span>Strength</span>
              <Slide
                label="Strength"
                className="min-w-0 flex-1"
                min={5}
                max={100}
                value={Math.round(b.strength * 100)}
                onChange={(v) => change({ strength: v / 100 }, `strength ${b.id}`)}
              />
              <span className="w-10 text-right">{Math.round(b.strength * 100)} %</span>
            </div>
            {!b.outline && (
              <div>
                <TraceButton id={b.id} />
              </div>
            )}
            {!b.outline && !b.locked && (
              <PlaceFields
                transform={b.transform}
                picture={project.pictures[b.picture]}
                onChange={(transform) => change({ transform })}
                onLevel={(zone) => {
                  setTool('picture');
                  setLevelling({ id: b.id, zone });
                }}
              />
            )}
          </div>
        );
      })}
      <OutlinesBehind drawing={drawing} />
    </Section>
  );
}

const LEVELS = [
  { zone: 'xHeight', text: 'Baseline, x-height…' },
  { zone: 'capHeight', text: 'Baseline, caps…' },
] as const;

/** Place, size and turn of a picture by number, about its lower left corner; or by two clicks on its own heights. */
function PlaceFields({
  transform,
  picture,
  onChange,
  onLevel,
}: {
  transform: Affine;
  picture: { height: number } | undefined;
  onChange: (t: Affine) => void;
  onLevel: (zone: 'xHeight' | 'capHeight') => void;
}) {
  const facts = factsOf(transform);
  const tall = picture?.height ?? 0;
  /** Where the lower left corner lies; a picture's own y goes down. */
  const corner = (t: Affine) => [t[2] * tall + t[4], t[3] * tall + t[5]] as const;
  const [x, y] = corner(transform);
  const change = (next: Partial<AffineFacts>, to: readonly [number, number] = [x, y]) => {
    const t = affineFrom({ ...facts, ...next });
    const [nx, ny] = corner(t);
    onChange([t[0], t[1], t[2], t[3], tidy(t[4] + to[0] - nx), tidy(t[5] + to[1] - ny)]);
  };
  return (
    <div className="grid gap-1.5">
      <NumberField label="Left" value={tidy(x)} onChange={(v) => change({}, [v, y])} />
      <NumberField label="Foot" value={tidy(y)} onChange={(v) => change({}, [x, v])} />
      <NumberField
        label="Units to 100 pixels"
        value={tidy(facts.width * 100)}
        onChange={(v) =>
          v > 0
            ? change({ width: v / 100, height: (facts.height / (facts.width || 1)) * (v / 100) })
            : say('A picture is more than 0 units wide.')
        }
      />
      <NumberField label="Turn °" value={tidy(facts.turn)} onChange={(turn) => change({ turn })} />
      <div className="flex flex-wrap gap-1.5">
        {LEVELS.map(({ zone, text }) => (
          <Button
            key={zone}
            title="Two clicks on the picture: where its baseline is, and where this height is; it is scaled and moved to fit"
            onClick={() => onLevel(zone)}
          >
            {text}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** Puts outlines behind: other masters, another glyph, a copy of what is drawn now. */
function OutlinesBehind({ drawing }: { drawing: Drawing }) {
  const project = useBench((s) => s.settled)!;
  const at = place();
  const [typed, setTyped] = useState('');
  const others = project.masters.filter((m) => m.id !== at.master);
  const add = (outline: BackdropOutline) => run((p) => addOutlineBackdrop(p, { at, outline }));
  return (
    <>
      <p className="mt-1 mb-1.5 text-quiet">Outlines to compare with</p>
      <div className="mb-2 flex flex-wrap gap-1.5">
        {others.map((m) => (
          <Button
            key={m.id}
            aria-label={`${m.name} behind`}
            title={`This glyph in ${m.name}`}
            onClick={() => add({ kind: 'master', master: m.id })}
          >
            {m.name}
          </Button>
        ))}
        <Button
          title="What is drawn now; it stays as it is while you go on"
          disabled={drawing.contours.length === 0}
          onClick={() => add({ kind: 'copy', contours: drawing.contours })}
        >
          A copy
        </Button>
      </div>
      <form
        className="flex gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          const glyph = glyphTyped(project, typed);
          if (!glyph) say(`There is no glyph “${typed.trim()}”.`);
          else if (add({ kind: 'glyph', glyph: glyph.id })) setTyped('');
        }}
      >
        <TextField
          aria-label="Glyph to compare with"
          placeholder="character or name"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <Button type="submit" disabled={typed.trim() === ''}>
          Show
        </Button>
      </form>
    </>
  );
}
