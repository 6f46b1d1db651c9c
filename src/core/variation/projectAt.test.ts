import { readyDemo } from '../../../demo/ready';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import { drawingOf, glyphNamed, glyphsInOrder } from '../project/queries';
import { instanceAt } from './instance';
import { projectAt } from './projectAt';
import { stemAndCounter } from './rows';

const demo = readyDemo();
const PLACE = { wght: 600, wdth: 85 };

test('the family at a place is a project of one master that opens again, drawn as the instance is', () => {
  const { project, stuck } = projectAt(demo, PLACE, 'Semi');
  expect(stuck).toEqual([]);
  expect([project.family.name, project.masters.map((m) => m.name), project.axes, project.instances]).toEqual([
    `${demo.family.name} Semi`,
    ['Semi'],
    [],
    [],
  ]);
  const opened = readProjectFile(writeProjectFile(project), 'Semi.wendril');
  if (!opened.ok) throw new Error(opened.reason);
  const { id } = opened.value.masters[0]!;
  const between = instanceAt(demo, PLACE, 'x').project;
  for (const name of ['n', 'ampersand', 'odieresis', 'a.sc']) {
    const [a, b] = [opened.value, between].map((p) => drawingOf(glyphNamed(p, name)!, id));
    expect([name, Math.abs(a!.advance - b!.advance) < 0.001]).toEqual([name, true]);
    expect([name, a!.contours.length, a!.components.length]).toEqual([name, b!.contours.length, b!.components.length]);
  }
  expect(stemAndCounter({ contours: drawingOf(glyphNamed(opened.value, 'n')!, id).contours }).stem).toBeGreaterThan(80);
  for (const v of Object.values(project.masters[0]!.kerning)) expect(Number.isInteger(v)).toBe(true);
  expect(glyphsInOrder(project).every((g) => g.takes.length === 0)).toBe(true);
});

test('a glyph whose masters do not agree is named', () => {
  const n = glyphNamed(demo, 'n')!;
  const torn = {
    ...demo,
    glyphs: { ...demo.glyphs, [n.id]: { ...n, drawings: { ...n.drawings, m3: { ...n.drawings.m3!, contours: [] } } } },
  };
  expect(projectAt(torn, PLACE, 'Semi').stuck).toEqual(['n']);
});
