import type { Project } from '../../../core/project/model';
import { toUser, wholePlace } from '../../../core/project/places';
import { Pick, Slide } from '../../ui/controls';

type Axes = Project['axes'];
/** A place on the axes of a font that varies, in user units by tag. */
export type UserPlace = Readonly<Record<string, number>>;

/** Axes that run through and so are in a font that varies. */
export const throughAxes = (axes: Axes): Axes => axes.filter((a) => !a.discrete || a.discrete.length === 0);

export const placeSettings = (axes: Axes, at: UserPlace): string =>
  throughAxes(axes)
    .map((a) => `"${a.tag}" ${at[a.tag] ?? a.default}`)
    .join(', ');

const OWN = 'own';

/** Where on its axes a font that varies is tried: a slider for each, and the named instances. */
export function TestAxes({
  project,
  at,
  onChange,
}: {
  project: Project;
  at: UserPlace;
  onChange: (at: UserPlace) => void;
}) {
  const axes = throughAxes(project.axes);
  const placeOf = (i: Project['instances'][number]): UserPlace => {
    const whole = wholePlace(project.axes, i.place);
    return Object.fromEntries(axes.map((a) => [a.tag, Math.round(toUser(a, whole[a.tag]!) * 10) / 10]));
  };
  const chosen = project.instances.find((i) => {
    const place = placeOf(i);
    return axes.every((a) => place[a.tag] === (at[a.tag] ?? a.default));
  });
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2" data-testid="test-axes">
      {project.instances.length > 0 && (
        <Pick
          label="Instance of the test page"
          className="w-44"
          value={chosen?.name ?? OWN}
          options={[
            ...(chosen ? [] : [{ value: OWN, text: 'a place of its own' }]),
            ...project.instances.map((i) => ({ value: i.name, text: i.name })),
          ]}
          onChange={(name) => {
            const instance = project.instances.find((i) => i.name === name);
            if (instance) onChange(placeOf(instance));
          }}
        />
      )}
      {axes.map((a) => (
        <span key={a.tag} className="flex items-center gap-2 text-quiet">
          {a.name}
          <Slide
            label={a.name}
            min={a.minimum}
            max={a.maximum}
            step={a.maximum - a.minimum > 20 ? 1 : 0.1}
            value={at[a.tag] ?? a.default}
            onChange={(v) => onChange({ ...at, [a.tag]: v })}
          />
          <span className="w-10 text-ink">{Math.round((at[a.tag] ?? a.default) * 10) / 10}</span>
        </span>
      ))}
    </div>
  );
}
