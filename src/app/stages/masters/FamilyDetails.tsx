import { useState } from 'react';
import { plural } from '../../../core/project/edit';
import { designEnds } from '../../../core/project/places';
import { addMaster } from '../../../core/variation/familyEdits';
import { addTakenMaster } from '../../../core/variation/takenMaster';
import { run, useBench } from '../../state/bench';
import { openDialog } from '../../state/dialogs';
import { Pick } from '../../ui/controls';
import { PlaceFields } from '../../ui/PlaceFields';
import { Button, Section } from '../../ui/parts';
import { FromFile } from './FromFile';
import { type Chosen, isChosen } from './Plane';

const BETWEEN = 'between';
const FILE = 'file';

/** A new master: at a place, as a copy of another or as what lies there. */
export function NewMaster({ onMade }: { onMade: (id: string) => void }) {
  const project = useBench((s) => s.settled)!;
  const { axes, masters } = project;
  const [name, setName] = useState('');
  const [from, setFrom] = useState(BETWEEN);
  const [place, setPlace] = useState<Readonly<Record<string, number>>>({});
  if (axes.length === 0) return null;
  const at = Object.fromEntries(axes.map((a) => [a.tag, place[a.tag] ?? designEnds(a).most]));
  const add = () => {
    const called = name.trim() || `Master ${masters.length + 1}`;
    made(run((p) => addMaster(p, { name: called, place: at, ...(from !== BETWEEN && { copy: from }) })));
  };
  const made = (done: boolean) => {
    if (!done) return;
    setName('');
    onMade(useBench.getState().settled!.masters.at(-1)!.id);
  };
  return (
    <Section title="New master">
      <div className="grid gap-1.5">
        <input
          aria-label="Name of the new master"
          value={name}
          placeholder="its name: Bold"
          onChange={(e) => setName(e.target.value)}
          className="h-7.5 w-full min-w-0 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
        />
        <PlaceFields axes={axes} place={at} onChange={(change) => setPlace({ ...at, ...change })} />
        <Pick
          label="What the new master is made from"
          value={from}
          options={[
            { value: BETWEEN, text: masters.length > 1 ? 'what lies there' : 'as it stands' },
            ...masters.map((m) => ({ value: m.id, text: `a copy of ${m.name}` })),
            { value: FILE, text: 'another project or font' },
          ]}
          onChange={setFrom}
        />
        {from === FILE ? (
          <FromFile>
            {({ master, taken: { drawings, facts } }) => (
              <Button
                kind="primary"
                onClick={() =>
                  made(
                    run((p) =>
                      addTakenMaster(p, { name: name.trim() || master, place: at, drawings: { ...drawings }, facts }),
                    ),
                  )
                }
              >
                Add the master
              </Button>
            )}
          </FromFile>
        ) : (
          <Button kind="primary" onClick={add}>
            Add the master
          </Button>
        )}
        <Button
          title="New stems for the drawings of the master that is shown, as a start for a lighter or heavier one"
          onClick={() => openDialog('reweight')}
        >
          Reweight one…
        </Button>
      </div>
    </Section>
  );
}

/** All instances by name, to be chosen. */
export function Instances({ chosen, onChoose }: { chosen: Chosen; onChoose: (chosen: Chosen) => void }) {
  const instances = useBench((s) => s.settled!.instances);
  if (instances.length === 0) return null;
  return (
    <Section title={plural(instances.length, 'instance')}>
      <ul aria-label="Instances" className="flex flex-wrap gap-x-2 gap-y-0.5">
        {instances.map((i, n) => (
          <li key={i.name}>
            <button
              type="button"
              aria-pressed={isChosen(chosen, { instance: n })}
              className={`rounded px-1 hover:bg-kelp-tint ${isChosen(chosen, { instance: n }) ? 'bg-kelp-tint font-semibold text-kelp' : ''}`}
              onClick={() => onChoose({ instance: n })}
            >
              {i.name}
            </button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
