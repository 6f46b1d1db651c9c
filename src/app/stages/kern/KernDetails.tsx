import { X } from 'lucide-react';
import { useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import {
  addGroup,
  dissolveGroup,
  leavePair,
  makeException,
  pairsLeft,
  putInGroup,
  removePairs,
  setPair,
} from '../../../core/kerning/edits';
import { glyphTyped, pairTyped } from '../../../core/project/findGlyphs';
import {
  groupsByGlyph,
  kerningOf,
  type Side,
  sideName,
  sidesToChange,
  widestSides,
} from '../../../core/project/kerningLookup';
import { pairKey } from '../../../core/project/pairs';
import { masterOf } from '../../../core/project/queries';
import type { Offered } from '../../../workers/measure';
import { run, say, useBench } from '../../state/bench';
import { useMeasured } from '../../state/workedOut';
import { Details } from '../../ui/Details';
import { characterOf, GlyphShape } from '../../ui/GlyphShape';
import { draggedAs, takesGlyph } from '../../ui/glyphDrag';
import { Button, NumberField, Section, TextField } from '../../ui/parts';
import { choosePair, type Pair } from './kernBench';
import type { Even } from './useEven';

/** The value of a pair, where it comes from, and the groups of its sides. */
export function KernDetails({
  pair,
  even: { value: even, isLost },
  next,
}: {
  pair: Pair;
  even: Even;
  next: () => void;
}) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const [a, b] = [project.glyphs[pair.first]!, project.glyphs[pair.second]!];
  const found = kerningOf(project, master, pair.first, pair.second);
  const wide = widestSides(project, pair.first, pair.second);
  const [first, second] = sidesToChange(project, master, pair.first, pair.second);
  const set = (value: number) => run((p) => setPair(p, { master: masterId, first, second, value }));
  const own = found?.first.kind === 'glyph' && found.second.kind === 'glyph';
  const isLeft = pairsLeft(project).has(pairKey(...wide));
  const inGroups = wide.some((s) => s.kind === 'group');
  const { data: offered } = useMeasured<Offered>(
    'alike on a side',
    { same: [masterId, pair.first, pair.second], by: [project.glyphs, project.groups] },
    (s) => s.offeredFor(masterId, pair.first, pair.second),
  );
  return (
    <Details
      heading={`${characterOf(a) || a.name} ${characterOf(b) || b.name}`}
      sub={`${a.name} ${b.name} · ${sideName(project, first)} first, ${sideName(project, second)} second`}
    >
      <TypedPair />
      <Section title="Kerning">
        <NumberField label="Value" value={found?.value ?? 0} onChange={set} />
        <p className="mt-1 mb-2 text-[12.5px] text-quiet">
          {found
            ? own && inGroups
              ? 'An exception: this pair alone.'
              : `Holds for ${sideName(project, first)} with ${sideName(project, second)}.`
            : 'No value yet; one set here holds for both groups.'}{' '}
          {even === undefined
            ? `What the controls of this master say ${isLost ? 'could not be worked out' : 'is being worked out'}.`
            : `The controls of this master say ${shownNumber(even)}: then the shaded white is as even as theirs.`}
        </p>
        <div className="flex flex-wrap gap-1.5">
          <Button
            kind="primary"
            disabled={even === undefined || even === (found?.value ?? 0)}
            title="Takes what the controls say and goes on (Enter)"
            onClick={() => {
              if (even !== undefined && set(even)) next();
            }}
          >
            Take {even === undefined ? '…' : shownNumber(even)}
          </Button>
          <Button title="Goes on without a change (S)" onClick={next}>
            Skip
          </Button>
          <Button
            title={
              isLeft
                ? 'Shows this pair in the queue again when it strays'
                : 'Never shows this pair in the queue again (X)'
            }
            onClick={() => {
              if (run((p) => leavePair(p, { key: pairKey(...wide), leave: !isLeft })) && !isLeft) next();
            }}
          >
            {isLeft ? 'Take it up again' : 'Leave for good'}
          </Button>
          {inGroups && !own && (
            <Button
              title="This pair gets a value of its own, its groups keep theirs"
              onClick={() => run((p) => makeException(p, { master: masterId, first: pair.first, second: pair.second }))}
            >
              Make an exception
            </Button>
          )}
          {found && (
            <Button
              kind="danger"
              title={own && inGroups ? 'The groups’ value holds again' : 'No kerning'}
              onClick={() => run((p) => removePairs(p, { master: masterId, keys: [found.key] }))}
            >
              {own && inGroups ? 'Dissolve the exception' : 'Take away'}
            </Button>
          )}
        </div>
      </Section>
      <GroupSection side="first" glyph={pair.first} offered={offered?.first ?? []} />
      <GroupSection side="second" glyph={pair.second} offered={offered?.second ?? []} />
    </Details>
  );
}

/** Goes to a pair that is typed: two characters, or two names. */
function TypedPair() {
  const [typed, setTyped] = useState('');
  return (
    <form
      className="mb-3"
      onSubmit={(e) => {
        e.preventDefault();
        const project = useBench.getState().settled!;
        const found = pairTyped(project, typed);
        if (!found) say('A pair is two characters, or two glyph names with a space between.');
        else if ('missing' in found) say(`There is no glyph “${found.missing}”.`);
        else {
          const [first, second] = found.glyphs;
          choosePair({ first: first.id, second: second.id });
          setTyped('');
        }
      }}
    >
      <TextField
        aria-label="Go to a pair"
        placeholder="go to a pair: Ta, or T adieresis"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
    </form>
  );
}

/** Members that are shown before all are asked for. */
const FEW = 9;

/** The group of one side: its members, added by typing or dropping, taken out by a click. */
function GroupSection({
  side,
  glyph,
  offered,
}: {
  side: Side;
  glyph: string;
  /** Glyphs that look alike there. */
  offered: Offered[Side];
}) {
  const project = useBench((s) => s.settled)!;
  const [typed, setTyped] = useState('');
  const [all, setAll] = useState(false);
  const group = groupsByGlyph(project)[side].get(glyph);
  const name = project.glyphs[glyph]!.name;
  const master = useBench((s) => s.master);
  const groups = groupsByGlyph(project)[side];
  const put = (id: string) => {
    const from = groups.get(id);
    const done = run((p) => putInGroup(p, { side, glyph: id, group: group!.id }));
    if (done && from && from !== group)
      say(`${project.glyphs[id]?.name} moved from the ${from.name} group to the ${group!.name} group.`);
    return done;
  };
  return (
    <Section title={`${side === 'first' ? 'First' : 'Second'}: ${group ? `${group.name} group` : name}`}>
      {group ? (
        <>
          <ul
            className="mb-2 flex flex-wrap gap-1"
            aria-label={`The ${side} group; glyphs can be dropped here`}
            {...takesGlyph((id) => put(id))}
          >
            {(all ? group.members : group.members.slice(0, FEW)).map((m) => (
              <li
                key={m}
                {...draggedAs(m)}
                className="cursor-grab inline-flex items-center gap-0.5 rounded-full border border-line bg-paper pr-1 pl-2 text-[12.5px]"
              >
                {project.glyphs[m] ? (
                  <span title={project.glyphs[m]!.name}>
                    <GlyphShape project={project} glyph={project.glyphs[m]!} master={master} size={22} />
                  </span>
                ) : (
                  'missing'
                )}
                <button
                  type="button"
                  aria-label={`Take ${project.glyphs[m]?.name} out of the ${side} group`}
                  className="rounded-full p-0.5 text-quiet hover:bg-kelp-tint"
                  onClick={() => run((p) => putInGroup(p, { side, glyph: m, group: undefined }))}
                >
                  <X size={11} />
                </button>
              </li>
            ))}
            {group.members.length > FEW && (
              <li>
                <button type="button" className="px-1.5 text-[12.5px] text-kelp" onClick={() => setAll(!all)}>
                  {all ? 'fewer' : `and ${group.members.length - FEW} more`}
                </button>
              </li>
            )}
          </ul>
          <form
            className="flex gap-1.5"
            onSubmit={(e) => {
              e.preventDefault();
              const found = glyphTyped(project, typed);
              if (!found) say(`There is no glyph “${typed.trim()}”.`);
              else if (put(found.id)) setTyped('');
            }}
          >
            <TextField
              aria-label={`Glyph for the ${side} group`}
              placeholder="character or name"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <Button type="submit" disabled={typed.trim() === ''}>
              Add
            </Button>
          </form>
          <button
            type="button"
            className="mt-1.5 text-[12.5px] text-quiet hover:text-ink"
            title="Its pairs go to its members one by one, so that nothing moves"
            onClick={() => run((p) => dissolveGroup(p, { group: group.id }))}
          >
            Dissolve the group
          </button>
          {offered.length > 0 && (
            <p className="mt-1.5 text-[12.5px] text-quiet">
              Alike on this side:{' '}
              {offered.map((o) => (
                <button
                  key={o.glyph}
                  type="button"
                  {...draggedAs(o.glyph)}
                  className="mr-1.5 text-kelp"
                  title="Into the group, by a click or by dropping"
                  onClick={() => put(o.glyph)}
                >
                  {characterOf(project.glyphs[o.glyph]!) || project.glyphs[o.glyph]!.name}{' '}
                  {Math.floor(o.likeness * 100)} %
                </button>
              ))}
            </p>
          )}
        </>
      ) : (
        <Button
          title="Glyphs that look alike on this side, moving together"
          onClick={() => run((p) => addGroup(p, { side, name, members: [glyph] }))}
        >
          Make a group of it
        </Button>
      )}
    </Section>
  );
}
