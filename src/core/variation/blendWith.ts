import { defineEdit, edited } from '../project/edit';
import type { Project } from '../project/model';
import { addAxis } from './familyEdits';
import { addTakenMaster } from './takenMaster';

/** What a family is blended along with another font: from what it is, 0, to the other, 100. */
const BLEND = { name: 'Blend', minimum: 0, default: 0, maximum: 100 };

/** A tag of one’s own for an axis that the project does not have. */
function freeTag({ axes }: Pick<Project, 'axes'>): string {
  let tag = 'BLND';
  for (let n = 2; axes.some((a) => a.tag === tag); n++) tag = `BLN${n}`;
  return tag;
}

/**
 * Blends a family with a master of another project or font: a new axis leads from the one to the other, so that what lies at any place
 * between can be looked at, taken as a master, or stored as a project of its own.
 */
export const blendWith = defineEdit(
  {
    name: 'blendWith',
    does: 'Blends the family with another project or font along an axis of its own',
    reach: 'all masters',
    args: addTakenMaster.facts.args.omit({ place: true }),
  },
  (project, taken) => {
    const tag = freeTag(project);
    const ground = addAxis(project, { ...BLEND, name: nameFor(project, tag), tag });
    if (!ground.ok) return ground;
    const made = addTakenMaster(ground.project, { ...taken, place: { [tag]: BLEND.maximum } });
    return made.ok ? edited(made.project, made.sentence.replace('Added the master', 'Blended with')) : made;
  },
);

const nameFor = ({ axes }: Project, tag: string): string =>
  axes.some((a) => a.name === BLEND.name) ? `${BLEND.name} ${tag.slice(3)}` : BLEND.name;
