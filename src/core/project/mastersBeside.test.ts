import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import type { Outcome } from './edit';
import { masterFact } from './masterFacts';
import { mastersBeside, setInMasters } from './mastersBeside';
import type { Project } from './model';

const demo = readyDemo();
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const why = (o: Outcome): string | undefined => (o.ok ? undefined : o.reason);
const rowOf = (p: Project, key: string) => mastersBeside(p).find((r) => r.key === key)!;
const all = demo.masters.map((m) => m.id);

test('every row has a value for each master, and says whether they are alike', () => {
  const rows = mastersBeside(demo);
  for (const r of rows) {
    expect([r.key, r.values.length]).toEqual([r.key, demo.masters.length]);
    expect([r.key, r.alike]).toEqual([r.key, new Set(r.values).size === 1]);
  }
  expect(new Set(rows.map((r) => r.key)).size).toBe(rows.length);
  expect(rowOf(demo, 'kerning').values).toEqual(demo.masters.map((m) => Object.keys(m.kerning).length));
  expect(rowOf(demo, 'line:xHeight').values).toEqual(demo.masters.map((m) => m.zones.xHeight.position));
  const one = buildStarter();
  expect(mastersBeside(one).every((r) => r.alike && r.values.length === 1)).toBe(true);
});

test('a value is set in one master or in all, in one step; what one refuses is done in none', () => {
  const one = done(setInMasters(demo, { masters: ['m3'], key: 'line:xHeight', value: 540 }));
  expect(rowOf(one, 'line:xHeight').values.filter((v) => v === 540)).toHaveLength(1);
  const outcome = setInMasters(demo, { masters: all, key: 'line:xHeight', value: 531 });
  expect(outcome.ok && outcome.sentence).toBe('Set x-height at 531, 6 masters');
  expect(rowOf(done(outcome), 'line:xHeight')).toMatchObject({ alike: true });
  // An overshoot keeps to its side.
  expect(
    rowOf(done(setInMasters(demo, { masters: all, key: 'overshoot:baseline', value: 9 })), 'overshoot:baseline').values,
  ).toEqual(all.map(() => -9));
  expect(rowOf(done(setInMasters(demo, { masters: all, key: 'angle', value: -8 })), 'angle').values).toEqual(
    all.map(() => -8),
  );
  const win = done(setInMasters(demo, { masters: all, key: 'fact:winAscent', value: 1000 }));
  expect(win.masters.map((m) => masterFact(m, 'winAscent'))).toEqual(all.map(() => 1000));
  const rule = done(setInMasters(win, { masters: all, key: 'fact:winAscent' }));
  expect(rule.masters.map((m) => masterFact(m, 'winAscent'))).toEqual(all.map(() => undefined));
  expect(why(setInMasters(demo, { masters: all, key: 'line:xHeight', value: 9000 }))).toMatch(/at most 3000 units/);
  expect(why(setInMasters(demo, { masters: all, key: 'kerning', value: 3 }))).toBe('That is counted, not set.');
  expect(why(setInMasters(demo, { masters: all, key: 'line:xHeight' }))).toMatch(/needs a number/);
  expect(why(setInMasters(demo, { masters: all, key: 'own:nothing', value: 3 }))).toMatch(/has no zone named nothing/);
  expect(why(setInMasters(demo, { masters: [], key: 'angle', value: 3 }))).toBe('No masters were named.');
});
