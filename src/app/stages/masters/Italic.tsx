import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { storageSentence } from '../../../browser/stores';
import type { Project } from '../../../core/project/model';
import { setPartner } from '../../../core/project/partner';
import { defaultMaster } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { listedName, storeProject } from '../../state/library';
import { useJob } from '../../state/useJob';
import { Bar } from '../../ui/controls';
import { Button, NumberField, Section } from '../../ui/parts';

const [LEAST, MOST] = [1, 30];

/** An italic begun from the roman: slanted with stems, diagonals and rounds at their weight, as a project of its own. */
export function Italic() {
  const leans = useBench((s) => defaultMaster(s.settled!).italicAngle !== 0);
  const [degrees, setDegrees] = useState(9);
  const { found, fault, share, start, stop } = useJob<Project>();
  const [stored, setStored] = useState<string>();
  const [lost, setLost] = useState<string>();
  useEffect(() => {
    if (!found) return;
    const { projectId, settled } = useBench.getState();
    const partner = settled && { id: projectId, name: listedName(settled) };
    const bound: Project = { ...found, settings: { ...found.settings, ...(partner && { partner }) } };
    storeProject(bound).then(
      (id) => {
        setStored(id);
        // The two know of each other, unless this one has a partner already.
        if (!settled?.settings.partner) run((p) => setPartner(p, { partner: { id, name: listedName(bound) } }));
      },
      (error) => setLost(storageSentence(error)),
    );
  }, [found]);
  if (leans) return null;
  return (
    <Section title="An italic of it">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
        <p className="text-quiet">
          Slanted in all masters, with stems, diagonals and rounds as thick as they are, and points at the extremes: a
          start, as a project of its own.
        </p>
        <NumberField
          label="Angle, degrees"
          value={degrees}
          onChange={(v) => setDegrees(Math.max(LEAST, Math.min(MOST, v)))}
        />
        {share === undefined ? (
          <Button
            onClick={() => {
              setStored(undefined);
              setLost(undefined);
              start((service, tell) => service.italicOf(degrees, tell));
            }}
          >
            Begin the italic
          </Button>
        ) : (
          <div className="flex items-center gap-2">
            <Bar label="Slanting" share={share} />
            <Button onClick={stop}>Stop</Button>
          </div>
        )}
        {stored && (
          <p data-testid="italic-made">
            It is among your projects.{' '}
            <Link className="text-kelp underline" to={`/p/${stored}/draw`}>
              Go to the italic
            </Link>
          </p>
        )}
        {(fault || lost) && (
          <p role="alert" className="text-brick">
            {fault ?? `It could not be stored: ${lost}`}
          </p>
        )}
      </div>
    </Section>
  );
}
