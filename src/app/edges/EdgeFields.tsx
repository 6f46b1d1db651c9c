import type { StrokeKind } from '../../core/drawing/strokes';
import { CAPS, JOINS } from '../../core/geometry/stroke';
import { CheckRow, Choice, NumberField } from '../ui/parts';
import type { EdgeSettings } from './settings';

const SIDES = [
  { value: 'around', text: 'Kept around', hint: 'The sides that the letter had, now around the frame' },
  { value: 'frame', text: 'The frame is all', hint: 'The advance is as wide as the frame' },
  { value: 'as it is', text: 'As it is', hint: 'Advance and letter stay where they are' },
] as const;

/** The numbers of one kind of work on edges. */
export function EdgeFields({
  kind,
  asked,
  onChange: set,
}: {
  kind: StrokeKind;
  asked: EdgeSettings;
  onChange: (change: Partial<EdgeSettings>) => void;
}) {
  return (
    <>
      <div className="mb-3 grid gap-1.5">
        {kind === 'stroke' && <NumberField label="Width" value={asked.width} onChange={(width) => set({ width })} />}
        {kind === 'grow' && <NumberField label="By" value={asked.by} onChange={(by) => set({ by })} />}
        {kind === 'hollow' && <NumberField label="Wall" value={asked.wall} onChange={(wall) => set({ wall })} />}
        {kind === 'frame' && (
          <>
            <NumberField label="Margin" value={asked.margin} onChange={(margin) => set({ margin })} />
            {!asked.reversed && <NumberField label="Wall" value={asked.frame} onChange={(frame) => set({ frame })} />}
            <NumberField label="Corner radius" value={asked.radius} onChange={(radius) => set({ radius })} />
            <NumberField label="Least width" value={asked.least} onChange={(least) => set({ least })} />
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
    </>
  );
}
