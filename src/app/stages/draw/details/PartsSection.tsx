import { useState } from 'react';
import {
  addComponent,
  drawOut,
  makeComponent,
  removeComponents,
  setComponent,
} from '../../../../core/drawing/components';
import { keyParts, type PointKey } from '../../../../core/drawing/points';
import { type Affine, type AffineFacts, affineFrom, factsOf } from '../../../../core/geometry/affine';
import { tidy } from '../../../../core/geometry/tidy';
import { glyphTyped } from '../../../../core/project/findGlyphs';
import type { Drawing } from '../../../../core/project/model';
import { glyphNamed, usersOf } from '../../../../core/project/queries';
import { chooseGlyph, run, say, select, useBench } from '../../../state/bench';
import { Button, NumberField, Section, TextField } from '../../../ui/parts';
import { chooseParts, useDrawBench } from '../drawBench';
import { place } from './place';

const FIELDS = [
  { key: 'x', label: 'x', unit: 1 },
  { key: 'y', label: 'y', unit: 1 },
  { key: 'width', label: 'Width %', unit: 100 },
  { key: 'height', label: 'Height %', unit: 100 },
  { key: 'slant', label: 'Slant °', unit: 1 },
  { key: 'turn', label: 'Turn °', unit: 1 },
] as const satisfies readonly { key: keyof AffineFacts; label: string; unit: number }[];

/** A transform with one of its numbers typed anew; a move leaves all else exactly as it was. */
function withFact(t: Affine, key: keyof AffineFacts, value: number): Affine {
  if (key === 'x') return [t[0], t[1], t[2], t[3], value, t[5]];
  if (key === 'y') return [t[0], t[1], t[2], t[3], t[4], value];
  return affineFrom({ ...factsOf(t), [key]: value });
}

/** Other glyphs drawn in this one. */
export function PartsSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const project = useBench((s) => s.settled)!;
  const chosen = useDrawBench((s) => s.parts).filter((i) => drawing.components[i]);
  const at = place();
  const whole = place('structure');
  const [typed, setTyped] = useState('');
  const contours = [...new Set(keys.map((k) => keyParts(k)[0]))].sort((a, b) => a - b);
  const only = chosen.length === 1 ? chosen[0]! : undefined;
  const own = project.glyphs[at.glyph]!;
  const users = usersOf(project, at.glyph).composites;
  const add = () => {
    const glyph = glyphTyped(project, typed);
    if (!glyph) return say(`There is no glyph “${typed.trim()}”.`);
    if (!run((p) => addComponent(p, { at: whole, glyph: glyph.id }))) return;
    chooseParts([drawing.components.length]);
    setTyped('');
  };
  const make = () => {
    let n = 1;
    while (glyphNamed(project, `_part.${n}`)) n++;
    if (run((p) => makeComponent(p, { at, contours, name: `_part.${n}` }))) select(new Set());
  };
  return (
    <Section title="Parts">
      {drawing.components.length === 0 && (
        <p className="mb-2 text-quiet">
          A part is another glyph drawn here. Change it once, and everything made of it changes.
        </p>
      )}
      <ul aria-label="Parts of this drawing" className="mb-2">
        {drawing.components.map((c, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the order.
            key={i}
            className={`flex items-center gap-2 rounded-md px-1.5 ${chosen.includes(i) ? 'bg-kelp-tint' : ''}`}
          >
            <button
              type="button"
              aria-pressed={chosen.includes(i)}
              className="h-7 min-w-0 flex-1 truncate text-left"
              title="Shift adds to what is chosen"
              onClick={(e) => {
                select(new Set());
                const others = chosen.filter((k) => k !== i);
                chooseParts(e.shiftKey ? (chosen.includes(i) ? others : [...others, i]) : [i]);
              }}
            >
              {project.glyphs[c.glyph]?.name ?? 'a missing glyph'}
            </button>
            <button
              type="button"
              className="text-kelp"
              title="Draw the part itself; this glyph follows"
              onClick={() => chooseGlyph(c.glyph)}
            >
              edit
            </button>
          </li>
        ))}
      </ul>
      {only !== undefined && (
        <div className="mb-2 grid gap-1.5">
          {FIELDS.map(({ key, label, unit }) => (
            <NumberField
              key={key}
              label={label}
              value={tidy(factsOf(drawing.components[only]!.transform)[key] * unit)}
              onChange={(v) =>
                run((p) => {
                  const now = drawing.components[only]!.transform;
                  const change = { transform: withFact(now, key, v / unit) };
                  return setComponent(p, { at, index: only, change });
                })
              }
            />
          ))}
        </div>
      )}
      {chosen.length > 0 && (
        <div className="mb-3 flex flex-wrap gap-1.5">
          <Button
            title="Contours of this glyph’s own; it no longer follows"
            onClick={() => {
              if (run((p) => drawOut(p, { at: whole, indices: chosen }))) chooseParts([]);
            }}
          >
            Turn into outlines
          </Button>
          <Button
            kind="danger"
            onClick={() => {
              if (run((p) => removeComponents(p, { at: whole, indices: chosen }))) chooseParts([]);
            }}
          >
            Take away
          </Button>
        </div>
      )}
      <form
        className="mb-2 flex gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <TextField
          aria-label="Glyph to place"
          placeholder="character or name"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <Button type="submit" disabled={typed.trim() === ''}>
          Place
        </Button>
      </form>
      <Button
        className="w-full"
        disabled={contours.length === 0}
        title={
          contours.length === 0
            ? 'Choose points of the contours first'
            : 'The chosen contours become a glyph of their own, placed here, in all masters'
        }
        onClick={make}
      >
        Make a part of the chosen contours
      </Button>
      {users.length > 0 && (
        <p className="mt-3 text-[12.5px] text-quiet">
          {own.name} is a part of{' '}
          {users
            .slice(0, 6)
            .map((g) => g.name)
            .join(', ')}
          {users.length > 6 ? ` and ${users.length - 6} more` : ''}; they follow at once.
        </p>
      )}
    </Section>
  );
}
