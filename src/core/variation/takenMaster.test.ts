import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import type { Outcome } from '../project/edit';
import { kerningOf } from '../project/kerningLookup';
import type { Component, Glyph, Project } from '../project/model';
import { drawingOf, glyphForCodePoint, glyphNamed, masterOf } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { scaledProject } from '../project/scaling';
import { agreementOf } from './agreement';
import { addAxis } from './familyEdits';
import { addTakenMaster, type Taken, takenMaster } from './takenMaster';

const demo = readyDemo();
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
/** The demo in one of its masters alone. */
const alone = (master: string): Project => ({
  ...demo,
  axes: [],
  instances: [],
  masters: demo.masters.filter((m) => m.id === master).map((m) => ({ ...m, place: {} })),
  glyphs: Object.fromEntries(
    Object.entries(demo.glyphs).map(([id, g]) => [id, { ...g, drawings: { [master]: drawingOf(g, master) } }]),
  ),
});
const regular = alone('m1');

/** The Heavy as a stranger has it: other ids, other names, twice the em. */
function stranger(rename: (g: Glyph) => string = (g) => g.name): Project {
  const heavy = scaledProject(alone('m3'), 2, 0);
  const id = (old: string) => `x${old}`;
  const component = (c: Component): Component => ({ ...c, glyph: id(c.glyph) });
  const kerning = Object.fromEntries(
    Object.entries(heavy.masters[0]!.kerning).map(([k, v]) => [k.replace(/glyph:(\S+)/g, 'glyph:x$1'), v]),
  );
  return {
    ...heavy,
    unitsPerEm: heavy.unitsPerEm * 2,
    glyphOrder: heavy.glyphOrder.map(id),
    groups: heavy.groups.map((g) => ({ ...g, members: g.members.map(id) })),
    masters: heavy.masters.map((m) => ({ ...m, kerning })),
    glyphs: Object.fromEntries(
      Object.values(heavy.glyphs).map((g) => [
        id(g.id),
        {
          ...g,
          id: id(g.id),
          name: rename(g),
          follows: { left: [], right: [] },
          drawings: {
            m3: { ...drawingOf(g, 'm3'), components: drawingOf(g, 'm3').components.map(component) },
          },
        },
      ]),
    ),
  };
}

const same = (taken: Taken, names: readonly string[]) => {
  for (const name of names) {
    const glyph = glyphNamed(demo, name)!;
    const [found, wanted] = [taken.drawings[glyph.id]!, drawingOf(glyph, 'm3')];
    expect([name, found.advance]).toEqual([name, wanted.advance]);
    expect([name, found.components.map((c) => c.glyph)]).toEqual([name, wanted.components.map((c) => c.glyph)]);
    found.contours.forEach((c, i) => {
      c.points.forEach((p, k) => {
        const q = wanted.contours[i]!.points[k]!;
        expect([name, Math.hypot(p.x - q.x, p.y - q.y) < 0.01]).toEqual([name, true]);
      });
    });
  }
};

test('another font’s master is matched by names, brought to our em, with its parts, metrics and kerning', () => {
  const taken = takenMaster(regular, stranger(), 'm3');
  expect(taken.matched.name).toBe(demo.glyphOrder.length);
  expect([taken.lacking, taken.over]).toEqual([[], []]);
  same(taken, ['n', 'odieresis', 'ampersand', 'f_i', 'a.sc']);
  const heavy = masterOf(demo, 'm3')!;
  expect(taken.facts.zones.xHeight).toEqual(heavy.zones.xHeight);
  // Pairs are kerned as there, but for exceptions that only the Heavy makes.
  const letters = [...'ATVWYLPKFaceovwyrtfn.,-'].map((c) => glyphForCodePoint(demo, c.codePointAt(0)!)!.id);
  const made = { ...masterOf(regular, 'm1')!, ...taken.facts };
  let [pairs, kerned, otherwise] = [0, 0, 0];
  for (const first of letters)
    for (const second of letters) {
      const [found, wanted] = [made, heavy].map((m) => Math.round(kerningOf(demo, m, first, second)?.value ?? 0));
      pairs++;
      if (wanted !== 0) kerned++;
      if (found !== wanted) otherwise++;
    }
  expect(kerned).toBeGreaterThan(pairs / 4);
  expect(otherwise).toBeLessThan(pairs / 50);
});

test('glyphs are known by their characters where names differ, and by their shapes where they have neither', () => {
  const other = stranger((g) =>
    g.name === '.notdef' || g.name === 'space'
      ? g.name
      : g.unicodes.length > 0
        ? `u${g.unicodes[0]!.toString(16)}`
        : g.name.endsWith('.sc')
          ? `smallcap${g.name.slice(0, -3)}`
          : g.name,
  );
  const taken = takenMaster(regular, other, 'm3');
  expect(taken.matched.code).toBeGreaterThan(300);
  same(taken, ['n', 'odieresis', 'ampersand']);
  // Small capitals are known by shape, though the weight is another; none is taken for another.
  expect(taken.byShape.length).toBeGreaterThan(8);
  for (const [ours, theirs] of taken.byShape)
    if (ours.endsWith('.sc')) expect(theirs).toBe(`smallcap${ours.slice(0, -3)}`);
  expect(taken.lacking.length + taken.byShape.length).toBeLessThan(150);
});

test('a name that means another character is not trusted', () => {
  const [a, o] = ['a', 'o'].map((n) => glyphNamed(demo, n)!);
  const swapped = stranger((g) => (g.id === a!.id ? 'o' : g.id === o!.id ? 'a' : g.name));
  same(takenMaster(regular, swapped, 'm3'), ['a', 'o']);
});

test('the taken master stands on the axis and agrees; what it lacks has the default’s drawing and is told', () => {
  const fewer = done(
    removeGlyphs(stranger(), {
      ids: [`x${glyphNamed(demo, 'dieresiscomb')!.id}`, `x${glyphNamed(demo, 'ampersand')!.id}`],
    }),
  );
  const taken = takenMaster(regular, fewer, 'm3');
  expect(taken.lacking).toEqual(expect.arrayContaining(['ampersand', 'dieresiscomb']));
  const axis = done(addAxis(regular, { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 800 }));
  const { drawings, facts } = taken;
  const outcome = addTakenMaster(axis, { name: 'Heavy', place: { wght: 800 }, drawings, facts });
  expect(outcome.ok && outcome.sentence).toMatch(
    /^Added the master Heavy; 2 glyphs without a fellow there have the default’s drawing$/,
  );
  const family = done(outcome);
  const id = family.masters[1]!.id;
  expect(family.masters[1]).toMatchObject({ name: 'Heavy', place: { wght: 800 } });
  const n = glyphNamed(family, 'n')!;
  expect(agreementOf(family, n)).toEqual([]);
  const ampersand = glyphNamed(family, 'ampersand')!;
  expect(drawingOf(ampersand, id).contours).toEqual(drawingOf(ampersand, 'm1').contours);
  const again = addTakenMaster(family, { name: 'Other', place: { wght: 800 }, drawings, facts });
  expect(again.ok ? '' : again.reason).toMatch(/Heavy stands at weight 800/);
  const none = addTakenMaster(buildStarter(), { name: 'Heavy', place: {}, drawings: {}, facts });
  expect(none.ok ? '' : none.reason).toMatch(/needs an axis/);
});
