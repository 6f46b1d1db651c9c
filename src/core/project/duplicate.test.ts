import { readyDemo } from '../../../demo/ready';
import { sidesOf } from '../fitting/sides';
import { copyName, duplicateGlyph, formName } from './duplicate';
import { type DrawingPlace, editDrawing } from './edit';
import type { Project } from './model';
import { drawingOf, glyphNamed, isEmptyDrawing } from './queries';

const demo = readyDemo();
const a = glyphNamed(demo, 'a')!;
const made = (change: Partial<Parameters<typeof duplicateGlyph>[1]>): Project => {
  const done = duplicateGlyph(demo, { glyph: a.id, name: 'a.new', anchors: true, kerning: true, ...change });
  if (!done.ok) throw new Error(done.reason);
  return done.project;
};

test('a form is named for its purpose, the next that is free', () => {
  expect(formName(demo, a, 'swsh')).toBe('a.swsh');
  // The demo has an a.ss01 already.
  expect(formName(demo, a, 'ss')).toBe('a.ss02');
  const first = formName(demo, glyphNamed(demo, 'b')!, 'ss');
  expect(first).toBe('b.ss01');
  expect(formName(demo, glyphNamed(demo, 'a.ss01')!, 'hist')).toBe('a.hist');
  expect(copyName(demo, a)).toBe('a.alt');
});

test('it begins as a copy in all masters, or blank with the width, anchors and groups of the first form', () => {
  const copy = glyphNamed(made({}), 'a.new')!;
  for (const m of demo.masters) expect(drawingOf(copy, m.id)).toEqual(drawingOf(a, m.id));
  const project = made({ blank: true });
  const blank = glyphNamed(project, 'a.new')!;
  for (const m of demo.masters) {
    expect(isEmptyDrawing(drawingOf(blank, m.id))).toBe(true);
    expect(drawingOf(blank, m.id).advance).toBe(drawingOf(a, m.id).advance);
    expect(drawingOf(blank, m.id).anchors).toEqual(drawingOf(a, m.id).anchors);
  }
  const groups = (id: string) => project.groups.filter((g) => g.members.includes(id)).map((g) => g.id);
  expect(groups(blank.id)).toEqual(groups(a.id));
  expect(glyphNamed(made({ anchors: false }), 'a.new')!.drawings.m1!.anchors).toEqual([]);
});

test('its sides follow those of the first form where that is wished', () => {
  const project = made({ follow: true });
  const form = glyphNamed(project, 'a.new')!;
  expect(form.follows.left).toEqual([{ glyph: a.id, side: 'left', offset: 0 }]);
  expect(sidesOf(project, form, 'm1')).toEqual(sidesOf(project, a, 'm1'));
  const at: DrawingPlace = { glyph: form.id, master: 'm1' };
  const moved = editDrawing(project, at, 'Moved', (d) => ({ ...d, advance: d.advance + 9 }));
  expect(moved.ok && sidesOf(moved.project, moved.project.glyphs[form.id]!, 'm1')).not.toEqual(
    sidesOf(project, a, 'm1'),
  );
});
