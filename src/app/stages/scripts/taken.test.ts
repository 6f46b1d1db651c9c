import { readyDemo } from '../../../../demo/ready';
import { addComponent } from '../../../core/drawing/components';
import { setSides } from '../../../core/fitting/sides';
import { setGalleyText } from '../../../core/project/edits';
import { addGlyphs } from '../../../core/project/glyphEdits';
import type { Project } from '../../../core/project/model';
import { applySteps } from '../../../core/project/patch';
import { drawingOf, glyphNamed } from '../../../core/project/queries';
import { takenOf } from './taken';
import { valuesChanged } from './values';

const demo = readyDemo();
const done = (o: { ok: true; project: Project } | { ok: false; reason: string }): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const id = (p: Project, name: string) => glyphNamed(p, name)!.id;
/** What a script made: sides of n and v, a new glyph, which v has as a part, and another text. */
const sides = ['n', 'v'].reduce(
  (p, name) => done(setSides(p, { at: { glyph: id(p, name), master: 'm1' }, advance: 700 })),
  demo,
);
const grown = done(addGlyphs(sides, { requests: [{ name: 'fresh', unicodes: [] }] }));
const made = done(setGalleyText(grown, { text: 'made' }));
const ran = { changed: [id(demo, 'n'), id(demo, 'v')], removed: [] };
const taken = (after: Project, left: readonly string[], rest: boolean) => {
  const part = takenOf(demo, after, ran, new Set(left.map((n) => id(demo, n))), rest);
  return part.ok ? applySteps(demo, part.value.steps) : part.reason;
};
const wide = (p: Project, name: string) => drawingOf(glyphNamed(p, name)!, 'm1').advance;

test('all of it is what the script made', () => {
  expect(taken(made, [], true)).toEqual(made);
});

test('a glyph that is left stays as it was, the rest is taken', () => {
  const part = taken(made, ['v'], true) as Project;
  expect([wide(part, 'n'), wide(part, 'v')]).toEqual([700, wide(demo, 'v')]);
  expect(part.texts.galley).toBe('made');
  expect(glyphNamed(part, 'fresh')).toBeDefined();
});

test('without the rest nothing is added, and no text changes', () => {
  const part = taken(made, [], false) as Project;
  expect(wide(part, 'n')).toBe(700);
  expect(part.texts).toBe(demo.texts);
  expect(glyphNamed(part, 'fresh')).toBeUndefined();
  expect(part.glyphOrder).toEqual(demo.glyphOrder);
  expect(taken(made, ['n', 'v'], false)).toBe('Nothing is ticked.');
});

test('what uses a glyph that is not taken is refused with its name', () => {
  const using = done(addComponent(made, { at: { glyph: id(made, 'v'), master: 'm1' }, glyph: id(made, 'fresh') }));
  expect(taken(using, [], false)).toBe('v uses glyphs that are not taken: tick what goes with it.');
  expect(typeof taken(using, ['v'], false)).toBe('object');
});

test('what is other than before is told in numbers, of the master or of others', () => {
  expect(valuesChanged(demo, made, id(demo, 'n'), 'm1')).toEqual([
    expect.stringMatching(/^right /),
    `wide ${wide(demo, 'n')} → 700`,
  ]);
  expect(valuesChanged(demo, made, id(demo, 'n'), 'm3')).toEqual(['in Regular']);
});
