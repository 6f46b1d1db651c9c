import { buildStarter } from '../../demo/starter';
import { refused, unwrap } from '../core/base/result';
import { setSides } from '../core/fitting/sides';
import { cmap } from '../core/opentype/cmap';
import { hhea } from '../core/opentype/hhea';
import { hmtx } from '../core/opentype/hmtx';
import { readSfnt } from '../core/opentype/sfnt';
import { patchBetween, stepsOf } from '../core/project/patch';
import { glyphNamed } from '../core/project/queries';
import { compileService } from './compile';

const opened: Uint8Array[] = [];
/** HarfBuzz cannot be loaded as a CommonJS module; this sets glyphs side by side from the very bytes instead. */
jest.mock('./shaper', () => ({
  createShaper: async (font: Uint8Array) => {
    opened.push(font);
    const { tables } = readSfnt(font);
    const map = cmap.read(tables.get('cmap')!);
    const header = hhea.read(tables.get('hhea')!);
    const count = new DataView(tables.get('maxp')!.buffer, tables.get('maxp')!.byteOffset).getUint16(4);
    const metrics = hmtx.read(tables.get('hmtx')!, header.numberOfHMetrics, count);
    return {
      shape: (text: string) => {
        let x = 0;
        const glyphs = [...text].map((c, cluster) => {
          const gid = map.get(c.codePointAt(0)!) ?? 0;
          const glyph = { gid, x, y: 0, advance: metrics[gid]!.advanceWidth, cluster };
          x += glyph.advance;
          return glyph;
        });
        return { glyphs, width: x, rightToLeft: false };
      },
      path: (gid: number) => `path ${gid}`,
    };
  },
}));

const demo = buildStarter();
const part = (i: number) => ({ glyph: `d${i}`, transform: [1, 0, 0, 1, 10, 0] as const });
const request = { texts: ['nno', 'o'], place: { master: 'm1' } };

test('lines come from the font as it would be cast, by glyph id, with an outline for each glyph used', async () => {
  compileService.load(demo);
  const { lines, left } = unwrap(await compileService.setLines(request));
  expect(left).toEqual([]);
  const n = glyphNamed(demo, 'n')!;
  const o = glyphNamed(demo, 'o')!;
  expect(lines[0]!.glyphs.map((g) => g.id)).toEqual([n.id, n.id, o.id]);
  expect(lines[0]!.width).toBe(2 * n.drawings.m1!.advance + o.drawings.m1!.advance);
  expect(Object.keys(lines[0]!.paths)).toHaveLength(2);
  expect(lines[1]!.width).toBe(o.drawings.m1!.advance);
});

test('the font is made anew only when the document changed, and a patch is enough', async () => {
  compileService.load(demo);
  await compileService.setLines(request);
  const before = opened.length;
  await compileService.setLines(request);
  expect(opened).toHaveLength(before);
  const n = glyphNamed(demo, 'n')!;
  const wider = setSides(demo, { at: { glyph: n.id, master: 'm1' }, right: 100 });
  if (!wider.ok) throw new Error(wider.reason);
  compileService.update(stepsOf(patchBetween(demo, wider.project)));
  const { lines } = unwrap(await compileService.setLines(request));
  expect(opened).toHaveLength(before + 1);
  expect(lines[0]!.glyphs[0]!.advance).toBe(wider.project.glyphs[n.id]!.drawings.m1!.advance);
});

test('a master that is not there is said, not thrown', async () => {
  compileService.load(demo);
  expect(await compileService.setLines({ ...request, place: { master: 'gone' } })).toMatchObject(
    refused('That master is not in the project.'),
  );
});

test('a glyph that cannot be made stands blank and is named; all others are set', async () => {
  const n = glyphNamed(demo, 'n')!;
  const o = glyphNamed(demo, 'o')!;
  const drawing = n.drawings.m1!;
  // Twenty glyphs, each built twice of the next, stand behind n: a million contours.
  const doubled = Array.from({ length: 20 }, (_, i) => ({
    ...o,
    id: `d${i}`,
    name: `doubled${i}`,
    unicodes: [],
    cast: false,
    drawings: {
      m1: {
        ...drawing,
        contours: i === 0 ? drawing.contours : [],
        components: i === 0 ? [] : [i - 1, i - 1].map(part),
      },
    },
  }));
  compileService.load({
    ...demo,
    glyphs: {
      ...demo.glyphs,
      ...Object.fromEntries(doubled.map((d) => [d.id, d])),
      [n.id]: { ...n, drawings: { m1: { ...drawing, contours: [], components: [part(19)] } } },
    },
  });
  const { lines, left } = unwrap(await compileService.setLines(request));
  expect(left.map((l) => l.place)).toEqual([{ glyph: 'n' }]);
  expect(left[0]!.reason).toMatch(/^The glyph “n” is built of [\d,]+ contours/);
  // It keeps its width, so that the rest stands where it will stand.
  expect(lines[0]!.width).toBe(2 * drawing.advance + o.drawings.m1!.advance);
  compileService.load(demo);
  expect(unwrap(await compileService.setLines(request)).left).toEqual([]);
});

test('two places are set by turns, each with its own font, and neither is made anew for the other', async () => {
  const first = demo.masters[0]!;
  const wide = { ...first, id: 'm2', name: 'Wide', place: { wdth: 200 } };
  const axis = {
    tag: 'wdth',
    name: 'Width',
    minimum: 100,
    default: 100,
    maximum: 200,
    map: [],
    hidden: false,
    labels: {},
  };
  const glyphs = Object.fromEntries(
    Object.entries(demo.glyphs).map(([id, g]) => {
      const drawing = g.drawings.m1!;
      return [id, { ...g, drawings: { m1: drawing, m2: { ...drawing, advance: drawing.advance + 100 } } }];
    }),
  );
  const family = { ...demo, axes: [axis], masters: [{ ...first, place: { wdth: 100 } }, wide], glyphs };
  compileService.load(family);
  const width = async (design: Record<string, number>) =>
    unwrap(await compileService.setLines({ texts: ['n'], place: { design, name: 'there' } })).lines[0]!.width;
  const narrow = await width({ wdth: 100 });
  const half = await width({ wdth: 150 });
  expect(half).toBe(narrow + 50);
  const made = opened.length;
  for (let i = 0; i < 3; i++) {
    expect(await width({ wdth: 100 })).toBe(narrow);
    expect(await width({ wdth: 150 })).toBe(half);
  }
  expect(opened).toHaveLength(made);
  expect(await width({ wdth: 200 })).toBe(narrow + 100);
  expect(opened.length).toBeGreaterThan(made);
});

test('a glyph is drawn out at a place, and what is not there is nothing', () => {
  compileService.load(demo);
  const n = glyphNamed(demo, 'n')!;
  const drawn = compileService.outline(n.id, {});
  expect(drawn?.advance).toBe(n.drawings.m1!.advance);
  expect(drawn?.path).toMatch(/^M/);
  expect(compileService.outline('gone', {})).toBeUndefined();
});

test('what texts can be set with is told of the rules as they are now', () => {
  compileService.load(demo);
  const before = compileService.settingChoices();
  const section = { id: 'own', title: 'Round', text: 'feature ss07 { script latn; language TRK; sub n by o; } ss07;' };
  const sections = [...demo.features.sections, { ...section, options: {} }];
  const more = { ...demo, features: { ...demo.features, sections } };
  compileService.update(stepsOf(patchBetween(demo, more)));
  const now = compileService.settingChoices();
  expect(before.features.map((f) => f.tag)).not.toContain('ss07');
  expect(now.features).toContainEqual({ tag: 'ss07', title: 'Round', most: 1 });
  expect([now.scripts, now.languages]).toEqual([expect.arrayContaining(['latn']), expect.arrayContaining(['TRK'])]);
});
