import { Eye, EyeOff } from 'lucide-react';
import { useEffect } from 'react';
import { type Place, samePlace, shortPlace } from '../../../core/project/places';
import { layHands } from '../../keys/hands';
import { useBench, watchPlace } from '../../state/bench';
import { Button, Section } from '../../ui/parts';

/** Keeps places in sight in every stage: as a second line of the galley, in Fit, Kern and Draw beside what is worked on. */
export function InSight({ chosen, spot }: { chosen: { name: string; place: Place }; spot: Place }) {
  const axes = useBench((s) => s.settled!.axes);
  const watched = useBench((s) => s.watched);
  const isWatched = (place: Place) => watched !== undefined && samePlace(axes, watched, place);
  const watch = (place: Place) => watchPlace(isWatched(place) ? undefined : place);
  useEffect(() => layHands('sight', { watch: () => watch(chosen.place) }));
  if (axes.length === 0) return null;
  const choices = [
    chosen,
    ...(samePlace(axes, spot, chosen.place) ? [] : [{ name: shortPlace(axes, spot), place: spot }]),
  ];
  return (
    <Section title="In sight elsewhere">
      <p className="mb-1.5 text-quiet">
        A second line of the galley, in Fit, Kern and Draw too, shows the family there while you work.
      </p>
      <div className="flex flex-wrap gap-1.5">
        {choices.map(({ name, place }) => (
          <Button key={name} onClick={() => watch(place)}>
            {isWatched(place) ? <EyeOff size={14} /> : <Eye size={14} />}
            {isWatched(place) ? `Let ${name} go` : `Keep ${name}`}
          </Button>
        ))}
      </div>
    </Section>
  );
}
