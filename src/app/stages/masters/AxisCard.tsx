import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { Project } from '../../../core/project/model';
import { type AxisChange, axisConsequences } from '../../../core/variation/axisConsequences';
import { removeAxis, setAxis } from '../../../core/variation/familyEdits';
import { run, say, useBench } from '../../state/bench';
import { Check } from '../../ui/controls';
import { Button, EntryField, NumberField } from '../../ui/parts';
import { AxisStops } from './AxisStops';
import { MapCurve } from './MapCurve';

type Axis = Project['axes'][number];
const ENDS = ['minimum', 'default', 'maximum'] as const;

/** An axis: its name and ends; its map, names and stops on request. What a change does is told before it is done. */
export function AxisCard({ axis }: { axis: Axis }) {
  const project = useBench((s) => s.settled)!;
  const [change, setChange] = useState<AxisChange>({});
  const [isOpen, setOpen] = useState(false);
  const shown: Axis = { ...axis, ...change };
  const edit = (part: AxisChange) => setChange({ ...change, ...part });
  const isDrafted = Object.keys(change).length > 0;
  const said = isDrafted ? axisConsequences(project, axis.tag, change) : [];
  const { tag, name } = axis;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          <EntryField
            aria-label={`Name of the axis ${tag}`}
            value={name}
            onApply={(to) => run((p) => setAxis(p, { tag, change: { name: to } }))}
          />
        </span>
        <span className="text-[12px] text-quiet">{tag}</span>
      </div>
      <div aria-hidden className="grid grid-cols-3 gap-1.5 text-[12px] text-quiet">
        <span>from</span>
        <span>default</span>
        <span>to</span>
      </div>
      <div className="grid grid-cols-3 gap-1.5">
        {ENDS.map((key) => (
          <NumberField
            key={key}
            hideLabel
            label={`${key.charAt(0).toUpperCase()}${key.slice(1)} of ${name}`}
            value={shown[key]}
            onChange={(v) => edit({ [key]: v })}
          />
        ))}
      </div>
      {isOpen && <MapCurve axis={shown} onChange={(map) => edit({ map })} />}
      {isDrafted && (
        <div className="grid gap-1 rounded-lg bg-marigold-tint p-2 text-[13px] text-ink" data-testid="axis-draft">
          {said.length > 0 ? (
            said.map((s) => <p key={s}>{s}</p>)
          ) : (
            <p>Masters and instances stay as they are, in place and in number.</p>
          )}
          <div className="flex gap-1.5">
            <Button kind="primary" onClick={() => run((p) => setAxis(p, { tag, change })) && setChange({})}>
              Change {name}
            </Button>
            <Button onClick={() => setChange({})}>Leave it</Button>
          </div>
        </div>
      )}
      <div className="flex flex-wrap items-center justify-between gap-x-3">
        <button
          type="button"
          aria-expanded={isOpen}
          className="inline-flex items-center gap-1 text-[12.5px] text-kelp"
          onClick={() => setOpen(!isOpen)}
        >
          {isOpen ? <ChevronDown size={13} /> : <ChevronRight size={13} />} Map, names, stops
        </button>
        <button
          type="button"
          className="text-[12.5px] text-kelp underline"
          onClick={() => run((p) => removeAxis(p, { tag }))}
        >
          Take {name} away
        </button>
      </div>
      {isOpen && (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
          <AxisStops axis={axis} />
          <Labels axis={axis} />
          <SingleValues axis={axis} />
          <Check
            label={`${name} is hidden in menus`}
            checked={axis.hidden}
            onChange={(hidden) => run((p) => setAxis(p, { tag, change: { hidden } }))}
          >
            hidden in menus
          </Check>
        </div>
      )}
    </div>
  );
}

/** The only values of an axis that does not run through, as numbers in a row. */
function SingleValues({ axis }: { axis: Axis }) {
  const apply = (to: string) => {
    const parts = to.split(/[\s,;]+/).filter(Boolean);
    const odd = parts.find((p) => !Number.isFinite(Number(p)));
    if (odd !== undefined) {
      say(`“${odd}” is not a number.`);
      return;
    }
    const discrete = parts.map(Number).sort((a, b) => a - b);
    run((p) => setAxis(p, { tag: axis.tag, change: { discrete } }));
  };
  return (
    <div className="grid gap-1">
      <span className="text-[12px] text-quiet">Single values, nothing between them</span>
      <EntryField
        aria-label={`Single values of ${axis.name}`}
        value={(axis.discrete ?? []).join(', ')}
        placeholder="none: it runs through"
        onApply={apply}
      />
    </div>
  );
}

/** The name of the axis in other languages: a line each, `de: Stärke`. */
function Labels({ axis }: { axis: Axis }) {
  const text = Object.entries(axis.labels)
    .map(([language, said]) => `${language}: ${said}`)
    .join('; ');
  const apply = (to: string) => {
    const labels: Record<string, string> = {};
    for (const part of to.split(';').filter((s) => s.trim() !== '')) {
      const [, language, said] = /^\s*([A-Za-z][A-Za-z0-9-]*)\s*:\s*(\S.*?)\s*$/.exec(part) ?? [];
      if (!language || !said) {
        say(`“${part.trim()}” is not a language and a name, as in de: Stärke.`);
        return;
      }
      labels[language] = said;
    }
    run((p) => setAxis(p, { tag: axis.tag, change: { labels } }));
  };
  return (
    <div className="grid gap-1">
      <span className="text-[12px] text-quiet">Name in other languages</span>
      <EntryField
        aria-label={`Name of ${axis.name} in other languages`}
        value={text}
        placeholder="de: Stärke; fr: Graisse"
        onApply={apply}
      />
    </div>
  );
}
