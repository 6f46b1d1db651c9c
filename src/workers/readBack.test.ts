import { readyDemo } from '../../demo/ready';
import { castOutputs, type Format } from '../core/casting/outputs';
import { type CastThing, thingsOf } from '../core/casting/things';
import type { Project } from '../core/project/model';
import { glyphNamed } from '../core/project/queries';
import { readBack } from './readBack';

const CAST = new Set(['a', 'b', 'o', 'g', 'eacute', 'acutecomb', 'fi', 'f_i', 'ampersand', 'space', 'A', 'W']);
const whole = readyDemo();
const demo: Project = {
  ...whole,
  glyphs: Object.fromEntries(Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: CAST.has(g.name) }])),
};
const cast = async (thing: CastThing, format: Format) => {
  const made = await castOutputs(demo, { formats: [format], things: [thing] });
  if (!made.ok) throw new Error(made.reason);
  return made.value[0]!.font;
};
const medium = { instance: demo.instances.findIndex((i) => i.name === 'Narrow Medium') };

test.each<[string, CastThing, Format]>([
  ['a master', { master: 'm3' }, 'otf'],
  ['a master', { master: 'm1' }, 'ttf'],
  ['an instance', medium, 'otf'],
  ['an instance', medium, 'ttf'],
  ['all that varies', thingsOf(demo).variable[0]!, 'ttf'],
  ['all that varies', thingsOf(demo).variable[0]!, 'otf'],
])('%s, %j as %s, is as drawn', async (_, thing, format) => {
  const found = readBack(demo, thing, await cast(thing, format));
  expect(found).toMatchObject({
    severity: 'fine',
    reason: expect.stringMatching(/^\d+ glyphs as drawn, their edges within [01]\.\d\.$/),
  });
});

test('a glyph that is wider, moved or lost in the font is named', async () => {
  const font = await cast({ master: 'm1' }, 'ttf');
  const changed = (name: string, change: (d: Project['glyphs'][string]['drawings'][string]) => object): Project => {
    const g = glyphNamed(demo, name)!;
    const drawings = { ...g.drawings, m1: { ...g.drawings.m1!, ...change(g.drawings.m1!) } };
    return { ...demo, glyphs: { ...demo.glyphs, [g.id]: { ...g, drawings } } };
  };
  const told = (project: Project) => readBack(project, { master: 'm1' }, font);
  const moved = changed('o', (d) => ({
    contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + 4 })) })),
  }));
  expect(told(moved)).toMatchObject({ severity: 'error', reason: 'One glyph is not as drawn: o.' });
  expect(told(changed('b', (d) => ({ advance: d.advance + 3 })))).toMatchObject({
    reason: 'One glyph is not as drawn: b.',
  });
  expect(told(changed('A', () => ({ contours: [], components: [] })))).toMatchObject({ severity: 'error' });
  expect(readBack(demo, { master: 'gone' }, font)).toMatchObject({
    severity: 'error',
    reason: 'What it was cast from is gone.',
  });
  expect(readBack(demo, { master: 'm1' }, { ...font, bytes: font.bytes.slice(0, 40) })).toMatchObject({
    severity: 'error',
    reason: expect.stringMatching(/^It cannot be read back: /),
  });
});
