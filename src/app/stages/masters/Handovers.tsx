import { ArrowRight, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Glyph } from '../../../core/project/model';
import { designEnds } from '../../../core/project/places';
import { glyphForCodePoint, glyphNamed } from '../../../core/project/queries';
import { drawnAt } from '../../../core/variation/glyphAt';
import {
  type Handover,
  jumpAt,
  removeHandover,
  setHandover,
  setHandoversLast,
} from '../../../core/variation/handovers';
import { run, say, useBench } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button, Choice, IconButton, NumberField, Section } from '../../ui/parts';
import { LetterAt } from './LetterAt';

const SIZE = 74;

/** Where the glyph that is shown gives way to another: over which part of an axis, to which, and what jumps there. */
export function Handovers({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  const { axes } = project;
  const [to, setTo] = useState('');
  const [tag, setTag] = useState<string>();
  const axis = axes.find((x) => x.tag === tag) ?? axes[0];
  if (!axis || project.masters.length < 2) return null;
  const add = () => {
    const code = [...to.trim()].length === 1 ? to.trim().codePointAt(0) : undefined;
    const other = glyphNamed(project, to.trim()) ?? (code === undefined ? undefined : glyphForCodePoint(project, code));
    if (!other) {
      say(`There is no glyph ${to.trim() || 'of that name'}.`);
      return;
    }
    const { usual, least, most } = designEnds(axis);
    const [near, far] = most !== usual ? [usual, most] : [least, usual];
    const handover = { axis: axis.tag, from: Math.round((near + far) / 2), to: far, glyph: other.id };
    if (run((p) => setHandover(p, { glyph: glyph.id, handover }))) setTo('');
  };
  return (
    <Section title={`Handovers of ${glyph.name}`}>
      <p className="mb-1.5 text-quiet">
        Over part of an axis another glyph takes its place in text: one with its bar cut, say.
      </p>
      <ul aria-label="Handovers" className="grid gap-3">
        {glyph.handovers.map((h, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: handovers keep their places.
          <li key={index}>
            <OneHandover glyph={glyph} handover={h} index={index} />
          </li>
        ))}
      </ul>
      {glyph.handovers.length > 0 && (
        <div className="mt-2">
          <Choice
            label="When handovers work"
            value={project.settings.handoversLast ? 'last' : 'first'}
            options={[
              { value: 'first', text: 'before other rules' },
              { value: 'last', text: 'after them' },
            ]}
            onChange={(when) => run((p) => setHandoversLast(p, { last: when === 'last' }))}
          />
          <p className="mt-1 text-[12.5px] text-quiet">
            {project.settings.handoversLast
              ? 'Ligatures and forms see the glyph as it was; it gives way in what they leave (rclt).'
              : 'Ligatures and forms see the glyph that stands in (rvrn). All handovers of the family work alike.'}
          </p>
        </div>
      )}
      <form
        className="mt-1.5 grid grid-cols-[minmax(0,1fr)] gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <div className="flex gap-1.5">
          <input
            aria-label="The glyph that takes its place"
            value={to}
            placeholder={`${glyph.name} gives way to`}
            onChange={(e) => setTo(e.target.value)}
            className="h-7.5 min-w-0 flex-1 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
          />
          {axes.length > 1 && (
            <Pick
              label="Axis of the handover"
              className="w-24"
              value={axis.tag}
              options={axes.map((x) => ({ value: x.tag, text: x.name }))}
              onChange={setTag}
            />
          )}
        </div>
        <Button type="submit" disabled={to.trim() === ''}>
          Hand over
        </Button>
      </form>
    </Section>
  );
}

function OneHandover({ glyph, handover, index }: { glyph: Glyph; handover: Handover; index: number }) {
  const project = useBench((s) => s.settled)!;
  const axis = project.axes.find((x) => x.tag === handover.axis);
  const other = project.glyphs[handover.glyph];
  // The limit within the axis, at which text jumps.
  const limit = axis && handover.from > designEnds(axis).least ? handover.from : handover.to;
  const jump = useMemo(() => jumpAt(project, glyph, handover, limit), [project, glyph, handover, limit]);
  const letters = useMemo(() => {
    return [glyph.id, handover.glyph].map((id) => drawnAt(project, id, { [handover.axis]: limit }));
  }, [project, glyph, handover, limit]);
  if (!axis || !other) return null;
  const change = (part: Partial<Handover>) =>
    run((p) => setHandover(p, { glyph: glyph.id, index, handover: { ...handover, ...part } }));
  return (
    <div className="grid gap-1.5">
      <div className="flex items-center gap-1.5 font-semibold">
        {glyph.name} <ArrowRight size={13} /> {other.name}
        <span className="ml-auto">
          <IconButton
            label={`Take the handover to ${other.name} away`}
            onClick={() => run((p) => removeHandover(p, { glyph: glyph.id, index }))}
          >
            <Trash2 size={14} />
          </IconButton>
        </span>
      </div>
      <NumberField label={`${axis.name}, from`} value={handover.from} onChange={(from) => change({ from })} />
      <NumberField label={`${axis.name}, to`} value={handover.to} onChange={(to) => change({ to })} />
      <svg
        role="img"
        aria-label={`${glyph.name} and ${other.name} at ${axis.name.toLowerCase()} ${limit}`}
        height={SIZE * 1.2}
        className="w-full rounded-lg border border-line bg-paper fill-ink"
        viewBox={`${-SIZE * 1.2} ${-SIZE * 0.92} ${SIZE * 2.4} ${SIZE * 1.2}`}
      >
        {letters.map((letter, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two letters.
          <g key={i} transform={`translate(${(i - 0.5) * SIZE * 1.1} 0)`}>
            {letter && <LetterAt letter={letter} em={project.unitsPerEm} size={SIZE} />}
          </g>
        ))}
      </svg>
      <p className="text-quiet">
        At {axis.name.toLowerCase()} {limit} the advance {jumps(jump.advance)}
        {jump.kerning
          ? `, the kerning most with ${jump.kerning.with} ${jump.kerning.side} it: ${jumps(jump.kerning.units)}.`
          : ', the kerning nowhere.'}
      </p>
    </div>
  );
}

const jumps = (units: number): string => {
  const n = Math.round(units);
  return n === 0 ? 'stays' : `jumps by ${n > 0 ? '+' : ''}${n}`;
};
