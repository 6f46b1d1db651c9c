import fc from 'fast-check';
import { toDesign } from '../project/axes';
import { blendedDrawing } from '../project/blending';
import { createProject, emptyDrawing } from '../project/create';
import type { Master, Project } from '../project/model';
import { sameStructure } from '../project/structure';
import { masterWeights, normalised, scalarAt, variationModel } from '../project/variationModel';
import { instanceAt } from './instance';

const axis = (
  tag: string,
  minimum: number,
  normal: number,
  maximum: number,
  map: readonly (readonly [number, number])[] = [],
) => ({
  tag,
  name: tag,
  minimum,
  default: normal,
  maximum,
  map: [...map],
  hidden: false,
  labels: {},
});

test('places are normalised by their axis, through its map, and never beyond its ends', () => {
  const axes = [
    axis('wght', 300, 400, 800, [
      [300, 20],
      [400, 60],
      [800, 200],
    ]),
    axis('wdth', 75, 100, 100),
  ];
  expect(toDesign(axes[0]!, 350)).toBe(40);
  expect(normalised(axes, { wght: 40, wdth: 100 })).toEqual({ wght: -0.5, wdth: 0 });
  expect(normalised(axes, { wght: 200, wdth: 75 })).toEqual({ wght: 1, wdth: -1 });
  expect(normalised(axes, { wght: 999, wdth: 120 })).toEqual({ wght: 1, wdth: 0 });
  expect(normalised(axes, {})).toEqual({ wght: 0, wdth: 0 });
});

test('a region rises to its peak and falls again; its product is over all axes', () => {
  const region = { wght: [0, 0.5, 1], wdth: [-1, -1, 0] } as const;
  expect(scalarAt(region, { wght: 0.25, wdth: -1 })).toBe(0.5);
  expect(scalarAt(region, { wght: 0.75, wdth: -0.5 })).toBe(0.25);
  expect(scalarAt(region, { wght: 0.5 })).toBe(0);
  expect(scalarAt({}, { wght: 1 })).toBe(1);
});

test('a master between two others cuts their regions', () => {
  const model = variationModel([{}, { wght: 1 }, { wght: 0.5 }]);
  expect(model.order).toEqual([0, 2, 1]);
  expect(model.regions).toEqual([{}, { wght: [0, 0.5, 1] }, { wght: [0.5, 1, 1] }]);
  expect(masterWeights(model, { wght: 0.75 })).toEqual([0, 0.5, 0.5]);
  expect(masterWeights(model, { wght: 0.25 })).toEqual([0.5, 0, 0.5]);
});

/** Figures that an independent implementation gives for these masters and places. */
test('weights of a family with corners and a middle are those of the reference', () => {
  const model = variationModel([{}, { a: -1 }, { a: 1 }, { b: -1 }, { a: -1, b: -1 }, { a: 1, b: -1 }]);
  const at = masterWeights(model, { a: 0.25, b: -0.5 });
  expect(at.map((w) => Number(w.toFixed(6)))).toEqual([0.375, 0, 0.125, 0.375, 0, 0.125]);
});

const place = fc.record({ a: fc.constantFrom(-1, -0.5, 0, 0.25, 0.5, 1), b: fc.constantFrom(-1, 0, 0.5, 1) });

test('at a master only that master counts; everywhere the weights sum to one', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(place, { maxLength: 7, selector: (p) => `${p.a} ${p.b}` }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      (others, a, b) => {
        const places = [{ a: 0, b: 0 }, ...others.filter((p) => p.a !== 0 || p.b !== 0)];
        const model = variationModel(places);
        for (const [i, p] of places.entries())
          for (const [k, w] of masterWeights(model, p).entries()) expect(w).toBeCloseTo(i === k ? 1 : 0, 9);
        expect(masterWeights(model, { a, b }).reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
      },
    ),
  );
});

const square = (size: number, advance: number) => ({
  ...emptyDrawing(advance),
  contours: [
    {
      closed: true,
      points: [
        [0, 0],
        [size, 0],
        [size, size],
        [0, size],
      ].map(([x, y]) => ({ x: x!, y: y!, type: 'line' as const })),
    },
  ],
  anchors: [{ name: 'top', x: size / 2, y: size }],
});

test('drawings are blended point by point; unlike ones are told apart', () => {
  const small = square(100, 200);
  const large = { ...square(300, 400), anchors: [] };
  expect(sameStructure([small, large])).toBe(true);
  const blend = blendedDrawing([small, large], [0.25, 0.75]);
  expect(blend.advance).toBe(350);
  expect(blend.contours[0]!.points[2]).toMatchObject({ x: 250, y: 250 });
  expect(blend.anchors).toEqual([]);
  expect(sameStructure([small, { ...large, contours: [] }])).toBe(false);
  expect(sameStructure([small, { ...large, contours: [{ closed: false, points: large.contours[0]!.points }] }])).toBe(
    false,
  );
});

test('an instance is a project of one master: outlines, advances, kerning and zones between; what disagrees is named', () => {
  const base = createProject({ family: 'Orde', masterName: 'Light', created: 0 });
  const light = { ...base.masters[0]!, place: { wght: 0 }, kerning: { 'glyph:g1 glyph:g1': -10 } };
  const heavy: Master = {
    ...light,
    id: 'm2',
    name: 'Heavy',
    place: { wght: 100 },
    kerning: { 'glyph:g1 glyph:g1': -30, 'glyph:g2 glyph:g1': 8 },
    zones: { ...light.zones, xHeight: { ...light.zones.xHeight, position: 540 } },
  };
  const [first, second] = base.glyphOrder as [string, string];
  const project: Project = {
    ...base,
    axes: [axis('wght', 0, 0, 100)],
    masters: [light, heavy],
    glyphs: {
      ...base.glyphs,
      [first]: { ...base.glyphs[first]!, drawings: { m1: square(100, 200), m2: square(200, 300) } },
      [second]: { ...base.glyphs[second]!, drawings: { m1: square(100, 200), m2: emptyDrawing(300) } },
    },
  };
  const { project: middle, stuck } = instanceAt(project, { wght: 50 }, 'Middle');
  expect(stuck).toEqual([base.glyphs[second]!.name]);
  expect(middle.masters).toHaveLength(1);
  expect(middle.masters[0]).toMatchObject({
    name: 'Middle',
    kerning: { 'glyph:g1 glyph:g1': -20, 'glyph:g2 glyph:g1': 4 },
  });
  expect(middle.masters[0]!.zones.xHeight.position).toBe(520);
  expect(middle.glyphs[first]!.drawings.m1).toMatchObject({ advance: 250 });
  expect(middle.glyphs[second]!.drawings.m1).toMatchObject({ advance: 200 });
});

test('kerning between masters is that of the groups where one master has the pair and another its groups', () => {
  const base = createProject({ family: 'Orde', masterName: 'Light', created: 0 });
  const [a, b] = base.glyphOrder as [string, string];
  const light: Master = {
    ...base.masters[0]!,
    place: { wght: 0 },
    kerning: { 'group:k1 group:k2': -40, [`group:k1 glyph:${b}`]: -60 },
  };
  const heavy: Master = {
    ...light,
    id: 'm2',
    name: 'Heavy',
    place: { wght: 100 },
    kerning: { [`glyph:${a} glyph:${b}`]: -20, 'group:k1 group:k2': -10 },
  };
  const project: Project = {
    ...base,
    axes: [axis('wght', 0, 0, 100)],
    masters: [light, heavy],
    groups: [
      { id: 'k1', name: 'first', side: 'first', members: [a] },
      { id: 'k2', name: 'second', side: 'second', members: [b] },
    ],
  };
  expect(instanceAt(project, { wght: 50 }, 'Middle').project.masters[0]!.kerning).toEqual({
    'group:k1 group:k2': -25,
    // Light says it of the group and the glyph, Heavy of its groups.
    [`group:k1 glyph:${b}`]: -35,
    // Heavy says it of the glyphs, Light of the group and the glyph.
    [`glyph:${a} glyph:${b}`]: -40,
  });
});
