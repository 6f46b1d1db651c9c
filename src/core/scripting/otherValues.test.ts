import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { runEdit } from '../project/edit';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { otherValues } from './otherValues';

/** What a run changes beside glyphs, told as values. */
const demo = readyDemo();
const [light, regular] = demo.masters;
const id = (name: string) => glyphNamed(demo, name)!.id;
const glyph = (name: string) => ({ kind: 'glyph' as const, id: id(name) });
const after = (name: string, args: unknown, p = demo): Project => {
  const done = runEdit(p, name, args);
  if (!done.ok) throw new Error(done.reason);
  return done.project;
};

test('nothing differs from itself, nor where only glyphs do', () => {
  expect(otherValues(demo, demo)).toEqual([]);
  const moved = after('setSides', { at: { glyph: id('n'), master: light!.id }, left: 99 });
  expect(otherValues(demo, moved)).toEqual([]);
});

test('kerning is told pair by pair in its master, new, changed and gone', () => {
  const made = after('setPair', { master: light!.id, first: glyph('H'), second: glyph('O'), value: -7 });
  expect(otherValues(demo, made)).toEqual([{ what: `${light!.name}: H O`, before: '–', after: '−7' }]);
  const changed = after('setPair', { master: light!.id, first: glyph('H'), second: glyph('O'), value: 12 }, made);
  expect(otherValues(made, changed)).toEqual([{ what: `${light!.name}: H O`, before: '−7', after: '12' }]);
  expect(otherValues(made, demo)).toEqual([{ what: `${light!.name}: H O`, before: '−7', after: '–' }]);
});

test('a pair whose glyph is gone keeps the name that it had; groups are told by their members', () => {
  const made = after('setPair', { master: light!.id, first: glyph('Q'), second: glyph('O'), value: -7 });
  const gone = after('removeGlyphs', { ids: [id('Q')], drawOut: true }, made);
  const told = otherValues(made, gone);
  expect(told).toContainEqual({ what: `${light!.name}: Q O`, before: '−7', after: '–' });
  const group = demo.groups.find((g) => g.members.includes(id('Q')));
  const left = {
    what: `${group!.side === 'first' ? 'First' : 'Second'} group ${group!.name}`,
    before: 'Q',
    after: '–',
  };
  expect(told).toContainEqual(left);
});

test('heights, texts and rules are told by their names, other parts by their way', () => {
  const zone = after('setZone', { master: regular!.id, zone: 'xHeight', change: { position: 511 } });
  expect(otherValues(demo, zone)).toEqual([
    {
      what: `${regular!.name}: zones, x height`,
      before: expect.stringContaining(String(regular!.zones.xHeight.position)),
      after: expect.stringContaining('511'),
    },
  ]);
  const text = after('setGalleyText', { text: 'Hamborn' });
  expect(otherValues(demo, text)).toEqual([
    { what: 'texts, galley', before: expect.stringMatching(/Griffin/), after: 'Hamborn' },
  ]);
  const [section] = demo.features.sections;
  const rules = {
    ...demo,
    features: {
      ...demo.features,
      sections: demo.features.sections.map((s) => (s === section ? { ...s, text: 'one\ntwo' } : s)),
    },
  };
  expect(otherValues(demo, rules)).toEqual([
    { what: `Rules: ${section!.title}`, before: expect.stringMatching(/lines$/), after: '2 lines' },
  ]);
});
