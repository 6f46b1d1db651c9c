import { readyDemo } from '../../../demo/ready';
import { addGlyphs, setGlyphNames } from '../project/glyphEdits';
import type { Glyph, Project } from '../project/model';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed, isEmptyDrawing } from '../project/queries';
import { placesByShape } from './anchorCatches';
import { copyAnchors, moveAnchor } from './anchorEdits';
import { standsOut, takeApart, widenForMarks } from './apart';
import { composed } from './compose';
import { composeGlyphs, placeAnchors, rebuildGlyphs } from './edits';
import { dropRecipe, setRecipe } from './ownRecipes';
import { composedView } from './view';

const demo = readyDemo();
const code = (c: string) => c.codePointAt(0)!;
const done = (outcome: { ok: boolean; project?: Project; reason?: string }): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project!;
};
const at = (p: Project, name: string, master = 'm1') => drawingOf(glyphNamed(p, name)!, master);
/** A glyph without anything drawn, there or added. */
const emptied = (p: Project, name: string): Project => {
  const glyph = glyphNamed(p, name);
  if (!glyph) return done(addGlyphs(p, { requests: [{ name, unicodes: [] }] }));
  const drawings = Object.fromEntries(
    Object.entries(glyph.drawings).map(([m, d]) => [m, { ...d, contours: [], components: [], anchors: [] }]),
  );
  return { ...p, glyphs: { ...p.glyphs, [glyph.id]: { ...glyph, drawings } } };
};
const partsOf = (p: Project, name: string, master = 'm1') =>
  at(p, name, master).components.map((c) => [p.glyphs[c.glyph]!.name, c.transform[4], c.transform[5]]);

test('letters of two stand side by side, as wide as both', () => {
  const { project, built, notPossible } = composed(demo, ['Ĳ', 'ǆ', 'ŀ'].map(code));
  expect(notPossible).toEqual([]);
  for (const name of built)
    for (const m of project.masters) {
      const d = at(project, name, m.id);
      const [first, second] = d.components.map((c) => drawingOf(project.glyphs[c.glyph]!, m.id));
      expect([name, d.components[1]!.transform[4]]).toEqual([name, first!.advance]);
      expect(d.advance).toBe(first!.advance + second!.advance);
      expect(d.anchors).toEqual([]);
    }
  expect(built.length).toBeGreaterThan(0);
});

test('accents stand before Greek capitals, at their height, and nothing touches', () => {
  // The demo has no Greek: its own letters stand for the shapes.
  const as = (p: Project, from: string, name: string, unicode: number): Project => {
    const glyph = glyphNamed(p, from)!;
    const added = done(addGlyphs(p, { requests: [{ name, unicodes: [unicode] }] }));
    const id = added.glyphOrder.at(-1)!;
    return { ...added, glyphs: { ...added.glyphs, [id]: { ...added.glyphs[id]!, drawings: glyph.drawings } } };
  };
  let project = glyphNamed(demo, 'Alpha') ? demo : as(demo, 'A', 'Alpha', 0x391);
  if (!glyphNamed(project, 'tonos')) project = as(project, 'acute', 'tonos', 0x384);
  const { project: next, notPossible } = composed(project, [0x386]);
  expect(notPossible).toEqual([]);
  for (const m of next.masters) {
    const d = drawingOf(next.glyphs[next.glyphOrder.at(-1)!]!, m.id);
    const source = drawingsOf(next, m.id);
    const [base, accent] = d.components.map((c) => drawingBounds({ ...d, components: [c], contours: [] }, source));
    expect(accent!.xMin).toBeGreaterThan(0);
    expect(base!.xMin - accent!.xMax).toBeGreaterThanOrEqual(0.02 * next.unitsPerEm);
    expect(Math.abs(accent!.yMax - m.zones.capHeight.position - 0.02 * next.unitsPerEm)).toBeLessThanOrEqual(1);
    const own = drawingOf(next.glyphs[d.components[0]!.glyph]!, m.id);
    expect(d.advance).toBe(own.advance + d.components[0]!.transform[4]!);
  }
});

test('a recipe of one’s own is put before Unicode’s, for glyphs without a character too; it follows a new name', () => {
  let project = emptied(emptied(demo, 'aacute'), 'a.double');
  project = done(setRecipe(project, { glyph: 'aacute', base: 'a', parts: [{ glyph: 'gravecomb', anchor: 'top' }] }));
  project = done(setRecipe(project, { glyph: 'a.double', base: 'a', parts: [{ glyph: 'aacute', anchor: '' }] }));
  project = done(composeGlyphs(project, { codes: [], names: ['a.double'] }));
  expect(partsOf(project, 'aacute').map(([n]) => n)).toEqual(['a', 'gravecomb']);
  expect(partsOf(project, 'a.double')).toEqual([
    ['a', 0, 0],
    ['aacute', at(project, 'a').advance, 0],
  ]);
  const grave = glyphNamed(project, 'gravecomb')!;
  project = done(setGlyphNames(project, { id: grave.id, name: 'lowered', unicodes: [...grave.unicodes] }));
  const own = (p: Project) => p.settings.recipes!.filter((r) => !r.glyph.endsWith('.sc'));
  expect(own(project)[0]!.parts[0]!.glyph).toBe('lowered');
  expect(own(done(dropRecipe(project, { glyph: 'aacute' })))).toHaveLength(1);
  for (const [wrong, why] of [
    [{ glyph: 'a', base: 'aacute', parts: [{ glyph: 'acutecomb', anchor: 'top' }] }, /from itself/],
    [{ glyph: 'b', base: 'nothing', parts: [{ glyph: 'acutecomb', anchor: 'top' }] }, /no glyph nothing/],
    [{ glyph: 'b', base: 'a', parts: [] }, /at least one part/],
    [{ glyph: 'b', base: 'a', parts: [{ glyph: 'acutecomb', anchor: '2 top' }] }, /no name of an anchor/],
  ] as const)
    expect(setRecipe(project, wrong)).toMatchObject({ ok: false, reason: expect.stringMatching(why) });
});

test('an anchor of another name must be there; what lacks is said', () => {
  let project = emptied(demo, 'aacute');
  project = done(setRecipe(project, { glyph: 'aacute', base: 'a', parts: [{ glyph: 'acutecomb', anchor: 'side' }] }));
  expect(composed(project, [code('á')]).notPossible).toEqual([
    { code: code('á'), name: 'aacute', why: `a has no anchor side in ${demo.masters[0]!.name}.` },
  ]);
});

test('a letter drawn by hand is made anew when asked, its guides kept; taken apart it looks as before', () => {
  const built = glyphNamed(demo, 'eacute')!;
  const apart = done(takeApart(demo, { glyphs: [built.id] }));
  for (const m of demo.masters) {
    const [was, now] = [drawingOf(built, m.id), at(apart, 'eacute', m.id)];
    expect(now.components).toEqual([]);
    expect(now.contours).toEqual(flattened(was, drawingsOf(demo, m.id)));
  }
  expect(takeApart(apart, { glyphs: [built.id] })).toMatchObject({ ok: false });
  const [cell] = composedView(apart, [code('é')], 'm1');
  expect(cell).toMatchObject({ state: 'hand', differs: true, base: code('e'), marks: [0x301] });
  expect(cell!.preview!.path.length).toBeGreaterThan(20);
  expect(composedView(demo, [code('é')], 'm1')[0]).not.toHaveProperty('differs');
  const guide = { x: 0, y: 100, angle: 0 };
  const guided: Project = {
    ...apart,
    glyphs: {
      ...apart.glyphs,
      [built.id]: {
        ...apart.glyphs[built.id]!,
        drawings: {
          ...apart.glyphs[built.id]!.drawings,
          m1: { ...at(apart, 'eacute'), guides: [guide as never] },
        },
      },
    },
  };
  const again = done(rebuildGlyphs(guided, { glyphs: [built.id] }));
  expect(partsOf(again, 'eacute')).toEqual(partsOf(demo, 'eacute'));
  expect(at(again, 'eacute').guides).toEqual([guide]);
  expect(rebuildGlyphs(demo, { glyphs: [glyphNamed(demo, 'o')!.id] })).toMatchObject({ ok: false });
});

test('a form of a mark for capitals, for narrow letters, and for two marks at once is taken where it is drawn', () => {
  const copyAs = (p: Project, from: string, name: string): Project => {
    const glyph = glyphNamed(p, from)!;
    const added = glyphNamed(p, name) ? p : done(addGlyphs(p, { requests: [{ name, unicodes: [] }] }));
    const { id } = glyphNamed(added, name)!;
    const copy: Glyph = { ...added.glyphs[id]!, drawings: glyph.drawings, category: 'mark' };
    return { ...added, glyphs: { ...added.glyphs, [id]: copy } };
  };
  const names = (p: Project, c: string) =>
    drawingOf(p.glyphs[p.glyphOrder.find((id) => p.glyphs[id]!.unicodes.includes(code(c)))!]!, 'm1').components.map(
      (k) => p.glyphs[k.glyph]!.name,
    );
  const dieresis = Object.values(demo.glyphs).find((g) => g.unicodes.includes(0x308))!.name;
  let project = copyAs(demo, 'acutecomb', 'acutecomb.case');
  project = copyAs(project, dieresis, `${dieresis}.narrow`);
  for (const name of ['Aacute', 'aacute', 'idieresis', 'adieresis']) project = emptied(project, name);
  // A mark is wider than the letter only where the letter is very narrow.
  const wide = glyphNamed(project, dieresis)!;
  const width = (p: Project) => {
    const box = drawingBounds(drawingOf(wide, 'm1'), drawingsOf(p, 'm1'));
    return box.xMax - box.xMin;
  };
  const narrow = at(project, 'dotlessi').advance < width(project);
  project = done(composeGlyphs(project, { codes: [...'Ááïä'].map(code) }));
  expect(names(project, 'Á')).toEqual(['A', 'acutecomb.case']);
  expect(names(project, 'á')).toEqual(['a', 'acutecomb']);
  expect(names(project, 'ï')).toEqual(['dotlessi', narrow ? `${dieresis}.narrow` : dieresis]);
  expect(names(project, 'ä')).toEqual(['a', dieresis]);
  const circumflex = Object.values(demo.glyphs).find((g) => g.unicodes.includes(0x302))!.name;
  const stacked = done(composeGlyphs(copyAs(demo, 'acutecomb', `${circumflex}_acutecomb`), { codes: [code('ế')] }));
  expect(names(stacked, 'ế')).toEqual(['e', `${circumflex}_acutecomb`]);
});

test('marks that stand out of a narrow letter are measured, and the letter widened by that in each master', () => {
  const mark = glyphNamed(demo, 'acutecomb')!;
  const i = glyphNamed(demo, 'dotlessi')!;
  // An accent far to the left stands out there.
  const moved = demo.masters.reduce((p, m) => {
    const a = drawingOf(mark, m.id).anchors.find((o) => o.name === '_top')!;
    return done(moveAnchor(p, { at: { glyph: mark.id, master: m.id }, name: '_top', x: a.x + 200, y: a.y }));
  }, demo);
  const iacute = glyphNamed(moved, 'iacute')!;
  const before = moved.masters.map((m) => standsOut(moved, iacute, m.id)!);
  for (const out of before) expect(out.left).toBeGreaterThan(0);
  expect(standsOut(moved, i, 'm1')).toBeUndefined();
  const wide = done(widenForMarks(moved, { glyphs: [iacute.id] }));
  wide.masters.forEach((m, k) => {
    const [was, now] = [drawingOf(iacute, m.id), at(wide, 'iacute', m.id)];
    expect(now.advance).toBe(was.advance + before[k]!.left + before[k]!.right);
    expect(standsOut(wide, glyphNamed(wide, 'iacute')!, m.id)).toBeUndefined();
  });
  expect(widenForMarks(wide, { glyphs: [iacute.id] })).toMatchObject({ ok: false });
});

test('anchors are copied as they lie to other glyphs, in every master', () => {
  const [from, x, z] = ['a', 'x', 'z'].map((n) => glyphNamed(demo, n)!);
  const next = done(copyAnchors(demo, { from: from!.id, names: ['top'], to: [x!.id, z!.id, from!.id] }));
  for (const m of demo.masters) {
    const top = drawingOf(from!, m.id).anchors.find((a) => a.name === 'top')!;
    for (const name of ['x', 'z']) {
      const all = at(next, name, m.id).anchors.filter((a) => a.name === 'top');
      expect([name, all]).toEqual([name, [top]]);
    }
  }
  expect(copyAnchors(demo, { from: from!.id, names: ['nothing'], to: [x!.id] })).toMatchObject({ ok: false });
});

test('a ligature gets carets between its letters and an anchor for the marks of each, drawn together to its width', () => {
  const lig = emptied(demo, 'f_i');
  const f = glyphNamed(demo, 'f')!;
  const id = glyphNamed(lig, 'f_i')!.id;
  const drawn: Project = {
    ...lig,
    glyphs: { ...lig.glyphs, [id]: { ...lig.glyphs[id]!, drawings: f.drawings } },
  };
  const next = done(placeAnchors(drawn, { glyphs: [id] }));
  for (const m of demo.masters) {
    const d = at(next, 'f_i', m.id);
    const [wf, wi] = [at(next, 'f', m.id).advance, at(next, 'i', m.id).advance];
    const caret = d.anchors.find((a) => a.name === 'caret_1')!;
    expect(caret).toMatchObject({ role: 'caret', x: Math.round((wf * d.advance) / (wf + wi)) });
    const [one, two] = ['top_1', 'top_2'].map((n) => d.anchors.find((a) => a.name === n)!);
    expect(one!.x).toBeLessThan(caret.x);
    expect(two!.x).toBeGreaterThan(caret.x);
  }
  expect(isEmptyDrawing(at(next, 'f_i'))).toBe(false);
  expect(placeAnchors(next, { glyphs: [id] })).toMatchObject({ ok: false });
});

test('an anchor catches on the middle of its shape, and on where the shape would place it', () => {
  const o = glyphNamed(demo, 'o')!;
  const box = drawingBounds(drawingOf(o, 'm1'), drawingsOf(demo, 'm1'));
  const caught = placesByShape(demo, { glyph: o.id, master: 'm1' }, 'top');
  expect(caught.map((c) => c.kind)).toEqual(['upright', 'upright', 'level']);
  expect(caught[0]).toMatchObject({ x: (box.xMin + box.xMax) / 2, name: 'middle of the shape' });
  const bare: Project = {
    ...demo,
    masters: demo.masters.map((m) => ({ ...m, italicAngle: -12 })),
  };
  const [middle] = placesByShape(bare, { glyph: o.id, master: 'm1' }, 'side');
  // Twelve degrees to the right of upright.
  expect(middle).toMatchObject({ kind: 'line', angle: expect.closeTo((78 * Math.PI) / 180, 6) });
  expect(placesByShape(demo, { glyph: glyphNamed(demo, 'space')!.id, master: 'm1' }, 'top')).toEqual([]);
});
