import fc from 'fast-check';
import { attempt } from '../../base/result';
import { type Designspace, type DesignspaceAxis, readDesignspace, writeDesignspace } from './designspace';

const read = (axes: string, rest = '') =>
  readDesignspace(`<designspace format="5.0"><axes>${axes}</axes>${rest}</designspace>`, 'x.designspace');
const number = fc.integer({ min: -1000, max: 1000 });
const word = fc.constantFrom('Weight', 'Wide & narrow', 'Größe', '"quoted"', 'a<b');

const stop = fc.record(
  {
    name: word,
    value: number,
    minimum: number,
    maximum: number,
    linked: number,
    elidable: fc.boolean(),
    older: fc.boolean(),
  },
  { requiredKeys: ['name', 'value', 'elidable', 'older'] },
);
const axis: fc.Arbitrary<DesignspaceAxis> = fc
  .record(
    {
      tag: fc.constantFrom('wght', 'wdth', 'opsz', 'GRAD'),
      name: word,
      range: fc.tuple(number, number, number).map((v) => v.sort((a, b) => a - b)),
      hidden: fc.boolean(),
      map: fc.array(fc.tuple(number, number), { maxLength: 3 }),
      stops: fc.array(stop, { minLength: 1, maxLength: 3 }),
    },
    { requiredKeys: ['tag', 'name', 'range', 'hidden', 'map'] },
  )
  .map(({ range, ...a }) => ({
    ...a,
    minimum: range[0]!,
    default: range[1]!,
    maximum: range[2]!,
    labels: { en: a.name },
    map: a.map as [number, number][],
  }));

test('whatever is written is read back', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(axis, { selector: (a) => a.tag, maxLength: 3 }),
      fc.array(fc.tuple(word, number), { minLength: 1, maxLength: 4 }),
      (axes, places) => {
        const named = axes.map((a, i) => ({ ...a, name: `${a.name} ${i}` }));
        const location = (v: number) => Object.fromEntries(named.map((a) => [a.name, v]));
        const space: Designspace = {
          axes: named,
          sources: places.map(([styleName, v], i) => ({
            filename: `M${i}.ufo`,
            name: `m${i}`,
            styleName,
            layer: undefined,
            location: location(v),
          })),
          instances: places.map(([styleName, v]) => ({
            name: styleName,
            styleName,
            filename: undefined,
            location: location(v),
          })),
          rules: named.flatMap((a, i) => [
            {
              name: `r${i}`,
              sets: [[{ axis: a.name, minimum: a.minimum }], [{ axis: a.name, maximum: 3 }]],
              subs: [['a', 'b<']],
            },
          ]),
          lib: {},
        };
        expect(readDesignspace(writeDesignspace(space), 'x.designspace')).toEqual(space);
      },
    ),
  );
});

test('an axis of single values has no range between them', () => {
  const space = read('<axis tag="ital" name="Italic" values="0 1" default="0"/>');
  expect(space.axes[0]).toMatchObject({ minimum: 0, default: 0, maximum: 1, discrete: [0, 1] });
  expect(writeDesignspace(space)).toContain('<axis tag="ital" name="Italic" values="0 1" default="0"/>');
  expect(readDesignspace(writeDesignspace(space), 'x').axes).toEqual(space.axes);
});

test('places may be told in user units', () => {
  const space = read(
    '<axis tag="wght" name="Weight" minimum="100" default="400" maximum="900"><map input="100" output="20"/><map input="400" output="80"/><map input="900" output="200"/></axis>',
    '<sources><source filename="a.ufo"><location><dimension name="Weight" uservalue="650"/></location></source><source filename="b.ufo"><location><dimension name="Weight" xvalue="33" uservalue="900"/></location></source></sources>',
  );
  expect(space.sources.map((s) => s.location.Weight)).toEqual([140, 33]);
});

test('named values of an axis with all they may say', () => {
  const [only] = read(
    '<axis tag="wght" name="Weight" minimum="100" default="400" maximum="900"><labels ordering="0"><label uservalue="400" userminimum="350" usermaximum="450" name="Regular" elidable="true" linkeduservalue="700"><labelname xml:lang="de">Normal</labelname></label><label uservalue="900" name="Black" oldersibling="true"/></labels></axis>',
  ).axes;
  expect(only!.stops).toEqual([
    { name: 'Regular', value: 400, minimum: 350, maximum: 450, linked: 700, elidable: true, older: false },
    { name: 'Black', value: 900, elidable: false, older: true },
  ]);
});

test.each([
  ['<axis name="Weight" minimum="1" default="2" maximum="3"/>', '', /line 1: <axis> has no tag/],
  ['<axis tag="wght" minimum="1" default="2" maximum="3"/>', '', /<axis> has no name/],
  [
    '<axis tag="wght" name="W" minimum="much" default="2" maximum="3"/>',
    '',
    /minimum="much" of <axis> is not a number/,
  ],
  [
    '<axis tag="wght" name="W" minimum="1" default="2" maximum="3"><labels><label uservalue="2"/></labels></axis>',
    '',
    /<label> has no name/,
  ],
  [
    '<axis tag="wght" name="W" minimum="1" default="2" maximum="3"><labels><label name="x" uservalue="?"/></labels></axis>',
    '',
    /uservalue="\?" of <label> is not a number/,
  ],
  ['', '<sources><source name="a"/></sources>', /<source> has no filename/],
  [
    '',
    '<sources><source filename="a.ufo"><location><dimension xvalue="1"/></location></source></sources>',
    /<dimension> has no name/,
  ],
])('%s%s is refused', (axes, rest, reason) => {
  const result = attempt(() => read(axes, rest));
  expect(result.ok ? 'accepted' : result.reason).toMatch(reason);
});
