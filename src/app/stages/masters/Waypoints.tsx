import { Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { withGlyph } from '../../../core/project/edit';
import type { Glyph, Project } from '../../../core/project/model';
import { designEnds, type Place, placeInWords, wholePlace } from '../../../core/project/places';
import { waypointId, waypointOf } from '../../../core/project/waypoints';
import { drawnAt } from '../../../core/variation/glyphAt';
import { addWaypoint, moveWaypoint, removeWaypoint, waypointSays } from '../../../core/variation/waypointEdits';
import { chooseGlyph, chooseMaster, run, useBench } from '../../state/bench';
import { goToStage } from '../../state/navigation';
import { PlaceFields } from '../../ui/PlaceFields';
import { Button, Section } from '../../ui/parts';
import { LetterAt } from './LetterAt';
import type { Chosen } from './Plane';

const SIZE = 150;

/** Half way from the default to the end that lies farther off, on the first axis. */
export function halfWay(project: Project): Place {
  const [axis] = project.axes;
  if (!axis) return {};
  const { least, usual, most } = designEnds(axis);
  const end = Math.abs(most - usual) >= Math.abs(least - usual) ? most : least;
  return wholePlace(project.axes, { [axis.tag]: Math.round((usual + end) / 2) });
}

/** The waypoints of the glyph that is shown, and a new one at a place. */
export function Waypoints({
  glyph,
  spot,
  chosen,
  onSpot,
  onChoose,
}: {
  glyph: Glyph;
  spot: Place;
  chosen: Chosen;
  onSpot: (place: Place) => void;
  onChoose: (chosen: Chosen) => void;
}) {
  const project = useBench((s) => s.settled)!;
  if (project.masters.length < 2) return null;
  const add = () => {
    if (!run((p) => addWaypoint(p, { glyph: glyph.id, place: spot }))) return;
    const made = useBench.getState().settled!.glyphs[glyph.id]!.waypoints.at(-1)!;
    onChoose({ waypoint: waypointId(made.place) });
  };
  return (
    <Section title={`Waypoints of ${glyph.name}`}>
      <p className="mb-1.5 text-quiet">A drawing of its own between the masters, where what lies there is not good.</p>
      {glyph.waypoints.length > 0 && (
        <ul aria-label="Waypoints" className="mb-2 grid gap-0.5">
          {glyph.waypoints.map((w) => {
            const id = waypointId(w.place);
            const on = 'waypoint' in chosen && chosen.waypoint === id;
            return (
              <li key={id}>
                <button
                  type="button"
                  aria-pressed={on}
                  className={`rounded px-1 hover:bg-kelp-tint ${on ? 'bg-kelp-tint font-semibold text-kelp' : ''}`}
                  onClick={() => onChoose({ waypoint: id })}
                >
                  {placeInWords(project.axes, w.place)}
                </button>
              </li>
            );
          })}
        </ul>
      )}
      <div className="grid gap-1.5">
        <PlaceFields axes={project.axes} place={spot} onChange={(change) => onSpot({ ...spot, ...change })} />
        <Button title="A press on a letter of the strip brings its place here" onClick={add}>
          Give {glyph.name} a waypoint there
        </Button>
      </div>
    </Section>
  );
}

/** A waypoint: its place, how it looks with and without what was drawn there, what can be done with it. */
export function WaypointDetails({
  glyph,
  id,
  onChoose,
}: {
  glyph: Glyph;
  id: string;
  onChoose: (chosen: Chosen | undefined) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const waypoint = waypointOf(glyph, id);
  const said = useMemo(() => waypointSays(project, glyph, id), [project, glyph, id]);
  const letters = useMemo(() => {
    if (!waypoint) return [];
    const without = withGlyph(project, { ...glyph, waypoints: glyph.waypoints.filter((w) => w !== waypoint) });
    return [drawnAt(without, glyph.id, waypoint.place)!, drawnAt(project, glyph.id, waypoint.place)!];
  }, [project, glyph, waypoint]);
  if (!waypoint) return null;
  const move = (change: Place) => {
    const to = { ...waypoint.place, ...change };
    if (run((p) => moveWaypoint(p, { glyph: glyph.id, from: waypoint.place, to })))
      onChoose({ waypoint: waypointId(to) });
  };
  return (
    <Section title={`Waypoint of ${glyph.name}`}>
      <div className="grid gap-1.5">
        <PlaceFields axes={project.axes} place={wholePlace(project.axes, waypoint.place)} onChange={move} />
        <svg
          role="img"
          aria-label={`${glyph.name} at its waypoint, before it what would lie there without`}
          height={SIZE}
          className="w-full rounded-lg border border-line bg-paper"
          viewBox={`-${SIZE / 2} -${SIZE * 0.78} ${SIZE} ${SIZE}`}
        >
          <g className="fill-ink">
            {letters[1] && <LetterAt letter={letters[1]} em={project.unitsPerEm} size={SIZE * 0.9} />}
          </g>
          <g fill="none" stroke="var(--violet)" strokeWidth={1 / ((SIZE * 0.9) / project.unitsPerEm)}>
            {letters[0] && <LetterAt letter={letters[0]} em={project.unitsPerEm} size={SIZE * 0.9} />}
          </g>
        </svg>
        <p className="text-quiet">
          {said.most < 0.05 && Math.abs(said.advance) < 0.05
            ? 'As what lies there without it (the violet line), so far.'
            : `Up to ${shown1(said.most)} units from what would lie there without it (the violet line), ${shown1(said.mean)} on average; advance ${said.advance > 0 ? '+' : ''}${shown1(said.advance)}.`}
        </p>
        <div className="flex flex-wrap gap-2">
          {shown !== id && (
            <Button
              kind="primary"
              onClick={() => {
                chooseGlyph(glyph.id);
                chooseMaster(id);
                goToStage('draw');
              }}
            >
              Draw it
            </Button>
          )}
          <Button
            onClick={() =>
              run((p) => removeWaypoint(p, { glyph: glyph.id, place: waypoint.place })) && onChoose(undefined)
            }
          >
            <Trash2 size={14} /> Take it away
          </Button>
        </div>
      </div>
    </Section>
  );
}

const shown1 = (v: number): number => Math.round(v * 10) / 10;
