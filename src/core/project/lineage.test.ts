import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { withGlyph } from './edit';
import { touchedBetween } from './lineage';
import type { Project } from './model';
import { applyPatch, patchBetween } from './patch';
import { glyphForCodePoint, glyphNamed } from './queries';

const starter = buildStarter();
const ids = starter.glyphOrder.slice(2, 12);
/** The same project, of whose making nothing is known. */
const stranger = (p: Project): Project => ({ ...p, glyphs: { ...p.glyphs } });
const noted = (p: Project, id: string, note: string): Project => withGlyph(p, { ...p.glyphs[id]!, note });

test('patches are the same whether the making of the projects is known or not', () => {
  const step = fc.tuple(fc.constantFrom(...ids), fc.constantFrom('soft', 'round', ''));
  fc.assert(
    fc.property(fc.array(step, { maxLength: 7 }), fc.array(step, { maxLength: 7 }), (left, right) => {
      const grown = (steps: readonly (readonly [string, string])[]) =>
        steps.reduce((p, [id, note]) => noted(p, id, note), starter);
      const [a, b] = [grown(left), grown(right)];
      const byId = (p: ReturnType<typeof patchBetween>) =>
        [...p].sort((x, y) => (x.path.join() < y.path.join() ? -1 : 1));
      expect(byId(patchBetween(a, b))).toEqual(byId(patchBetween(stranger(a), stranger(b))));
      const patch = patchBetween(a, b);
      expect(applyPatch(a, patch).glyphs).toEqual(b.glyphs);
      expect(applyPatch(b, patch, 'backwards').glyphs).toEqual(a.glyphs);
    }),
    { numRuns: 60 },
  );
});

test('two states of one gesture differ where either touched; strangers and far relatives tell nothing', () => {
  const [first, second] = [noted(starter, ids[0]!, 'a'), noted(starter, ids[1]!, 'b')];
  expect([...touchedBetween(first.glyphs, second.glyphs)!].sort()).toEqual([ids[0]!, ids[1]!].sort());
  expect(touchedBetween(starter.glyphs, starter.glyphs)!.size).toBe(0);
  expect([...touchedBetween(starter.glyphs, first.glyphs)!]).toEqual([ids[0]]);
  expect(touchedBetween(stranger(starter).glyphs, first.glyphs)).toBeUndefined();
  const far = [1, 2, 3, 4, 5, 6].reduce((p, i) => noted(p, ids[i]!, 'x'), starter);
  expect(touchedBetween(starter.glyphs, far.glyphs)).toBeUndefined();
  expect(
    patchBetween(starter, far)
      .map((c) => c.path[1])
      .sort(),
  ).toEqual(ids.slice(1, 7).sort());
});

test('names and code points are found anew after an edit that touches them, known or not', () => {
  const n = glyphNamed(starter, 'n')!;
  const renamed = withGlyph(starter, { ...n, name: 'enn', unicodes: [0x2229] });
  expect(glyphNamed(renamed, 'enn')?.id).toBe(n.id);
  expect(glyphNamed(renamed, 'n')).toBeUndefined();
  expect(glyphForCodePoint(renamed, 0x2229)?.id).toBe(n.id);
  expect(glyphNamed(starter, 'n')?.id).toBe(n.id);
  expect(glyphNamed(stranger(renamed), 'enn')?.id).toBe(n.id);
});
