import { ImagePlus, Lock, LockOpen, ScanLine, Trash2 } from 'lucide-react';
import { removeBackdrop, setBackdrop } from '../../../../core/drawing/backdrops';
import type { Drawing } from '../../../../core/project/model';
import { openSheetDialog } from '../../../lettering/sheetDialog';
import { run, useBench } from '../../../state/bench';
import { Section } from '../../../ui/parts';
import { place } from './place';
import { TraceButton } from './TraceSection';

/** Pictures behind the drawing: brought, dimmed, locked, traced. */
export function BackdropSection({ drawing, bringPicture }: { drawing: Drawing; bringPicture: () => void }) {
  const project = useBench((s) => s.project)!;
  const at = place();
  const icon = 'rounded p-1 text-quiet hover:bg-kelp-tint';
  return (
    <Section
      title="Behind the drawing"
      action={
        <span className="flex">
          <button type="button" className={icon} aria-label="Get a sheet" title="Get a sheet of lettering from the scanner" onClick={openSheetDialog}>
            <ScanLine size={16} />
          </button>
          <button type="button" className={icon} aria-label="Put a picture behind" title="Put a picture behind (PNG or JPEG; drop or paste works too)" onClick={bringPicture}>
            <ImagePlus size={16} />
          </button>
        </span>
      }
    >
      {drawing.backdrops.length === 0 && <p className="text-quiet">Drop or paste a picture of your lettering to draw over, or get a sheet from the scanner.</p>}
      {drawing.backdrops.map((b) => {
        const change = (c: Parameters<typeof setBackdrop>[1]['change'], merge?: string) => run((p) => setBackdrop(p, { at, id: b.id, change: c }), merge);
        const name = project.pictures[b.picture]?.name ?? 'picture';
        return (
          <div key={b.id} className="mb-3 grid grid-cols-1 gap-1">
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
            <div>
              <TraceButton id={b.id} />
            </div>
          </div>
        );
      })}
    </Section>
  );
}
