import { type FormEvent, useMemo, useState } from 'react';
import { glyphOf, type ItemState, termsFor } from '../../../core/deriving/derive';
import { drawnControls } from '../../../core/deriving/draw';
import { makeLigature, setSetTerms, setSetWay, weldParts } from '../../../core/deriving/edits';
import { needsOf, type SetFacts, type SetTerms, type Way } from '../../../core/deriving/sets';
import type { SetItem } from '../../../core/deriving/view';
import { canChoose, OTHER_WAYS, type OtherWay, otherOf } from '../../../core/deriving/ways';
import { plural } from '../../../core/project/edit';
import { glyphNamed } from '../../../core/project/queries';
import { run, say, useBench } from '../../state/bench';
import { runFarAndSay } from '../../state/far';
import { Pick } from '../../ui/controls';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button, EntryField, NumberField, Section, TextField } from '../../ui/parts';
import { Shape } from './Cell';
import { ITEM_STATES } from './SetTile';

const HOW: Readonly<Record<Way['how'], (of: string) => string>> = {
  scaled: (of) => `Scaled from ${of}, its strokes at the weight of the set.`,
  moved: (of) => `${of} as a part, at another height.`,
  row: (of) => `${of} in a row, as parts.`,
  centred: (of) => `${of} as a part, in the middle of the shared width.`,
  sided: (of) => `${of} as a part, with sides of its own.`,
  marked: (of) => `Put together from ${of} where their anchors meet.`,
  ringed: (of) => `${of} scaled, in a ring.`,
  framed: (of) => `${of} in a frame.`,
};

type Props = {
  set: SetFacts;
  terms: SetTerms;
  items: readonly SetItem[] | undefined;
  picked: readonly SetItem[];
  onMake: (names?: readonly string[]) => void;
  onSpace: () => void;
  onOpen: (name: string) => boolean;
};

/** The numbers of a set, what its glyphs lack, and what one glyph comes from. */
export function SetDetails({ set, terms, items, picked, onMake, onSpace, onOpen }: Props) {
  const project = useBench((s) => s.settled)!;
  const one = picked.length === 1 ? picked[0] : undefined;
  const lacks = items?.filter((i) => i.state === 'lacks') ?? [];
  const reasons = [...new Set(lacks.map((i) => i.why))];
  const count = (state: ItemState) => items?.filter((i) => i.state === state).length ?? 0;
  const corrected = count('corrected');
  const change = (numbers: Partial<SetTerms>) =>
    run((p) => setSetTerms(p, { set: set.key, ...numbers }), `set ${set.key}`);
  return (
    <Details heading={one ? one.name : set.title} sub={one ? ITEM_STATES[one.state].says : set.does}>
      {one && <One item={one} onMake={onMake} onOpen={onOpen} />}
      {one && <OwnWay set={set} item={one} />}
      {one && set.measure && (one.how === 'scaled' || one.how === 'ringed') && <OwnNumbers set={set} item={one} />}
      {one && project.settings.deriving?.own?.[one.name] && (
        <Button onClick={() => run((p) => setSetTerms(p, { set: set.key, glyph: one.name, asSet: true }))}>
          As the set has it
        </Button>
      )}
      {!one && picked.length > 1 && <p className="mb-3 text-quiet">{plural(picked.length, 'glyph')} chosen.</p>}
      {!one && set.measure && (
        <Section title="Its numbers, in percent">
          <div className="grid gap-1.5">
            <NumberField
              label={set.measure === 'xHeight' ? 'High, of x' : 'High, of figures'}
              value={terms.height}
              onChange={(height) => change({ height })}
            />
            <NumberField label="Wide, beside that" value={terms.width} onChange={(width) => change({ width })} />
            <NumberField label="Strokes, of text" value={terms.weight} onChange={(weight) => change({ weight })} />
            <NumberField label="Foot, of capitals" value={terms.foot} onChange={(foot) => change({ foot })} />
          </div>
          <p className="mt-1.5 text-quiet">
            {drawnControls(project, set) &&
              'Until you set a number, height and strokes are those of the letters of this set that you drew. '}
            Drafts follow at once. What was made follows when it is brought up to date; what you corrected by hand never
            does.
          </p>
        </Section>
      )}
      {!one && set.controls && (count('made') > 0 || count('changed') > 0) && <SetSides set={set} onSpace={onSpace} />}
      {set.key === 'ligatures' && <Ligatures picked={picked} />}
      {corrected > 0 && <p className="mb-3 text-quiet">{plural(corrected, 'glyph')} corrected by hand: they stay.</p>}
      {reasons.length > 0 && (
        <Section title={`${plural(lacks.length, 'glyph')} cannot be made yet`}>
          <ul aria-label="Why some cannot be made yet" className="grid gap-1 text-quiet">
            {reasons.slice(0, 8).map((why) => (
              <li key={why}>{why}</li>
            ))}
            {reasons.length > 8 && <li>and {reasons.length - 8} reasons more, by pointing at each glyph.</li>}
          </ul>
        </Section>
      )}
      {!one && (
        <p className="text-quiet">
          Click a glyph to see what it comes from; Shift or Ctrl choose more, Enter makes them. Rules for text write
          themselves from the names, in Features.
        </p>
      )}
    </Details>
  );
}

/** Sides of what a set made, by controls of its own. */
function SetSides({ set, onSpace }: { set: SetFacts; onSpace: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const controls = set.controls!(project).flatMap((n) => glyphNamed(project, n) ?? []);
  if (controls.length < 2) return null;
  return (
    <Section title="Sides, by its own controls">
      <div className="mb-2 grid grid-cols-[auto_auto_1fr] items-center gap-2">
        {controls.map((g) => (
          <span
            key={g.id}
            title={`${g.name}: its sides are set in Fit`}
            className="rounded-md border border-line bg-panel"
          >
            <GlyphShape project={project} glyph={g} master={master} size={44} />
          </span>
        ))}
        <Button
          className="flex-1"
          title="In all masters, what this set made; what you drew or corrected stays, and sides that follow another"
          onClick={onSpace}
        >
          Fit the others
        </Button>
      </div>
      <p className="text-quiet">What is made has sides as narrow as it was scaled; set those of these two, then fit.</p>
    </Section>
  );
}

/** What one glyph comes from, and how, where that is not what its set would have. */
function OwnWay({ set, item }: { set: SetFacts; item: SetItem }) {
  const project = useBench((s) => s.settled)!;
  const own = project.settings.deriving?.own?.[item.name];
  const chosen = useMemo(() => set.items(project).find((i) => i.name === item.name), [project, set, item.name]);
  if (!chosen || !canChoose(chosen.way)) return null;
  const from = own?.of ?? needsOf(chosen.way)[0]!;
  const change = (to: { as?: OtherWay; of?: string }) =>
    run((p) => setSetWay(p, { set: set.key, glyph: item.name, ...to }));
  return (
    <Section title="Comes from">
      <div className="grid gap-1.5">
        <EntryField
          aria-label="Glyph it comes from"
          value={from}
          disabled={own?.as === 'hand'}
          onApply={(of) => change({ of })}
        />
        <Pick
          label="How it comes"
          value={own?.as ?? otherOf(chosen.way)}
          options={OTHER_WAYS.map((w) => ({ value: w.as, text: w.text }))}
          onChange={(as) => change({ as })}
        />
      </div>
    </Section>
  );
}

/** Numbers of one glyph in place of those of its set. */
function OwnNumbers({ set, item }: { set: SetFacts; item: SetItem }) {
  const project = useBench((s) => s.settled)!;
  const terms = termsFor(project, set, item.name);
  const change = (numbers: Partial<SetTerms>) =>
    run((p) => setSetTerms(p, { set: set.key, glyph: item.name, ...numbers }), `set ${set.key} ${item.name}`);
  return (
    <Section title="For this glyph, in percent">
      <div className="grid gap-1.5">
        <NumberField label="Wide, beside that" value={terms.width} onChange={(width) => change({ width })} />
        <NumberField label="Strokes, of text" value={terms.weight} onChange={(weight) => change({ weight })} />
      </div>
    </Section>
  );
}

/** A ligature of one's own, and parts welded where they touch. */
function Ligatures({ picked }: { picked: readonly SetItem[] }) {
  const project = useBench((s) => s.settled)!;
  const [letters, setLetters] = useState('');
  const ids = picked.flatMap((i) => glyphOf(project, i)?.id ?? []);
  const make = (e: FormEvent) => {
    e.preventDefault();
    if (run((p) => makeLigature(p, { letters }))) {
      say(useBench.getState().history.done.at(-1)?.sentence ?? '');
      setLetters('');
    }
  };
  return (
    <Section title="A ligature of your own">
      <form onSubmit={make} className="mb-2 flex gap-2">
        <TextField
          aria-label="Letters of a ligature"
          placeholder="fj, or f_f_j"
          value={letters}
          onChange={(e) => setLetters(e.target.value)}
        />
        <Button type="submit" disabled={letters.trim() === ''}>
          Make it
        </Button>
      </form>
      {ids.length > 0 && (
        <Button
          title="Parts become outlines, united where they touch, in every master"
          onClick={() => void runFarAndSay(weldParts, { glyphs: ids }, { glyphs: ids.length })}
        >
          Weld {ids.length === 1 ? 'it' : ids.length} where parts touch
        </Button>
      )}
      <p className="mt-1.5 text-quiet">Carets stand between the letters; drag them in Draw, under Parts.</p>
    </Section>
  );
}

function One({ item, onMake, onOpen }: { item: SetItem; onMake: Props['onMake']; onOpen: Props['onOpen'] }) {
  const em = useBench((s) => s.settled!.unitsPerEm);
  const isThere = item.state !== 'can' && item.state !== 'lacks';
  return (
    <>
      <p className={`mb-3 ${item.state === 'lacks' ? 'text-brick' : 'text-quiet'}`}>
        {item.why ?? HOW[item.how](item.of.join(' and '))}
      </p>
      {item.hint && <p className="mb-3">{item.hint}</p>}
      {item.draft && (
        <div className="mb-3 flex justify-center rounded-lg border border-line bg-panel p-3">
          <Shape preview={item.draft} reach={{ top: em * 0.95, bottom: -em * 0.28 }} size={150} />
        </div>
      )}
      <div className="mb-4 flex gap-2">
        {(item.state === 'can' || item.state === 'changed') && (
          <Button kind="primary" className="flex-1" onClick={() => onMake([item.name])}>
            {item.state === 'can' ? 'Make it' : 'Bring it up to date'}
          </Button>
        )}
        {isThere && (
          <Button className="flex-1" onClick={() => onOpen(item.name)}>
            Draw it
          </Button>
        )}
      </div>
    </>
  );
}
