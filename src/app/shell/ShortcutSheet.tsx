import { Modal } from '../ui/Modal';
import { Key } from '../ui/parts';
import { type Command, MOD } from './commands';

/** Keys and gestures of the drawing and fitting benches, which are not commands of their own. */
const DRAW: readonly [string, string][] = [
  ['1 to 9', 'Select, Pen, Dots, Oval, Box, Blade, Transform, Gauge, Picture'],
  ['Q held', 'Letters only, black on white'],
  ['F held', 'No snapping'],
  ['C', 'Corner or smooth'],
  ['L', 'Line or curve, for the segment under the pointer'],
  ['R', 'The last transform again'],
  ['T', 'Keep a take'],
  ['K', 'Curvature combs'],
  ['Arrows', `Move what is chosen by 1; Shift by 10; ${MOD} by 100`],
  ['Delete', 'Delete points, keeping the shape; parts, gauges, dots'],
  ['Tab', 'Next point; Shift the one before'],
  ['Double click', 'On a point: corner or smooth. On the outline: add a point'],
  ['Shift drag', 'Keep to level, upright or 45°; keep proportions'],
  ['Alt drag', 'Points: leave the handles. Whole contours: a copy. A handle: both alike'],
  [`${MOD} drag`, 'A point: glide. A handle: part it from the other. A box’s side: slant'],
  ['Drop an end', 'On another end: join them'],
  ['Space drag', 'Move the sheet; the wheel moves it too'],
  [`${MOD} wheel`, 'Zoom to the pointer; + and − zoom, 0 fits'],
  ['Esc', 'Let go; end what the pen or the dots draw'],
];
const FIT: readonly [string, string][] = [
  ['Drag an edge', 'Set a side; hold Shift to set both'],
  ['← →', `Left side by 1; ${MOD} by 5; Shift by 10`],
  ['Alt ← →', 'Right side, in the same steps'],
  ['↑ ↓', 'Both sides by 1'],
  ['Tab', 'Next glyph in the line'],
];

const KERN: readonly [string, string][] = [
  ['← →', 'The value by 5; Shift by 1'],
  ['↑ ↓', 'The pair before or after'],
  ['Enter', 'Take the even value and go on'],
  ['S', 'Skip'],
  ['X', 'Leave for good'],
  ['B held', 'Without kerning'],
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
export function ShortcutSheet({
  open,
  onClose,
  commands,
}: {
  open: boolean;
  onClose: () => void;
  commands: readonly Command[];
}) {
  const keyed = commands.filter((c) => c.shown !== undefined);
  return (
    <Modal open={open} onClose={onClose} title="Keyboard shortcuts" wide>
      <div className="columns-2 gap-8 text-[13.5px]">
        {(['Go', 'Edit', 'Project', 'View'] as const).map((group) => (
          <Rows
            key={group}
            title={group}
            rows={keyed.filter((c) => c.group === group).map((c) => [c.shown!, c.title] as const)}
          />
        ))}
        <Rows title="Draw" rows={DRAW} />
        <Rows title="Fit" rows={FIT} />
        <Rows title="Kern" rows={KERN} />
      </div>
    </Modal>
  );
}
