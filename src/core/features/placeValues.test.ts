import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { castFont } from '../casting/font';
import type { CastPlace } from '../casting/plan';
import type { Project } from '../project/model';
import { addSections } from './edits';
import { type FontPlace, valueAtPlace } from './placeValues';

const whole = readyDemo();
/** The demo with few letters in its fonts, so that many are made in no time. */
const demo: Project = {
  ...whole,
  glyphs: Object.fromEntries(
    Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: /^([A-Z]|space)$/.test(g.name) }]),
  ),
};
const span = { from: 0, to: 0 };
const axis = (tag: string, minimum: number, usual: number, maximum: number, map: [number, number][] = []) =>
  ({ ...demo.axes[0]!, tag, name: tag, minimum, default: usual, maximum, map }) as Project['axes'][number];

test('a number that varies is blended as masters are: straight between places, by the map, in all units', () => {
  const axes = [axis('wght', 100, 400, 900)];
  const at = (design: number): FontPlace => ({ axes, at: { wght: design } });
  const values = [
    { at: { wght: 100 }, value: 0 },
    { at: { wght: 400 }, value: 30 },
    { at: { wght: 900 }, value: 130 },
  ];
  expect([100, 250, 400, 650, 900].map((d) => valueAtPlace(values, at(d), span))).toEqual([0, 15, 30, 80, 130]);
  // A place between has a say of its own.
  expect(valueAtPlace([...values, { at: { wght: 650 }, value: 40 }], at(775), span)).toBeCloseTo(85);
  // Design values, and normalised ones.
  const mapped = [
    axis('wght', 100, 400, 900, [
      [100, 20],
      [400, 80],
      [900, 180],
    ]),
  ];
  const units = [
    { at: { wght: 80 }, units: { wght: 'd' }, value: 30 },
    { at: { wght: 1 }, units: { wght: 'n' }, value: 130 },
    { at: { wght: 100 }, value: 0 },
  ];
  expect(valueAtPlace(units, { axes: mapped, at: { wght: 130 } }, span)).toBeCloseTo(80);
  expect(valueAtPlace(units, { axes: mapped, at: { wght: 50 } }, span)).toBeCloseTo(15);
});

test('an axis that is not there, a missing default and a place given twice are told', () => {
  const place: FontPlace = { axes: [axis('wght', 100, 400, 900)], at: {} };
  const fault = (values: Parameters<typeof valueAtPlace>[0]) => {
    try {
      return valueAtPlace(values, place, span);
    } catch (error) {
      return (error as { reason: string }).reason;
    }
  };
  expect(fault([{ at: { wdth: 75 }, value: 1 }])).toBe('The project has no axis wdth.');
  expect(fault([{ at: { wght: 900 }, value: 1 }])).toBe('A value for the default place is missing among these.');
  expect(
    fault([
      { at: { wght: 400 }, value: 1 },
      { at: {}, value: 2 },
    ]),
  ).toBe('Two values stand for one place.');
});

test('rules that vary move glyphs by what holds at each master and at places between, by HarfBuzz', () => {
  const [light, regular, heavy] = [300, 400, 800];
  const text = `feature kern { pos H <0 0 (wght=${light}:100 wght=${regular}:200 wght=${heavy}:600) 0>; } kern;`;
  const made = addSections(demo, { sections: [{ title: 'Varying', text }] });
  if (!made.ok) throw new Error(made.reason);
  const folder = mkdtempSync(join(tmpdir(), 'wendril-varying-'));
  const moved = (place: CastPlace): number => {
    const advances = [made.project, demo].map((project, i) => {
      const font = castFont(project, { flavour: 'otf', place });
      if (!font.ok) throw new Error(font.reason);
      const path = join(folder, `${i}.otf`);
      writeFileSync(path, font.value.bytes);
      const [glyph] = JSON.parse(
        execFileSync(process.execPath, ['scripts/shape.mjs', path, 'H'], { encoding: 'utf8' }),
      ) as { advance: number }[];
      return glyph!.advance;
    });
    return advances[0]! - advances[1]!;
  };
  expect(moved({ master: 'm2' })).toBe(100);
  expect(moved({ master: 'm1' })).toBe(200);
  expect(moved({ master: 'm3' })).toBe(600);
  const [{ map }] = demo.axes as [Project['axes'][number]];
  expect(map).toEqual([]);
  expect(moved({ design: { wght: 600 }, name: 'Between' })).toBe(400);
});
