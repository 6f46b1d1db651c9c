import { Check } from 'lucide-react';
import type { ReactNode } from 'react';
import { counted } from '../../../core/base/notation';
import { composeGlyphs, placeAnchors } from '../../../core/composing/edits';
import type { Groundwork, Readiness } from '../../../core/composing/steps';
import type { ComposedCell, ComposedState } from '../../../core/composing/view';
import { plural } from '../../../core/project/edit';
import { runFarAndSay } from '../../state/far';

const ringed = (codes: readonly number[], most = 6): string => {
  const text = codes
    .slice(0, most)
    .map((c) => (/\p{M}/u.test(String.fromCodePoint(c)) ? `◌${String.fromCodePoint(c)}` : String.fromCodePoint(c)))
    .join(' ');
  return codes.length > most ? `${text} and ${codes.length - most} more` : text;
};

/** The work in its order: what comes before letters can be put together, each with its state and its one action. */
export function Steps({
  ground,
  cells,
  onShow,
  onBuild,
}: {
  ground: Groundwork;
  cells: readonly ComposedCell[];
  onShow: (only: ComposedState) => void;
  onBuild: () => void;
}) {
  const { dotless, marks, anchors } = ground;
  const of = (state: ComposedState) => cells.filter((c) => c.state === state).length;
  const can = of('can');
  const not = of('not');
  return (
    <ol aria-label="The work in its order" className="grid auto-cols-fr grid-flow-col gap-2 px-5 pb-2.5">
      {dotless.there.length + dotless.make.length + dotless.lack.length > 0 && (
        <Made number={1} title="Dotless" from="i and j" of={dotless} />
      )}
      <Made number={2} title="Marks" from="accents" of={marks} />
      <Step
        number={3}
        title="Anchors"
        isDone={anchors.lack.length === 0}
        say={
          anchors.lack.length === 0
            ? `${plural(anchors.there, 'glyph has', 'glyphs have')} them`
            : `${plural(anchors.lack.length, 'glyph lacks', 'glyphs lack')} some`
        }
      >
        {anchors.lack.length > 0 && (
          <Act
            onClick={() =>
              void runFarAndSay(placeAnchors, { glyphs: [...anchors.lack] }, { glyphs: anchors.lack.length })
            }
          >
            Place them
          </Act>
        )}
      </Step>
      <Step
        number={4}
        title="Letters"
        isDone={can === 0 && cells.length > not}
        say={`${counted(of('built') + of('hand'))} of ${counted(cells.length)} there`}
      >
        {can > 0 && <Act onClick={onBuild}>Build {can}</Act>}
      </Step>
      <Step
        number={5}
        title="What is left"
        isDone={not === 0}
        say={not === 0 ? 'nothing' : `${plural(not, 'letter')} not possible`}
      >
        {not > 0 && <Act onClick={() => onShow('not')}>Show them</Act>}
      </Step>
    </ol>
  );
}

function Made({ number, title, from, of }: { number: number; title: string; from: string; of: Readiness }) {
  const isDone = of.make.length + of.lack.length === 0;
  return (
    <Step
      number={number}
      title={title}
      isDone={isDone}
      say={
        isDone
          ? of.there.length > 0
            ? `${ringed(of.there, 4)} drawn`
            : 'none needed'
          : of.make.length > 0
            ? `${ringed(of.make)} from ${from}`
            : `${ringed(of.lack)} to be drawn`
      }
    >
      {of.make.length > 0 && (
        <Act onClick={() => void runFarAndSay(composeGlyphs, { codes: [...of.make] }, { glyphs: of.make.length })}>
          Make {of.make.length}
        </Act>
      )}
    </Step>
  );
}

function Step({
  number,
  title,
  say: told,
  isDone,
  children,
}: {
  number: number;
  title: string;
  say: string;
  isDone: boolean;
  children?: ReactNode;
}) {
  return (
    <li className="min-w-0 rounded-lg border border-line bg-panel px-2.5 py-1.5">
      <span className="flex items-center gap-1.5 font-semibold">
        <span
          aria-hidden
          className={`flex size-5 shrink-0 items-center justify-center rounded-full text-[12px] font-normal ${isDone ? 'bg-kelp text-on-kelp' : 'border border-edge text-quiet'}`}
        >
          {isDone ? <Check size={12} strokeWidth={3} /> : number}
        </span>
        <span className="truncate">{title}</span>
        {isDone && <span className="sr-only">: done</span>}
      </span>
      <span className="block text-[12.5px] leading-4 text-quiet">{told}</span>
      {children}
    </li>
  );
}

const Act = ({ onClick, children }: { onClick: () => void; children: ReactNode }) => (
  <button type="button" className="text-left text-[13px] text-kelp underline underline-offset-2" onClick={onClick}>
    {children}
  </button>
);
