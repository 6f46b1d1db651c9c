import { blendedMaster } from '../project/blending';
import { blendsAt } from '../project/drawingsAt';
import type { Glyph, Project } from '../project/model';
import { designEnds, type Place, weightsAt } from '../project/places';
import { defaultMaster } from '../project/queries';
import { handedOver } from './handovers';

/**
 * The family at one place between its masters, as a project with a single master of that name. Glyphs whose masters do not
 * agree keep the drawing of the default, and are named in `stuck`. A glyph's waypoints have a say of their own. A place outside the axes
 * counts as their end, unless what lies `beyond` is wanted: then what happens at the end goes on. Glyphs that give way there stand as
 * those that they give way to.
 */
export function instanceAt(
  project: Project,
  place: Place,
  name: string,
  beyond = false,
): { project: Project; stuck: string[] } {
  const { masters } = project;
  const at = beyond ? place : held(project, place);
  const weights = weightsAt(
    project.axes,
    masters.map((m) => m.place),
    at,
  );
  const blend = blendsAt(project, at);
  const main = defaultMaster(project);
  const stuck: string[] = [];
  const glyph = (g: Glyph): Glyph => {
    const { drawing, agrees } = blend(g);
    if (!agrees) stuck.push(g.name);
    return { ...g, waypoints: [], drawings: { [main.id]: drawing } };
  };
  const made: Project = {
    ...project,
    axes: [],
    instances: [],
    masters: [blendedMaster(project, weights, main, name)],
    glyphs: Object.fromEntries(Object.entries(project.glyphs).map(([id, g]) => [id, glyph(g)])),
  };
  return { project: handedOver(project, made, place), stuck };
}

/** A place held within the ends of the axes. */
const held = (project: Project, place: Place): Place =>
  Object.fromEntries(
    project.axes.map((a) => {
      const { least, usual, most } = designEnds(a);
      const value = place[a.tag] ?? usual;
      return [a.tag, Math.min(Math.max(value, Math.min(least, most)), Math.max(least, most))];
    }),
  );
