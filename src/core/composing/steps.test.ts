import { readyDemo } from '../../../demo/ready';
import type { Glyph, Project } from '../project/model';
import { glyphForCodePoint, glyphNamed } from '../project/queries';
import { groundwork } from './steps';

const demo = readyDemo();
const codes = (text: string) => [...text].map((c) => c.codePointAt(0)!);
const name = (project: Project, id: string) => project.glyphs[id]!.name;
const emptied = (project: Project, code: number): Project => {
  const glyph = glyphForCodePoint(project, code)!;
  const drawings = Object.fromEntries(
    Object.entries(glyph.drawings).map(([m, d]) => [m, { ...d, contours: [], components: [], anchors: [] }]),
  );
  return { ...project, glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings } } };
};
const without = (project: Project, glyph: Glyph, master: string, anchor: string): Project => {
  const d = glyph.drawings[master]!;
  const anchors = d.anchors.filter((a) => a.name !== anchor);
  return {
    ...project,
    glyphs: {
      ...project.glyphs,
      [glyph.id]: { ...glyph, drawings: { ...glyph.drawings, [master]: { ...d, anchors } } },
    },
  };
};

test('for letters whose parts are all drawn with their anchors nothing is left to do', () => {
  const work = groundwork(demo, codes('éÉîçůő'));
  expect(work.dotless).toEqual({ there: [0x131], make: [], lack: [] });
  expect([...work.marks.there].sort((a, b) => a - b)).toEqual([0x301, 0x302, 0x30a, 0x30b, 0x327]);
  expect([work.marks.make, work.marks.lack, work.anchors.lack]).toEqual([[], [], []]);
  // Each base and each mark once: e E ı c u o, and five marks.
  expect(work.anchors.there).toBe(11);
});

test('characters without a recipe ask for nothing', () => {
  expect(groundwork(demo, codes('aß&1Ω'))).toEqual({
    dotless: { there: [], make: [], lack: [] },
    marks: { there: [], make: [], lack: [] },
    anchors: { lack: [], there: 0 },
  });
});

test('an anchor that one master lacks is lacking; the glyph is named once, whatever asks for it', () => {
  const e = glyphNamed(demo, 'e')!;
  const odd = without(demo, e, 'm3', 'top');
  const { anchors } = groundwork(odd, codes('éèêëěę'));
  expect(anchors.lack.map((id) => name(odd, id))).toEqual(['e']);
  // Without any anchors at all both kinds are asked of it, and it is still one glyph.
  const bare = emptied(odd, 0x65);
  expect(groundwork(bare, codes('éę')).anchors.lack).toEqual([]);
});

test('marks and dotless letters that are not drawn are made from others where there is a way', () => {
  const mark = glyphForCodePoint(demo, 0x301)!;
  const spacing = glyphForCodePoint(demo, 0xb4)!;
  // In the demo the spacing acute is built on the mark: without the mark neither is there.
  const bare = emptied(demo, 0x301);
  expect(groundwork(bare, codes('é')).marks).toEqual({ there: [], make: [], lack: [0x301] });
  // With a drawing of its own it gives the mark.
  const drawn: Project = { ...bare, glyphs: { ...bare.glyphs, [spacing.id]: { ...spacing, drawings: mark.drawings } } };
  expect(groundwork(drawn, codes('é')).marks).toEqual({ there: [], make: [0x301], lack: [] });
  // The dotless i is i without its dot.
  expect(groundwork(emptied(demo, 0x131), codes('í')).dotless).toEqual({ there: [], make: [0x131], lack: [] });
});
