import { useEffect, useState } from 'react';
import { plural } from '../../../core/project/edit';
import type { Place } from '../../../core/project/places';
import { glyphForCodePoint } from '../../../core/project/queries';
import { isWaypointId, waypointOf } from '../../../core/project/waypoints';
import { layHands, type MastersView as View } from '../../keys/hands';
import { useBench, visitPlace } from '../../state/bench';
import { Details } from '../../ui/Details';
import { Choice } from '../../ui/parts';
import { AgreementView } from './AgreementView';
import { Axes } from './Axes';
import { BetweenView } from './BetweenView';
import { Blend } from './Blend';
import { ChosenDetails } from './ChosenDetails';
import { Instances, NewMaster } from './FamilyDetails';
import { Handovers } from './Handovers';
import { InSight } from './InSight';
import { Italic } from './Italic';
import { NewInstances } from './NewInstances';
import { PartnerSection } from './PartnerSection';
import { type Chosen, Plane } from './Plane';
import { Strip } from './Strip';
import { halfWay, WaypointDetails, Waypoints } from './Waypoints';

/** What each view is about. */
const SAYS: Readonly<Record<View, string>> = {
  plane: 'Each letter as it looks at its place; drag it, or move it by the arrow keys.',
  agreement: 'Masters blend where their contours, points and parts are the same.',
  between: 'Right in every master, and wrong between: points that break, outlines that cross, stems that swell.',
};

/** The family as one drawing: masters and instances on their axes, what lies between them, and whether they agree. */
export default function Masters() {
  const project = useBench((s) => s.settled)!;
  const glyph = useBench((s) => s.glyph);
  const master = useBench((s) => s.master);
  const [view, setView] = useState<View>('plane');
  useEffect(() => layHands('masters', { view: setView }), []);
  const [picked, setPicked] = useState<Chosen>();
  const letter = glyph ?? glyphForCodePoint(project, 0x6e)?.id ?? project.glyphOrder[0]!;
  const [spot, setSpot] = useState<Place>();
  // What is shown may be a waypoint that was drawn just now.
  const chosen = isThere(picked) ? picked : isWaypointId(master) ? { waypoint: master } : { master };
  function isThere(c: Chosen | undefined): c is Chosen {
    if (!c) return false;
    if ('waypoint' in c) return waypointOf(project.glyphs[letter]!, c.waypoint) !== undefined;
    return 'master' in c ? project.masters.some((m) => m.id === c.master) : c.instance < project.instances.length;
  }
  // The galley shows the instance or waypoint that is chosen; a film or a drag moves on from there.
  const place =
    'instance' in chosen
      ? project.instances[chosen.instance]!.place
      : 'waypoint' in chosen
        ? waypointOf(project.glyphs[letter]!, chosen.waypoint)!.place
        : undefined;
  const own = 'master' in chosen ? project.masters.find((m) => m.id === chosen.master)! : undefined;
  const told = own ?? {
    name: 'instance' in chosen ? project.instances[chosen.instance]!.name : 'this waypoint',
    place: place!,
  };
  useEffect(() => {
    visitPlace(place);
    return () => visitPlace(undefined);
  }, [place]);
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex items-center gap-3 border-b border-line px-4 py-2">
          <div className="shrink-0">
            <Choice
              label="View of the masters"
              value={view}
              options={[
                { value: 'plane' as View, text: 'Plane', hint: 'P' },
                { value: 'agreement' as View, text: 'Agreement', hint: 'G' },
                { value: 'between' as View, text: 'Between', hint: 'B' },
              ]}
              onChange={setView}
            />
          </div>
          <p className="text-quiet">{SAYS[view]}</p>
        </div>
        {view === 'plane' ? (
          <div className="min-h-0 flex-1 overflow-y-auto p-4">
            <Plane glyph={letter} chosen={chosen} onChoose={setPicked} />
            {project.masters.length > 1 && <Strip key={project.masters.length} glyph={letter} onSpot={setSpot} />}
          </div>
        ) : view === 'agreement' ? (
          <AgreementView />
        ) : (
          <BetweenView />
        )}
      </div>
      <Details
        heading={plural(project.masters.length, 'master')}
        sub={`${plural(project.axes.length, 'axis', 'axes')} · ${plural(project.instances.length, 'instance')}`}
      >
        {'waypoint' in chosen ? (
          <WaypointDetails glyph={project.glyphs[letter]!} id={chosen.waypoint} onChoose={setPicked} />
        ) : (
          <ChosenDetails chosen={chosen} onGone={() => setPicked(undefined)} />
        )}
        <InSight chosen={told} spot={spot ?? halfWay(project)} />
        <NewMaster onMade={(id) => setPicked({ master: id })} />
        <Instances chosen={chosen} onChoose={setPicked} />
        <Waypoints
          glyph={project.glyphs[letter]!}
          spot={spot ?? halfWay(project)}
          chosen={chosen}
          onSpot={setSpot}
          onChoose={setPicked}
        />
        <Handovers key={letter} glyph={project.glyphs[letter]!} />
        <NewInstances />
        <Axes />
        <Blend />
        <PartnerSection />
        <Italic />
      </Details>
    </div>
  );
}
