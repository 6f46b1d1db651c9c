import { X } from 'lucide-react';
import { useState } from 'react';
import { plural } from '../../../core/project/edit';
import { setFamily, setMasterName } from '../../../core/project/edits';
import { type Family, ZONE_KEYS, type ZoneKey } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { addZone, overshootFault, setOwnZone, setZone } from '../../../core/project/zoneEdits';
import { run, say, useBench } from '../../state/bench';
import { Details } from '../../ui/Details';
import { Button, Choice, EntryField, NumberField, Section, TextField } from '../../ui/parts';
import { EmDialog } from './EmDialog';
import { FactsSection } from './FactsSection';
import { LanguagesView } from './LanguagesView';
import { MastersView } from './MastersView';
import { MetricsDiagram } from './MetricsDiagram';
import { NameHints } from './NameHints';
import { PLAN_VIEWS, showInPlan, usePlanView } from './planView';
import { SetsView } from './SetsView';

const NAMES: readonly { key: keyof Family & string; label: string }[] = [
  { key: 'name', label: 'Family' },
  { key: 'designer', label: 'Designer' },
  { key: 'manufacturer', label: 'Foundry' },
  { key: 'vendor', label: 'Vendor tag' },
  { key: 'copyright', label: 'Copyright' },
  { key: 'licence', label: 'Licence' },
];

function NameField({ field, label }: { field: keyof Family & string; label: string }) {
  const value = useBench((s) => String(s.project?.family[field] ?? ''));
  return (
    <label className="grid grid-cols-[74px_1fr] items-center gap-2">
      <span className="text-quiet">{label}</span>
      <EntryField
        value={value}
        maxLength={field === 'vendor' ? 4 : 400}
        onApply={(text) =>
          run((p) => setFamily(p, { [field]: field !== 'name' && text === '' ? undefined : text }), `family-${field}`)
        }
      />
    </label>
  );
}

/** Sets a line or overshoot; an overshoot on the wrong side is turned round and explained. */
export function changeZone(zone: ZoneKey, change: { position?: number; overshoot?: number }): void {
  const { master } = useBench.getState();
  const done = run((p) => setZone(p, { master, zone, change }));
  const fault = change.overshoot === undefined ? undefined : overshootFault(zone, change.overshoot);
  if (done && fault) say(fault);
}

/** Adds a zone by name, a small-cap height say. */
function NewZone() {
  const master = useBench((s) => s.master);
  const [name, setName] = useState('');
  return (
    <form
      className="mt-2 flex gap-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        if (run((p) => addZone(p, { master, name }))) setName('');
      }}
    >
      <TextField
        aria-label="Name of a new zone"
        placeholder="small-cap height"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" disabled={name.trim() === ''}>
        Add zone
      </Button>
    </form>
  );
}

/** Names, em and vertical metrics, the metrics on a live diagram of the project's own glyphs. */
export default function Plan() {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  // A waypoint is left only after the first sight of the stage.
  const master = masterOf(project, masterId)!;
  const view = usePlanView((s) => s.view);
  const [em, setEm] = useState<number>();
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="px-5 pt-3 pb-2">
          <Choice label="Plan shows" value={view} options={PLAN_VIEWS} onChange={showInPlan} />
        </div>
        {view === 'metrics' ? (
          <MetricsDiagram />
        ) : view === 'masters' ? (
          <MastersView />
        ) : view === 'languages' ? (
          <LanguagesView />
        ) : (
          <SetsView />
        )}
      </div>
      <EmDialog key={em} em={em} onClose={() => setEm(undefined)} />
      <Details
        heading={`${project.family.name}, ${master.name}`}
        sub={`${plural(project.glyphOrder.length, 'glyph')} · ${project.masters.length === 1 ? 'one master' : `${project.masters.length} masters`}`}
      >
        <Section title="Vertical metrics">
          <div className="grid grid-cols-[1fr_62px_58px] items-center gap-x-1.5 gap-y-1.5">
            <span />
            <span className="text-right text-[12px] text-quiet">line</span>
            <span className="text-right text-[12px] text-quiet">overshoot</span>
            {[...ZONE_KEYS].reverse().map((key) => {
              const zone = master.zones[key];
              return (
                <div key={key} className="contents">
                  <span className="truncate text-quiet">{zone.name}</span>
                  <NumberField
                    hideLabel
                    label={zone.name}
                    value={zone.position}
                    onChange={(position) => changeZone(key, { position })}
                  />
                  <NumberField
                    hideLabel
                    label={`${zone.name} overshoot`}
                    value={zone.overshoot}
                    onChange={(overshoot) => changeZone(key, { overshoot })}
                  />
                </div>
              );
            })}
            {master.zones.own.map((zone, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a zone of one's own is its place in the list.
              <div key={index} className="contents">
                <span className="flex min-w-0 items-center gap-1 text-quiet">
                  <button
                    type="button"
                    aria-label={`Remove ${zone.name}`}
                    title="Remove this zone"
                    className="rounded p-0.5 hover:bg-marigold-tint hover:text-brick"
                    onClick={() => run((p) => setOwnZone(p, { master: masterId, index, change: {}, remove: true }))}
                  >
                    <X size={13} />
                  </button>
                  <span className="truncate">{zone.name}</span>
                </span>
                <NumberField
                  hideLabel
                  label={zone.name}
                  value={zone.position}
                  onChange={(position) => run((p) => setOwnZone(p, { master: masterId, index, change: { position } }))}
                />
                <NumberField
                  hideLabel
                  label={`${zone.name} overshoot`}
                  value={zone.overshoot}
                  onChange={(overshoot) =>
                    run((p) => setOwnZone(p, { master: masterId, index, change: { overshoot } }))
                  }
                />
              </div>
            ))}
          </div>
          <NewZone />
        </Section>
        <Section title="Names">
          <div className="grid gap-1.5">
            {NAMES.slice(0, 1).map((n) => (
              <NameField key={n.key} field={n.key} label={n.label} />
            ))}
            <label className="grid grid-cols-[74px_1fr] items-center gap-2">
              <span className="text-quiet">Master</span>
              <EntryField
                value={master.name}
                onApply={(name) => run((p) => setMasterName(p, { master: masterId, name }))}
              />
            </label>
            {NAMES.slice(1).map((n) => (
              <NameField key={n.key} field={n.key} label={n.label} />
            ))}
          </div>
        </Section>
        <NameHints master={master} />
        <Section title="Numbers">
          <div className="grid gap-1.5">
            <NumberField
              label="Units per em"
              value={project.unitsPerEm}
              onChange={(v) => v !== project.unitsPerEm && setEm(v)}
            />
            <NumberField
              label="Version, major"
              value={project.family.versionMajor}
              onChange={(v) =>
                Number.isInteger(v) && v >= 0 && v <= 32767 && run((p) => setFamily(p, { versionMajor: v }))
              }
            />
            <NumberField
              label="Version, minor"
              value={project.family.versionMinor}
              onChange={(v) =>
                Number.isInteger(v) && v >= 0 && v <= 999 && run((p) => setFamily(p, { versionMinor: v }))
              }
            />
          </div>
        </Section>
        <FactsSection master={master} />
      </Details>
    </div>
  );
}
