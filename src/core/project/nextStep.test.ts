import { readyDemo } from '../../../demo/ready';
import { addContour } from '../drawing/edits';
import { setSides } from '../fitting/sides';
import { square } from '../geometry/testShapes';
import { createProject } from './create';
import type { Project } from './model';
import { nextStep } from './nextStep';
import { glyphForCodePoint } from './queries';

const start = createProject({
  family: 'Orde',
  unitsPerEm: 1000,
  created: 0,
  characters: [...'abcdefghijklmnopqrstuvwxyzHO'].map((c) => c.codePointAt(0)!),
});
const draw = (p: Project, c: string): Project => {
  const at = { glyph: glyphForCodePoint(p, c.codePointAt(0)!)!.id, master: 'm1' };
  const done = addContour(p, { at, contour: square(40, 0, 400), what: c });
  if (!done.ok) throw new Error(done.reason);
  return done.project;
};

test('from nothing to a cast font, each step follows from what is there', () => {
  expect(nextStep(start, 'm1')).toMatchObject({ stage: 'draw', sentence: expect.stringContaining('Draw n') });
  const n = draw(start, 'n');
  expect(nextStep(n, 'm1')).toMatchObject({ stage: 'draw', sentence: expect.stringContaining('Now o') });
  const no = draw(n, 'o');
  expect(nextStep(no, 'm1')).toMatchObject({ stage: 'fit' });
  const spaced = setSides(no, { at: { glyph: glyphForCodePoint(no, 0x6e)!.id, master: 'm1' }, left: 60, right: 60 });
  if (!spaced.ok) throw new Error(spaced.reason);
  expect(nextStep(spaced.project, 'm1')).toMatchObject({ stage: 'case' });
  const word = [...'hamb'].reduce(draw, spaced.project);
  expect(nextStep(word, 'm1')).toMatchObject({ stage: 'cast' });
  const many = [...'cdefgijklpqrst'].reduce(draw, word);
  expect(nextStep(many, 'm1')).toMatchObject({ stage: 'kern' });
});

test('letters that a sheet left with the same sides are fitted before they are kerned', () => {
  const spaced = [...'abcdefghijklmnopqrstuvwxyz'].reduce((p, c) => {
    const at = { glyph: glyphForCodePoint(p, c.codePointAt(0)!)!.id, master: 'm1' };
    const done = setSides(draw(p, c), { at, left: 60 + (c === 'r' ? 20 : 2), right: 60 });
    if (!done.ok) throw new Error(done.reason);
    return done.project;
  }, start);
  expect(nextStep(spaced, 'm1')).toMatchObject({ stage: 'fit', sentence: expect.stringContaining('the same sides') });
  const fitted = [...'acegmosvy'].reduce((p, c) => {
    const at = { glyph: glyphForCodePoint(p, c.codePointAt(0)!)!.id, master: 'm1' };
    const done = setSides(p, { at, left: 40, right: 30 });
    if (!done.ok) throw new Error(done.reason);
    return done.project;
  }, spaced);
  expect(nextStep(fitted, 'm1')).toMatchObject({ stage: 'kern' });
});

test('a grown family is left alone', () => {
  expect(nextStep(readyDemo(), 'm1')).toBeUndefined();
});
