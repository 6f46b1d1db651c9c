import '../drawing/edits';
import '../fitting/sides';
import { readyDemo } from '../../../demo/ready';
import { glyphNamed } from '../project/queries';
import { givenValue, type usualOf, valuesFor } from './asked';
import { MOST_OUTPUT, Session } from './session';

const demo = readyDemo();
const n = glyphNamed(demo, 'n')!.id;
const open = () => new Session(demo, { chosen: [n], masters: ['m1'], given: {} });

test('random numbers are the same row in every run, spread over 0 to 1', () => {
  const row = (s: Session) => Array.from({ length: 400 }, () => s.random());
  const first = row(open());
  expect(row(open())).toEqual(first);
  expect(new Set(first).size).toBe(400);
  expect(first.every((v) => v >= 0 && v < 1)).toBe(true);
  const mean = first.reduce((a, b) => a + b, 0) / first.length;
  expect(Math.abs(mean - 0.5)).toBeLessThan(0.06);
});

test('a glyph is known by reference, name, character and code point', () => {
  const s = open();
  expect(s.glyphBy({ $g: n }).name).toBe('n');
  expect(s.glyphBy('germandbls').id).toBe(s.glyphBy('ß').id);
  expect(() => s.glyphBy('nobody')).toThrow('There is no glyph “nobody”.');
  expect(() => s.glyphBy({ $g: '__proto__' })).toThrow(/no longer there/);
});

test('a font is cast once for each state of the project', () => {
  const s = open();
  const first = s.cast('m1', 'otf', true);
  expect(s.cast('m1', 'otf', true).font).toBe(first.font);
  expect(s.cast('m1', 'ttf', true).font).not.toBe(first.font);
  s.edit('setSides', { at: { glyph: n, master: 'm1' }, advance: 900 });
  const second = s.cast('m1', 'otf', true);
  expect(second.font).not.toBe(first.font);
  expect(Buffer.compare(second.font.bytes, first.font.bytes)).not.toBe(0);
  expect(() => s.cast('m99', 'otf', true)).toThrow(/no longer there/);
});

test('reports are kept in their order, up to so much; files count by a share of their size', () => {
  const s = open();
  s.report({ kind: 'file', name: 'a.otf', bytes: new Uint8Array(MOST_OUTPUT) });
  s.report({ kind: 'text', text: 'x'.repeat(1_800_000) });
  expect(s.outputs.map((o) => o.kind)).toEqual(['file', 'text']);
  expect(() => s.report({ kind: 'text', text: 'x'.repeat(200_000) })).toThrow(/reports without end/);
  expect(s.outputs).toHaveLength(2);
});

test('what stays unchanged is the very project that it began with', () => {
  const s = open();
  expect(() => s.edit('setSides', { at: { glyph: n, master: 'm1' }, advance: -1 })).toThrow(/from 0 to 65535/);
  expect(s.project).toBe(demo);
  s.edit('movePoints', { at: { glyph: n, master: 'm1' }, points: ['0:0'], dx: 4, dy: 0 });
  expect(s.before).toBe(demo);
  expect(s.glyph(n)).not.toBe(demo.glyphs[n]);
  // All other glyphs are the same objects: what follows is told by identity.
  const { project } = s;
  for (const id of demo.glyphOrder) if (id !== n) expect(project.glyphs[id]).toBe(demo.glyphs[id]);
});

describe('values that are given', () => {
  test.each([
    [{ number: 5, least: 0, most: 10 }, '7', 7],
    [{ number: 5 }, undefined, 5],
    [{ text: 'a' }, 'b', 'b'],
    [{ choice: 'x', of: ['x', 'y'] }, 'y', 'y'],
    [{ glyphs: 'n' }, 'a b', 'a b'],
    [{ yes: true }, 'no', false],
    [{ yes: false }, 'Yes', true],
    [{ yes: false }, undefined, false],
  ] as const)('%j given %s is %s', (field, given, wanted) => {
    expect(givenValue('it', field as Parameters<typeof usualOf>[0], given)).toBe(wanted);
  });

  test('are refused where they are of another kind', () => {
    for (const [field, given, why] of [
      [{ number: 5 }, '', 'is a number'],
      [{ number: 5, least: 3 }, 2, '3 or more'],
      [{ number: 5, most: 9 }, 10, '9 or less'],
      [{ yes: true }, 'perhaps', 'yes or no'],
      [{ choice: 'x', of: ['x'] }, 'z', 'one of x'],
    ] as const)
      expect(() => givenValue('it', field as Parameters<typeof usualOf>[0], given)).toThrow(why);
    expect(() => valuesFor({}, { a: 1 })).toThrow('The script asks for nothing, not for a.');
  });
});
