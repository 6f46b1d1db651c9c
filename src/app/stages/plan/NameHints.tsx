import { styleHints } from '../../../core/fontfacts/styleWords';
import { setItalicAngle } from '../../../core/project/masterFacts';
import type { Master } from '../../../core/project/model';
import { run, useBench } from '../../state/bench';

/** What a master's name is understood to say, and what it would ask for. */
export function NameHints({ master }: { master: Master }) {
  const project = useBench((s) => s.settled)!;
  const hints = styleHints(project, master);
  if (hints.length === 0) return null;
  return (
    <div className="-mt-2 mb-4 grid gap-1 text-[12.5px]" data-testid="name-hints">
      {hints.map((h) => (
        <p key={h.sentence} className="text-quiet">
          {h.sentence}{' '}
          {h.kind === 'angle' && (
            <button
              type="button"
              className="font-semibold text-kelp"
              onClick={() => run((p) => setItalicAngle(p, { master: master.id, angle: h.angle }))}
            >
              Set {h.angle}°
            </button>
          )}
        </p>
      ))}
    </div>
  );
}
