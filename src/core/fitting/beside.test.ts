import { readyDemo } from '../../../demo/ready';
import { setUnitsPerEm } from '../project/edits';
import { glyphNamed, masterOf } from '../project/queries';
import { besideScale, counterpart, type Face, heightFacts, letterFacts } from './beside';
import { sidesOf } from './sides';

const demo = readyDemo();
const face = (project = demo, id = 'm1'): Face => ({ project, master: masterOf(project, id)! });

test('the same face in another em measures the same beside, whichever way it is brought to size', () => {
  const scaled = setUnitsPerEm(demo, { unitsPerEm: 2000, scale: true });
  if (!scaled.ok) throw new Error(scaled.reason);
  const other = face(scaled.project);
  for (const by of ['x-height', 'em'] as const) {
    const scale = besideScale(face(), other, by);
    expect(scale).toBeCloseTo(0.5, 6);
    for (const name of ['n', 'o', 'H', 'a']) {
      const own = glyphNamed(demo, name)!;
      const theirs = letterFacts(other, counterpart(own, other)!, scale);
      const ours = letterFacts(face(), own);
      for (const key of ['left', 'right', 'advance', 'stem', 'counter', 'top', 'bottom'] as const)
        expect(Math.abs((theirs[key] ?? 0) - (ours[key] ?? 0))).toBeLessThan(1);
      expect(theirs.share).toBeCloseTo(ours.share ?? Number.NaN, 1);
      expect(ours).toMatchObject(sidesOf(demo, own, 'm1'));
    }
    expect(heightFacts(other, scale)).toEqual(heightFacts(face()));
  }
});

test('a bolder master beside has thicker stems at the same x-height; what has no counterpart says so', () => {
  const bold = face(demo, 'm3');
  const n = glyphNamed(demo, 'n')!;
  const scale = besideScale(face(), bold, 'x-height');
  expect(letterFacts(bold, n, scale).stem!).toBeGreaterThan(letterFacts(face(), n).stem! * 1.3);
  expect(counterpart(glyphNamed(demo, 'a.ss01')!, bold)).toBeUndefined();
});
