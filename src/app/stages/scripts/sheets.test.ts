import { buildStarter } from '../../../../demo/starter';
import type { Project } from '../../../core/project/model';
import { SHIPPED } from '../../../core/scripting/shipped/shipped';
import { forget, newSheet, sheetsOf, useScriptsBench } from './sheets';

const project: Project = {
  ...buildStarter(),
  scripts: [
    { id: 's1', name: 'Ours', text: 'say(1)' },
    { id: 's2', name: 'Other', text: 'say(2)' },
  ],
};

test('scripts of the project stand first, then new ones, then those that come with Wendril', () => {
  const sheets = sheetsOf(project, { 'new:0': { name: 'Begun', text: '' } });
  expect(sheets.slice(0, 3).map((s) => [s.name, s.of, s.newer])).toEqual([
    ['Ours', 'project', false],
    ['Other', 'project', false],
    ['Begun', 'new', true],
  ]);
  expect(sheets.slice(3).map((s) => s.id)).toEqual(SHIPPED.map((s) => s.key));
  expect(sheets.slice(3).every((s) => s.of === 'wendril' && s.does !== undefined)).toBe(true);
});

test('what was written beyond what is kept is shown, and marked; what is kept stays in the project', () => {
  const [key] = [SHIPPED[0]!.key];
  const sheets = sheetsOf(project, {
    s2: { name: 'Other, better', text: 'say(3)' },
    [key]: { name: SHIPPED[0]!.title, text: '// changed' },
  });
  const of = (id: string) => sheets.find((s) => s.id === id)!;
  expect(of('s2')).toMatchObject({ name: 'Other, better', text: 'say(3)', of: 'project', newer: true });
  expect(of(key)).toMatchObject({ text: '// changed', of: 'wendril', newer: true });
  expect(of('s1').newer).toBe(false);
  expect(project.scripts[1]!.text).toBe('say(2)');
  // Nothing stands there twice.
  expect(new Set(sheets.map((s) => s.id)).size).toBe(sheets.length);
});

test('what was written for a script that is gone is not lost: it stands as a new one', () => {
  const sheets = sheetsOf({ ...project, scripts: [] }, { s1: { name: 'Ours', text: 'say(9)' } });
  expect(sheets[0]).toMatchObject({ id: 's1', name: 'Ours', text: 'say(9)', of: 'new', newer: true });
});

test('a new script never takes the place of one that was begun before', () => {
  const texts = () => Object.values(useScriptsBench.getState().drafts).map((d) => d.text);
  const first = newSheet('One', 'say(1)');
  newSheet('Two', 'say(2)');
  forget(first);
  newSheet('Three', 'say(3)');
  newSheet('Four', 'say(4)');
  expect(texts().sort()).toEqual(['say(2)', 'say(3)', 'say(4)']);
});
