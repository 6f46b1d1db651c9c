import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { storageSentence } from '../../../browser/stores';
import { postScriptSafe } from '../../../core/fontfacts/names';
import { plural } from '../../../core/project/edit';
import { setMasterName } from '../../../core/project/edits';
import { STYLE_LINKS } from '../../../core/project/masterFacts';
import { wholePlace } from '../../../core/project/places';
import { defaultMaster } from '../../../core/project/queries';
import {
  makeDefault,
  moveMaster,
  removeInstance,
  removeMaster,
  setInstance,
} from '../../../core/variation/familyEdits';
import { chooseMaster, run, say, useBench } from '../../state/bench';
import { measurer } from '../../state/followers';
import { storeProject } from '../../state/library';
import { Pick } from '../../ui/controls';
import { MeasuredAt } from '../../ui/MeasuredAt';
import { PlaceFields } from '../../ui/PlaceFields';
import { Button, EntryField, NumberField, Section } from '../../ui/parts';
import type { Chosen } from './Plane';

/** The master or instance that is chosen: its name, its place, what can be done with it. */
export function ChosenDetails({
  chosen,
  onGone,
}: {
  chosen: Exclude<Chosen, { waypoint: string }>;
  onGone: () => void;
}) {
  return 'master' in chosen ? (
    <MasterDetails id={chosen.master} onGone={onGone} />
  ) : (
    <InstanceDetails index={chosen.instance} onGone={onGone} />
  );
}

function MasterDetails({ id, onGone }: { id: string; onGone: () => void }) {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const master = project.masters.find((m) => m.id === id);
  if (!master) return null;
  const isDefault = defaultMaster(project).id === id;
  const place = wholePlace(project.axes, master.place);
  return (
    <Section title="Master">
      <div className="grid gap-1.5">
        <EntryField
          aria-label="Name of the master"
          value={master.name}
          onApply={(name) => run((p) => setMasterName(p, { master: id, name }))}
        />
        <PlaceFields
          axes={project.axes}
          place={place}
          onChange={(change) => run((p) => moveMaster(p, { master: id, place: change }))}
        />
        <MeasuredAt place={place} className="text-quiet" />
        {isDefault && <p className="text-quiet">The default: the others are seen from here.</p>}
        <div className="flex flex-wrap gap-2">
          {shown !== id && <Button onClick={() => chooseMaster(id)}>Show it</Button>}
          {!isDefault && (
            <Button onClick={() => run((p) => makeDefault(p, { master: id }))}>Make it the default</Button>
          )}
          {!isDefault && (
            <Button
              title="All that is drawn, kerned and measured in it goes with it; Undo brings it back"
              onClick={() => run((p) => removeMaster(p, { master: id })) && onGone()}
            >
              <Trash2 size={14} /> Take it away
            </Button>
          )}
        </div>
      </div>
    </Section>
  );
}

const BY_NAME = 'by name';

function InstanceDetails({ index, onGone }: { index: number; onGone: () => void }) {
  const project = useBench((s) => s.settled)!;
  const [storing, setStoring] = useState(false);
  const instance = project.instances[index];
  if (!instance) return null;
  const place = wholePlace(project.axes, instance.place);
  const store = async () => {
    setStoring(true);
    try {
      const { project: own, stuck } = await (await measurer.synced()).projectAt(instance.place, instance.name);
      await storeProject(own);
      const left =
        stuck.length > 0
          ? ` ${plural(stuck.length, 'glyph')} whose masters do not agree: ${stuck.slice(0, 6).join(', ')}.`
          : '';
      say(`${own.family.name} is among your projects.${left}`);
    } catch (error) {
      say(`It could not be stored: ${storageSentence(error)}`);
    } finally {
      setStoring(false);
    }
  };
  const set = (change: Parameters<typeof setInstance>[1]['change']) => run((p) => setInstance(p, { index, change }));
  return (
    <Section title="Instance">
      <div className="grid gap-1.5">
        <EntryField
          aria-label="Name of the instance"
          value={instance.name}
          onApply={(name) => run((p) => setInstance(p, { index, change: { name } }))}
        />
        <PlaceFields
          axes={project.axes}
          place={place}
          onChange={(change) => run((p) => setInstance(p, { index, change: { place: { ...place, ...change } } }))}
        />
        <MeasuredAt place={place} className="text-quiet" />
        <NumberField
          label="Weight class"
          value={instance.weightClass}
          onChange={(weightClass) => set({ weightClass })}
        />
        <NumberField label="Width class" value={instance.widthClass} onChange={(widthClass) => set({ widthClass })} />
        <div className="grid grid-cols-[74px_minmax(0,1fr)] items-center gap-2">
          <span className="text-quiet">Linked as</span>
          <Pick
            label="Style that it is linked as"
            value={instance.styleLink ?? BY_NAME}
            options={[
              { value: BY_NAME, text: 'as its name says' },
              ...STYLE_LINKS.map((s) => ({ value: s as string, text: s })),
            ]}
            onChange={(to) => set({ styleLink: STYLE_LINKS.find((s) => s === to) ?? '' })}
          />
          <span className="text-quiet">File</span>
          <EntryField
            aria-label="File name of the instance"
            value={instance.fileName ?? ''}
            placeholder={postScriptSafe(`${project.family.name}-${instance.name}`.replace(/\s+/g, ''))}
            onApply={(fileName) => set({ fileName })}
          />
        </div>
        <div className="flex flex-wrap gap-2">
          <Button
            title="What lies here between the masters, with one master, among your projects"
            disabled={storing}
            onClick={() => void store()}
          >
            {storing ? 'Storing…' : 'As a project of its own'}
          </Button>
          <Button onClick={() => run((p) => removeInstance(p, { index })) && onGone()}>
            <Trash2 size={14} /> Take it away
          </Button>
        </div>
      </div>
    </Section>
  );
}
