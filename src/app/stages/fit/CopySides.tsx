import { useState } from 'react';
import { copySide, type SideName } from '../../../core/fitting/sides';
import { glyphTyped } from '../../../core/project/findGlyphs';
import type { Glyph } from '../../../core/project/model';
import { run, say, useBench } from '../../state/bench';
import { Button, CheckRow, Choice, TextField } from '../../ui/parts';

const SIDES = [
  { value: 'left', text: 'left' },
  { value: 'right', text: 'right' },
] as const;
const TARGETS = [
  { value: 'same', text: 'same side' },
  { value: 'other', text: 'other side' },
  { value: 'both', text: 'both' },
] as const;
type Target = (typeof TARGETS)[number]['value'];

/** Copies one side's value: to the other side, or to sides of other glyphs. */
export function CopySides({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<SideName>('left');
  const [target, setTarget] = useState<Target>('same');
  const [typed, setTyped] = useState('');
  const [every, setEvery] = useState(true);
  const masters = every ? project.masters.map((m) => m.id) : [master];
  const other = (s: SideName): SideName => (s === 'left' ? 'right' : 'left');
  const across = (from: SideName) =>
    run((p) => copySide(p, { from: glyph.id, side: from, to: [glyph.id], sides: [other(from)], masters: [master] }));
  const copy = () => {
    const words = typed.split(/[\s,]+/).filter((w) => w !== '');
    const found = words.map((w) => glyphTyped(project, w));
    const missing = words.filter((_, i) => !found[i]);
    if (missing.length > 0) return say(`There is no glyph “${missing[0]}”.`);
    const sides: SideName[] = target === 'both' ? ['left', 'right'] : [target === 'same' ? side : other(side)];
    if (run((p) => copySide(p, { from: glyph.id, side, to: found.flatMap((g) => g?.id ?? []), sides, masters })))
      setOpen(false);
  };
  const link = 'text-[13px] text-kelp';
  return (
    <div className="mt-1.5">
      <p className="flex flex-wrap gap-x-3 gap-y-1">
        <button
          type="button"
          className={link}
          title="The right side gets the value of the left one"
          onClick={() => across('left')}
        >
          Left → right
        </button>
        <button
          type="button"
          className={link}
          title="The left side gets the value of the right one"
          onClick={() => across('right')}
        >
          Right → left
        </button>
        <button type="button" className={link} onClick={() => setOpen(!open)}>
          To other glyphs…
        </button>
      </p>
      {open && (
        <form
          className="mt-1.5 grid gap-1.5 rounded-lg border border-line p-2"
          onSubmit={(e) => {
            e.preventDefault();
            copy();
          }}
        >
          <span className="text-quiet">The value of its</span>
          <Choice label="The value of its" value={side} options={SIDES} onChange={setSide} />
          <span className="text-quiet">to</span>
          <TextField
            aria-label="Glyphs to copy to"
            placeholder="characters or names, spaced"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
          <span className="text-quiet">on their</span>
          <Choice label="On their" value={target} options={TARGETS} onChange={setTarget} />
          <CheckRow label="In every master" checked={every} onChange={setEvery} />
          <Button type="submit" disabled={typed.trim() === ''}>
            Copy
          </Button>
        </form>
      )}
    </div>
  );
}
