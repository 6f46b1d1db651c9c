import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { castFont } from '../casting/font';
import type { Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphNamed, masterThere } from '../project/queries';
import { sameStructure } from '../project/structure';
import { addReweighedMaster, reweightGlyphs, setStems, takeReweighed } from './edits';
import { type ReweightAsked, reweighedGlyphs } from './many';

const demo = readyDemo();
const id = (name: string) => glyphNamed(demo, name)!.id;
const asked = (names: readonly string[], change: Partial<ReweightAsked> = {}): ReweightAsked => ({
  glyphs: names.map(id),
  master: 'm1',
  from: { vertical: 84, horizontal: 73 },
  to: { vertical: 130, horizontal: 104 },
  width: 1,
  bearings: 'share',
  rounds: 1,
  own: {},
  ...change,
});
const done = (outcome: ReturnType<typeof takeReweighed>): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};

test('what is built of parts follows its parts: the accent stays over the letter, at its height', () => {
  const { made, left } = reweighedGlyphs(
    demo,
    asked(['a', 'acute', 'acutecomb', 'aacute', 'agrave'].filter((n) => glyphNamed(demo, n))),
  );
  expect(left.map((l) => l.glyph)).toEqual([]);
  const after = new Map(made.map((m) => [m.glyph, m.drawing]));
  const before = drawingOf(demo.glyphs[id('aacute')]!, 'm1');
  const now = after.get(id('aacute'))!;
  expect(now.components.map((c) => c.glyph)).toEqual(before.components.map((c) => c.glyph));
  expect(now.contours).toEqual([]);
  const changed = done(
    takeReweighed(demo, { master: 'm1', made: made.map(({ glyph, drawing }) => ({ glyph, drawing })) }),
  );
  const part = (project: Project, n: number) => {
    const d = drawingOf(project.glyphs[id('aacute')]!, 'm1');
    return drawingBounds({ ...d, contours: [], components: [d.components[n]!] }, drawingsOf(project, 'm1'));
  };
  expect(Math.abs(part(changed, 1).yMin - part(demo, 1).yMin)).toBeLessThanOrEqual(1);
  const middle = (b: ReturnType<typeof part>) => (b.xMin + b.xMax) / 2;
  expect(
    Math.abs(middle(part(changed, 1)) - middle(part(changed, 0)) - (middle(part(demo, 1)) - middle(part(demo, 0)))),
  ).toBeLessThan(12);
  expect(now.advance).toBe(after.get(id('a'))!.advance);
});

test('what is built of parts that stay, and what is empty, is told and left', () => {
  const bare = { ...demo, glyphs: { ...demo.glyphs, [id('b')]: { ...demo.glyphs[id('b')]!, drawings: {} } } };
  const { made, left } = reweighedGlyphs(bare, asked(['aacute', 'b', 'n']));
  expect(made.map((m) => m.glyph)).toEqual([id('n')]);
  expect(left).toEqual([
    { glyph: id('b'), reason: 'Nothing is drawn yet.' },
    { glyph: id('aacute'), reason: 'It is built of parts that are not reweighted with it.' },
  ]);
});

test('one glyph may be made heavier or lighter than the others', () => {
  const [plain, heavier] = [asked(['l']), asked(['l'], { own: { [id('l')]: 12 } })].map(
    (a) => reweighedGlyphs(demo, a).made[0]!.drawing,
  );
  const width = (d: typeof plain) => {
    const xs = d!.contours.flatMap((c) => c.points.filter((p) => p.y > 400).map((p) => p.x));
    return Math.max(...xs) - Math.min(...xs);
  };
  expect(Math.abs(width(heavier) - width(plain) - 12)).toBeLessThan(2);
});

test('in one step: in place, into another master, or as a new master that agrees and casts', () => {
  const { own: _, ...args } = asked(['n', 'o', 'H']);
  const inPlace = done(reweightGlyphs(demo, args));
  expect(drawingOf(inPlace.glyphs[id('n')]!, 'm1')).not.toEqual(drawingOf(demo.glyphs[id('n')]!, 'm1'));
  const into = done(reweightGlyphs(demo, { ...args, into: 'm3' }));
  expect(drawingOf(into.glyphs[id('n')]!, 'm1')).toBe(drawingOf(demo.glyphs[id('n')]!, 'm1'));
  expect(drawingOf(into.glyphs[id('n')]!, 'm3')).toEqual(drawingOf(inPlace.glyphs[id('n')]!, 'm1'));
  const nothing = reweightGlyphs(demo, { ...args, glyphs: [] });
  expect(nothing).toMatchObject({ ok: false, reason: 'No glyph could be reweighted.' });
});

test('a project of one master gets the axis that its second master stands on', () => {
  const one = buildStarter();
  const ids = one.glyphOrder;
  const made = reweighedGlyphs(one, { ...asked([]), glyphs: ids }).made.map(({ glyph, drawing }) => ({
    glyph,
    drawing,
  }));
  const two = done(addReweighedMaster(one, { name: 'Bold', place: { wght: 700 }, copy: 'm1', made }));
  expect(two.axes).toMatchObject([{ tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 700 }]);
  const bold = two.masters.at(-1)!;
  expect(bold.name).toBe('Bold');
  for (const glyph of Object.values(two.glyphs))
    expect([glyph.name, sameStructure([drawingOf(glyph, 'm1'), drawingOf(glyph, bold.id)])]).toEqual([
      glyph.name,
      true,
    ]);
  const font = castFont(two, { flavour: 'ttf', place: { master: 'm1' }, variable: true, blanks: true });
  if (!font.ok) throw new Error(font.reason);
  // Taken twice it is refused, and nothing changes.
  expect(addReweighedMaster(two, { name: 'Bold', place: { wght: 700 }, copy: 'm1', made }).ok).toBe(false);
});

test('stems are kept with a master and given back to measuring', () => {
  const kept = done(setStems(demo, { master: 'm1', vertical: 90, horizontal: 70 }));
  expect(masterThere(kept, 'm1').stems.slice(0, 2)).toEqual([
    { name: 'Vertical', value: 90, vertical: true },
    { name: 'Horizontal', value: 70, vertical: false },
  ]);
  // Those that came with the project stay behind them.
  expect(masterThere(kept, 'm1').stems.slice(2)).toEqual(masterThere(demo, 'm1').stems);
  const back = done(setStems(kept, { master: 'm1' }));
  expect(masterThere(back, 'm1').stems).toEqual(masterThere(demo, 'm1').stems);
  expect(setStems(demo, { master: 'm1' }).ok).toBe(false);
});
