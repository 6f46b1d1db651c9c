import { buildStarter } from '../demo/starter';
import { castFont } from '../src/core/casting/font';
import { parseFeatures } from '../src/core/features/parse';
import { openAny } from '../src/core/formats/openFile';
import { projectFiles, projectFromFiles } from '../src/core/formats/project/projectFile';
import { square } from '../src/core/geometry/testShapes';
import { drawingsOf, flattened } from '../src/core/project/outline';
import { drawingOf } from '../src/core/project/queries';
import { mutated, mutatedText, random } from './mutate';
import { ruleFault, ruleText } from './ruleCases';
import { shapeCase } from './shapeCases';
import { faultOf, OPERATIONS, wrongArea } from './shapes';

const starter = buildStarter();

test('damage is the same for the same number, and differs from one number to the next', () => {
  const bytes = Uint8Array.from({ length: 400 }, (_, i) => i & 255);
  expect(mutated(bytes, 5)).toEqual(mutated(bytes, 5));
  expect(mutatedText(bytes, 5)).toEqual(mutatedText(bytes, 5));
  expect(
    new Set(Array.from({ length: 50 }, (_, i) => Buffer.from(mutated(bytes, i)).toString('hex'))).size,
  ).toBeGreaterThan(45);
  const next = random(1);
  const drawn = Array.from({ length: 4000 }, next);
  expect(Math.min(...drawn)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...drawn)).toBeLessThan(1);
  expect(drawn.reduce((a, b) => a + b, 0) / drawn.length).toBeCloseTo(0.5, 1);
});

test.each(['ttf', 'otf'] as const)('damaged %s fonts open soundly or are refused in a sentence', async (flavour) => {
  const cast = castFont(starter, { flavour, place: { master: 'm1' }, keepOverlaps: true });
  if (!cast.ok) throw new Error(cast.reason);
  let opened = 0;
  for (let seed = 1; seed <= 150; seed++) {
    const result = await openAny(mutated(cast.value.bytes, seed), `font.${flavour}`);
    if (result.ok) opened++;
    else expect(result.reason).toMatch(/^font\.(ttf|otf)\b.{5,280}\.$/s);
  }
  expect(opened).toBeGreaterThan(10);
  expect(opened).toBeLessThan(150);
});

test('damaged sources open soundly or are refused in a sentence that names a file', () => {
  const files = projectFiles(starter);
  const paths = [...files.keys()].filter((p) => !p.endsWith('.glif') || p.includes('/a.glif') || p.includes('eacute'));
  let refused = 0;
  for (let seed = 1; seed <= 150; seed++) {
    const path = paths[seed % paths.length]!;
    const result = projectFromFiles(new Map(files).set(path, mutatedText(files.get(path)!, seed)), 'source.ufo');
    if (result.ok) continue;
    refused++;
    expect(result.reason).toMatch(/(\.ufo|\.glif|\.plist|\.designspace|fea)\b.*\.$/s);
  }
  expect(refused).toBeGreaterThan(30);
});

test('damaged rules end in sentences at their places, and tables that read back', () => {
  const found = Array.from({ length: 400 }, (_, i) => [i + 1, ruleFault(i + 1)] as const).filter(([, f]) => f);
  expect(found).toEqual([]);
  // Some are damaged, some are not.
  const told = Array.from({ length: 60 }, (_, i) => parseFeatures(ruleText(i + 1)).faults.length > 0);
  expect(new Set(told)).toEqual(new Set([true, false]));
});

describe('arithmetic of shapes, kind by kind', () => {
  const letters = starter.glyphOrder
    .map((id) => flattened(drawingOf(starter.glyphs[id]!, 'm1'), drawingsOf(starter, 'm1')))
    .filter((list) => list.length > 0);

  test('the measure of a wrong result sees what is missing and what is too much', () => {
    const [a, b] = [[square(0, 0, 100)], [square(50, 50, 100)]];
    expect(wrongArea(a, b, 'unite', [square(0, 0, 100)], 0.5)).toBeCloseTo(7500, -1);
    expect(wrongArea(a, b, 'intersect', [square(50, 50, 50)], 0.5)).toBeCloseTo(0, 6);
    expect(wrongArea(a, b, 'subtract', [square(0, 0, 100)], 0.5)).toBeCloseTo(2500, -1);
    expect(wrongArea(a, b, 'exclude', [], 0.5)).toBeCloseTo(15000, -1);
  });

  test.each([0, 1, 2, 3, 4, 5, 6, 7, 8, 9])('kind %i', (kind) => {
    for (let i = 0; i < (kind === 1 ? 3 : 20); i++) {
      const n = kind + 10 * i;
      const { first, second, kind: name } = shapeCase(n, letters);
      expect([name, n, faultOf(first, second, OPERATIONS[i % 4]!)]).toEqual([name, n, undefined]);
      if (i % 6 === 0) expect([name, n, faultOf([...first, ...second], [], 'unite')]).toEqual([name, n, undefined]);
    }
  });
});
