import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { dropCastingList, keepCastingList } from '../project/castingLists';
import { allLists, listOfThings, readyLists, thingsOfList } from './lists';
import { thingsOf } from './things';

const demo = readyDemo();

test('lists that are ready make every style, the family as one font, or all of it; of one master that master', () => {
  const made = Object.fromEntries(
    readyLists(demo).map((l) => {
      const { formats, things, gone } = thingsOfList(demo, l);
      expect(gone).toEqual([]);
      return [l.name, [formats.join(' '), things.length]];
    }),
  );
  expect(made).toEqual({
    'For the desk': ['otf', 10],
    'For the web': ['woff2', 10],
    'As one font': ['ttf woff2', 1],
    Everything: ['otf ttf woff2', 11],
  });
  const one = buildStarter();
  expect(readyLists(one).map((l) => [l.name, thingsOfList(one, l).things])).toEqual([
    ['For the desk', [{ master: 'm1' }]],
    ['For the web', [{ master: 'm1' }]],
    ['Everything', [{ master: 'm1' }]],
  ]);
});

test('a choice is kept under a name, comes back as it was, and tells what is gone', () => {
  const all = thingsOf(demo);
  const choice = {
    formats: ['ttf' as const],
    things: [all.masters[2]!, all.instances[6]!, ...all.variable],
    terms: {
      keepOverlaps: true,
      blanks: false,
      without: ['liga'],
      glyphs: { languages: ['pl'] },
      embedding: 'view' as const,
    },
  };
  const kept = keepCastingList(demo, { list: listOfThings(demo, ' Proofs ', choice) });
  if (!kept.ok) throw new Error(kept.reason);
  const [list] = kept.project.settings.castingLists!;
  expect(list!.name).toBe('Proofs');
  expect(thingsOfList(kept.project, list!)).toEqual({ ...choice, gone: [] });
  expect(allLists(kept.project)[0]!.name).toBe('Proofs');
  const fewer = { ...kept.project, instances: [] };
  expect(thingsOfList(fewer, list!)).toMatchObject({ gone: [demo.instances[6]!.name] });
  const again = keepCastingList(kept.project, { list: { ...list!, variable: false } });
  expect(again.ok && again.project.settings.castingLists).toHaveLength(1);
  const dropped = dropCastingList(kept.project, { name: 'Proofs' });
  expect(dropped.ok && dropped.project.settings.castingLists).toEqual([]);
  expect(dropCastingList(demo, { name: 'Proofs' }).ok).toBe(false);
});

test.each([
  ['', ['otf'], ['m1'], /needs a name/],
  ['x', [], ['m1'], /needs a format/],
  ['x', ['otf'], [], /needs a master, an instance or the whole family/],
])('a list named “%s” of %j and %j is refused', (name, formats, masters, reason) => {
  const list = { name, formats, masters, instances: [], variable: false, keepOverlaps: false, blanks: false };
  const done = keepCastingList(demo, { list });
  expect(done.ok ? 'kept' : done.reason).toMatch(reason);
});
