import { CONSTRUCT_GLYPHS as GLYPHS } from '../testing/featureConstructs';
import { orderNotes } from './order';
import { compileSections } from './sections';

const section = (title: string, text: string) => ({ id: title, title, text });
const SECTIONS = [
  section('Parts', 'lookup one { sub a by b; } one; lookup two { sub c by d; } two;'),
  section('Small', 'feature smcp { sub b by b.sc; } smcp;'),
  section('Room', 'feature kern { pos a b -10; } kern;'),
  section('Context', "feature calt { lookup one; sub x' lookup two y; } calt;"),
  section('All', 'feature aalt { feature smcp; } aalt;'),
];

test('what works elsewhere than it stands is told; what works where it stands is not spoken of', () => {
  expect(orderNotes(SECTIONS)).toEqual([
    [],
    [],
    ['Glyphs move after all replacements: after Context too.'],
    ['one works where it stands, in Parts: before Small, Room.'],
    ['aalt works before all others, Parts, Small, Context too.'],
  ]);
  expect(orderNotes([SECTIONS[0]!, SECTIONS[3]!])).toEqual([[], []]);
  expect(orderNotes([section('', 'feature x { sub'), section('', '')])).toEqual([[], []]);
});

test('the font has lookups in the order that is told', () => {
  const { GSUB } = compileSections(SECTIONS, {}, { glyphs: GLYPHS });
  const order = GSUB.lookups.map((l) => l.name ?? l.feature);
  expect(order.indexOf('aalt')).toBe(0);
  expect(order.indexOf('one')).toBeLessThan(order.indexOf('smcp'));
  expect(order.indexOf('smcp')).toBeLessThan(order.indexOf('calt'));
});

test('of many sections between two are named', () => {
  const many = Array.from({ length: 5 }, (_, i) =>
    section(`S${i}`, `feature ss0${i + 1} { sub a by b; } ss0${i + 1};`),
  );
  const notes = orderNotes([SECTIONS[0]!, ...many, SECTIONS[3]!]);
  expect(notes.at(-1)).toEqual(['one works where it stands, in Parts: before S0, S1, S2 and 2 more.']);
});
