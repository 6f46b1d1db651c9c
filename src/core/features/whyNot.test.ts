import type { Setting } from '../project/setting';
import type { ShownRule } from './shown';
import { type LineLookup, type LineStep, unapplied } from './whyNot';

const letters = (text: string) => [...text].map((name, cluster) => ({ name, cluster }));
const rule = (over: Partial<ShownRule>): ShownRule => ({
  feature: 'liga',
  back: [],
  before: ['f', 'i'],
  ahead: [],
  after: ['f_i'],
  kind: 'replace',
  ...over,
});
const lookup = (over: Partial<LineLookup>): LineLookup => ({
  title: 'Ligatures',
  section: 's',
  flag: 0,
  features: [{ tag: 'liga', systems: ['DFLT dflt', 'latn dflt'] }],
  ...over,
});

/** Why a rule did nothing in a line; undefined where it did. */
function why(
  given: Partial<{ text: string; rule: ShownRule; setting: Setting; lookups: LineLookup[]; steps: LineStep[] }>,
): string | undefined {
  const { text = 'fi', setting = { features: {} }, lookups = [lookup({})], steps = [] } = given;
  const line = { text, setting, lookups, steps, letters: letters(text) };
  return unapplied('s', [given.rule ?? rule({})], line)[0]?.reason;
}
const step = (number: number, before: string, after: readonly string[], feature = 'liga'): LineStep => ({
  table: 'GSUB',
  lookup: number,
  feature,
  before: letters(before),
  after: after.map((name, cluster) => ({ name, cluster })).filter((g) => g.name !== ''),
});

test('a rule that applied, one whose letters are not there, and one of another section are not told', () => {
  expect(why({ steps: [step(0, 'fi', ['f_i', ''])] })).toBeUndefined();
  expect(why({ text: 'if' })).toBeUndefined();
  expect(why({ lookups: [lookup({ section: 'other' })] })).toBeUndefined();
});

test('a feature that is off, one that waits to be asked for, and one of another language say so', () => {
  expect(why({ setting: { features: { liga: 0 } } })).toBe('liga is off in this line.');
  const dlig = { rule: rule({ feature: 'dlig' }), lookups: [lookup({ features: [{ tag: 'dlig', systems: [] }] })] };
  expect(why(dlig)).toBe('dlig is off in this line; text uses it only when asked.');
  expect(why({ rule: rule({ language: 'TRK' }) })).toBe('It is for text in the language TRK.');
});

test('a language system that lacks the feature is named, with those that have it', () => {
  const others: LineLookup = { title: 'x', section: 'x', flag: 0, features: [{ tag: 'locl', systems: ['latn TRK'] }] };
  expect(why({ setting: { features: {}, language: 'TRK' }, lookups: [lookup({}), others] })).toBe(
    'Text in the language TRK has no liga; rules declare it for DFLT dflt, latn dflt.',
  );
  // A language that no rule knows is set as the script is; one by its code is known to the shaper only.
  expect(why({ setting: { features: {}, language: 'DEU' }, lookups: [lookup({}), others] })).toMatch(
    /^The shaper did not reach it/,
  );
  expect(why({ setting: { features: {}, language: 'tr' }, lookups: [lookup({}), others] })).toMatch(
    /^The shaper did not reach it/,
  );
  const greek = lookup({ features: [{ tag: 'liga', systems: ['grek dflt'] }] });
  expect(why({ lookups: [greek, lookup({ section: 'x', features: [{ tag: 'x', systems: ['latn dflt'] }] })] })).toMatch(
    /^Text in the script latn has no liga/,
  );
});

test('what took the letter before is named: an earlier lookup, or another rule of the same', () => {
  const early = lookup({ title: 'Small capitals', section: 'x', features: [{ tag: 'smcp', systems: ['latn dflt'] }] });
  const line = { lookups: [early, lookup({})], steps: [step(0, 'fi', ['f.sc', 'i.sc'], 'smcp')] };
  expect(why(line)).toBe('f was f.sc already, by Small capitals, which comes before.');
  expect(why({ text: 'ffi', rule: rule({ before: ['f', 'i'] }), steps: [step(0, 'ffi', ['f_f', '', 'i'])] })).toBe(
    'Another rule of the same lookup came first and made it part of another glyph.',
  );
});

test('contexts, flags and joining are told where nothing else is to blame', () => {
  expect(why({ rule: rule({ back: ['x'] }) })).toBe('What stands around it is not what the rule wants.');
  expect(why({ lookups: [lookup({ flag: 8 })] })).toBe('Its lookup passes over marks.');
  expect(why({ rule: rule({ ahead: ['x'] }), lookups: [lookup({ flag: 12 })] })).toBe(
    'What stands around it is not what the rule wants; its lookup passes over ligatures, marks.',
  );
  const fina = {
    rule: rule({ feature: 'fina' }),
    lookups: [lookup({ features: [{ tag: 'fina', systems: ['latn dflt'] }] })],
  };
  expect(why(fina)).toBe('The shaper applies fina where a joined word ends only.');
});
