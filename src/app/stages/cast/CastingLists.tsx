import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { allLists, listOfThings, thingsOfList } from '../../../core/casting/lists';
import { thingKey } from '../../../core/casting/things';
import { dropCastingList, keepCastingList } from '../../../core/project/castingLists';
import type { CastTerms } from '../../../core/project/model';
import { run, say, useBench } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button, IconButton, Section } from '../../ui/parts';
import type { CastChoice } from './useCasting';

const OWN = 'a choice of its own';

/** Terms as a key, whatever order they are in and whether what is absent is named. */
const termsKey = (terms: CastTerms): string =>
  JSON.stringify(
    Object.entries(terms)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );

/** What is cast, by name: lists that are ready, and the project’s own. */
export function CastingLists({
  chosen,
  onChoose,
}: {
  chosen: CastChoice;
  onChoose: (change: Partial<CastChoice>) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const [name, setName] = useState('');
  const lists = allLists(project);
  const same = (a: readonly string[], b: readonly string[]) => [...a].sort().join() === [...b].sort().join();
  const current = lists.find((l) => {
    const listed = thingsOfList(project, l);
    return (
      same(listed.formats, chosen.formats) &&
      same(listed.things.map(thingKey), chosen.things.map(thingKey)) &&
      termsKey(listed.terms) === termsKey(chosen.terms)
    );
  });
  const isOwn = current !== undefined && (project.settings.castingLists ?? []).some((l) => l.name === current.name);
  const take = (wanted: string) => {
    const list = lists.find((l) => l.name === wanted);
    if (!list) return;
    const { gone, ...choice } = thingsOfList(project, list);
    onChoose(choice);
    if (gone.length > 0) say(`${wanted} names what is not in the project any more: ${gone.join(', ')}.`);
  };
  return (
    <Section title="Casting list">
      <div className="flex items-center gap-1">
        <Pick
          label="Casting list"
          value={current?.name ?? OWN}
          options={[
            ...(current ? [] : [{ value: OWN, text: 'a choice of its own' }]),
            ...lists.map((l) => ({ value: l.name, text: l.name })),
          ]}
          onChange={take}
        />
        {isOwn && (
          <IconButton
            label={`Let the list ${current.name} go`}
            onClick={() => run((p) => dropCastingList(p, { name: current.name }))}
          >
            <Trash2 size={14} />
          </IconButton>
        )}
      </div>
      {!current && (
        <form
          className="mt-1.5 flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            if (run((p) => keepCastingList(p, { list: listOfThings(p, name, chosen) }))) setName('');
          }}
        >
          <input
            aria-label="Name of the casting list"
            value={name}
            placeholder="keep it as…"
            onChange={(e) => setName(e.target.value)}
            className="h-7.5 min-w-0 flex-1 rounded-lg border border-edge bg-paper px-2 placeholder:text-quiet"
          />
          <Button type="submit" disabled={name.trim() === ''}>
            Keep
          </Button>
        </form>
      )}
    </Section>
  );
}
