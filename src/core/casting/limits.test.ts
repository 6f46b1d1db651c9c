import { buildStarter } from '../../../demo/starter';
import { openAny } from '../formats/openFile';
import { type Contour, signedArea } from '../geometry/contour';
import { cmap } from '../opentype/cmap';
import { readSfnt, tableOf } from '../opentype/sfnt';
import type { Drawing, Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { castFont } from './font';
import { type Flavour, undrawnCharacters } from './plan';
import { roundingLoss } from './rounding';

/** What a font file cannot hold is refused, or told, by the glyph’s name. */

const starter = buildStarter();
const out = undrawnCharacters(starter);
const demo: Project = {
  ...starter,
  glyphs: Object.fromEntries(
    Object.entries(starter.glyphs).map(([id, g]) => [id, out.has(id) ? { ...g, cast: false } : g]),
  ),
};
const n = glyphNamed(demo, 'n')!;
const withN = (change: Partial<Glyph>): Project => ({
  ...demo,
  glyphs: { ...demo.glyphs, [n.id]: { ...n, ...change } },
});
const drawn = (change: Partial<Drawing>): Project => withN({ drawings: { m1: { ...n.drawings.m1!, ...change } } });
const cast = (project: Project, flavour: Flavour, leaveOut = false) =>
  castFont(project, { flavour, place: { master: 'm1' }, leaveOut, keepOverlaps: true });
const said = (project: Project, flavour: Flavour = 'ttf'): string[] => {
  const font = cast(project, flavour);
  return font.ok ? font.value.notes.map((note) => note.reason) : [`refused: ${font.reason}`];
};
const moved = (dx: number, dy = 0): Contour[] =>
  n.drawings.m1!.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + dx, y: p.y + dy })) }));

test.each(['ttf', 'otf'] as const)(
  'a point beyond 16 bits is refused by the glyph’s name, not wrapped: %s',
  (flavour) => {
    for (const contours of [moved(40_000), moved(0, -40_000)]) {
      const project = drawn({ contours });
      expect(said(project, flavour)).toEqual([
        expect.stringMatching(
          /^refused: The glyph “n” cannot be made: it has a point at −?-?4[01],\d{3}; a font holds/,
        ),
      ]);
      // For looking at the rest it stands blank.
      const rest = cast(project, flavour, true);
      expect(rest.ok && rest.value.notes.map((note) => note.place?.glyph)).toEqual(['n']);
    }
    expect(said(drawn({ contours: moved(31_000) }), flavour)).toEqual([]);
  },
);

test('an advance beyond 65,535 is refused, a negative one is told', () => {
  expect(said(drawn({ advance: 70_000 }))).toEqual([
    'refused: The glyph “n” is 70,000 units wide; a font holds 65,535 at most.',
  ]);
  expect(said(drawn({ advance: -20 }))).toEqual(['Less than nothing wide, so without width in the font: n.']);
  expect(said(drawn({ advance: 65_535 }))).toEqual([]);
  // Advances so far apart have no number between that all can be written from.
  expect(said(drawn({ advance: 65_535 }), 'otf')).toEqual([
    'refused: The glyph “n” cannot be made: it is 65,535 units wide, too far from all others for this kind of file.',
  ]);
});

test('halves of pairs and U+0000 are no characters; of two that claim one the first has it', () => {
  const project = withN({ unicodes: [0x6e, 0xd800, 0, 0x6f] });
  const font = cast(project, 'ttf');
  if (!font.ok) throw new Error(font.reason);
  const table = cmap.read(tableOf(readSfnt(font.value.bytes), 'cmap'));
  expect([0xd800, 0].map((c) => table.has(c))).toEqual([false, false]);
  expect(font.value.notes.map((note) => note.reason)).toEqual([
    'Left out, since these are no characters: U+D800 of n, U+0000 of n.',
    expect.stringMatching(/^Claimed by two glyphs, of which the first has it: U\+006F \(n, not o\)\.$/),
  ]);
});

describe('fractions', () => {
  // A hairline ring: rounding takes a good part of it away.
  const ring = (inset: number, turned: boolean): Contour => {
    const [low, high] = [100 + inset, 400.4 - inset];
    const corners = [
      [low, low],
      [high, low],
      [high, high],
      [low, high],
    ] as const;
    const points = corners.map(([x, y]) => ({ x, y, type: 'line' as const }));
    return { closed: true, points: turned ? [points[0]!, ...points.slice(1).reverse()] : points };
  };
  const thin = drawn({ contours: [ring(0.2, false), ring(4.6, true)] });
  const keeping: Project = { ...thin, settings: { ...thin.settings, fractions: true } };
  const area = (project: Project) =>
    glyphNamed(project, 'n')!.drawings[project.masters[0]!.id]!.contours.reduce((sum, c) => sum + signedArea(c), 0);
  const back = async (project: Project, flavour: Flavour) => {
    const font = cast(project, flavour);
    if (!font.ok) throw new Error(font.reason);
    const read = await openAny(font.value.bytes, 'n.otf');
    if (!read.ok) throw new Error(read.reason);
    return read.value;
  };

  test('OpenType keeps them where the project says so; an opened font with fractions begins with keeping them', async () => {
    const kept = await back(keeping, 'otf');
    expect(area(kept.project)).toBeCloseTo(area(thin), 2);
    expect(kept.project.settings.fractions).toBe(true);
    expect(kept.notes.join()).toMatch(/Coordinates have fractions/);
    const whole = await back(thin, 'otf');
    expect(Math.abs(area(whole.project) / area(thin) - 1)).toBeGreaterThan(0.02);
    expect(whole.project.settings.fractions).toBeUndefined();
    const again = await back(kept.project, 'otf');
    expect(area(again.project)).toBe(area(kept.project));
  });

  test('what rounding changes most is told where it rounds', () => {
    expect(roundingLoss(glyphNamed(thin, 'n')!.drawings.m1!)).toBeGreaterThan(0.02);
    expect(roundingLoss(n.drawings.m1!)).toBe(0);
    expect(said(thin, 'otf')).toEqual([
      expect.stringMatching(/^Rounding to whole units changes the area of n \(\d\.\d %\)/),
    ]);
    expect(said(keeping, 'otf')).toEqual([]);
    expect(said(keeping, 'ttf')).toHaveLength(1);
  });
});
