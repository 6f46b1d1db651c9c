import { useMemo, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import {
  type Binding,
  type Both,
  bothSides,
  builtOn,
  followOf,
  followSentence,
  outOfDate,
  setFollow,
  setFollows,
  updateFollows,
} from '../../../core/fitting/follows';
import type { SideName } from '../../../core/fitting/sides';
import { plural } from '../../../core/project/edit';
import { glyphTyped } from '../../../core/project/findGlyphs';
import type { Glyph } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { chooseGlyph, run, say, useBench } from '../../state/bench';
import { runFar } from '../../state/far';
import { Pick } from '../../ui/controls';
import { Button, CheckRow, Choice, NumberField, Section, TextField } from '../../ui/parts';

const SIDES = [
  { value: 'left', text: 'left' },
  { value: 'right', text: 'right' },
] as const;
const BOTH = [
  { value: 'same', text: 'as they are', hint: 'Left follows left, right follows right' },
  { value: 'mirrored', text: 'mirrored', hint: 'Left follows right, right follows left: b by d' },
] as const satisfies readonly { value: Both; text: string; hint: string }[];

/** Which sides follow another glyph's, as sentences; rules are chosen from controls. */
export function FollowSection({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [binding, setBinding] = useState<SideName | 'both'>();
  const late = useMemo(() => outOfDate(project), [project]);
  return (
    <Section title="Follows">
      {(['left', 'right'] as const).map((side) => {
        const follow = followOf(glyph, side, master);
        return (
          <div key={side} className="mb-1 flex items-baseline gap-2">
            <span className="w-10 shrink-0 text-quiet">{side === 'left' ? 'Left' : 'Right'}</span>
            <span className="min-w-0 flex-1 text-sea">
              {follow ? followSentence(project, follow) : <span className="text-quiet">stands for itself</span>}
            </span>
            {follow ? (
              <>
                <button
                  type="button"
                  className="text-kelp"
                  aria-label={`Let the ${side} side go`}
                  onClick={() => run((p) => setFollow(p, { glyph: glyph.id, side, master }))}
                >
                  let go
                </button>
                {follow.master === undefined && project.masters.length > 1 && (
                  <button
                    type="button"
                    className="text-kelp"
                    aria-label={`Let the ${side} side go in this master`}
                    title="The rule stays in all other masters"
                    onClick={() => run((p) => setFollow(p, { glyph: glyph.id, side, master, hereOnly: true }))}
                  >
                    only here
                  </button>
                )}
              </>
            ) : (
              <button
                type="button"
                className="text-kelp"
                aria-label={`Bind the ${side} side`}
                onClick={() => setBinding(binding === side ? undefined : side)}
              >
                bind
              </button>
            )}
          </div>
        );
      })}
      <button
        type="button"
        className="text-[13px] text-kelp"
        onClick={() => setBinding(binding === 'both' ? undefined : 'both')}
      >
        Bind both sides, or many glyphs…
      </button>
      {binding && <BindForm key={binding} glyph={glyph} side={binding} onDone={() => setBinding(undefined)} />}
      {late.length > 0 && (
        <div className="mt-2 rounded-lg bg-marigold-tint p-2 text-[13px]">
          <p className="mb-1">
            ▲ {plural(late.length, 'side')} no longer {late.length === 1 ? 'is' : 'are'} as their rules say.
          </p>
          <details className="mb-1">
            <summary className="text-kelp">{late.length === 1 ? 'Which one' : 'Which ones'}</summary>
            <ul aria-label="Sides that are out of date" className="max-h-40 overflow-auto">
              {late.map((o) => (
                <li key={`${o.glyph} ${o.side} ${o.master}`} className="flex gap-1.5">
                  <button
                    type="button"
                    className="min-w-0 flex-1 truncate text-left"
                    onClick={() => chooseGlyph(o.glyph)}
                  >
                    {project.glyphs[o.glyph]!.name}, {o.side}, {masterOf(project, o.master)?.name}
                  </button>
                  <span className="text-quiet">
                    {shownNumber(o.now)} → {shownNumber(o.wanted)}
                  </span>
                </li>
              ))}
            </ul>
          </details>
          <button
            type="button"
            className="font-semibold text-kelp"
            onClick={() => void runFar(updateFollows, {}, { glyphs: project.glyphOrder.length })}
          >
            Update all
          </button>
        </div>
      )}
    </Section>
  );
}

/** Which glyphs a rule is made for. */
type Whom = 'own' | 'variants' | 'built';

function BindForm({ glyph, side, onDone }: { glyph: Glyph; side: SideName | 'both'; onDone: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [typed, setTyped] = useState('');
  const [theirs, setTheirs] = useState<SideName>(side === 'both' ? 'left' : side);
  const [how, setHow] = useState<Both>('same');
  const [offset, setOffset] = useState(0);
  const [everyMaster, setEvery] = useState(true);
  const [whom, setWhom] = useState<Whom>('own');
  const source = glyphTyped(project, typed);
  const variants = useMemo(
    () => Object.values(project.glyphs).filter((g) => g.name.startsWith(`${glyph.name}.`)),
    [project.glyphs, glyph.name],
  );
  const built = useMemo(() => (source ? builtOn(project, source) : []), [project, source]);
  const glyphs = { own: [glyph.id], variants: [glyph.id, ...variants.map((g) => g.id)], built }[whom];
  const names = (ids: readonly string[]) => ids.map((g) => project.glyphs[g]!.name).join(', ');
  const bind = () => {
    if (!source) return say(`There is no glyph “${typed.trim()}”.`);
    const rule = { glyph: source.id, offset, everyMaster };
    const bindings: Binding[] =
      side === 'both'
        ? bothSides(glyphs, how, rule)
        : glyphs.map((id) => ({ glyph: id, side, follow: { ...rule, side: theirs } }));
    if (run((p) => setFollows(p, { bindings, master }))) onDone();
  };
  return (
    <form
      className="mt-1.5 grid gap-1.5 rounded-lg border border-line p-2"
      onSubmit={(e) => {
        e.preventDefault();
        bind();
      }}
    >
      <span className="text-quiet">{side === 'both' ? 'Both sides follow' : `The ${side} side follows`}</span>
      <TextField
        aria-label="Glyph to follow"
        placeholder="character or name"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      {side === 'both' ? (
        <Choice label="Its sides" value={how} options={BOTH} onChange={setHow} />
      ) : (
        <Choice label="Its side" value={theirs} options={SIDES} onChange={setTheirs} />
      )}
      <NumberField label="And add" value={offset} onChange={setOffset} />
      <CheckRow label="In every master" checked={everyMaster} onChange={setEvery} />
      <Pick
        label="For which glyphs"
        value={whom}
        onChange={setWhom}
        options={[
          { value: 'own' as const, text: `for ${glyph.name} alone` },
          ...(variants.length > 0
            ? [{ value: 'variants' as const, text: `for ${glyph.name} and its ${plural(variants.length, 'variant')}` }]
            : []),
          ...(built.length > 0 ? [{ value: 'built' as const, text: `for every glyph built on ${source!.name}` }] : []),
        ]}
      />
      {whom !== 'own' && (
        <p
          className="text-[12.5px] text-quiet"
          title="Accented letters that hold their base as a part follow it by themselves"
        >
          {names(glyphs)}
        </p>
      )}
      <Button type="submit" disabled={typed.trim() === '' || glyphs.length === 0}>
        Follow
      </Button>
    </form>
  );
}
