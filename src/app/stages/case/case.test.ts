import { readyDemo } from '../../../../demo/ready';
import { buildStarter } from '../../../../demo/starter';
import { drawingOf, glyphNamed } from '../../../core/project/queries';
import { answering, furtherQuestions } from '../../state/questions';
import { company } from '../draw/neighbours';
import { compartmentsOf, rowsOf } from './compartments';

const demo = buildStarter();

test('glyphs lie in compartments by role, every one once, what is needed most largest', () => {
  const compartments = compartmentsOf(demo, 'm1', () => true);
  expect(compartments.slice(0, 3).map((c) => [c.title, c.glyphs.length])).toEqual([
    ['Lowercase', 26],
    ['Capitals', 26],
    ['Figures', 10],
  ]);
  expect(compartments.flatMap((c) => c.glyphs)).toHaveLength(demo.glyphOrder.length);
  expect(compartments[0]!.cell).toBeGreaterThan(compartments[3]!.cell);
});

test('sets, small capitals, ligatures and alternates of a whole family have compartments of their own; nothing is cut off', () => {
  const family = readyDemo();
  const compartments = compartmentsOf(family, 'm1', () => true);
  const titled = (title: string) => compartments.find((c) => c.title === title)!;
  const small = titled('Small capitals').glyphs.map((g) => g.name);
  expect(small).toHaveLength(138);
  expect(small).toEqual(expect.arrayContaining(['a.sc', 'aacute.sc', 'germandbls.sc']));
  expect(titled('Ligatures').glyphs.map((g) => g.name)).toEqual([
    ...['f_f', 'f_i', 'f_l', 'f_f_i', 'f_f_l'],
    ...['longs_longs', 'longs_i', 'longs_l', 'longs_t'],
  ]);
  expect(titled('Figures of other sets').glyphs.length).toBeGreaterThanOrEqual(60);
  expect(titled('Alternates').glyphs.map((g) => g.name)).toEqual(
    expect.arrayContaining(['a.ss01', 'g.ss02', 'y.ss03', 'parenleft.case']),
  );
  expect(titled('Marks').glyphs.every((g) => g.category === 'mark' || g.unicodes.length > 0)).toBe(true);
  expect(titled('Symbols and currency').glyphs.map((g) => g.name)).toEqual(
    expect.arrayContaining(['Euro', 'arrowright', 'platform']),
  );
  expect(compartments.flatMap((c) => c.glyphs)).toHaveLength(family.glyphOrder.length);
  expect(titled('Others')?.glyphs.map((g) => g.name) ?? []).toEqual(['.notdef']);
  // An acute on l rises above the ascenders; its compartment shows all of it, and plain letters stay as large as they were.
  expect(titled('Accented lowercase').reach.top).toBeGreaterThan(900);
  expect(titled('Lowercase').reach).toEqual({ top: 822, bottom: -244 });
});

test('rows hold what fits the width', () => {
  const rows = rowsOf(
    compartmentsOf(demo, 'm1', () => true),
    500,
  );
  const cells = rows.filter((r) => r.kind === 'cells');
  for (const row of cells) expect(row.glyphs.length * row.cell).toBeLessThanOrEqual(500);
  expect(cells.reduce((n, r) => n + r.glyphs.length, 0)).toBe(demo.glyphOrder.length);
});

test('company comes from the galley, n and o where it has none, or from the words that were typed', () => {
  const beside = (name: string, words = '') =>
    company(demo, glyphNamed(demo, name)!, 'm1', words).map((b) => b.glyph.name);
  expect(beside('G')).toEqual(['n', 'r']);
  expect(beside('seven')).toEqual(['zero', 'colon']);
  expect(beside('Z')).toEqual(['n', 'o']);
  expect(beside('m', 'ham on')).toEqual(['h', 'a', 'space', 'o', 'n']);
  expect(beside('m', 'on')).toEqual(['o', 'n']);
  const [h, after] = [
    company(demo, glyphNamed(demo, 'a')!, 'm1', 'han')[0]!,
    company(demo, glyphNamed(demo, 'a')!, 'm1', 'han')[1]!,
  ];
  expect(h.x).toBe(-drawingOf(h.glyph, 'm1').advance);
  expect(after.x).toBe(drawingOf(glyphNamed(demo, 'a')!, 'm1').advance);
});

test('two questions are asked together: what is drawn and how far it is, a list of one’s own, masters that disagree', () => {
  const family = readyDemo();
  const a = glyphNamed(family, 'a')!;
  const n = glyphNamed(family, 'n')!;
  const project = {
    ...family,
    settings: { ...family.settings, lists: [{ name: 'Plaques', text: 'abc /n /a.ss01' }] },
    glyphs: {
      ...family.glyphs,
      [a.id]: { ...a, status: 'done' as const, note: 'tail' },
      [n.id]: { ...n, drawings: { ...n.drawings, m3: { ...n.drawings.m3!, contours: [], anchors: [] } } },
    },
  };
  const names = (question: Parameters<typeof answering>[2], further: string) =>
    Object.values(project.glyphs)
      .filter(answering(project, 'm1', question, further))
      .map((g) => g.name)
      .sort();
  expect(names('all', 'any')).toHaveLength(project.glyphOrder.length);
  expect(names('drawn', 'done')).toEqual(['a']);
  expect(names('undrawn', 'done')).toEqual([]);
  expect(names('all', 'noted')).toEqual(['a']);
  expect(names('all', 'list:Plaques')).toEqual(['a', 'a.ss01', 'b', 'c', 'n']);
  expect(names('unencoded', 'list:Plaques')).toEqual(['a.ss01']);
  expect(names('all', 'apart')).toEqual(['n']);
  expect(names('all', 'parts')).toContain('eacute');
  expect(names('all', 'anchorless')).not.toContain('a');
  expect(furtherQuestions(project).map((q) => q.value)).toEqual(expect.arrayContaining(['apart', 'list:Plaques']));
  const single = { ...family, masters: family.masters.slice(0, 1) };
  expect(furtherQuestions(single).map((q) => q.value)).not.toContain('apart');
});
