import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import type { Outcome } from '../project/edit';
import type { Project } from '../project/model';
import { toUser, weightsAt } from '../project/places';
import { defaultMaster, glyphNamed } from '../project/queries';
import { sameStructure } from '../project/structure';
import {
  addAxis,
  addInstances,
  addMaster,
  makeDefault,
  moveMaster,
  removeAxis,
  removeInstance,
  removeMaster,
  setAxis,
  setInstance,
} from './familyEdits';
import { instanceAt } from './instance';
import { weightRow } from './instanceRows';

const demo = readyDemo();
const one = buildStarter();
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const why = (outcome: Outcome): string | undefined => (outcome.ok ? undefined : outcome.reason);
const WEIGHT = { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 700 };

test('from one master to two: an axis, a copy at its end, then what lies between', () => {
  expect(why(addMaster(one, { name: 'Bold', place: { wght: 700 } }))).toMatch(/needs an axis to stand on/);
  const axis = done(addAxis(one, WEIGHT));
  const two = done(addMaster(axis, { name: 'Bold', place: { wght: 700 }, copy: 'm1' }));
  expect(two.masters.map((m) => [m.name, m.place])).toEqual([
    ['Regular', {}],
    ['Bold', { wght: 700 }],
  ]);
  const n = glyphNamed(two, 'n')!;
  expect(n.drawings.m2!.contours).toEqual(n.drawings.m1!.contours);
  // The copy is drawn wider; between lies the middle.
  const wider = { ...n, drawings: { ...n.drawings, m2: { ...n.drawings.m2!, advance: n.drawings.m1!.advance + 100 } } };
  const drawn = { ...two, glyphs: { ...two.glyphs, [n.id]: wider } };
  const three = done(addMaster(drawn, { name: 'Medium', place: { wght: 550 } }));
  expect(three.glyphs[n.id]!.drawings.m3!.advance).toBe(n.drawings.m1!.advance + 50);
  // Beyond the end it goes on in a straight line, and the axis reaches it.
  const beyond = done(addMaster(drawn, { name: 'Black', place: { wght: 1000 } }));
  expect(beyond.glyphs[n.id]!.drawings.m3!.advance).toBeCloseTo(n.drawings.m1!.advance + 200, 2);
  expect(beyond.axes[0]!.maximum).toBe(1000);
  expect(why(addMaster(two, { name: 'Other', place: { wght: 700 } }))).toBe('Bold stands at weight 700 already.');
  expect(why(addMaster(two, { name: 'Bold', place: { wght: 600 } }))).toBe('There is a master Bold already.');
});

test('a master made between those of the demo agrees with them, and changes nothing at the places of the others', () => {
  const made = done(addMaster(demo, { name: 'Middle', place: { wght: 600, wdth: 90 } }));
  const id = made.masters.at(-1)!.id;
  for (const name of ['a', 'g', 'ampersand', 'aacute', 'three']) {
    const glyph = glyphNamed(made, name)!;
    expect([name, sameStructure(made.masters.map((m) => glyph.drawings[m.id]!))]).toEqual([name, true]);
    const before = glyphNamed(instanceAt(demo, { wght: 600, wdth: 90 }, 'x').project, name)!;
    const drawing = Object.values(before.drawings)[0]!;
    expect(Math.abs(glyph.drawings[id]!.advance - drawing.advance)).toBeLessThan(0.01);
  }
  const kern = Object.keys(demo.masters[0]!.kerning)[0]!;
  expect(Number.isInteger(made.masters.at(-1)!.kerning[kern])).toBe(true);
  const gone = done(removeMaster(made, { master: id }));
  expect(gone.masters).toEqual(demo.masters);
  expect(gone.glyphs[glyphNamed(demo, 'a')!.id]!.drawings).toEqual(glyphNamed(demo, 'a')!.drawings);
});

test('the default is kept, moved only when another takes its part, and everything stays where it was', () => {
  expect(why(removeMaster(demo, { master: 'm1' }))).toMatch(/is the default/);
  expect(why(moveMaster(demo, { master: 'm1', place: { wght: 500 } }))).toMatch(
    /stands where the axes have their defaults/,
  );
  expect(why(removeMaster(one, { master: 'm1' }))).toMatch(/keeps one master/);
  const other = done(makeDefault(demo, { master: 'm3' }));
  expect(defaultMaster(other).id).toBe('m3');
  const place = { wght: 480, wdth: 88 };
  const [was, is] = [demo, other].map(
    (p) => Object.values(glyphNamed(instanceAt(p, place, 'x').project, 'o')!.drawings)[0]!,
  );
  // Another default is another way between; at the masters nothing moves.
  expect(Math.abs(was!.advance - is!.advance)).toBeLessThan(20);
  for (const m of demo.masters) {
    const at = Object.values(glyphNamed(instanceAt(other, m.place, 'x').project, 'o')!.drawings)[0]!;
    expect([m.name, Math.abs(at.advance - glyphNamed(demo, 'o')!.drawings[m.id]!.advance) < 1e-6]).toEqual([
      m.name,
      true,
    ]);
  }
});

test('axes are held to sense; one goes only where no two masters would fall together', () => {
  expect(why(addAxis(one, { ...WEIGHT, tag: 'w' }))).toMatch(/is no tag of an axis/);
  expect(why(addAxis(one, { ...WEIGHT, default: 300 }))).toMatch(/lies between/);
  expect(why(addAxis(one, { ...WEIGHT, maximum: 400 }))).toMatch(/needs room/);
  expect(why(addAxis(demo, WEIGHT))).toBe('There is an axis wght already.');
  expect(why(removeAxis(demo, { tag: 'wdth' }))).toMatch(/would stand at one place/);
  const narrow = demo.masters.filter((m) => m.place.wdth === 75);
  const wide = narrow.reduce((p, m) => done(removeMaster(p, { master: m.id })), demo);
  const flat = done(removeAxis(wide, { tag: 'wdth' }));
  expect(flat.axes.map((x) => x.tag)).toEqual(['wght']);
  expect(flat.masters.every((m) => m.place.wdth === undefined)).toBe(true);
  const mapped = done(
    setAxis(demo, {
      tag: 'wght',
      change: {
        map: [
          [300, 40],
          [400, 84],
          [800, 160],
        ],
      },
    }),
  );
  expect(mapped.axes[0]!.map).toHaveLength(3);
  expect(
    why(
      setAxis(demo, {
        tag: 'wght',
        change: {
          map: [
            [300, 40],
            [400, 20],
          ],
        },
      }),
    ),
  ).toMatch(/goes on upwards/);
  expect(why(setAxis(demo, { tag: 'wght', change: { minimum: 900 } }))).toMatch(/lies between/);
});

test('a row of weights on the usual steps, once', () => {
  const bare = { ...demo, instances: [] };
  const row = weightRow(bare, { wdth: 75 }, 'Narrow');
  expect(row.map((i) => [i.name, i.place.wght, i.weightClass])).toEqual([
    ['Narrow Light', 300, 300],
    ['Narrow', 400, 400],
    ['Narrow Medium', 500, 500],
    ['Narrow Semibold', 600, 600],
    ['Narrow Bold', 700, 700],
    ['Narrow Extra Bold', 800, 800],
  ]);
  const made = done(addInstances(bare, { instances: row }));
  expect(why(addInstances(made, { instances: row }))).toMatch(/already/);
  const renamed = done(setInstance(made, { index: 1, change: { name: 'Narrow Book' } }));
  expect(renamed.instances[1]!.name).toBe('Narrow Book');
  expect(why(setInstance(made, { index: 1, change: { name: 'Narrow Bold' } }))).toMatch(/already/);
  expect(done(removeInstance(made, { index: 0 })).instances).toHaveLength(5);
});

test('weights of masters sum to one within the axes and beyond them; at a master it is itself', () => {
  const places = demo.masters.map((m) => m.place);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1200 }), fc.integer({ min: 40, max: 130 }), (wght, wdth) => {
      const sum = weightsAt(demo.axes, places, { wght, wdth }).reduce((s, w) => s + w, 0);
      expect(sum).toBeCloseTo(1, 6);
    }),
  );
  places.forEach((p, i) => {
    expect(weightsAt(demo.axes, places, p).map((w) => Math.round(w * 1e6) / 1e6)).toEqual(
      places.map((_, k) => (k === i ? 1 : 0)),
    );
  });
  const axis = {
    map: [
      [300, 40],
      [400, 84],
      [800, 160],
    ] as [number, number][],
  };
  for (const [user, design] of [
    [300, 40],
    [350, 62],
    [800, 160],
    [250, -10],
  ] as const)
    expect(toUser(axis, design)).toBeCloseTo(user, 6);
});
