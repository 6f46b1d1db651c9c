import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { toDesign } from '../project/axes';
import { drawingsAt } from '../project/drawingsAt';
import { designEnds, placeInWords, samePlace, toUser, weightsAt, wholePlace } from '../project/places';
import { defaultMaster, glyphNamed } from '../project/queries';
import { glyphAt } from './glyphAt';
import { instanceAt } from './instance';

const demo = readyDemo();
const MAPPED = {
  map: [
    [100, 20],
    [400, 80],
    [700, 140],
    [900, 200],
  ] as [number, number][],
};

test('a design value goes back to the user value that it came from, beyond the ends of the map too', () => {
  fc.assert(
    fc.property(fc.integer({ min: -200, max: 1400 }), (user) => {
      expect(toUser(MAPPED, toDesign(MAPPED, user))).toBeCloseTo(user, 6);
      expect(toUser({ map: [] }, toDesign({ map: [] }, user))).toBe(user);
    }),
  );
  // A level piece of the map has no one way back; its beginning is taken.
  expect(
    toUser(
      {
        map: [
          [100, 20],
          [200, 20],
          [300, 40],
        ],
      },
      20,
    ),
  ).toBe(100);
});

test('places: what is not said lies at the default, and two ways of saying a place are one', () => {
  const { axes } = demo;
  expect(wholePlace(axes, { wght: 700 })).toEqual({ wght: 700, wdth: 100 });
  expect(samePlace(axes, {}, { wght: 400, wdth: 100 })).toBe(true);
  expect(samePlace(axes, { wdth: 75 }, { wdth: 100 })).toBe(false);
  expect(placeInWords(axes, { wght: 512.345 })).toBe('weight 512.35, width 100');
  expect(placeInWords([], {})).toBe('the only place');
  expect(designEnds(axes[0]!)).toEqual({ least: 300, usual: 400, most: 800 });
});

test('beyond the ends of an axis every number goes on in a straight line', () => {
  const places = demo.masters.map((m) => m.place);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 300 }), fc.constantFrom(75, 88, 100), (by, wdth) => {
      const at = (wght: number) => weightsAt(demo.axes, places, { wght, wdth });
      const [end, once, twice] = [at(800), at(800 + by), at(800 + 2 * by)];
      end.forEach((w, i) => {
        expect(twice[i]! - once[i]!).toBeCloseTo(once[i]! - w, 6);
      });
      expect(twice.reduce((sum, w) => sum + w, 0)).toBeCloseTo(1, 6);
    }),
  );
});

test('one glyph at a place is what the whole family there has, parts drawn out', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('a', 'g', 'aacute', 'onehalf', 'colon.case', 'longs', 'ampersand'),
      fc.integer({ min: 300, max: 800 }),
      fc.integer({ min: 75, max: 100 }),
      (name, wght, wdth) => {
        const place = { wght, wdth };
        const { id } = glyphNamed(demo, name)!;
        const whole = instanceAt({ ...demo, glyphs: { [id]: demo.glyphs[id]! }, glyphOrder: [id] }, place, 'There');
        const [there] = Object.values(whole.project.glyphs[id]!.drawings);
        expect(drawingsAt(demo, place)(id)).toEqual(there);
        const seen = glyphAt(demo, id, place)!;
        expect([seen.advance, seen.stuck]).toEqual([there!.advance, false]);
        // Parts are drawn out: as many contours as they bring along.
        if (there!.components.length > 0) expect(seen.contours.length).toBeGreaterThan(there!.contours.length);
      },
    ),
    { numRuns: 40 },
  );
  expect(glyphAt(demo, 'none', {})).toBeUndefined();
});

test('masters that do not agree leave the default’s drawing everywhere, and say so', () => {
  const o = glyphNamed(demo, 'o')!;
  const broken = { ...o, drawings: { ...o.drawings, m3: { ...o.drawings.m3!, contours: [] } } };
  const project = { ...demo, glyphs: { ...demo.glyphs, [o.id]: broken } };
  expect(glyphAt(project, o.id, { wght: 700 })).toMatchObject({
    stuck: true,
    advance: o.drawings[defaultMaster(demo).id]!.advance,
  });
});
