import { type ReactNode, useMemo } from 'react';
import { plural } from '../../core/project/edit';
import type { Glyph, Project } from '../../core/project/model';
import { masterOf } from '../../core/project/queries';
import { setStems } from '../../core/reweighting/edits';
import type { Stems } from '../../core/reweighting/goals';
import type { Reweighed } from '../../core/reweighting/many';
import { stemsOf } from '../../core/reweighting/standard';
import { cancelPreview, run } from '../state/bench';
import { Slide } from '../ui/controls';
import { characterOf } from '../ui/GlyphShape';
import { NumberField } from '../ui/parts';

/** A stem on a rail and as a number. */
export function Stem({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: number;
  most: number;
  onChange: (v: number) => void;
}) {
  return (
    <>
      <Slide label={`${label} stem`} value={value} min={1} max={most} onChange={onChange} className="w-full" />
      <NumberField
        label={`${label} to be`}
        hideLabel
        value={value}
        onChange={(v) => v >= 1 && v <= 2000 && onChange(v)}
      />
    </>
  );
}

/** Whether stems are kept with the master or measured, and the other way. */
export function Kept({ project, masterId, from }: { project: Project; masterId: string; from: Stems }) {
  const master = masterOf(project, masterId)!;
  const kept = master.stems.length > 0;
  // Those that came with the project are not taken away here.
  const own = master.stems.some((s) => s.name === 'Vertical' || s.name === 'Horizontal');
  const now = stemsOf(project, master);
  const same = now?.vertical === from.vertical && now.horizontal === from.horizontal;
  const change = (stems: Partial<Stems>) => {
    cancelPreview();
    run((p) => setStems(p, { master: masterId, ...stems }));
  };
  return (
    <p className="text-quiet">
      {same && (kept ? 'Kept with the master. ' : 'Measured in its letters. ')}
      {same && own && <Small onClick={() => change({})}>Let go</Small>}
      {!(same && kept) && <Small onClick={() => change(from)}>Keep these</Small>}
    </p>
  );
}

const Small = ({ onClick, children }: { onClick: () => void; children: ReactNode }) => (
  <button type="button" className="rounded px-1 text-kelp hover:bg-kelp-tint" onClick={onClick}>
    {children}
  </button>
);

/** The stems of other masters, to be taken as goals. */
export function Others({
  project,
  masterId,
  onTake,
}: {
  project: Project;
  masterId: string;
  onTake: (stems: Stems) => void;
}) {
  const others = useMemo(
    () =>
      project.masters.flatMap((m) => {
        const stems = m.id === masterId ? undefined : stemsOf(project, m);
        return stems ? [{ id: m.id, name: m.name, stems }] : [];
      }),
    [project, masterId],
  );
  if (others.length === 0) return null;
  return (
    <p className="mt-1 text-quiet">
      As{' '}
      {others.map(({ id, name, stems }) => (
        <button
          key={id}
          type="button"
          className="rounded px-1 text-kelp hover:bg-kelp-tint"
          onClick={() => onTake(stems)}
        >
          {name} {Math.round(stems.vertical)}/{Math.round(stems.horizontal)}
        </button>
      ))}
    </p>
  );
}

/** Where there was no room for the weight that was asked. */
export function Eased({ project, eased }: { project: Project; eased: readonly Reweighed[] }) {
  if (eased.length === 0) return null;
  const names = eased.slice(0, 12).map((m) => nameOf(project.glyphs[m.glyph]!));
  return (
    <span>
      No room for the whole weight in {plural(eased.length, 'glyph')}, eased where a ring is: {names.join(' ')}
      {eased.length > 12 && ` and ${eased.length - 12} more`}
    </span>
  );
}

/** A letter or figure as itself, anything else by its name. */
const nameOf = (glyph: Glyph): string => {
  const character = characterOf(glyph);
  return /^[\p{L}\p{Nd}]$/u.test(character) && !glyph.name.includes('.') ? character : glyph.name;
};
