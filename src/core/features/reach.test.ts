import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { setHandover } from '../variation/handovers';
import { reachedFrom } from './reach';

const demo = readyDemo();
const withRules = (text: string): Project => ({
  ...demo,
  features: { ...demo.features, sections: [{ id: 'x', title: 'Own', text, options: {} }] },
});
const from = (project: Project, ...names: string[]) => [...reachedFrom(project, (g) => names.includes(g.name))].sort();

test('rules of every kind lead on, in any number of steps, once all they begin with is there', () => {
  const rules = withRules(`
feature ss01 { sub a by b; } ss01;
feature ss02 { sub b by c; } ss02;
feature liga { sub c d by e; } liga;
feature ccmp { sub x by y z; } ccmp;
feature salt { sub f from [g h]; } salt;
feature calt { rsub o' p by q; } calt;
`);
  expect(from(rules, 'a')).toEqual(['a', 'b', 'c']);
  expect(from(rules, 'a', 'd')).toEqual(['a', 'b', 'c', 'd', 'e']);
  expect(from(rules, 'd')).toEqual(['d']);
  expect(from(rules, 'x')).toEqual(['x', 'y', 'z']);
  expect(from(rules, 'f')).toEqual(['f', 'g', 'h']);
  expect(from(rules, 'o')).toEqual(['o', 'q']);
});

test('rules under conditions count wherever they hold; a glyph takes along what it gives way to, and what that leads to', () => {
  const rules = withRules(
    'conditionset heavy { wght 700 800; } heavy;\nvariation rvrn heavy { sub n by m; } rvrn;\nfeature ss01 { sub cent by w; } ss01;',
  );
  expect(from(rules, 'n')).toEqual(['m', 'n']);
  const handed = setHandover(rules, {
    glyph: glyphNamed(demo, 'dollar')!.id,
    handover: { axis: 'wght', from: 600, to: 800, glyph: glyphNamed(demo, 'cent')!.id },
  });
  if (!handed.ok) throw new Error(handed.reason);
  expect(from(handed.project, 'dollar')).toEqual(['cent', 'dollar', 'w']);
});

test('glyphs that are not cast are no way to anywhere', () => {
  const rules = withRules('feature ss01 { sub a by b; } ss01;\nfeature ss02 { sub b by c; } ss02;');
  const b = glyphNamed(demo, 'b')!;
  const fewer = { ...rules, glyphs: { ...rules.glyphs, [b.id]: { ...b, cast: false } } };
  expect(from(fewer, 'a')).toEqual(['a']);
});
