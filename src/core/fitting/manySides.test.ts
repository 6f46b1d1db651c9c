import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { waypointId } from '../project/waypoints';
import { addWaypoint } from '../variation/waypointEdits';
import { ManySides, setSides } from './sides';

const PLACE = { wght: 600, wdth: 100 };
const ready = readyDemo();

const added = addWaypoint(ready, { glyph: ready.glyphOrder[0]!, place: PLACE });
if (!added.ok) throw new Error(added.reason);
const demo = added.project;

/** Bases, what is built of them, and what is built of that: close together, so that steps meet. */
const built = demo.glyphOrder.filter((id) => demo.glyphs[id]!.drawings.m1!.components.length > 0);
const bases = [...new Set(built.flatMap((id) => demo.glyphs[id]!.drawings.m1!.components.map((c) => c.glyph)))];
const some = [...bases.slice(0, 8), ...built.slice(0, 12), demo.glyphOrder[0]!];

const value = fc.option(fc.integer({ min: -60, max: 700 }), { nil: undefined });
const steps = fc.array(
  fc.record({
    glyph: fc.constantFrom(...some),
    master: fc.constantFrom('m1', 'm3', waypointId(PLACE)),
    left: value,
    right: value,
    advance: value,
  }),
  { maxLength: 12 },
);

test('sides of many glyphs come to what they come to one by one, refusals too', () => {
  fc.assert(
    fc.property(steps, (list) => {
      let one = demo;
      const many = new ManySides(demo);
      for (const { glyph, master, ...sides } of list) {
        const args = { at: { glyph, master }, ...sides };
        const done = setSides(one, args);
        const fault = many.set(args);
        expect(fault?.reason).toEqual(done.ok ? undefined : done.reason);
        if (done.ok) one = done.project;
        expect(many.now.glyphs[glyph]).toEqual(one.glyphs[glyph]);
      }
      expect(many.done()).toEqual(one);
      // What is not touched is the same thing.
      const touched = demo.glyphOrder.filter((id) => many.done().glyphs[id] !== demo.glyphs[id]);
      expect(touched.every((id) => one.glyphs[id] !== demo.glyphs[id])).toBe(true);
    }),
    { numRuns: 60 },
  );
});
