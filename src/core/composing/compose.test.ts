import { readyDemo } from '../../../demo/ready';
import { type Coverage, coverageOf, needsOf } from '../coverage/coverage';
import { drawnCodes } from '../coverage/drawn';
import { loadLanguages } from '../coverage/languages';
import { contourBounds } from '../geometry/contour';
import type { Glyph, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed, isEmptyDrawing } from '../project/queries';
import { sameStructure } from '../project/structure';
import { alphabetOf } from '../testing/alphabet';
import { addAnchor, moveAnchor, removeAnchor, renameAnchors } from './anchorEdits';
import { basePlace, markPlace, proposedAnchor } from './anchorPlaces';
import { composed, withAnchors } from './compose';
import { composeGlyphs, placeAnchors } from './edits';
import { markOf } from './marks';
import { baseUnder, recipeOf } from './recipes';
import { composedView, recipeCodes } from './view';

const demo = readyDemo();
const code = (c: string) => c.codePointAt(0)!;
const EUROPE =
  'pl cs sk hu ro tr sq hr sl bs sr-Latn et lv lt fi sv da no is fo nn de nl fr it es pt ca gl eu en ga gd cy br mt lb rm oc vi az eo se mi haw sw id ms fil af zu xh st so om ha yo ig wo ee'.split(
    ' ',
  );

test('every letter with marks of sixty languages has a recipe that Unicode agrees with, or is drawn', async () => {
  const { all } = await loadLanguages();
  for (const wanted of EUROPE) {
    const language = all.find((l) => l.code === wanted)!;
    for (const c of needsOf(language).letters) {
      const character = String.fromCodePoint(c);
      const parts = [...character.normalize('NFD')];
      const recipe = recipeOf(c);
      if (/\p{Script=Greek}/u.test(character)) continue;
      if (parts.length === 1) expect([character, recipe]).toEqual([character, undefined]);
      else {
        expect([character, recipe?.base]).toEqual([character, code(parts[0]!)]);
        expect(recipe!.marks).toHaveLength(parts.length - 1);
      }
    }
  }
});

test('the habits of type designers come before the decomposition', () => {
  expect(recipeOf(code('ď'))).toEqual({ base: code('d'), marks: [{ mark: 0x315, anchor: 'topright' }] });
  expect(recipeOf(code('č'))).toEqual({ base: code('c'), marks: [{ mark: 0x30c, anchor: 'top' }] });
  expect(recipeOf(code('ģ'))!.marks[0]).toEqual({ mark: 0x312, anchor: 'top' });
  expect(recipeOf(code('Ķ'))!.marks[0]).toEqual({ mark: 0x326, anchor: 'bottom' });
  expect(recipeOf(code('ộ'))!.marks.map((m) => m.anchor)).toEqual(['bottom', 'top']);
  expect(baseUnder(recipeOf(code('í'))!)).toBe(code('ı'));
  expect(baseUnder(recipeOf(code('į'))!)).toBe(code('i'));
  expect(recipeOf(code('ώ'))!.marks[0]!.anchor).toBe('top');
  expect(recipeOf(code('Ϊ'))).toBeDefined();
  expect(recipeOf(code('Ά'))).toEqual({ base: code('Α'), marks: [], before: [0x301] });
  expect(recipeOf(code('ᾌ'))).toEqual({ base: code('Α'), marks: [], before: [0x313, 0x301], beside: [code('ι')] });
  expect(recipeOf(code('ǆ'))).toEqual({ base: code('d'), marks: [], beside: [code('ž')] });
  for (const drawn of 'łøđħŧæœßðþ') expect(recipeOf(code(drawn))).toBeUndefined();
});

test('the demo’s own composites come out as they are, from its own anchors', () => {
  const wanted = Object.values(demo.glyphs).filter((g) => {
    const recipe = g.unicodes[0] === undefined ? undefined : recipeOf(g.unicodes[0]);
    return (
      recipe?.marks.length === 1 && recipe.marks[0]!.anchor !== 'topright' && drawingOf(g, 'm1').components.length === 2
    );
  });
  expect(wanted.length).toBeGreaterThan(150);
  const empty = (g: Glyph): Glyph => ({
    ...g,
    drawings: Object.fromEntries(Object.entries(g.drawings).map(([m, d]) => [m, { ...d, components: [] }])),
  });
  const stripped = { ...demo, glyphs: { ...demo.glyphs, ...Object.fromEntries(wanted.map((g) => [g.id, empty(g)])) } };
  const { project, built, notPossible } = composed(
    stripped,
    wanted.map((g) => g.unicodes[0]!),
  );
  expect(notPossible).toEqual([]);
  expect(built).toHaveLength(wanted.length);
  for (const g of wanted)
    for (const m of demo.masters) {
      const [was, now] = [g, project.glyphs[g.id]!].map((x) => drawingOf(x, m.id));
      const parts = (d: typeof was) =>
        d!.components.map((c) => [demo.glyphs[c.glyph]?.name ?? c.glyph, ...c.transform]);
      expect([g.name, m.name, parts(now)]).toEqual([g.name, m.name, parts(was)]);
    }
});

test('from the alphabet and spacing accents to Polish, Czech, Turkish and most of Europe, in every master', async () => {
  const { all } = await loadLanguages();
  const bare = alphabetOf(demo, '.,’`´ˆ˜¯˘˙¨˚˝ˇ¸˛');
  const missing = (p: Project, of: string) => {
    const have = drawnCodes(p);
    return coverageOf([all.find((l) => l.code === of)!], (c) => have.has(c))[0] as Coverage;
  };
  const codes = [...new Set(EUROPE.flatMap((l) => missing(bare, l).missing))];
  const { project, built, made, kept, notPossible } = composed(bare, codes);
  expect(kept).toEqual([]);
  expect(built.length).toBeGreaterThan(180);
  expect(made).toEqual(expect.arrayContaining(['dotlessi', 'acutecomb', 'caroncomb', 'ogonekcomb']));
  for (const l of ['cs', 'et', 'pt', 'hu', 'fr', 'es', 'fi', 'sq']) {
    const left = missing(project, l).missing.map((c) => String.fromCodePoint(c));
    expect([l, left.filter((c) => recipeOf(code(c)))]).toEqual([l, []]);
  }
  // What is left is drawn, and says so.
  for (const { code: c, why } of notPossible)
    expect(why).toMatch(recipeOf(c!) ? /is not drawn yet|has no dot/ : /is no letter with marks; it is drawn\.$/);
  for (const name of built) {
    const glyph = glyphNamed(project, name)!;
    const drawings = project.masters.map((m) => drawingOf(glyph, m.id));
    expect([name, sameStructure(drawings)]).toEqual([name, true]);
    const base = project.glyphs[drawings[0]!.components[0]!.glyph]!;
    for (const [i, m] of project.masters.entries()) {
      expect(drawings[i]!.advance).toBe(drawingOf(base, m.id).advance);
      // Marks above stand above the letter, marks below under its middle, and none is far aside.
      const source = drawingsOf(project, m.id);
      const box = drawingBounds(drawingOf(base, m.id), source);
      for (const part of drawings[i]!.components.slice(1)) {
        const mark = drawingBounds({ ...drawings[i]!, components: [part] }, source);
        const middle = (mark.yMin + mark.yMax) / 2;
        if (part.anchor === 'top') expect(middle).toBeGreaterThan(m.zones.xHeight.position);
        if (part.anchor === 'bottom' || part.anchor === 'ogonek' || part.anchor === 'cedilla')
          expect(middle).toBeLessThan(20);
        const aside = part.anchor === 'topright' ? 160 : 130;
        expect((mark.xMin + mark.xMax) / 2).toBeGreaterThan(box.xMin - 40);
        expect((mark.xMin + mark.xMax) / 2).toBeLessThan(box.xMax + aside);
      }
    }
  }
  // The dotless letter has lost its dot and nothing else.
  const [i, dotless] = ['i', 'ı'].map((c) => glyphForCodePoint(project, code(c))!);
  for (const m of project.masters) {
    const [a, b] = [drawingOf(i!, m.id).contours, drawingOf(dotless!, m.id).contours];
    expect(b).toHaveLength(a.length - 1);
    expect(Math.max(...b.map((c) => contourBounds(c).yMax))).toBeLessThanOrEqual(m.zones.xHeight.position + 30);
  }
});

test('what is drawn by hand is never overwritten; anchors that are there hold', () => {
  const id = glyphNamed(demo, 'eacute')!.id;
  const byHand = { ...demo.glyphs[id]!, drawings: glyphNamed(demo, 'o')!.drawings };
  const project = { ...demo, glyphs: { ...demo.glyphs, [id]: byHand } };
  const again = composed(project, [code('é'), code('è')]);
  expect(again.kept).toEqual(['eacute', 'egrave']);
  expect(again.project).toBe(project);
  expect(composeGlyphs(project, { codes: [code('é')] })).toMatchObject({
    ok: false,
    reason: 'All of these are drawn already.',
  });
  // A base that is drawn in one master only cannot carry a letter in the others.
  const e = glyphNamed(demo, 'e')!;
  const half = { ...e, drawings: { ...e.drawings, m3: { ...e.drawings.m3!, contours: [], components: [] } } };
  const gone = {
    ...byHand,
    drawings: Object.fromEntries(
      Object.entries(byHand.drawings).map(([m, d]) => [m, { ...d, contours: [], components: [] }]),
    ),
  };
  const broken = { ...demo, glyphs: { ...demo.glyphs, [e.id]: half, [id]: gone } };
  expect(composed(broken, [code('é')]).notPossible).toEqual([
    { code: code('é'), name: 'eacute', why: 'e is not drawn yet.' },
  ]);
  const rest = composeGlyphs(alphabetOf(demo, '´'), { codes: [code('é'), code('ł')], addRest: true });
  expect(rest.ok && rest.sentence).toBe(
    'Put 1 letter together, made 1 mark or dotless letter, added 1 empty glyph to be drawn',
  );
});

test('anchors are proposed from shapes: wherever the letter stands and whatever its size, alike; mirrored, mirrored', () => {
  const m1 = demo.masters.find((m) => m.id === 'm1')!;
  const changed = (
    g: Glyph,
    change: (x: number, y: number) => [number, number],
  ): { project: Project; glyph: Glyph } => {
    const d = drawingOf(g, 'm1');
    const contours = d.contours.map((c) => ({
      ...c,
      points: c.points.map((p) => {
        const [x, y] = change(p.x, p.y);
        return { ...p, x, y };
      }),
    }));
    const glyph = { ...g, drawings: { ...g.drawings, m1: { ...d, contours } } };
    return { project: { ...demo, glyphs: { ...demo.glyphs, [g.id]: glyph } }, glyph };
  };
  for (const letter of 'aceghklnorstuxyzABCDEGHKLNORSTUYZ') {
    const glyph = glyphForCodePoint(demo, code(letter))!;
    for (const anchor of ['top', 'bottom'] as const) {
      const at = basePlace(demo, glyph, m1, anchor)!;
      const box = drawingBounds(drawingOf(glyph, 'm1'), drawingsOf(demo, 'm1'));
      expect([letter, at.x >= box.xMin && at.x <= box.xMax]).toEqual([letter, true]);
      const aside = changed(glyph, (x, y) => [x + 137, y]);
      expect(Math.abs(basePlace(aside.project, aside.glyph, m1, anchor)!.x - at.x - 137)).toBeLessThanOrEqual(1);
      const mirrored = changed(glyph, (x, y) => [-x, y]);
      expect(Math.abs(basePlace(mirrored.project, mirrored.glyph, m1, anchor)!.x + at.x)).toBeLessThanOrEqual(1);
    }
  }
  const acute = glyphNamed(demo, 'acutecomb')!;
  const own = markPlace(demo, acute, m1, 'top')!;
  const moved = changed(acute, (x, y) => [x - 90, y]);
  expect(markPlace(moved.project, moved.glyph, m1, 'top')!.x).toBe(own.x - 90);
  expect(proposedAnchor(demo, acute, m1, 'top', 'isMark')).toEqual({ name: '_top', ...own, role: 'isMark' });
});

test('an anchor is moved in one master, added and taken away in all, renamed everywhere', () => {
  const done = (o: ReturnType<typeof addAnchor>): Project => {
    if (!o.ok) throw new Error(o.reason);
    return o.project;
  };
  const id = glyphNamed(demo, 'x')!.id;
  const names = (p: Project, m: string) => drawingOf(p.glyphs[id]!, m).anchors.map((a) => a.name);
  const added = done(addAnchor(demo, { glyph: id, name: 'ogonek' }));
  for (const m of demo.masters) expect(names(added, m.id)).toContain('ogonek');
  expect(addAnchor(added, { glyph: id, name: 'ogonek' })).toMatchObject({
    ok: false,
    reason: 'x has an anchor ogonek already.',
  });
  expect(addAnchor(demo, { glyph: id, name: '1 2' })).toMatchObject({ ok: false });
  const moved = done(moveAnchor(added, { at: { glyph: id, master: 'm3' }, name: 'ogonek', x: 7, y: 9 }));
  expect(drawingOf(moved.glyphs[id]!, 'm3').anchors.find((a) => a.name === 'ogonek')).toMatchObject({ x: 7, y: 9 });
  expect(drawingOf(moved.glyphs[id]!, 'm1')).toBe(drawingOf(added.glyphs[id]!, 'm1'));
  // What is put together at an anchor follows it, in that master; a mark's own anchor moves it on every base.
  const [e, eacute, acute] = ['e', 'eacute', 'acutecomb'].map((n) => glyphNamed(demo, n)!);
  const part = (p: Project, m: string) => drawingOf(p.glyphs[eacute!.id]!, m).components[1]!.transform;
  const top = drawingOf(e!, 'm1').anchors.find((a) => a.name === 'top')!;
  const up = done(moveAnchor(demo, { at: { glyph: e!.id, master: 'm1' }, name: 'top', x: top.x + 5, y: top.y + 30 }));
  expect([part(up, 'm1')[4] - part(demo, 'm1')[4], part(up, 'm1')[5] - part(demo, 'm1')[5]]).toEqual([5, 30]);
  expect(part(up, 'm3')).toEqual(part(demo, 'm3'));
  // Letters of sources that do not say where a mark sits follow where it lies at the anchor.
  const d = drawingOf(eacute!, 'm1');
  const silent = {
    ...demo,
    glyphs: {
      ...demo.glyphs,
      [eacute!.id]: {
        ...eacute!,
        drawings: { ...eacute!.drawings, m1: { ...d, components: d.components.map(({ anchor: _, ...c }) => c) } },
      },
    },
  };
  const told = done(moveAnchor(silent, { at: { glyph: e!.id, master: 'm1' }, name: 'top', x: top.x, y: top.y + 30 }));
  expect(part(told, 'm1')[5] - part(demo, 'm1')[5]).toBe(30);
  const own = drawingOf(acute!, 'm1').anchors.find((a) => a.name === '_top')!;
  const down = moveAnchor(demo, { at: { glyph: acute!.id, master: 'm1' }, name: '_top', x: own.x, y: own.y + 12 });
  expect(down.ok && down.sentence).toMatch(/^Moved the anchor _top in acutecomb, Regular; \d+ letters follow$/);
  expect(part(done(down), 'm1')[5] - part(demo, 'm1')[5]).toBe(-12);
  const gone = done(removeAnchor(moved, { glyph: id, name: 'ogonek' }));
  for (const m of demo.masters) expect(names(gone, m.id)).toEqual(names(demo, m.id));
  const renamed = done(renameAnchors(demo, { from: 'top', to: 'over' }));
  for (const g of Object.values(renamed.glyphs))
    for (const d of Object.values(g.drawings)) {
      expect(d.anchors.some((a) => a.name === 'top' || a.name === '_top')).toBe(false);
      expect(d.components.some((c) => c.anchor === 'top')).toBe(false);
    }
  expect(renameAnchors(demo, { from: 'top', to: 'bottom' })).toMatchObject({ ok: false });
  expect(renameAnchors(demo, { from: 'nowhere', to: 'over' })).toMatchObject({ ok: false });
});

test('anchors are placed in all masters where they lack, and nowhere else', () => {
  const bare = alphabetOf(demo, '.,’`´ˆ˜¯˘˙¨˚˝ˇ¸˛');
  const ids = ['a', 'E', 'one', 'acute'].map((n) => glyphNamed(bare, n)!.id);
  const { project, changed } = withAnchors(bare, ids);
  expect(changed).toBe(2);
  for (const m of bare.masters) {
    expect(drawingOf(project.glyphs[ids[0]!]!, m.id).anchors.map((a) => a.name)).toEqual(['top', 'bottom', 'ogonek']);
    expect(drawingOf(project.glyphs[ids[1]!]!, m.id).anchors.map((a) => a.name)).toContain('cedilla');
  }
  expect(withAnchors(project, ids).project).toBe(project);
  expect(placeAnchors(project, { glyphs: ids })).toMatchObject({ ok: false });
  const hand = glyphNamed(demo, 'a')!;
  expect(withAnchors(demo, [hand.id]).project.glyphs[hand.id]!.drawings.m1!.anchors).toEqual(
    expect.arrayContaining([...hand.drawings.m1!.anchors]),
  );
  expect(markOf(0x301)).toEqual({ code: 0x301, spacing: [0xb4, 0x384], anchor: 'top' });
  expect(isEmptyDrawing(drawingOf(project.glyphs[ids[0]!]!, 'm1'))).toBe(false);
});

test('how letters stand is told by what a build would come to, without building', () => {
  const bare = alphabetOf(demo, '.,’`´ˆ˜¯˘˙¨˚˝ˇ¸˛');
  const codes = [...recipeCodes('Latin'), code('ł')];
  const cells = composedView(bare, codes, 'm1');
  const cell = (c: string) => cells.find((x) => x.code === code(c));
  expect(cell('ł')).toBeUndefined();
  expect(cell('é')).toMatchObject({
    state: 'can',
    base: code('e'),
    preview: { advance: drawingOf(glyphNamed(bare, 'e')!, 'm1').advance },
  });
  expect(cell('é')!.preview!.path).toMatch(/^M/);
  expect(cell('ẹ')).toMatchObject({ state: 'can' });
  expect(cell('ẻ')).toMatchObject({
    state: 'not',
    why: 'hookabovecomb is not drawn yet, nor an accent of that shape.',
  });
  const built = composedView(demo, [code('é'), code('ǻ')], 'm3');
  expect(built.slice(0, 2).map((c) => c.state)).toEqual(['built', 'can']);
  // Recipes of the project's own, here those of small capitals, stand behind what is asked for.
  expect(built.slice(2).map((c) => c.state)).toEqual(demo.settings.recipes!.map(() => 'built'));
  const hand = glyphNamed(demo, 'eacute')!;
  const drawn = {
    ...demo,
    glyphs: { ...demo.glyphs, [hand.id]: { ...hand, drawings: glyphNamed(demo, 'o')!.drawings } },
  };
  expect(composedView(drawn, [code('é')], 'm1')[0]!.state).toBe('hand');
  expect(recipeCodes('Cyrillic')).toContain(code('й'));
  expect(recipeCodes('Greek')).toContain(code('ώ'));
});
