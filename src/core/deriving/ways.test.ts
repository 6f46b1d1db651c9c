import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { setOf } from './sets';
import { canChoose, itemsOf, OTHER_WAYS, otherOf } from './ways';

const demo = readyDemo();
type Own = NonNullable<NonNullable<Project['settings']['deriving']>['own']>;
const withOwn = (own: Own): Project => ({ ...demo, settings: { ...demo.settings, deriving: { own } } });
const way = (key: string, name: string, own: Own = {}) =>
  itemsOf(withOwn(own), setOf(key)!).find((i) => i.name === name)!;

describe('what a glyph of a set comes from', () => {
  test('is what its set has it come from, as long as nothing else is chosen', () => {
    for (const key of ['smallCaps', 'superiors', 'oldStyle', 'caseForms', 'fractions', 'ringed'])
      expect(itemsOf(withOwn({}), setOf(key)!)).toEqual(setOf(key)!.items(demo));
    // A width of its own is no way of its own.
    expect(way('smallCaps', 'o.sc', { 'o.sc': { width: 90 } })).toEqual(way('smallCaps', 'o.sc'));
  });

  test('may be another glyph, scaled among letters of its kind', () => {
    expect(way('smallCaps', 'u.sc', { 'u.sc': { of: 'V' } }).way).toEqual({
      how: 'scaled',
      of: 'V',
      among: 'capitals',
    });
    expect(way('smallCaps', 'u.sc', { 'u.sc': { of: 'v' } }).way).toEqual({ how: 'scaled', of: 'v', among: 'small' });
    expect(way('smallCapFigures', 'one.sc', { 'one.sc': { of: 'two' } }).way).toEqual({
      how: 'scaled',
      of: 'two',
      among: 'figures',
    });
    // Of a form without a character its name tells the kind.
    expect(way('smallCaps', 'a.sc', { 'a.sc': { of: 'a.ss01' } }).way).toMatchObject({ of: 'a.ss01', among: 'small' });
  });

  test('may be a part: as it is, or at the foot of a set that is raised', () => {
    expect(way('smallCaps', 'o.sc', { 'o.sc': { as: 'part', of: 'o' } }).way).toEqual({
      how: 'moved',
      of: 'o',
      to: 'asIs',
    });
    expect(way('superiors', 'onesuperior', { onesuperior: { as: 'part' } }).way).toEqual({
      how: 'moved',
      of: 'one',
      to: 'foot',
    });
    // A part of another glyph stays where its set puts it.
    expect(way('caseForms', 'hyphen.case', { 'hyphen.case': { of: 'endash' } }).way).toEqual({
      how: 'moved',
      of: 'endash',
      to: 'middle',
    });
    expect(way('caseForms', 'hyphen.case', { 'hyphen.case': { as: 'scaled' } }).way).toMatchObject({ how: 'scaled' });
  });

  test('may be left to the hand, and then says so', () => {
    expect(way('smallCaps', 'q.sc', { 'q.sc': { as: 'hand' } })).toMatchObject({ name: 'q.sc', byHand: true });
    expect(way('smallCaps', 'q.sc')).not.toHaveProperty('byHand');
  });

  test('is not chosen for what is made of its parts', () => {
    const chosen = way('smallCaps', 'aacute.sc', { 'aacute.sc': { as: 'hand', of: 'b' } });
    expect(chosen).toEqual(way('smallCaps', 'aacute.sc'));
    for (const [key, name] of [
      ['fractions', 'onehalf'],
      ['ringed', 'uni2460'],
      ['smallCaps', 'aacute.sc'],
    ] as const)
      expect([name, canChoose(way(key, name).way)]).toEqual([name, false]);
    for (const [key, name] of [
      ['smallCaps', 'a.sc'],
      ['oldStyle', 'three.onum'],
      ['proportional', 'one.pnum'],
    ] as const)
      expect([name, canChoose(way(key, name).way)]).toEqual([name, true]);
  });

  test('is called as it is chosen', () => {
    expect(otherOf(way('smallCaps', 'a.sc').way)).toBe('scaled');
    expect(otherOf(way('oldStyle', 'three.onum').way)).toBe('part');
    expect(OTHER_WAYS.map((w) => w.as)).toEqual(['scaled', 'part', 'hand']);
  });
});
