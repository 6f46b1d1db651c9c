import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { setFollows } from '../fitting/follows';
import { setSides, sidesOf } from '../fitting/sides';
import { editDrawing } from '../project/edit';
import { renameGlyphs } from '../project/glyphEdits';
import type { Glyph, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphNamed } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { sameStructure } from '../project/structure';
import { middleWidth, strokesIn } from '../reweighting/strokes';
import { derivedSet, madeSet, printOf } from './derive';
import { deriveSet, makeLigature, setSetTerms, setSetWay, spaceSet, weldParts } from './edits';
import { SETS, setOf } from './sets';
import { setView } from './view';

const done = (outcome: ReturnType<typeof deriveSet>): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
/** The demo without what sets can make, so that they make it. */
const demo = readyDemo();
/** Three of its masters tell as much as six. */
const whole: Project = { ...demo, masters: demo.masters.slice(0, 3) };
const made = /\.(sc|onum|pnum|numr|dnom)$|(superior|inferior)$|\w\.case$|^(onehalf|onequarter|threequarters)$/;
const bare = done(
  removeGlyphs(whole, {
    ids: whole.glyphOrder.filter((id) => made.test(whole.glyphs[id]!.name) && !/comb/.test(whole.glyphs[id]!.name)),
  }),
);
const box = (p: Project, name: string, master = 'm1') =>
  drawingBounds(drawingOf(glyphNamed(p, name)!, master), drawingsOf(p, master));
const stem = (p: Project, name: string, master = 'm1') => {
  const d = drawingOf(glyphNamed(p, name)!, master);
  return middleWidth(strokesIn(d.contours, d.advance, 300).filter((s) => s.kind === 'vertical'))!;
};
const states = (p: Project, key: string) => {
  const counts: Record<string, number> = {};
  for (const { state } of derivedSet(p, setOf(key)!)) counts[state] = (counts[state] ?? 0) + 1;
  return counts;
};

const all = SETS.reduce((p, set) => {
  const { project, left } = madeSet(p, set);
  expect([set.key, left]).toEqual([set.key, []]);
  return project;
}, bare);

test('every set is made of the demo’s letters, in masters that agree, and stays as made', () => {
  for (const set of SETS) {
    const items = set.items(bare);
    // The demo’s figures have one width; and two of its letters touch after f.
    expect([set.key, items.length > (set.key === 'tabular' ? -1 : 1)]).toEqual([set.key, true]);
    for (const { name } of items) {
      const glyph = glyphNamed(all, name);
      expect([name, glyph !== undefined]).toEqual([name, true]);
      const drawings = all.masters.map((m) => drawingOf(glyph!, m.id));
      expect([name, sameStructure(drawings)]).toEqual([name, true]);
    }
    const { can = 0, changed = 0, corrected = 0 } = states(all, set.key);
    expect([set.key, can, changed, corrected]).toEqual([set.key, 0, 0, 0]);
    expect(deriveSet(all, { set: set.key })).toMatchObject({ ok: false, reason: 'All of this set is drawn already.' });
  }
  expect(all.unitsPerEm).toBe(1000);
});

test('drafts are shown of all that can be made, of letters that need their fellows first too', () => {
  const items = setView(bare, 'smallCaps', 'm1');
  for (const item of items) expect([item.name, item.state, item.draft !== undefined]).toEqual([item.name, 'can', true]);
  expect(items.find((i) => i.name === 'aacute.sc')!.of).toContain('a.sc');
  expect(setView(bare, 'nothing', 'm1')).toEqual([]);
  expect(setView(all, 'smallCaps', 'm1').every((i) => i.draft === undefined)).toBe(true);
});

test('small capitals stand at their height with the weight of small letters, accents at their anchors, in text by their names', () => {
  for (const master of ['m1', 'm2', 'm3']) {
    const height = box(all, 'h.sc', master).yMax;
    const x = box(all, 'x', master).yMax;
    expect(Math.abs(height / x - 1.04)).toBeLessThan(0.01);
    const weight = stem(all, 'h.sc', master) / stem(all, 'h', master);
    expect([master, weight > 0.97 && weight < 1.14]).toEqual([master, true]);
  }
  const accented = drawingOf(glyphNamed(all, 'aacute.sc')!, 'm1');
  expect(accented.contours).toEqual([]);
  expect(accented.components[0]!.glyph).toBe(glyphNamed(all, 'a.sc')!.id);
  expect(box(all, 'aacute.sc').yMax).toBeGreaterThan(box(all, 'a.sc').yMax + 80);
  expect(all.masters.every((m) => m.zones.own.some((z) => z.name === 'small capitals'))).toBe(true);
  // A group of H's fellows has one of their small capitals beside it.
  const h = glyphNamed(all, 'h.sc')!.id;
  const group = all.groups.find((g) => g.side === 'first' && g.members.includes(h));
  const of = all.groups.find((g) => g.side === 'first' && g.members.includes(glyphNamed(all, 'H')!.id));
  expect(group?.name).toBe(of && `${of.name}.sc`);
});

test('superiors have the weight of text and not of their size; inferiors, numerators and denominators are the same parts elsewhere', () => {
  const share = box(all, 'onesuperior').yMax - box(all, 'onesuperior').yMin;
  const one = box(all, 'one').yMax - box(all, 'one').yMin;
  expect(Math.abs(share / one - 0.62)).toBeLessThan(0.02);
  const weight = stem(all, 'onesuperior') / stem(all, 'one');
  expect(weight > 0.74 && weight < 0.94).toBe(true);
  for (const name of ['oneinferior', 'one.numr', 'one.dnom']) {
    const d = drawingOf(glyphNamed(all, name)!, 'm1');
    expect(d.contours).toEqual([]);
    expect(d.components.map((c) => all.glyphs[c.glyph]!.name)).toEqual(['onesuperior']);
  }
  expect(Math.abs(box(all, 'four.dnom').yMin)).toBeLessThan(6);
  expect(box(all, 'oneinferior').yMin).toBeLessThan(-80);
  const half = drawingOf(glyphNamed(all, 'onehalf')!, 'm1');
  expect(half.components.map((c) => all.glyphs[c.glyph]!.name)).toEqual(['one.numr', 'fraction', 'two.dnom']);
  expect(glyphNamed(all, 'onehalf')!.unicodes).toEqual([0xbd]);
});

test('ligatures are made of parts with carets and anchors, and welded where that keeps masters in agreement', () => {
  const without = done(
    removeGlyphs(whole, { ids: whole.glyphOrder.filter((id) => /^f_/.test(whole.glyphs[id]!.name)) }),
  );
  const items = derivedSet(without, setOf('ligatures')!);
  expect(items.slice(0, 5).map((i) => i.name)).toEqual(['f_f', 'f_i', 'f_l', 'f_f_i', 'f_f_l']);
  const { project, made: names } = madeSet(without, setOf('ligatures')!);
  expect(names).toEqual(expect.arrayContaining(['f_f_i']));
  const ffi = glyphNamed(project, 'f_f_i')!;
  expect(ffi.unicodes).toEqual([0xfb03]);
  for (const m of project.masters) {
    const d = drawingOf(ffi, m.id);
    expect(d.components.map((c) => project.glyphs[c.glyph]!.name)).toEqual(['f', 'f', 'i']);
    const carets = d.anchors.filter((a) => a.role === 'caret').map((a) => a.x);
    const f = drawingOf(glyphNamed(project, 'f')!, m.id).advance;
    expect(carets).toEqual([f, 2 * f]);
    expect(d.advance).toBe(2 * f + drawingOf(glyphNamed(project, 'i')!, m.id).advance);
  }
  const own = done(makeLigature(project, { letters: 'tj' }));
  expect(glyphNamed(own, 't_j')).toBeDefined();
  expect(makeLigature(own, { letters: 't_j' })).toMatchObject({ ok: false, reason: 't_j is drawn already.' });
  expect(makeLigature(own, { letters: 'x' }).ok).toBe(false);
  const weld = weldParts(own, { glyphs: [ffi.id] });
  if (weld.ok)
    expect(sameStructure(own.masters.map((m) => drawingOf(glyphNamed(weld.project, 'f_f_i')!, m.id)))).toBe(true);
  else expect(weld.reason).toMatch(/would not agree/);
  expect(weldParts(own, { glyphs: [glyphNamed(own, 'f')!.id] })).toMatchObject({ ok: false });
});

test('figures of one width are as wide as the widest in every master; signs beside capitals stand at their middle', () => {
  expect(setOf('tabular')!.items(all)).toEqual([]);
  // Figures that differ in width come to one.
  const zero = glyphNamed(all, 'zero')!.id;
  const uneven = all.masters.reduce(
    (p, m) => done(editDrawing(p, { glyph: zero, master: m.id }, 'Wider', (d) => ({ ...d, advance: d.advance + 30 }))),
    all,
  );
  const tabular = madeSet(uneven, setOf('tabular')!).project;
  for (const m of all.masters) {
    const widths = ['zero', 'one', 'seven'].map((n) => drawingOf(glyphNamed(tabular, `${n}.tnum`)!, m.id).advance);
    expect(widths).toEqual(widths.map(() => drawingOf(uneven.glyphs[zero]!, m.id).advance));
    const dash = box(all, 'hyphen.case', m.id);
    expect(Math.abs((dash.yMin + dash.yMax) / 2 - box(all, 'H', m.id).yMax / 2)).toBeLessThan(2);
  }
});

test('what a set made follows what it comes from; what was corrected by hand is never overwritten', () => {
  const n = glyphNamed(all, 'H')!;
  const wider = done(
    editDrawing(all, { glyph: n.id, master: 'm1' }, 'Moved a side', (d) => ({
      ...d,
      contours: d.contours.map((c) => ({
        ...c,
        points: c.points.map((p) => ({ ...p, y: p.y > 100 && p.y < 600 ? p.y + 12 : p.y })),
      })),
    })),
  );
  const changed = derivedSet(wider, setOf('smallCaps')!).filter((i) => i.state === 'changed');
  expect(changed.map((i) => i.name)).toEqual(['h.sc']);
  const sc = glyphNamed(wider, 'h.sc')!;
  const byHand = done(
    editDrawing(wider, { glyph: sc.id, master: 'm1' }, 'Corrected', (d) => ({
      ...d,
      contours: d.contours.map((c) => ({ ...c, points: c.points.map((p, i) => (i === 1 ? { ...p, y: p.y + 3 } : p)) })),
    })),
  );
  expect(
    derivedSet(byHand, setOf('smallCaps')!)
      .filter((i) => i.state === 'corrected')
      .map((i) => i.name),
  ).toEqual(['h.sc']);
  expect(deriveSet(byHand, { set: 'smallCaps' }).ok).toBe(false);
  const followed = deriveSet(wider, { set: 'smallCaps' });
  expect(followed).toMatchObject({ ok: true, sentence: 'Small capitals: brought 1 glyph up to date' });
  const print = (p: Project, drawings: Glyph['drawings']) => printOf(p, drawings, { how: 'scaled' });
  expect(print(all, glyphNamed(done(followed), 'h.sc')!.drawings)).not.toBe(print(all, sc.drawings));
});

test('its numbers are the designer’s, and hold through new names and removal', () => {
  const taller = done(setSetTerms(all, { set: 'smallCaps', height: 112 }));
  expect(states(taller, 'smallCaps').changed).toBeGreaterThan(25);
  const anew = done(deriveSet(taller, { set: 'smallCaps' }));
  expect(Math.abs(box(anew, 'h.sc').yMax / box(anew, 'x').yMax - 1.12)).toBeLessThan(0.01);
  const id = glyphNamed(all, 'h.sc')!.id;
  const renamed = done(renameGlyphs(all, { renames: [{ id, name: 'h.smcp' }] }));
  expect(renamed.settings.deriving!.made!.some((m) => m.glyph === id)).toBe(true);
  const removed = done(removeGlyphs(all, { ids: [id] }));
  expect(removed.settings.deriving!.made!.some((m) => m.glyph === id)).toBe(false);
  expect(setSetTerms(all, { set: 'nothing' })).toMatchObject({ ok: false });
});

test('one glyph may be made heavier or wider than its set', () => {
  const own = done(setSetTerms(all, { set: 'smallCaps', glyph: 's.sc', weight: 130 }));
  expect(
    derivedSet(own, setOf('smallCaps')!)
      .filter((i) => i.state === 'changed')
      .map((i) => i.name),
  ).toEqual(['s.sc']);
  const followed = done(deriveSet(own, { set: 'smallCaps' }));
  expect(states(followed, 'smallCaps').changed ?? 0).toBe(0);
  const back = done(setSetTerms(followed, { set: 'smallCaps', glyph: 's.sc', asSet: true }));
  expect(states(back, 'smallCaps').changed).toBe(1);
  expect(setSetTerms(all, { set: 'smallCaps', glyph: 'nobody', weight: 90 })).toMatchObject({ ok: false });
  expect(setSetTerms(all, { set: 'smallCaps', glyph: 's.sc', asSet: true }).ok).toBe(false);
});

test('sides are set by fitting once a set is made: they stay when it is made again, and the set fits them by its own controls', () => {
  const moved = done(setSides(all, { at: { glyph: glyphNamed(all, 'b.sc')!.id, master: 'm1' }, left: 90, right: 40 }));
  expect(states(moved, 'smallCaps')).toEqual(states(all, 'smallCaps'));
  const anew = done(
    deriveSet(done(setSetTerms(moved, { set: 'smallCaps', height: 110, weight: 120 })), { set: 'smallCaps' }),
  );
  expect(sidesOf(anew, glyphNamed(anew, 'b.sc')!, 'm1')).toMatchObject({ left: 90, right: 40 });
  expect(box(anew, 'b.sc').yMax).toBeGreaterThan(box(moved, 'b.sc').yMax + 10);

  // Roomier controls make all others roomier, in every master; what was corrected by hand and what follows stays.
  let roomy = all;
  for (const master of all.masters.map((m) => m.id))
    for (const name of ['h.sc', 'o.sc']) {
      const glyph = glyphNamed(all, name)!;
      const now = sidesOf(all, glyph, master) as { left: number; right: number };
      roomy = done(setSides(roomy, { at: { glyph: glyph.id, master }, left: now.left + 20, right: now.right + 20 }));
    }
  const fitted = done(spaceSet(roomy, { set: 'smallCaps' }));
  for (const { id: master } of all.masters)
    for (const name of ['n.sc', 'd.sc', 'aacute.sc', 'u.sc']) {
      const [was, now] = [all, fitted].map((p) => drawingOf(glyphNamed(p, name)!, master).advance);
      expect([master, name, now! - was! > 15]).toEqual([master, name, true]);
    }
  expect(states(fitted, 'smallCaps').corrected).toBeUndefined();
  expect(spaceSet(fitted, { set: 'smallCaps' })).toMatchObject({ ok: false });
  expect(spaceSet(all, { set: 'fractions' })).toMatchObject({ reason: expect.stringContaining('no controls') });
  expect(spaceSet(bare, { set: 'smallCaps' })).toMatchObject({
    reason: expect.stringContaining('h.sc and o.sc are not drawn'),
  });
});

test('what follows among capitals follows among their small ones', () => {
  const [B, H] = ['B', 'H'].map((n) => glyphNamed(bare, n)!.id);
  const ruled = done(
    setFollows(bare, {
      bindings: [{ glyph: B!, side: 'left', follow: { glyph: H!, side: 'left', offset: 3, everyMaster: true } }],
      master: 'm1',
    }),
  );
  const { project } = madeSet(ruled, setOf('smallCaps')!, ['h.sc', 'b.sc', 'd.sc']);
  const [b, h] = ['b.sc', 'h.sc'].map((n) => glyphNamed(project, n)!);
  expect(b!.follows.left).toEqual([{ glyph: h!.id, side: 'left', offset: 3 }]);
  for (const { id } of project.masters) {
    const [of, by] = [b!, h!].map((g) => (sidesOf(project, g, id) as { left: number }).left);
    expect(of).toBe(by! + 3);
  }
  expect(glyphNamed(project, 'd.sc')!.follows.left.every((f) => f.glyph !== H)).toBe(true);
});

test('a glyph may come from another one, as a part, or be left to the hand', () => {
  const part = done(setSetWay(bare, { set: 'smallCaps', glyph: 'o.sc', as: 'part', of: 'o' }));
  const asPart = madeSet(part, setOf('smallCaps')!, ['o.sc']).project;
  expect(drawingOf(glyphNamed(asPart, 'o.sc')!, 'm1').components).toMatchObject([{ glyph: glyphNamed(bare, 'o')!.id }]);

  const from = done(setSetWay(bare, { set: 'smallCaps', glyph: 'u.sc', of: 'V' }));
  expect(derivedSet(from, setOf('smallCaps')!).find((i) => i.name === 'u.sc')?.way).toMatchObject({
    how: 'scaled',
    of: 'V',
  });

  const hand = done(setSetWay(bare, { set: 'smallCaps', glyph: 'q.sc', as: 'hand' }));
  expect(derivedSet(hand, setOf('smallCaps')!).find((i) => i.name === 'q.sc')?.state).toBe('hand');
  const { made: names, left } = madeSet(hand, setOf('smallCaps')!);
  expect(names).not.toContain('q.sc');
  expect(left).toEqual([]);

  // By new names it holds, and it can be taken back.
  const renamed = done(renameGlyphs(from, { renames: [{ id: glyphNamed(from, 'V')!.id, name: 'Vee' }] }));
  expect(renamed.settings.deriving?.own?.['u.sc']).toEqual({ of: 'Vee' });
  const back = done(setSetTerms(from, { set: 'smallCaps', glyph: 'u.sc', asSet: true }));
  expect(back.settings.deriving?.own).toEqual({});

  for (const [wrong, reason] of [
    [{ set: 'smallCaps', glyph: 'u.sc', of: 'Nobody' }, 'no glyph Nobody'],
    [{ set: 'smallCaps', glyph: 'nobody.sc', as: 'part' }, 'has no nobody.sc'],
    [{ set: 'fractions', glyph: 'onehalf', as: 'hand' }, 'no other way'],
    [{ set: 'nothing', glyph: 'a', as: 'hand' }, 'no set nothing'],
  ] as const)
    expect(setSetWay(bare, wrong)).toMatchObject({ ok: false, reason: expect.stringContaining(reason) });
  // What a glyph is built on cannot come from it.
  expect(setSetWay(asPart, { set: 'smallCaps', glyph: 'o.sc', of: 'o.sc' })).toMatchObject({ ok: false });
  expect(setSetWay(all, { set: 'smallCaps', glyph: 'a.sc', of: 'aacute.sc' })).toMatchObject({
    reason: expect.stringContaining('built on a.sc'),
  });
});

test('what is missing of a set that a designer began is as high and as thick as what is drawn', () => {
  // The demo’s small capitals drawn by hand are lower and lighter than a set would make them.
  const begun: Project = { ...whole, settings: { ...whole.settings, deriving: {} } };
  const without = done(removeGlyphs(begun, { ids: [glyphNamed(begun, 'l.sc')!.id] }));
  const again = madeSet(without, setOf('smallCaps')!, ['l.sc']).project;
  for (const { id } of again.masters) {
    expect(Math.abs(box(again, 'l.sc', id).yMax - box(begun, 'h.sc', id).yMax)).toBeLessThanOrEqual(1);
    expect(Math.abs(stem(again, 'l.sc', id) / stem(begun, 'h.sc', id) - 1)).toBeLessThan(0.03);
  }
  const own = done(setSetTerms(without, { set: 'smallCaps', height: 120 }));
  expect(box(madeSet(own, setOf('smallCaps')!, ['l.sc']).project, 'l.sc').yMax).toBeGreaterThan(600);
});

test('what lacks is named; only what is asked for is made; an empty project lacks all', () => {
  const starter = buildStarter();
  const fractions = madeSet(starter, setOf('fractions')!);
  expect(fractions.made).toEqual([]);
  expect(fractions.left[0]!.why).toMatch(/one\.numr.*not drawn.*yet\./);
  const some = madeSet(bare, setOf('superiors')!, ['onesuperior', 'twosuperior']);
  expect([...some.made].sort()).toEqual(['onesuperior', 'twosuperior']);
  const none = {
    ...bare,
    glyphs: Object.fromEntries(Object.entries(bare.glyphs).map(([k, g]) => [k, { ...g, drawings: {} }])),
  };
  for (const set of SETS) expect([set.key, madeSet(none, set).made]).toEqual([set.key, []]);
});

test('a row of what was fitted stands anew by the new widths, and is no correction', () => {
  let p = madeSet(buildStarter(), setOf('smallCaps')!).project;
  const h = glyphNamed(p, 'h.sc')!.id;
  p = done(setSides(p, { at: { glyph: h, master: 'm1' }, left: 95, right: 95 }));
  const fitted = done(spaceSet(p, { set: 'smallCaps' }));
  expect(states(fitted, 'smallCaps').corrected).toBeUndefined();
  const wide = (name: string) => drawingOf(glyphNamed(fitted, name)!, 'm1').advance;
  expect(wide('germandbls.sc')).toBe(2 * wide('s.sc'));
});
