import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { readMarkAnchors } from '../opentype/anchorsRead';
import { readLayout } from '../opentype/layout/lists';
import { readSfnt, tableOf } from '../opentype/sfnt';
import type { Anchor, Glyph, Project } from '../project/model';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';
import { castFont } from './font';

const demo = readyDemo();
const folder = mkdtempSync(join(tmpdir(), 'wendril-marks-'));
type Shaped = { name: string; advance: number; x: number; y: number };

function shaped(bytes: Uint8Array, text: string): Shaped[] {
  const path = join(folder, 'marks.font');
  writeFileSync(path, bytes);
  const file = join(folder, 'text.txt');
  writeFileSync(file, text);
  return JSON.parse(
    execFileSync(process.execPath, ['scripts/shape.mjs', path, `@@${file}`, 'kern=0'], {
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    }),
  );
}

/** Letters built of one base and one combining mark that has a code point, with the two characters that spell them. */
const letters = Object.values(demo.glyphs).flatMap((g) => {
  const [base, mark, ...more] = drawingOf(g, 'm1').components.map((c) => demo.glyphs[c.glyph]!);
  const spelled = base?.unicodes[0] !== undefined && mark?.unicodes[0] !== undefined && more.length === 0;
  return spelled && g.unicodes.length > 0 && /\p{M}/u.test(String.fromCodePoint(mark.unicodes[0]!))
    ? [{ glyph: g, text: String.fromCodePoint(base.unicodes[0]!, mark.unicodes[0]!) }]
    : [];
});

/** The demo without its composed letters in the font, so that text has to be put together by the shaper. */
const bare: Project = {
  ...demo,
  glyphs: { ...demo.glyphs, ...Object.fromEntries(letters.map(({ glyph }) => [glyph.id, { ...glyph, cast: false }])) },
};

test('HarfBuzz sets base and mark where the composed letter has them, in every master and outline kind', () => {
  expect(letters.length).toBeGreaterThan(90);
  for (const m of demo.masters)
    for (const flavour of m.id === 'm1' ? (['otf', 'ttf'] as const) : (['otf'] as const)) {
      const font = castFont(bare, { flavour, place: { master: m.id } });
      if (!font.ok) throw new Error(font.reason);
      const line = shaped(font.value.bytes, letters.map((l) => l.text).join(' '));
      expect(line).toHaveLength(letters.length * 3 - 1);
      letters.forEach(({ glyph }, i) => {
        const [base, mark] = [line[3 * i]!, line[3 * i + 1]!];
        const [, part] = drawingOf(glyph, m.id).components;
        const [, , , , dx, dy] = part!.transform;
        expect([glyph.name, mark.advance]).toEqual([glyph.name, 0]);
        expect([glyph.name, m.name, Math.abs(base.advance + mark.x - dx) <= 1, Math.abs(mark.y - dy) <= 1]).toEqual([
          glyph.name,
          m.name,
          true,
          true,
        ]);
      });
    }
});

test('every base with every mark stands where the anchors say, and marks on marks', () => {
  const m = demo.masters.find((x) => x.id === 'm1')!;
  const top = glyphNamed(demo, 'acutecomb')!;
  // A second mark stands on the first.
  const d = drawingOf(top, 'm1');
  const carrying: Glyph = {
    ...top,
    drawings: {
      ...top.drawings,
      m1: {
        ...d,
        anchors: [...d.anchors.filter((a) => a.name !== 'top'), { name: 'top', x: 7, y: 811, role: 'takesMark' }],
      },
    },
  };
  const project = { ...bare, glyphs: { ...bare.glyphs, [top.id]: carrying } };
  const font = castFont(project, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const marks = Object.values(project.glyphs).filter(
    (g) => g.unicodes[0] !== undefined && drawingOf(g, 'm1').anchors.some((a) => a.name.startsWith('_')),
  );
  const bases = [...'axzbHOQWgjpsty'].map((c) => glyphForCodePoint(project, c.codePointAt(0)!)!);
  const pairs = bases.flatMap((b) => marks.map((k) => [b, k] as const));
  const line = shaped(
    font.value.bytes,
    pairs.map(([b, k]) => String.fromCodePoint(b.unicodes[0]!, k.unicodes[0]!)).join(' '),
  );
  // What is composed in the font comes as one glyph; words tell it apart.
  const words: Shaped[][] = [[]];
  for (const g of line) {
    if (g.name === 'space') words.push([]);
    else words.at(-1)!.push(g);
  }
  let set = 0;
  pairs.forEach(([b, k], i) => {
    const sits = drawingOf(k, 'm1').anchors.find((a) => a.name.startsWith('_'))!;
    const on = drawingOf(b, 'm1').anchors.find((a) => a.name === sits.name.slice(1));
    const [base, mark] = words[i]!;
    // Under a mark above j is its dotless form.
    if (!on || !base || !mark || base.name !== b.name) return;
    set++;
    expect([b.name, k.name, base.advance + mark.x, mark.y]).toEqual([
      b.name,
      k.name,
      Math.round(on.x) - Math.round(sits.x),
      Math.round(on.y) - Math.round(sits.y),
    ]);
  });
  expect(set).toBeGreaterThan(100);
  const [x, first, second] = shaped(font.value.bytes, 'x\u0301\u0301');
  const at = drawingOf(top, 'm1').anchors.find((a) => a.name === '_top')!;
  expect([second!.x - first!.x, second!.y - first!.y]).toEqual([7 - Math.round(at.x), 811 - Math.round(at.y)]);
  expect(x!.name).toBe('x');
  expect(m.id).toBe('m1');
});

test('the anchors are read back from the font; GDEF says which glyphs are marks', () => {
  const font = castFont(demo, { flavour: 'ttf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const sfnt = readSfnt(font.value.bytes);
  const layout = readLayout(tableOf(sfnt, 'GPOS'), 'GPOS', 9);
  expect(layout.features.map((f) => f.tag).sort()).toEqual([...layout.features.map((f) => f.tag)].sort());
  expect(new Set(layout.features.map((f) => f.tag))).toEqual(
    new Set(
      ['cpsp', 'kern', 'mark', 'mkmk'].filter((t) => t !== 'mkmk' || layout.features.some((f) => f.tag === 'mkmk')),
    ),
  );
  const found = readMarkAnchors(tableOf(sfnt, 'GPOS'), undefined);
  const a = glyphNamed(demo, 'a')!;
  const index = font.value.glyphIds.indexOf(a.id);
  const own = drawingOf(a, 'm1').anchors;
  for (const anchor of own.filter((o) => o.name === 'top' || o.name === 'bottom'))
    expect(found).toContainEqual(
      expect.objectContaining({ glyph: index, mark: false, x: Math.round(anchor.x), y: Math.round(anchor.y) }),
    );
  expect(sfnt.tables.has('GDEF')).toBe(true);
});

test('i and j lose their dot under marks above, also where a mark below comes first; nowhere else', () => {
  const font = castFont(demo, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const names = (text: string) => shaped(font.value.bytes, text).map((g) => g.name);
  // There is no single glyph for these in the font, so that they are put together from two.
  expect(names('i\u030c')).toEqual(['dotlessi', 'uni030C']);
  expect(names('j\u0301')).toEqual(['uni0237', 'acutecomb']);
  expect(names('i\u0326\u030c')).toEqual(['dotlessi', 'uni0326', 'uni030C']);
  expect(names('i\u0326')).toEqual(['i', 'uni0326']);
  expect(names('in')).toEqual(['i', 'n']);
  expect(readLayout(tableOf(readSfnt(font.value.bytes), 'GSUB'), 'GSUB', 7).features.map((f) => f.tag)).toContain(
    'ccmp',
  );
});

/** A glyph with other anchors in the first master, and the project with it. */
function anchoredWith(project: Project, name: string, anchors: readonly Anchor[]): Project {
  const glyph = glyphNamed(project, name)!;
  const d = drawingOf(glyph, 'm1');
  const names = new Set(anchors.map((a) => a.name));
  const next = { ...d, anchors: [...d.anchors.filter((a) => !names.has(a.name)), ...anchors] };
  return {
    ...project,
    glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings: { ...glyph.drawings, m1: next } } },
  };
}

test('a mark below between two above does not part them: HarfBuzz stacks over it', () => {
  const project = anchoredWith(bare, 'acutecomb', [{ name: 'top', x: 5, y: 820, role: 'takesMark' }]);
  const below = Object.values(project.glyphs).find(
    (g) =>
      g.unicodes[0] !== undefined && drawingOf(g, 'm1').anchors.some((a) => /^_(bottom|cedilla|ogonek)$/.test(a.name)),
  )!;
  const font = castFont(project, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  // HarfBuzz orders marks by their classes; a joiner between keeps this order.
  const text = `x\u0301\u034f${String.fromCodePoint(below.unicodes[0]!)}\u034f\u0301`;
  const marks = shaped(font.value.bytes, text).filter((g) => g.name === 'acutecomb');
  expect(marks).toHaveLength(2);
  const at = drawingOf(glyphNamed(project, 'acutecomb')!, 'm1').anchors.find((a) => a.name === '_top')!;
  expect(marks[1]!.y - marks[0]!.y).toBe(820 - Math.round(at.y));
});

test('marks sit on the parts of a ligature, and it has carets between them', () => {
  const f = glyphNamed(demo, 'f')!;
  const ligature: Glyph = { ...f, id: 'lig', name: 'x_x', unicodes: [0xa7f7], category: 'ligature' };
  const project = anchoredWith(
    { ...bare, glyphOrder: [...bare.glyphOrder, 'lig'], glyphs: { ...bare.glyphs, lig: ligature } },
    'x_x',
    [
      { name: 'top_1', x: 110, y: 730, role: 'takesMark' },
      { name: 'top_2', x: 410, y: 740, role: 'takesMark' },
      { name: 'caret_1', x: 260, y: 0, role: 'caret' },
    ],
  );
  const font = castFont(project, { flavour: 'ttf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const tables = readSfnt(font.value.bytes).tables;
  const anchors = readMarkAnchors(tables.get('GPOS')!).filter((a) => a.part !== undefined);
  expect(anchors.map((a) => [a.part, a.x, a.y])).toEqual([
    [1, 110, 730],
    [2, 410, 740],
  ]);
  // A mark after a ligature that was not made by a rule sits on its last part.
  const [base, mark] = shaped(font.value.bytes, '\ua7f7\u0301');
  const at = drawingOf(glyphNamed(project, 'acutecomb')!, 'm1').anchors.find((a) => a.name === '_top')!;
  expect([base!.advance + mark!.x, mark!.y]).toEqual([410 - Math.round(at.x), 740 - Math.round(at.y)]);
});
