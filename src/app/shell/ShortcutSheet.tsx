import { Modal } from '../ui/Modal';
import { Key } from '../ui/parts';
import { type Command, MOD } from './commands';

/** Keys and gestures of the drawing and fitting benches, which are not commands of their own. */
const DRAW: readonly [string, string][] = [
  ['1 2 3 4 5', 'Select, Pen, Oval, Box, Picture'],
  ['Arrows', `Move the selected points by 1; Shift by 10; ${MOD} by 100`],
  ['Delete', 'Delete points, keeping the shape'],
  ['C', 'Corner or smooth'],
  ['L', 'Line or curve, for the segment under the pointer'],
  ['Double click', 'On a point: corner or smooth. On the outline: add a point'],
  ['Shift drag', 'Keep to level, upright or 45°; keep a shape’s proportions'],
  ['Space drag', 'Move the sheet; the wheel moves it too'],
  [`${MOD} wheel`, 'Zoom to the pointer; + and − zoom, 0 fits'],
  ['Tab', 'Next point; Shift the one before'],
  ['P held', 'Filled preview without furniture'],
  ['Esc', 'Let go; end the pen’s contour'],
];
const FIT: readonly [string, string][] = [
  ['Drag an edge', 'Set a side; hold Shift to set both'],
  ['← →', 'Left side by 1; Shift by 10'],
  ['Alt ← →', 'Right side by 1; Shift by 10'],
  ['↑ ↓', 'Both sides by 1'],
  ['Tab', 'Next glyph in the line'],
];

function Rows({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  return (
    <section className="mb-4 break-inside-avoid">
      <h3 className="mb-1 font-semibold">{title}</h3>
      <dl className="grid grid-cols-[max-content_1fr] items-baseline gap-x-3 gap-y-1">
        {rows.map(([keys, does]) => (
          <div key={keys + does} className="contents">
            <dt>
              <Key>{keys}</Key>
            </dt>
            <dd className="text-quiet">{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Every key there is, on one sheet. */
export function ShortcutSheet({ open, onClose, commands }: { open: boolean; onClose: () => void; commands: readonly Command[] }) {
  const keyed = commands.filter((c) => c.shown !== undefined);
  return (
    <Modal open={open} onClose={onClose} title="Keyboard shortcuts" wide>
      <div className="columns-2 gap-8 text-[13.5px]">
        {(['Go', 'Edit', 'Project', 'View'] as const).map((group) => (
          <Rows key={group} title={group} rows={keyed.filter((c) => c.group === group).map((c) => [c.shown!, c.title] as const)} />
        ))}
        <Rows title="Draw" rows={DRAW} />
        <Rows title="Fit" rows={FIT} />
      </div>
    </Modal>
  );
}
