import { type FormEvent, useState } from 'react';
import { glyphOf, type ItemState, termsFor } from '../../../core/deriving/derive';
import { makeLigature, setSetTerms, weldParts } from '../../../core/deriving/edits';
import type { SetFacts, SetTerms, Way } from '../../../core/deriving/sets';
import type { SetItem } from '../../../core/deriving/view';
import { plural } from '../../../core/project/edit';
import { run, say, useBench } from '../../state/bench';
import { Details } from '../../ui/Details';
import { Button, NumberField, Section, TextField } from '../../ui/parts';
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
  onOpen: (name: string) => boolean;
};

/** The numbers of a set, what its glyphs lack, and what one glyph comes from. */
export function SetDetails({ set, terms, items, picked, onMake, onOpen }: Props) {
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
      {one && set.measure && (one.how === 'scaled' || one.how === 'ringed') && <OwnNumbers set={set} item={one} />}
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
            Drafts follow at once. What was made follows when it is brought up to date; what you corrected by hand never
            does.
          </p>
        </Section>
      )}
      {set.key === 'ligatures' && <Ligatures picked={picked} />}
      {corrected > 0 && <p className="mb-3 text-quiet">{plural(corrected, 'glyph')} corrected by hand: they stay.</p>}
      {reasons.length > 0 && (
        <Section title={`${plural(lacks.length, 'glyph')} cannot be made yet`}>
          <ul className="grid gap-1 text-quiet">
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

/** Numbers of one glyph in place of those of its set. */
function OwnNumbers({ set, item }: { set: SetFacts; item: SetItem }) {
  const project = useBench((s) => s.settled)!;
  const terms = termsFor(project, set, item.name);
  const own = project.settings.deriving?.own?.[item.name];
  const change = (numbers: Partial<SetTerms>) =>
    run((p) => setSetTerms(p, { set: set.key, glyph: item.name, ...numbers }), `set ${set.key} ${item.name}`);
  return (
    <Section title="For this glyph, in percent">
      <div className="grid gap-1.5">
        <NumberField label="Wide, beside that" value={terms.width} onChange={(width) => change({ width })} />
        <NumberField label="Strokes, of text" value={terms.weight} onChange={(weight) => change({ weight })} />
      </div>
      {own && (
        <Button
          className="mt-2"
          onClick={() => run((p) => setSetTerms(p, { set: set.key, glyph: item.name, asSet: true }))}
        >
          As the set
        </Button>
      )}
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
          onClick={() => run((p) => weldParts(p, { glyphs: ids })) && say('Welded where they touch.')}
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
