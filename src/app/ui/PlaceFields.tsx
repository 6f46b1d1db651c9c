import type { Project } from '../../core/project/model';
import { heldValue, type Place } from '../../core/project/places';
import { NumberField } from './parts';

/** A place as a number on each axis; a change tells the axis and its value. */
export function PlaceFields({
  axes,
  place,
  onChange,
}: {
  axes: Project['axes'];
  place: Place;
  onChange: (change: Place) => void;
}) {
  return axes.map((a) => (
    <NumberField
      key={a.tag}
      label={a.name}
      value={place[a.tag]}
      onChange={(v) => onChange({ [a.tag]: heldValue(a, v) })}
    />
  ));
}
