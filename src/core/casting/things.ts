import { postScriptSafe, type StyleNames, styleNames } from '../fontfacts/names';
import { STATED_LENGTHS, statedName, statedNames, statedNumber } from '../fontfacts/stated';
import { NAME_ID } from '../opentype/name';
import type { Lib, Master, MasterId, Project } from '../project/model';
import { samePlace, toUser, weightsAt, wholePlace } from '../project/places';
import { defaultMaster } from '../project/queries';
import { designsOf, mainOn } from '../project/structure';
import type { CastPlace } from './plan';

type Instance = Project['instances'][number];

/** What fonts are made of: a master as it is drawn, an instance between, or a design as it varies, by its number among the designs. */
export type CastThing = { master: MasterId } | { instance: number } | { variable: number };

/** Facts of a source that tell one style, and are no other’s. */
const OF_ONE_STYLE = [
  'styleName',
  'styleMapStyleName',
  'styleMapFamilyName',
  'openTypeNamePreferredSubfamilyName',
  'openTypeNameCompatibleFullName',
  'openTypeNameUniqueID',
  'openTypeOS2WeightClass',
  'openTypeOS2WidthClass',
  'openTypeOS2Panose',
  'postscriptFontName',
  'postscriptFullName',
  'postscriptWeightName',
];

/** Names of records, by their numbers, that tell one style. */
const NAMES_OF_ONE_STYLE: readonly number[] = [
  NAME_ID.subfamily,
  NAME_ID.uniqueID,
  NAME_ID.full,
  NAME_ID.postScript,
  NAME_ID.typographicSubfamily,
  NAME_ID.compatibleFull,
  NAME_ID.wwsSubfamily,
];

/**
 * What a font says of an instance: the facts of the default that hold for all styles, lengths in between where every master states
 * them, and the instance’s own.
 */
export function instanceInfo(project: Project, instance: Instance): Lib {
  const main = defaultMaster(project);
  const info: Record<string, Lib[string]> = { ...(main.info ?? {}) };
  for (const key of OF_ONE_STYLE) delete info[key];
  if (info.openTypeNameRecords !== undefined)
    info.openTypeNameRecords = statedNames(info)
      .filter((r) => !NAMES_OF_ONE_STYLE.includes(r.nameID))
      .map(statedName);
  Object.assign(info, lengthsAt(project, instance.place));
  const weight = project.axes.find((a) => a.tag === 'wght');
  const there = wholePlace(project.axes, instance.place);
  const weightClass = instance.weightClass ?? (weight && Math.round(toUser(weight, there.wght!)));
  if (weightClass !== undefined && weightClass >= 1 && weightClass <= 1000) info.openTypeOS2WeightClass = weightClass;
  if (instance.widthClass !== undefined) info.openTypeOS2WidthClass = instance.widthClass;
  Object.assign(info, instance.names);
  if (instance.styleLink) {
    info.styleMapStyleName = instance.styleLink;
    info.styleMapFamilyName = instance.names?.styleMapFamilyName ?? project.family.name;
  }
  return info;
}

/** Lengths that all masters state, as they are at a place between them. */
function lengthsAt({ axes, masters }: Project, place: Instance['place']): Record<string, number> {
  const weights = weightsAt(
    axes,
    masters.map((m) => m.place),
    place,
  );
  return Object.fromEntries(
    STATED_LENGTHS.flatMap((key) => {
      const values = masters.map((m) => statedNumber(m.info, key));
      if (values.some((v) => v === undefined)) return [];
      return [[key, Math.round(values.reduce<number>((sum, v, i) => sum + v! * weights[i]!, 0))]];
    }),
  );
}

/** A design that varies: its axes run through, its masters and instances are its own. Undefined where nothing varies in it. */
export function varyingDesign(project: Project, index: number): { project: Project; main: Master } | undefined {
  const design = designsOf(project)[index];
  if (!design || design.masters.length < 2) return undefined;
  const through = design.axes.filter((a) => !a.discrete || a.discrete.length === 0);
  const main = mainOn(project, design.masters);
  return { project: { ...design, axes: through }, main };
}

/** The project and the place that a font of it is cast from. */
export function placeOfThing(
  project: Project,
  thing: CastThing,
): { project: Project; place: CastPlace; variable: boolean } | undefined {
  if ('master' in thing)
    return project.masters.some((m) => m.id === thing.master)
      ? { project, place: { master: thing.master }, variable: false }
      : undefined;
  if ('instance' in thing) {
    const instance = project.instances[thing.instance];
    return (
      instance && {
        project,
        place: { design: instance.place, name: instance.name, info: instanceInfo(project, instance) },
        variable: false,
      }
    );
  }
  const design = varyingDesign(project, thing.variable);
  return design && { project: design.project, place: { master: design.main.id }, variable: true };
}

/** What a font of it is called, in menus and as a file without an ending. */
export function namesOfThing(project: Project, thing: CastThing): { names: StyleNames; fileName: string } | undefined {
  if ('master' in thing) {
    const master = project.masters.find((m) => m.id === thing.master);
    const names = master && styleNames(project, master);
    return names && { names, fileName: names.postScriptName };
  }
  if ('instance' in thing) {
    const instance = project.instances[thing.instance];
    if (!instance) return undefined;
    const names = styleNames(project, { name: instance.name, info: instanceInfo(project, instance) });
    return {
      names,
      fileName: instance.fileName?.replace(/^.*[/\\]/, '').replace(/\.(ufo|otf|ttf)$/i, '') || names.postScriptName,
    };
  }
  const design = varyingDesign(project, thing.variable);
  if (!design) return undefined;
  const names = styleNames(project, design.main);
  const style = names.style.replace(/\bregular\b/gi, '').replace(/\s+/g, '');
  return { names, fileName: `${postScriptSafe(names.family.replace(/\s+/g, ''))}-${postScriptSafe(style)}Variable` };
}

/** Everything that fonts can be made of, in the order of the project. */
export const thingsOf = (
  project: Project,
): { masters: CastThing[]; instances: CastThing[]; variable: CastThing[] } => ({
  masters: project.masters.map((m) => ({ master: m.id })),
  instances: project.instances.map((_, instance) => ({ instance })),
  variable: designsOf(project).flatMap((_, i) => (varyingDesign(project, i) ? [{ variable: i }] : [])),
});

/** What is cast of a choice: a master that a chosen instance of its name stands at is that instance’s font, and cast once. */
export function distinctThings(project: Project, things: readonly CastThing[]): CastThing[] {
  const instances = things.flatMap((t) => ('instance' in t ? (project.instances[t.instance] ?? []) : []));
  return things.filter((t) => {
    const master = 'master' in t ? project.masters.find((m) => m.id === t.master) : undefined;
    return !master || !instances.some((i) => i.name === master.name && samePlace(project.axes, i.place, master.place));
  });
}

/** The same thing told as a key. */
export const thingKey = (thing: CastThing): string => JSON.stringify(thing);
