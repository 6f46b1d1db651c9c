import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import type { Glyph, Project } from '../project/model';
import { normalised } from '../project/variationModel';
import { standsFor } from '../variation/handovers';
import { castPlan } from './plan';
import { handoverRecords } from './tables/handoverRecords';

const demo = readyDemo();
const letters = ['a', 'b', 'c', 'd', 'e'].map((name) => Object.values(demo.glyphs).find((g) => g.name === name)!.id);
const others = ['v', 'w', 'x'].map((name) => Object.values(demo.glyphs).find((g) => g.name === name)!.id);

const handover = fc
  .record({
    axis: fc.constantFrom('wght', 'wdth'),
    ends: fc.tuple(fc.integer({ min: 0, max: 10 }), fc.integer({ min: 0, max: 10 })),
    glyph: fc.constantFrom(...others),
  })
  .map(({ axis, ends: [p, q], glyph }) => {
    const at = (share: number) => (axis === 'wght' ? 300 + share * 50 : 75 + share * 2.5);
    return { axis, from: at(Math.min(p, q)), to: at(Math.max(p, q)), glyph };
  });

/** The demo in which some letters give way, each over stretches of its own. */
const family = fc
  .array(fc.tuple(fc.constantFrom(...letters), fc.array(handover, { minLength: 1, maxLength: 2 })), {
    minLength: 1,
    maxLength: 4,
  })
  .map((list): Project => {
    const glyphs: Record<string, Glyph> = { ...demo.glyphs };
    for (const [id, handovers] of list) glyphs[id] = { ...glyphs[id]!, handovers };
    return { ...demo, glyphs };
  });

test('at any place the first record that holds gives the glyphs that stand in there', () => {
  fc.assert(
    fc.property(family, fc.integer({ min: 0, max: 399 }), fc.integer({ min: 0, max: 100 }), (project, w, d) => {
      // On the axes, off the edges, where two stretches may meet.
      const place = { wght: 300 + w * 1.25 + 0.37, wdth: 75 + d * 0.25 - (d === 100 ? 0.11 : -0.11) };
      const plan = castPlan(project, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
      const records = handoverRecords(plan);
      const at = plan.varies!.axes.map((a) => normalised(plan.varies!.axes, place)[a.tag]!);
      const holds = records.find((r) =>
        r.conditions.every((c) => at[c.axis]! >= c.minimum - 1e-9 && at[c.axis]! <= c.maximum + 1e-9),
      );
      for (const id of letters) {
        const own = plan.index.get(id)!;
        expect([id, holds?.subs.get(own) ?? own]).toEqual([id, plan.index.get(standsFor(project, id, place))]);
      }
    }),
    { numRuns: 25 },
  );
});

test('without handovers there are no records; of a font of one place there are none', () => {
  expect(handoverRecords(castPlan(demo, { flavour: 'ttf', place: { master: 'm1' }, variable: true }))).toEqual([]);
  expect(handoverRecords(castPlan(demo, { flavour: 'ttf', place: { master: 'm1' } }))).toEqual([]);
});
