import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import { positionsPrint } from './positions';

const demo = readyDemo();
const [first, ...others] = demo.masters;

/** One change each of what positions are made from; rules and everything else stay the same objects. */
const CHANGES: Record<string, Project> = {
  'the em': { ...demo, unitsPerEm: demo.unitsPerEm * 2 },
  'an axis': { ...demo, axes: demo.axes.map((a, i) => (i === 0 ? { ...a, maximum: a.maximum + 1 } : a)) },
  'the map of an axis': { ...demo, axes: demo.axes.map((a, i) => (i === 0 ? { ...a, map: [...a.map, [1, 2]] } : a)) },
  'the place of a master': { ...demo, masters: [{ ...first!, place: { ...first!.place, odd: 3 } }, ...others] },
  'a value': { ...demo, masters: [{ ...first!, kerning: { ...first!.kerning, odd: 3 } }, ...others] },
  'a master less': { ...demo, masters: others },
  'kerning at marks': {
    ...demo,
    settings: { ...demo.settings, kerningStopsAtMarks: demo.settings.kerningStopsAtMarks !== true },
  },
  'a rule': {
    ...demo,
    features: {
      ...demo.features,
      sections: demo.features.sections.map((s, i) => (i === 0 ? { ...s, text: `${s.text}#` } : s)),
    },
  },
  'an included file': { ...demo, features: { ...demo.features, included: { 'a.fea': '# a' } } },
  'an anchor': withChanged(demo, 'o', first!.id, ({ anchors }) => ({
    anchors: anchors.map((a, i) => (i === 0 ? { ...a, x: a.x + 1 } : a)),
  })),
};

test('positions of a font are carried while all that they were made from is the same, and not after any change of it', () => {
  const print = positionsPrint(demo);
  for (const [what, project] of Object.entries(CHANGES))
    expect([what, positionsPrint(project)]).not.toEqual([what, print]);
  expect(new Set(Object.values(CHANGES).map(positionsPrint)).size).toBe(Object.keys(CHANGES).length);
  // Asked again, and of a copy in which nothing is the same object.
  expect(positionsPrint(demo)).toBe(print);
  expect(positionsPrint(structuredClone(demo))).toBe(print);
});

test('outlines, advances and the ids of glyphs do not count', () => {
  const print = positionsPrint(demo);
  const wider = withChanged(demo, 'o', first!.id, (d) => ({ advance: d.advance + 9, contours: [] }));
  expect(positionsPrint(wider)).toBe(print);
  const { id } = glyphNamed(demo, 'zero')!;
  const { [id]: glyph, ...glyphs } = demo.glyphs;
  const otherwise = { ...demo, glyphs: { ...glyphs, other: { ...glyph!, id: 'other' } } };
  const order = demo.glyphOrder.map((g) => (g === id ? 'other' : g));
  expect(
    positionsPrint({ ...otherwise, glyphOrder: order, groups: renamed(demo, id), masters: kernedFrom(demo, id) }),
  ).toBe(print);
});

const renamed = ({ groups }: Project, id: string) =>
  groups.map((g) => ({ ...g, members: g.members.map((m) => (m === id ? 'other' : m)) }));

const kernedFrom = ({ masters }: Project, id: string) =>
  masters.map((m) => ({
    ...m,
    kerning: Object.fromEntries(
      Object.entries(m.kerning).map(([key, v]) => [
        key
          .split(' ')
          .map((s) => (s === `glyph:${id}` ? 'glyph:other' : s))
          .join(' '),
        v,
      ]),
    ),
  }));
