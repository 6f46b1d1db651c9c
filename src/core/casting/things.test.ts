import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import type { Project } from '../project/model';
import {
  type CastThing,
  distinctThings,
  instanceInfo,
  namesOfThing,
  placeOfThing,
  thingKey,
  thingsOf,
  varyingDesign,
} from './things';

const demo = readyDemo();
const starter = buildStarter();
const instance = (name: string) => demo.instances.find((i) => i.name === name)!;
const thing = (name: string): CastThing => ({ instance: demo.instances.findIndex((i) => i.name === name) });

test('an instance takes what holds for the family from the default, and what is a style’s own from itself', () => {
  const info = {
    openTypeOS2Type: [2],
    openTypeOS2VendorID: 'VLMR',
    styleName: 'Regular',
    styleMapStyleName: 'regular',
    postscriptFontName: 'Velmarrow-Of-The-Default',
    postscriptFullName: 'Velmarrow of the Default',
    openTypeNamePreferredSubfamilyName: 'Regular',
    openTypeOS2WeightClass: 400,
    openTypeOS2WidthClass: 5,
    openTypeOS2Panose: [2, 0, 5, 0, 0, 0, 0, 0, 0, 0],
  };
  const project: Project = { ...demo, masters: demo.masters.map((m) => (m.id === 'm1' ? { ...m, info } : m)) };
  const own = instanceInfo(project, {
    name: 'Wide Bold',
    place: { wght: 700, wdth: 100 },
    widthClass: 7,
    styleLink: 'bold',
  });
  expect(own).toEqual({
    openTypeOS2Type: [2],
    openTypeOS2VendorID: 'VLMR',
    openTypeOS2WeightClass: 700,
    openTypeOS2WidthClass: 7,
    styleMapStyleName: 'bold',
    styleMapFamilyName: 'Velmarrow Sans',
  });
  const { names } = namesOfThing(
    { ...project, instances: [{ name: 'Wide Bold', place: { wght: 700 } }] },
    { instance: 0 },
  )!;
  expect([names.style, names.postScriptName, names.fullName]).toEqual([
    'Wide Bold',
    'VelmarrowSans-WideBold',
    'Velmarrow Sans Wide Bold',
  ]);
});

test('the weight class is the place on the axis as users say it, what an instance says of itself, or none that cannot be', () => {
  const at = (wght: number, change: object = {}) =>
    instanceInfo(demo, { name: 'X', place: { wght, wdth: 100 }, ...change }).openTypeOS2WeightClass;
  expect([at(523.4), at(800), at(500, { weightClass: 450 })]).toEqual([523, 800, 450]);
  expect([at(0), at(1001), at(-20), at(500, { weightClass: 0 })]).toEqual([undefined, undefined, undefined, undefined]);
  const mapped = {
    ...demo,
    axes: demo.axes.map((a) =>
      a.tag === 'wght'
        ? {
            ...a,
            map: [
              [300, 20],
              [800, 120],
            ] as const,
          }
        : a,
    ),
  };
  expect(instanceInfo(mapped, { name: 'X', place: { wght: 70, wdth: 100 } }).openTypeOS2WeightClass).toBe(550);
  const { openTypeOS2WeightClass } = instanceInfo({ ...demo, axes: [] }, { name: 'X', place: {} });
  expect(openTypeOS2WeightClass).toBeUndefined();
});

test('a file is called as the instance says, without folders and endings, else by its name', () => {
  const called = (fileName: string | undefined) =>
    namesOfThing(
      { ...demo, instances: [{ ...instance('Bold'), ...(fileName !== undefined && { fileName }) }] },
      { instance: 0 },
    )!.fileName;
  expect(
    ['instances/Own-Name.ufo', '..\\..\\up.OTF', 'plain', 'a.b.ttf', undefined, '', 'folder/'].map(called),
  ).toEqual(['Own-Name', 'up', 'plain', 'a.b', ...Array(3).fill('VelmarrowSans-Bold')]);
});

test('what is not there has neither a name nor a place', () => {
  const gone: CastThing[] = [{ master: 'nobody' }, { instance: 99 }, { instance: -1 }, { variable: 7 }];
  for (const t of gone) {
    expect([t, namesOfThing(demo, t)]).toEqual([t, undefined]);
    expect([t, placeOfThing(demo, t)]).toEqual([t, undefined]);
  }
  // One master, or none of two on an axis, is no font that varies.
  expect(varyingDesign(starter, 0)).toBeUndefined();
  expect(thingsOf(starter)).toEqual({ masters: [{ master: 'm1' }], instances: [], variable: [] });
});

test('every thing has a place, a name of its own and a key of its own; only a design varies', () => {
  const { masters, instances, variable } = thingsOf(demo);
  const all = [...masters, ...instances, ...variable];
  expect(new Set(all.map(thingKey)).size).toBe(all.length);
  for (const t of all) {
    const from = placeOfThing(demo, t)!;
    expect([t, from.variable]).toEqual([t, 'variable' in t]);
    if ('instance' in t && 'design' in from.place) expect(from.place.design).toEqual(demo.instances[t.instance]!.place);
  }
  const files = distinctThings(demo, all).map((t) => namesOfThing(demo, t)!.fileName);
  expect(new Set(files).size).toBe(files.length);
});

test('a master is cast once where a chosen instance of its name stands at it, wherever either is in the choice', () => {
  const { masters, instances, variable } = thingsOf(demo);
  const all = [...masters, ...instances, ...variable];
  fc.assert(
    fc.property(fc.shuffledSubarray(all), (choice) => {
      const left = distinctThings(demo, choice);
      const names = choice.flatMap((t) => ('instance' in t ? [demo.instances[t.instance]!.name] : []));
      for (const t of choice) {
        const master = 'master' in t ? demo.masters.find((m) => m.id === t.master)! : undefined;
        // In the demo each master has the name of the instance that stands at it.
        expect(left.includes(t)).toBe(!(master && names.includes(master.name)));
      }
      expect(left).toEqual(choice.filter((t) => left.includes(t)));
    }),
  );
  // Of the same name elsewhere, or at the same place by another name, both are cast.
  const moved = {
    ...demo,
    instances: demo.instances.map((i) => (i.name === 'Regular' ? { ...i, place: { wght: 410, wdth: 100 } } : i)),
  };
  expect(distinctThings(moved, [{ master: 'm1' }, thing('Regular')])).toHaveLength(2);
  const renamed = {
    ...demo,
    instances: demo.instances.map((i) => (i.name === 'Regular' ? { ...i, name: 'Book' } : i)),
  };
  expect(distinctThings(renamed, [{ master: 'm1' }, thing('Regular')])).toHaveLength(2);
});

test('of axes of single values each design has masters and instances of its own, seen from the one nearest the default', () => {
  const parted: Project = {
    ...demo,
    axes: demo.axes.map((a) => (a.tag === 'wght' ? { ...a, discrete: [300, 400, 800] } : a)),
    instances: demo.instances.filter((i) => [300, 400, 800].includes(i.place.wght!)),
  };
  const { variable } = thingsOf(parted);
  expect(variable).toEqual([{ variable: 0 }, { variable: 1 }, { variable: 2 }]);
  const designs = variable.map((v) => varyingDesign(parted, (v as { variable: number }).variable)!);
  for (const { project, main } of designs) {
    expect(project.axes.map((a) => a.tag)).toEqual(['wdth']);
    expect(project.masters).toHaveLength(2);
    expect(new Set(project.masters.map((m) => m.place.wght)).size).toBe(1);
    for (const i of project.instances) expect(i.place.wght).toBe(main.place.wght);
    expect(main.place.wdth ?? 100).toBe(100);
  }
  expect(designs.map((d) => d.main.name).sort()).toEqual(['Heavy', 'Light', 'Regular']);
});
