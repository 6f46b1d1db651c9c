import { buildStarter } from '../../../demo/starter';
import type { Anchor, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { type ShapedGlyph, shapedByHarfBuzz } from '../testing/shaping';
import { castFont } from './font';

/** Letters that join by their entries and exits. */
const demo = buildStarter();
const at = (role: 'entry' | 'exit', x: number, y: number): Anchor => ({ name: role, x, y, role });

function withAnchors(
  anchors: Readonly<Record<string, readonly Anchor[]>>,
  codes: Readonly<Record<string, number>> = {},
): Project {
  const glyphs = { ...demo.glyphs };
  for (const [name, list] of Object.entries(anchors)) {
    const glyph = glyphNamed(demo, name)!;
    const code = codes[name];
    const m1 = { ...glyph.drawings.m1!, anchors: list };
    glyphs[glyph.id] = { ...glyph, ...(code !== undefined && { unicodes: [code] }), drawings: { m1 } };
  }
  return { ...demo, glyphs };
}

function shaped(project: Project, texts: readonly string[]): ShapedGlyph[][] {
  const font = castFont(project, { flavour: 'ttf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  return shapedByHarfBuzz([{ bytes: font.value.bytes, texts, features: ['kern=0'] }])[0]!;
}

test('the exit of a letter meets the entry of the next; the first keeps its place where one writes from the left', () => {
  const project = withAnchors({ n: [at('exit', 500, 40)], o: [at('entry', 30, 100), at('exit', 480, 90)] });
  const [line] = shaped(project, ['noo']);
  expect(line!.map((g) => [g.x, g.y])).toEqual([
    [0, 0],
    [470, -60],
    [470 + 450, -70],
  ]);
});

test('letters that are written from the right keep the last of a row in its place', () => {
  const [beh, teh] = [0x628, 0x62a];
  const project = withAnchors({ n: [at('exit', 20, 40)], o: [at('entry', 480, 100)] }, { n: beh, o: teh });
  const [line] = shaped(project, [String.fromCodePoint(beh, teh)]);
  // From left to right: the second letter, then the first.
  expect(line!.map((g) => g.y)).toEqual([0, 60]);
  expect(line![1]!.x).toBe(line![0]!.x + 480 - 20);
});

test('letters without entries and exits have no joins, and a rule of one’s own takes their place', () => {
  const font = (project: Project) => {
    const cast = castFont(project, { flavour: 'ttf', place: { master: 'm1' } });
    if (!cast.ok) throw new Error(cast.reason);
    return cast.value;
  };
  expect(font(demo).lookups.GPOS.map((l) => l.title)).not.toContain('the entries and exits of letters');
  const joined = withAnchors({ n: [at('exit', 500, 40)] });
  expect(font(joined).lookups.GPOS.map((l) => l.title)).toContain('the entries and exits of letters');
  const text = 'feature curs { pos cursive n <anchor 1 2> <anchor 3 4>; } curs;';
  const own = {
    ...joined,
    features: { ...joined.features, sections: [{ id: 's', title: 'Mine', options: {}, text }] },
  };
  expect(font(own).notes.map((n) => n.reason)).toContain(
    'The rules have a feature curs of their own, so what the anchors say for it is left out.',
  );
});
