import { readyDemo } from '../../demo/ready';
import { readProjectFile } from '../core/formats/project/projectFile';
import { setUnitsPerEm } from '../core/project/edits';
import { applyMade, MadeSteps, patchBetween, type Step } from '../core/project/patch';
import { errandService } from './errand';

const demo = readyDemo();

test('an edit of all drawings comes in parts; they lead to what the edit makes, and the patch takes it back', async () => {
  errandService.load(demo);
  const args = { unitsPerEm: 2000, scale: true };
  const made = setUnitsPerEm(demo, args);
  if (!made.ok) throw new Error(made.reason);
  const parts: (readonly Step[])[] = [];
  let told = 0;
  const ran = await errandService.edit('setUnitsPerEm', args, (steps, done, total) => {
    parts.push(steps);
    told = done / total;
  });
  expect(ran).toEqual({ ok: true, value: { sentence: made.sentence } });
  expect(parts.length).toBeGreaterThan(10);
  expect(Math.max(...parts.map((p) => p.length))).toBeLessThanOrEqual(40);
  expect(told).toBe(1);
  const taken = new MadeSteps(demo);
  for (const part of parts) taken.take(part);
  const after = taken.made();
  expect(after).toEqual(made.project);
  expect(applyMade(demo, parts.flat())).toEqual(after);
  const patch = patchBetween(demo, after);
  expect(patch.every((c) => c.before !== c.after)).toBe(true);
  const back = applyMade(
    after,
    patch.map(({ path, before }) => ({ path, value: before })),
  );
  expect(back).toEqual(demo);
});

test('steps that come one by one lead to what they lead to at once: glyphs come, change and go, the rest too', () => {
  const [first, second] = demo.glyphOrder;
  const { id: _, ...rest } = demo.glyphs[first!]!;
  const steps: Step[] = [
    { path: ['glyphs', 'new'], value: { ...rest, id: 'new', name: 'new' } },
    { path: ['glyphs', first!, 'name'], value: 'other' },
    { path: ['glyphs', 'new', 'note'], value: 'later' },
    { path: ['family', 'name'], value: 'Orde' },
    { path: ['glyphs', second!], value: undefined },
    { path: ['glyphOrder'], value: [...demo.glyphOrder.filter((id) => id !== second), 'new'] },
  ];
  const one = new MadeSteps(demo);
  for (const step of steps) one.take([step]);
  const made = one.made();
  expect(made).toEqual(applyMade(demo, steps));
  expect(made.glyphs.new).toMatchObject({ name: 'new', note: 'later' });
  expect([made.glyphs[first!]!.name, made.glyphs[second!], made.family.name]).toEqual(['other', undefined, 'Orde']);
  expect(demo.glyphs[second!]).toBeDefined();
});

test('what an edit refuses is told, and nothing comes', async () => {
  errandService.load(demo);
  const heard: unknown[] = [];
  const ran = await errandService.edit('setUnitsPerEm', { unitsPerEm: 2, scale: true }, (s) => heard.push(s));
  expect(ran.ok).toBe(false);
  expect(await errandService.edit('noSuchEdit', {}, (s) => heard.push(s))).toMatchObject({ ok: false });
  expect(heard).toEqual([]);
});

test('its file is the project', () => {
  errandService.load(demo);
  const { bytes, glyphs } = errandService.file();
  expect(glyphs).toBe(demo.glyphOrder.length);
  const read = readProjectFile(bytes, 'demo.wendril');
  expect(read.ok && read.value.glyphOrder.length).toBe(glyphs);
});
