import { useMemo, useState } from 'react';
import { followOf, followSentence, outOfDate, setFollow, setFollows, updateFollows } from '../../../core/fitting/follows';
import type { SideName } from '../../../core/fitting/optical';
import { plural } from '../../../core/project/edit';
import type { Glyph } from '../../../core/project/model';
import { run, say, useBench } from '../../state/bench';
import { Button, CheckRow, Choice, NumberField, Section, TextField } from '../../ui/parts';
import { glyphTyped } from '../draw/details/PartsSection';

const SIDES = [
  { value: 'left', text: 'left' },
  { value: 'right', text: 'right' },
] as const;

/** Which sides follow another glyph's, as sentences; rules are chosen from controls. */
export function FollowSection({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [binding, setBinding] = useState<SideName>();
  const late = useMemo(() => outOfDate(project), [project]);
  return (
    <Section title="Follows">
      {(['left', 'right'] as const).map((side) => {
        const follow = followOf(glyph, side, master);
        return (
          <div key={side} className="mb-1 flex items-baseline gap-2">
            <span className="w-10 shrink-0 text-quiet">{side === 'left' ? 'Left' : 'Right'}</span>
            <span className="min-w-0 flex-1 text-sea">{follow ? followSentence(project, follow) : <span className="text-quiet">stands for itself</span>}</span>
            {follow ? (
              <button
                type="button"
                className="text-kelp"
                aria-label={`Let the ${side} side go`}
                onClick={() => run((p) => setFollow(p, { glyph: glyph.id, side, master, follow: undefined }))}
              >
                let go
              </button>
            ) : (
              <button type="button" className="text-kelp" aria-label={`Bind the ${side} side`} onClick={() => setBinding(binding === side ? undefined : side)}>
                bind
              </button>
            )}
          </div>
        );
      })}
      {binding && <BindForm key={binding} glyph={glyph} side={binding} onDone={() => setBinding(undefined)} />}
      {late.length > 0 && (
        <div className="mt-2 rounded-lg bg-marigold-tint p-2 text-[13px]">
          <p className="mb-1">
            ▲ {plural(late.length, 'side')} no longer {late.length === 1 ? 'is' : 'are'} as their rules say.
          </p>
          <button type="button" className="font-semibold text-kelp" onClick={() => run((p) => updateFollows(p, {}))}>
            Update all
          </button>
        </div>
      )}
    </Section>
  );
}

function BindForm({ glyph, side, onDone }: { glyph: Glyph; side: SideName; onDone: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [typed, setTyped] = useState('');
  const [theirs, setTheirs] = useState<SideName>(side);
  const [offset, setOffset] = useState(0);
  const [everyMaster, setEvery] = useState(true);
  const [allOfThem, setAll] = useState(false);
  // Accented letters follow their base by themselves; alternates and small caps are bound with it.
  const family = Object.values(project.glyphs).filter((g) => g.id !== glyph.id && g.name.startsWith(`${glyph.name}.`));
  const bind = () => {
    const of = glyphTyped(project, typed);
    if (!of) return say(`There is no glyph “${typed.trim()}”.`);
    const follow = { glyph: of.id, side: theirs, offset, everyMaster };
    const glyphs = [glyph.id, ...(allOfThem ? family.map((g) => g.id) : [])];
    if (run((p) => setFollows(p, { glyphs, side, master, follow }))) onDone();
  };
  return (
    <form
      className="mt-1.5 grid gap-1.5 rounded-lg border border-line p-2"
      onSubmit={(e) => {
        e.preventDefault();
        bind();
      }}
    >
      <TextField aria-label="Glyph to follow" placeholder="character or name" value={typed} onChange={(e) => setTyped(e.target.value)} />
      <Choice label="Its side" value={theirs} options={SIDES} onChange={setTheirs} />
      <NumberField label="And add" value={offset} onChange={setOffset} />
      <CheckRow label="In every master" checked={everyMaster} onChange={setEvery} />
      {family.length > 0 && <CheckRow label={`${plural(family.length, 'variant')} of ${glyph.name} too`} checked={allOfThem} onChange={setAll} />}
      <Button type="submit" disabled={typed.trim() === ''}>
        Follow
      </Button>
    </form>
  );
}
