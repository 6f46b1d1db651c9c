import { blendedDrawing, blendedMaster } from '../project/blending';
import type { Glyph, Project } from '../project/model';
import { designEnds, type Place, weightsAt } from '../project/places';
import { defaultMaster, drawingOf } from '../project/queries';
import { sameStructure } from '../project/structure';
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
  const weightsFor = (places: readonly Place[]) =>
    weightsAt(project.axes, places, beyond ? place : held(project, place));
  const weights = weightsFor(masters.map((m) => m.place));
  const main = defaultMaster(project);
  const stuck: string[] = [];
  const glyph = (g: Glyph): Glyph => {
    const drawings = [...masters.map((m) => drawingOf(g, m.id)), ...g.waypoints.map((w) => w.drawing)];
    const agrees = sameStructure(drawings);
    if (!agrees) stuck.push(g.name);
    const own =
      g.waypoints.length === 0
        ? weights
        : weightsFor([...masters.map((m) => m.place), ...g.waypoints.map((w) => w.place)]);
    return {
      ...g,
      waypoints: [],
      drawings: { [main.id]: agrees ? blendedDrawing(drawings, own) : drawingOf(g, main.id) },
    };
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
