import type { Format } from '../../../core/casting/outputs';
import { type CastThing, namesOfThing, thingKey, thingsOf } from '../../../core/casting/things';
import { useBench } from '../../state/bench';
import { CheckRow, Section } from '../../ui/parts';
import { Terms } from './Terms';
import type { CastChoice } from './useCasting';

const FORMATS: readonly { format: Format; title: string; what: string }[] = [
  { format: 'otf', title: 'OpenType', what: 'cubic outlines (CFF), for desktop and print' },
  { format: 'ttf', title: 'TrueType', what: 'quadratic outlines, for every system' },
  { format: 'woff2', title: 'WOFF2', what: 'the TrueType font packed for web pages' },
  { format: 'woff', title: 'WOFF', what: 'packed the older way, for browsers without WOFF2' },
];

/** What is to be made: formats in their order, masters in theirs, outlines as drawn or joined. */
export function Choices({
  undrawn,
  chosen,
  onChoose,
}: {
  undrawn: number;
  chosen: CastChoice;
  onChoose: (change: Partial<CastChoice>) => void;
}) {
  const toggled = <T,>(all: readonly T[], on: readonly T[], value: T): T[] =>
    all.filter((v) => on.includes(v) !== (v === value));
  const partner = useBench((s) => s.settled!.settings.partner);
  const formats = FORMATS.map((f) => f.format);
  const project = useBench((s) => s.settled)!;
  const all = thingsOf(project);
  const has = (thing: CastThing) => chosen.things.some((t) => thingKey(t) === thingKey(thing));
  const order = [...all.masters, ...all.instances, ...all.variable];
  const choose = (things: readonly CastThing[], on: boolean) => {
    const keys = new Set(things.map(thingKey));
    onChoose({ things: order.filter((t) => (keys.has(thingKey(t)) ? on : has(t))) });
  };
  const group = (title: string, things: readonly CastThing[], nameOf: (i: number) => string) =>
    things.length > 0 && (
      <Section
        title={title}
        action={
          things.length > 1 ? (
            <button
              type="button"
              className="text-[12.5px] text-kelp underline"
              onClick={() => choose(things, !things.every(has))}
            >
              {things.every(has) ? 'none' : 'all'}
            </button>
          ) : undefined
        }
      >
        {things.map((thing, i) => (
          <CheckRow
            key={thingKey(thing)}
            label={nameOf(i)}
            checked={has(thing)}
            onChange={(on) => choose([thing], on)}
          />
        ))}
      </Section>
    );
  return (
    <>
      <Section title="Formats">
        {FORMATS.map((f) => (
          <div key={f.format} title={f.what}>
            <CheckRow
              label={f.title}
              checked={chosen.formats.includes(f.format)}
              onChange={() => onChoose({ formats: toggled(formats, chosen.formats, f.format) })}
            />
            <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">{f.what}</p>
          </div>
        ))}
      </Section>
      {all.variable.length > 0 && (
        <Section title="The family as one font">
          {all.variable.map((thing) => (
            <CheckRow
              key={thingKey(thing)}
              label={all.variable.length === 1 ? 'Variable' : (namesOfThing(project, thing)?.fileName ?? '')}
              checked={has(thing)}
              onChange={(on) => choose([thing], on)}
            />
          ))}
          <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">
            varies over {listed(project.axes.filter((a) => !a.discrete).map((a) => a.name.toLowerCase()))}; overlaps
            kept
          </p>
        </Section>
      )}
      {group('Instances', all.instances, (i) => project.instances[i]!.name)}
      {group('Masters', all.masters, (i) => project.masters[i]!.name)}
      {partner && (
        <Section title="Partner">
          <CheckRow
            label={`${partner.name} too`}
            checked={chosen.partner}
            onChange={(on) => onChoose({ partner: on })}
          />
          <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">its masters at the same places, as stored</p>
        </Section>
      )}
      <Terms
        undrawn={undrawn}
        terms={chosen.terms}
        onChange={(change) => onChoose({ terms: { ...chosen.terms, ...change } })}
      />
    </>
  );
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
