import '../core/allEdits';
import { buildStarter } from '../../demo/starter';
import type { Finding } from '../core/preflight/finding';
import type { Drawing } from '../core/project/model';
import { applySteps } from '../core/project/patch';
import { glyphNamed } from '../core/project/queries';
import { withChanged } from '../core/testing/change';
import { preflightService as service } from './preflight';

const starter = buildStarter();
const [master] = starter.masters;
const stray = (d: Drawing): Partial<Drawing> => ({
  contours: [...d.contours, { closed: true, points: [{ x: 9, y: 9, type: 'line' }] }],
});
const faulty = withChanged(withChanged(starter, 'n', master!.id, stray), 'o', master!.id, stray);
const kind = 'outlines/stray';

beforeEach(() => service.load(faulty));

test('the check tells what it has found on the way, and all of it in the end', async () => {
  const told: (readonly Finding[])[] = [];
  const found = await service.check((done, total, some) => {
    expect(done).toBeLessThanOrEqual(total);
    if (some) told.push(some);
  });
  expect(
    found!
      .filter((f) => f.kind === kind)
      .map((f) => faulty.glyphs[f.glyph!]!.name)
      .sort(),
  ).toEqual(['n', 'o']);
  expect(told.length).toBeGreaterThan(0);
});

test('a check that is overtaken, or stopped, is left off', async () => {
  // Nothing is known of this one yet, so that there is work to leave off.
  service.load(withChanged({ ...faulty, unitsPerEm: 1001 }, 'a', master!.id, stray));
  const first = service.check(() => {});
  const second = service.check(() => {});
  expect(await first).toBeUndefined();
  expect((await second)!.length).toBeGreaterThan(0);
  service.load({ ...faulty, unitsPerEm: 1002 });
  const third = service.check(() => {});
  service.stop();
  expect(await third).toBeUndefined();
});

test('what a mend would come to is drawn before it is done, and done by its steps', async () => {
  const found = (await service.check(() => {}))!;
  const one = found.find((f) => f.kind === kind && faulty.glyphs[f.glyph!]!.name === 'n')!;
  const tried = service.tryMend(one.mends[0]!, [one.glyph!], master!.id);
  if (!tried.ok) throw new Error(tried.reason);
  const [shown] = tried.value.letters;
  expect([shown!.glyph, shown!.master, shown!.after !== '']).toEqual([one.glyph, master!.id, true]);
  const after = applySteps(faulty, tried.value.steps);
  expect(glyphNamed(after, 'n')!.drawings[master!.id]).toEqual(glyphNamed(starter, 'n')!.drawings[master!.id]);
  expect(glyphNamed(after, 'o')).toBe(glyphNamed(faulty, 'o'));
  expect(service.tryMend({ edit: 'mendOutline', args: {}, title: '' }, [], master!.id).ok).toBe(false);
});

test('all of a kind at once, each letter before and after; where nothing can be mended that is said', async () => {
  const tried = await service.tryAll(kind, master!.id, () => {});
  if (!tried.ok) throw new Error(tried.reason);
  expect(tried.value.letters.map((l) => faulty.glyphs[l.glyph]!.name).sort()).toEqual(['n', 'o']);
  expect(applySteps(faulty, tried.value.steps).glyphs).toEqual(starter.glyphs);
  expect((await service.tryAll('masters/heights', master!.id, () => {})).ok).toBe(false);
});

test('a habit of the family, told once, can be mended wherever it is', async () => {
  const shifted = {
    ...starter,
    glyphs: Object.fromEntries(
      Object.entries(starter.glyphs).map(([k, g]) => [
        k,
        {
          ...g,
          drawings: Object.fromEntries(
            Object.entries(g.drawings).map(([m, d]) => [
              m,
              {
                ...d,
                contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + 0.25 })) })),
              },
            ]),
          ),
        },
      ]),
    ),
  };
  service.load(shifted);
  const found = (await service.check(() => {}))!.filter((f) => f.kind === 'outlines/offGrid');
  expect(found).toHaveLength(1);
  expect(found[0]!.mendable).toBeGreaterThan(60);
  const tried = await service.tryAll('outlines/offGrid', master!.id, () => {});
  if (!tried.ok) throw new Error(tried.reason);
  expect(applySteps(shifted, tried.value.steps).glyphs).toEqual(starter.glyphs);
});
