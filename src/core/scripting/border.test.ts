import '../drawing/edits';
import '../fitting/sides';
import '../project/edits';
import { z } from 'zod';
import { readyDemo } from '../../../demo/ready';
import * as a from '../project/arguments';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { answered, OnlyAsked } from './border';
import { dropScript, keepScript, setScriptKey } from './edits';
import { MOST_EDITS, Session } from './session';
import { typeOf } from './typed';

/** The border without an interpreter: what comes over it as text, and what goes back. */

const demo = readyDemo();
const n = glyphNamed(demo, 'n')!;
const open = (more: Partial<ConstructorParameters<typeof Session>[1]> = {}) =>
  new Session(demo, { chosen: [n.id], masters: ['m1', 'm3'], given: {}, ...more });
const say = (session: Session, ...message: unknown[]) =>
  JSON.parse(answered(session, JSON.stringify(message))) as { v?: unknown; e?: string };

describe('calls', () => {
  test('values and methods answer; glyphs and masters come as references', () => {
    const s = open();
    expect(say(s, 'font.name', null, [])).toEqual({ v: 'Velmarrow Sans' });
    expect(say(s, 'font.glyph', null, ['n'])).toEqual({ v: { $g: n.id } });
    expect(say(s, 'font.glyph', null, ['ß'])).toEqual({ v: { $g: glyphNamed(demo, 'germandbls')!.id } });
    expect(say(s, 'Glyph.name', n.id, [])).toEqual({ v: 'n' });
    expect(say(s, 'Master.name', 'm3', [])).toEqual({ v: 'Heavy' });
    expect((say(s, 'font.masters', null, []).v as unknown[])[0]).toEqual({ $m: demo.masters[0]!.id });
    expect(say(s, 'Drawing.advance', [n.id, 'm1'], [])).toEqual({ v: n.drawings.m1!.advance });
    expect(say(s, 'font.kern', null, ['A', { $g: glyphNamed(demo, 'V')!.id }, { $m: 'm1' }]).v).toBeLessThan(0);
  });

  test.each([
    ['a name that there is not', ['font.nothing', null, []], /There is no font\.nothing/],
    ['an argument of another kind', ['font.glyph', null, [5]], /glyph: which is not string/],
    ['a glyph that there is not', ['Glyph.name', 'g999999', []], /no longer there/],
    ['a glyph by the name of what all objects have', ['Glyph.name', 'constructor', []], /no longer there/],
    ['a master that there is not', ['Master.name', 'm99', []], /no longer there/],
    ['a drawing in a master that there is not', ['Drawing.left', [n.id, 'm99'], []], /no longer there/],
    ['something that is no call', 5, /no call/],
    ['a call without arguments', ['font.name'], /no call/],
    ['outlines that are none', ['shapes.area', null, [[{ closed: true }]]], /area: contours/],
    ['an angle out of bounds', ['shapes.slanted', null, [[], 89]], /slanted: degrees/],
    ['a table that is none', ['global.table', null, ['a', []]], /table: head/],
  ])('%s is refused in words', (_, message, why) => {
    const answer = JSON.parse(answered(open(), JSON.stringify(message))) as { e?: string };
    expect(answer.e).toMatch(why as RegExp);
  });

  test('a proof is noted with the fonts as they are at that moment; the family is in it where it is asked for', () => {
    const s = open();
    say(s, 'font.proof', null, [{ $m: 'm3' }, ['kerning', 'family'], 'Hamborn', 'A3']);
    say(s, 'font.proof', null, [{ $m: 'm1' }, ['waterfall']]);
    const [first, second] = s.outputs.flatMap((o) => (o.kind === 'proof' ? [o] : []));
    expect(first).toMatchObject({
      name: 'VelmarrowSans-Heavy-proof.pdf',
      sections: ['kerning', 'family'],
      text: 'Hamborn',
      size: 'A3',
    });
    expect(first!.family.map((f) => f.title)).toHaveLength(demo.masters.length);
    expect(first!.font.glyphNames).toContain('n');
    expect(second).toMatchObject({ sections: ['waterfall'], family: [], text: demo.texts.galley, size: 'A4' });
    expect(say(s, 'font.proof', null, [{ $m: 'm1' }, ['poster']]).e).toMatch(/proof: sections/);
    expect(say(s, 'font.proof', null, [{ $m: 'm1' }, []]).e).toMatch(/proof: sections/);
  });

  test('shapes are worked out and come back as plain values', () => {
    const square = (x: number) => ({
      closed: true,
      points: [
        { x, y: 0, type: 'line' },
        { x: x + 100, y: 0, type: 'line' },
        { x: x + 100, y: 100, type: 'line' },
        { x, y: 100, type: 'line' },
      ],
    });
    const s = open();
    const area = (contours: unknown) => say(s, 'shapes.area', null, [contours]).v;
    const both = [[square(0)], [square(50)]];
    expect(area(say(s, 'shapes.unite', null, both).v)).toBe(15000);
    expect(area(say(s, 'shapes.subtract', null, both).v)).toBe(5000);
    expect(area(say(s, 'shapes.intersect', null, both).v)).toBe(5000);
    expect(say(s, 'shapes.box', null, [say(s, 'shapes.moved', null, [[square(0)], 7, -3]).v])).toEqual({
      v: { xMin: 7, yMin: -3, xMax: 107, yMax: 97 },
    });
    expect(area(say(s, 'shapes.scaled', null, [[square(0)], 2, 0.5]).v)).toBe(10000);
    expect(area(say(s, 'shapes.turned', null, [[square(0)], 90]).v)).toBeCloseTo(10000, 6);
    expect(say(s, 'shapes.box', null, [[]])).toEqual({});
  });
});

describe('edits', () => {
  test('references become ids; what is refused leaves all as it was', () => {
    const s = open();
    const at = { $d: [n.id, 'm1'] };
    expect(say(s, 'edit', null, ['setSides', { at, advance: 640 }]).v).toMatch(/^Set advance 640 of n/);
    expect(s.project.glyphs[n.id]!.drawings.m1!.advance).toBe(640);
    const held = s.project;
    expect(say(s, 'edit', null, ['setSides', { at, advance: -5 }]).e).toMatch(/must be from 0/);
    expect(
      say(s, 'edit', null, ['setSides', { at: { glyph: { $g: n.id }, master: { $m: 'm99' } }, advance: 5 }]).e,
    ).toBeTruthy();
    expect(say(s, 'edit', null, ['noEdit', {}]).e).toBe('There is no edit “noEdit”.');
    expect(s.project).toBe(held);
    expect(s.before).toBe(demo);
    // Those that were refused were asked for too.
    expect(s.edits).toBe(4);
  });

  test('an edit that keeps to one glyph waits for nobody, and is there for whoever asks', () => {
    const s = open();
    const at = { $d: [n.id, 'm1'] };
    say(s, 'edit', null, ['movePoints', { at, points: ['0:0'], dx: 5, dy: 0 }]);
    const { flat } = say(s, 'Drawing.contours', [n.id, 'm1'], []).v as { flat: number[] };
    expect(flat[2]).toBe(n.drawings.m1!.contours[0]!.points[0]!.x + 5);
    expect(s.project.glyphs[n.id]!.drawings.m1!.contours[0]!.points[0]!.x).toBe(flat[2]);
    say(s, 'edit', null, ['movePoints', { at, points: ['0:0'], dx: -5, dy: 0 }]);
    expect(s.project).toEqual(demo);
    expect(
      say(s, 'edit', null, [
        'movePoints',
        { at: { glyph: 'constructor', master: 'm1' }, points: ['0:0'], dx: 1, dy: 0 },
      ]).e,
    ).toBeTruthy();
  });

  test('there are so many edits and no more', () => {
    const s = open();
    s.edits = MOST_EDITS;
    expect(say(s, 'edit', null, ['setGalleyText', { text: 'x' }]).e).toMatch(/at most 200,000 edits/);
  });
});

describe('values that are asked for', () => {
  const fields = { by: { number: 4, least: 1, most: 9 }, which: { glyphs: 'n' } };
  test('are those that are given, else the usual ones; glyphs come as references', () => {
    expect(say(open(), 'ask', null, [fields])).toEqual({ v: { by: 4, which: [{ $g: n.id }] } });
    expect(say(open({ given: { by: 9 } }), 'ask', null, [fields])).toMatchObject({ v: { by: 9 } });
    expect(say(open({ given: { by: 10 } }), 'ask', null, [fields]).e).toBe('“by” is 9 or less.');
  });

  test('end a run that is only to learn them', () => {
    const s = open({ onlyAsk: true });
    expect(() => say(s, 'ask', null, [fields])).toThrow(OnlyAsked);
    expect(s.asked).toEqual(fields);
  });

  test.each([
    [{ by: { number: 'five' } }, /^ask: by/],
    [{ 'no name': { number: 5 } }, /^ask: /],
    [{ by: { number: 5, unit: 'mm' } }, /^ask: by/],
    [{ by: { choice: 'x', of: [] } }, /^ask: by/],
  ])('%j is not understood, in words', (wrong, why) => {
    expect(say(open(), 'ask', null, [wrong]).e).toMatch(why);
  });
});

describe('scripts of a project', () => {
  const done = (o: ReturnType<typeof keepScript>): Project => {
    if (!o.ok) throw new Error(o.reason);
    return o.project;
  };
  const one = done(keepScript(demo, { name: ' First ', text: 'say(1)' }));
  const two = done(keepScript(one, { name: 'Second', text: 'say(2)' }));
  const [first, second] = two.scripts as [Project['scripts'][number], Project['scripts'][number]];

  test('are kept under a name of their own, changed in place, and removed', () => {
    expect(two.scripts.map((s) => [s.name, s.text])).toEqual([
      ['First', 'say(1)'],
      ['Second', 'say(2)'],
    ]);
    expect(done(keepScript(two, { id: first.id, name: 'First', text: 'say(3)' })).scripts[0]!.text).toBe('say(3)');
    expect(done(dropScript(two, { id: first.id })).scripts).toEqual([second]);
    expect(keepScript(two, { name: 'Second', text: '' })).toMatchObject({
      reason: 'There is a script “Second” already.',
    });
    expect(keepScript(two, { id: first.id, name: 'Second', text: '' })).toMatchObject({ ok: false });
    expect(keepScript(two, { name: '  ', text: '' })).toMatchObject({ reason: 'A script needs a name.' });
    expect(keepScript(two, { id: first.id, name: 'First', text: 'say(1)' })).toMatchObject({ ok: false });
    expect(dropScript(one, { id: second.id })).toMatchObject({ reason: 'That script is no longer there.' });
  });

  test('have a key that no other has', () => {
    const keyed = done(setScriptKey(two, { id: first.id, key: 3 }));
    expect(keyed.scripts[0]!.key).toBe(3);
    const other = done(setScriptKey(keyed, { id: second.id, key: 3 }));
    expect(other.scripts.map((s) => s.key)).toEqual([undefined, 3]);
    expect(done(setScriptKey(other, { id: second.id })).scripts[1]).not.toHaveProperty('key');
    // A new text leaves the key.
    expect(done(keepScript(other, { id: second.id, name: 'Second', text: 'x' })).scripts[1]!.key).toBe(3);
    expect(setScriptKey(two, { id: first.id })).toMatchObject({ ok: false });
  });
});

test('schemas of edits as a designer has things in hand', () => {
  expect(typeOf(z.object({ at: a.at, points: a.points.optional() }))).toBe('{ at: Drawing; points?: string[] }');
  expect(typeOf(z.object({ glyphs: a.glyphs, masters: a.masters }))).toBe('{ glyphs: Glyph[]; masters: Master[] }');
  expect(typeOf(z.enum(['a', 'b']))).toBe('"a" | "b"');
  expect(typeOf(z.array(z.union([z.string(), z.number()])))).toBe('(string | number)[]');
  expect(typeOf(z.tuple([z.number(), z.boolean()]))).toBe('[number, boolean]');
  expect(typeOf(z.record(z.string(), z.number()))).toBe('Record<string, number>');
  expect(typeOf(z.object({}))).toBe('object');
});
