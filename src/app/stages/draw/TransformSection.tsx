import { RadioGroup } from 'radix-ui';
import { memo, useState } from 'react';
import type { PointKey } from '../../../core/drawing/points';
import { ORIGINS, type Origin, type TransformBy, transformPoints } from '../../../core/drawing/transform';
import { run, useBench } from '../../state/bench';
import { Button, NumberField, Section } from '../../ui/parts';
import { Tip } from '../../ui/Tip';
import { rememberTransform } from './again';

const NINE = ORIGINS.filter((o) => o !== 'zero');

/** What the fields ask for; percents and degrees, kept from one glyph to the next so that it can be done again. */
type Asked = { width: number; height: number; rotate: number; slant: number; dx: number; dy: number };
const NOTHING: Asked = { width: 100, height: 100, rotate: 0, slant: 0, dx: 0, dy: 0 };
const FIELDS: readonly { key: keyof Asked; label: string }[] = [
  { key: 'width', label: 'Width %' },
  { key: 'height', label: 'Height %' },
  { key: 'rotate', label: 'Turn °' },
  { key: 'slant', label: 'Slant °' },
  { key: 'dx', label: 'Move right' },
  { key: 'dy', label: 'Move up' },
];

let lastAsked = NOTHING;
let lastOrigin: Origin = 'centre';

/** Transforms by numbers about one of nine places, on chosen points or on all that is drawn. */
export const TransformSection = memo(function TransformSection({ keys }: { keys: readonly PointKey[] }) {
  const [asked, setAsked] = useState(lastAsked);
  const [origin, setOrigin] = useState(lastOrigin);
  const { width, height, rotate, slant, dx, dy } = asked;
  const carryOut = (by: TransformBy, copy = false) => {
    lastAsked = asked;
    lastOrigin = origin;
    const { glyph, master } = useBench.getState();
    if (run((p) => transformPoints(p, { at: { glyph: glyph!, master }, points: keys, by, origin, copy })))
      rememberTransform({ by, origin, copy });
  };
  const typed: TransformBy = { scaleX: width / 100, scaleY: height / 100, rotate, slant, dx, dy };
  const idle = Object.keys(NOTHING).every((k) => asked[k as keyof Asked] === NOTHING[k as keyof Asked]);
  return (
    <Section title={keys.length > 0 ? 'Transform the chosen points' : 'Transform all'}>
      <div className="mb-2 flex items-start gap-3">
        <RadioGroup.Root
          aria-label="About"
          value={origin}
          onValueChange={(v) => setOrigin(v as typeof origin)}
          className="grid shrink-0 grid-cols-3 gap-1 rounded-lg border border-line bg-paper p-1.5"
        >
          {NINE.map((place) => (
            <Tip key={place} text={`${place} stays`}>
              <RadioGroup.Item
                value={place}
                aria-label={place}
                className={`size-4 rounded-full border ${origin === place ? 'border-kelp bg-kelp' : 'border-edge bg-panel hover:bg-kelp-tint'}`}
              />
            </Tip>
          ))}
        </RadioGroup.Root>
        <div className="flex flex-wrap gap-1.5">
          <Button title="Left to right about that place" onClick={() => carryOut({ scaleX: -1 })}>
            Flip ↔
          </Button>
          <Button title="Upside down about that place" onClick={() => carryOut({ scaleY: -1 })}>
            Flip ↕
          </Button>
        </div>
      </div>
      <div className="mb-2 grid gap-1.5">
        {FIELDS.map(({ key, label }) => (
          <NumberField key={key} label={label} value={asked[key]} onChange={(v) => setAsked({ ...asked, [key]: v })} />
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button
          disabled={idle}
          title="Scale, slant, turn and move as typed; R does it again"
          onClick={() => carryOut(typed)}
        >
          Do it
        </Button>
        <Button
          disabled={idle}
          title="Leave what is there and add it transformed"
          onClick={() => carryOut(typed, true)}
        >
          A copy
        </Button>
        <Button kind="quiet" disabled={idle} onClick={() => setAsked(NOTHING)}>
          Clear
        </Button>
      </div>
    </Section>
  );
});
