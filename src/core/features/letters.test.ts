import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { featureLetters } from './letters';

const demo = readyDemo();

test('features are told by some of the glyphs that they bring, written by hand or by themselves', () => {
  const letters = featureLetters(demo, 'm1');
  expect(letters.get('smcp')!.every((n) => n.endsWith('.sc'))).toBe(true);
  expect(letters.get('liga')![0]).toMatch(/_/);
  expect(letters.get('frac')).toBeDefined();
  for (const [tag, names] of letters) {
    expect([tag, names.length > 0 && names.length <= 3]).toEqual([tag, true]);
    expect([tag, names.filter((n) => !glyphNamed(demo, n))]).toEqual([tag, []]);
  }
});

test('sections that are off, and rules that only move, bring none', () => {
  const only = (text: string, off = false): Project => ({
    ...demo,
    features: { ...demo.features, sections: [{ id: 'f1', title: '', text, options: { off } }] },
  });
  expect([...featureLetters(only('feature ss01 { sub a by b; } ss01;', true), 'm1')]).toEqual([]);
  expect([...featureLetters(only('feature kern { pos a b -20; } kern;'), 'm1')]).toEqual([]);
  expect([...featureLetters(only("feature calt { ignore sub a b'; sub b' c by d; } calt;"), 'm1')]).toEqual([
    ['calt', ['d']],
  ]);
});
