import { readyDemo } from '../../../demo/ready';
import { setSides } from '../fitting/sides';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import { setPair } from '../kerning/edits';
import { differencesByName } from './differences';
import type { Outcome } from './edit';
import { addGlyphs, renameGlyphs } from './glyphEdits';
import { defaultMaster, glyphNamed } from './queries';
import { removeGlyphs } from './removal';

const demo = readyDemo();
const id = (name: string) => glyphNamed(demo, name)!.id;
const done = (o: Outcome) => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};

test('a project and what comes back of its file do not differ, though ids may', () => {
  const read = readProjectFile(writeProjectFile(demo), 'demo.wendril');
  if (!read.ok) throw new Error(read.reason);
  expect(differencesByName(demo, read.value)).toEqual({ glyphs: [], pairs: 0, others: [] });
});

test('glyphs changed, gone and new, pairs and other parts are told', () => {
  const master = defaultMaster(demo).id;
  let now = done(setSides(demo, { at: { glyph: id('n'), master }, advance: 777 }));
  now = done(
    setPair(now, { master, first: { kind: 'glyph', id: id('H') }, second: { kind: 'glyph', id: id('O') }, value: -33 }),
  );
  now = done(addGlyphs(now, { requests: [{ name: 'fresh', unicodes: [] }] }));
  now = done(removeGlyphs(now, { ids: [id('z')] }));
  now = { ...now, family: { ...now.family, designer: 'nobody' } };
  const found = differencesByName(demo, now);
  const names = found.glyphs.map((g) => g.name);
  expect(found.glyphs).toContainEqual({ name: 'n', was: id('n'), is: id('n'), masters: ['Regular'] });
  expect(found.glyphs).toContainEqual({ name: 'z', was: id('z') });
  expect(found.glyphs.find((g) => g.name === 'fresh')).toMatchObject({ is: expect.any(String) });
  // What follows the n is other as well; what does not is not.
  expect(names).not.toContain('O');
  expect(found.pairs).toBeGreaterThanOrEqual(1);
  expect(found.others).toContain('names');
});

test('a glyph under another name is one gone and one new; its composites refer by name', () => {
  const renamed = done(renameGlyphs(demo, { renames: [{ id: id('o'), name: 'otherO' }] }));
  const names = differencesByName(demo, renamed).glyphs.map((g) => g.name);
  expect(names).toEqual(expect.arrayContaining(['o', 'otherO', 'odieresis']));
  expect(names).not.toContain('a');
});
