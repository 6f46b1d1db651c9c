import { ImagePlus, Lock, LockOpen, RefreshCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  closeContour,
  deletePoints,
  directByNesting,
  placePoint,
  removeBackdrop,
  resizePoints,
  reverseContours,
  setBackdrop,
  setSmooth,
  setStartPoint,
} from '../../../core/drawing/edits';
import { evenOut, fullnesses, setFullness } from '../../../core/drawing/fullness';
import { keyParts, type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import { combineContours, removeOverlap } from '../../../core/drawing/shapeEdits';
import { setSides, sidesOf } from '../../../core/fitting/sides';
import { signedArea } from '../../../core/geometry/contour';
import type { ShapeOperation } from '../../../core/geometry/overlaps';
import { hasMixedDirections } from '../../../core/geometry/winding';
import { plural } from '../../../core/project/edit';
import type { Drawing, Glyph } from '../../../core/project/model';
import { drawingOf } from '../../../core/project/queries';
import { run, select, useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button, NumberField, Section } from '../../ui/parts';
import { reachOf } from '../../ui/reach';
import { Details } from '../Details';
import { TidyDialog } from './TidyDialog';
import { TransformSection } from './TransformSection';

function headingFor(glyph: Glyph, selection: ReadonlySet<PointKey>): string {
  if (selection.size === 0) return glyph.name;
  const contours = new Set([...selection].map((k) => keyParts(k)[0])).size;
  return `${plural(selection.size, 'point')} on ${contours === 1 ? 'one contour' : `${contours} contours`}`;
}

/** What applies to the selection in Draw, one column. */
export function DrawDetails({ bringPicture }: { bringPicture: () => void }) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const id = useBench((s) => s.glyph)!;
  const selection = useBench((s) => s.selection);
  const glyph = project.glyphs[id]!;
  const drawing = drawingOf(glyph, master);
  const reach = reachOf(project, master, [glyph]);
  const kept = [...selection].filter((k) => pointOf(drawing, k));
  const codes = glyph.unicodes.map((c) => `U+${c.toString(16).toUpperCase().padStart(4, '0')}`).join(', ') || 'no code point';
  return (
    <Details heading={headingFor(glyph, new Set(kept))} sub={`${kept.length > 0 ? `${glyph.name} · ` : ''}${codes} · advance ${Math.round(drawing.advance * 10) / 10}`}>
      <div className="mb-3.5 flex items-end gap-2 border-b border-line pb-2" title="At 12, 16, 24 and 48 pixels">
        {[12, 16, 24, 48].map((px) => (
          <GlyphShape key={px} project={project} glyph={glyph} master={master} size={(px * (reach.top - reach.bottom)) / project.unitsPerEm} reach={reach} />
        ))}
      </div>
      {kept.length > 0 && <PointSection drawing={drawing} keys={kept} />}
      <SideSection />
      <ContourSection drawing={drawing} keys={kept} />
      {drawing.contours.length > 0 && <ShapeSection drawing={drawing} keys={kept} />}
      {drawing.contours.length + drawing.components.length > 0 && <TransformSection keys={kept} />}
      <BackdropSection drawing={drawing} bringPicture={bringPicture} />
    </Details>
  );
}

const place = () => {
  const { glyph, master } = useBench.getState();
  return { glyph: glyph!, master };
};

function PointSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
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

function SideSection() {
  const project = useBench((s) => s.project)!;
  const { glyph, master } = place();
  const at = { glyph, master };
  const sides = sidesOf(project, project.glyphs[glyph]!, master);
  const drawn = 'left' in sides;
  return (
    <Section title="Sides">
      <div className="grid gap-1.5">
        {drawn && <NumberField label="Left" value={sides.left} onChange={(left) => run((p) => setSides(p, { at, left }))} />}
        {drawn && <NumberField label="Right" value={sides.right} onChange={(right) => run((p) => setSides(p, { at, right }))} />}
        <NumberField label="Advance" value={sides.advance} onChange={(advance) => run((p) => setSides(p, { at, advance }))} />
      </div>
    </Section>
  );
}

function ContourSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  if (drawing.contours.length === 0) {
    return (
      <Section title="Contours">
        <p className="text-quiet">
          {drawing.components.length > 0
            ? `Made of ${plural(drawing.components.length, 'component')}.`
            : 'Nothing drawn yet: take the Pen, Oval or Box, or put a picture behind and draw over it.'}
        </p>
      </Section>
    );
  }
  const wrong = hasMixedDirections(drawing.contours);
  const only = keys.length === 1 ? keys[0] : undefined;
  const single = only && pointOf(drawing, only);
  const canStart = single && single.type !== 'off' && drawing.contours[keyParts(only!)[0]]!.closed;
  return (
    <Section title={plural(drawing.contours.length, 'contour')}>
      <ul className="mb-2 max-h-40 overflow-auto">
        {drawing.contours.map((c, i) => {
          const chosen = keys.some((k) => keyParts(k)[0] === i);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a contour is its place in the order.
            <li key={i} className={`flex items-center gap-2 rounded-md px-1 ${chosen ? 'bg-kelp-tint' : ''}`}>
              <button
                type="button"
                className="flex h-7 min-w-0 flex-1 items-center gap-2 text-left"
                onClick={() => select(new Set(c.points.flatMap((p, j) => (p.type === 'off' ? [] : [pointKey(i, j)]))))}
              >
                <b className="w-4 font-semibold">{i + 1}</b>
                <span className="truncate text-quiet">{c.closed ? (signedArea(c) > 0 ? 'counter-clockwise' : 'clockwise') : 'open'}</span>
              </button>
              {!c.closed && (
                <button type="button" className="text-kelp" onClick={() => run((p) => closeContour(p, { at, index: i }))}>
                  close
                </button>
              )}
              <button
                type="button"
                aria-label={`Reverse contour ${i + 1}`}
                title="Reverse"
                className="rounded p-1 text-quiet hover:bg-kelp-tint"
                onClick={() => run((p) => reverseContours(p, { at, contours: [i] }))}
              >
                <RefreshCcw size={14} />
              </button>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap gap-1.5">
        {canStart && <Button onClick={() => run((p) => setStartPoint(p, { at, point: only! }))}>Start here</Button>}
        {wrong && (
          <div className="w-full rounded-lg bg-marigold-tint p-2 text-[13px]">
            <p className="mb-1">▲ A contour goes the wrong way for where it lies; counters may fill.</p>
            <button type="button" className="font-semibold text-kelp" onClick={() => run((p) => directByNesting(p, { at }))}>
              Set directions by nesting
            </button>
          </div>
        )}
      </div>
    </Section>
  );
}

const OPERATIONS: readonly { operation: ShapeOperation; title: string; hint: string }[] = [
  { operation: 'unite', title: 'Unite', hint: 'One outline around the chosen contours and the others' },
  { operation: 'subtract', title: 'Subtract', hint: 'Takes the chosen contours out of the others' },
  { operation: 'intersect', title: 'Intersect', hint: 'Keeps only what the chosen contours and the others share' },
  { operation: 'exclude', title: 'Exclude', hint: 'Keeps what is in the chosen contours or in the others, but not in both' },
];

/** Arithmetic of areas: the chosen contours against the rest of the drawing. */
function ShapeSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  const [tidying, setTidying] = useState(false);
  const chosen = [...new Set(keys.map((k) => keyParts(k)[0]))];
  const some = chosen.length > 0 && chosen.length < drawing.contours.length;
  const shape = (edit: Parameters<typeof run>[0]) => {
    if (run(edit)) select(new Set());
  };
  return (
    <Section title="Shapes">
      <div className="flex flex-wrap gap-1.5">
        {(drawing.contours.length > 1 ? OPERATIONS : []).map(({ operation, title, hint }) => (
          <Button
            key={operation}
            title={some ? hint : 'Choose a point of some contours first; they are put together with the others'}
            disabled={!some}
            onClick={() => shape((p) => combineContours(p, { at, contours: chosen, operation }))}
          >
            {title}
          </Button>
        ))}
        <Button
          title={some ? 'Joins what overlaps among the chosen contours' : 'Joins everything that overlaps into single outlines'}
          onClick={() => shape((p) => removeOverlap(p, { at, contours: some ? chosen : [] }))}
        >
          Remove overlap
        </Button>
        <Button title="Extremes, needless points, nearly straight sides and more, here or in all glyphs" onClick={() => setTidying(true)}>
          Tidy…
        </Button>
      </div>
      <TidyDialog open={tidying} onClose={() => setTidying(false)} />
    </Section>
  );
}

function BackdropSection({ drawing, bringPicture }: { drawing: Drawing; bringPicture: () => void }) {
  const project = useBench((s) => s.project)!;
  const at = place();
  const icon = 'rounded p-1 text-quiet hover:bg-kelp-tint';
  return (
    <Section
      title="Behind the drawing"
      action={
        <button type="button" className={icon} aria-label="Put a picture behind" title="Put a picture behind (PNG or JPEG; drop or paste works too)" onClick={bringPicture}>
          <ImagePlus size={16} />
        </button>
      }
    >
      {drawing.backdrops.length === 0 && <p className="text-quiet">Drop or paste a picture of your lettering to draw over.</p>}
      {drawing.backdrops.map((b) => {
        const change = (c: Parameters<typeof setBackdrop>[1]['change'], merge?: string) => run((p) => setBackdrop(p, { at, id: b.id, change: c }), merge);
        const name = project.pictures[b.picture]?.name ?? 'picture';
        return (
          <div key={b.id} className="mb-2 grid gap-1">
            <div className="flex items-center gap-1">
              <label className="flex min-w-0 flex-1 items-center gap-2">
                <input type="checkbox" checked={b.visible} onChange={(e) => change({ visible: e.target.checked })} />
                <span className="truncate">{name}</span>
              </label>
              <button
                type="button"
                className={icon}
                aria-label={b.locked ? `Unlock ${name}` : `Lock ${name}`}
                title={b.locked ? 'Unlock' : 'Lock in place'}
                onClick={() => change({ locked: !b.locked })}
              >
                {b.locked ? <Lock size={14} /> : <LockOpen size={14} />}
              </button>
              <button type="button" className={icon} aria-label={`Remove ${name}`} title="Remove" onClick={() => run((p) => removeBackdrop(p, { at, id: b.id }))}>
                <Trash2 size={14} />
              </button>
            </div>
            <label className="flex items-center gap-2 text-quiet">
              <span>Strength</span>
              <input
                type="range"
                className="min-w-0 flex-1"
                min={5}
                max={100}
                value={Math.round(b.strength * 100)}
                onChange={(e) => change({ strength: Number(e.target.value) / 100 }, `strength ${b.id}`)}
              />
              <span className="w-10 text-right">{Math.round(b.strength * 100)} %</span>
            </label>
          </div>
        );
      })}
    </Section>
  );
}
