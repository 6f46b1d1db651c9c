import { buildStarter } from '../../demo/starter';
import { endingOf, glyphsOf, numberOf, oneOf, parsed, SOURCES, twoPaths } from './arguments';
import { COMMANDS, helpOf, helpOfAll, nearestWord } from './commands';
import { CliError } from './problem';

const reason = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    expect(error).toBeInstanceOf(CliError);
    return (error as Error).message;
  }
  throw new Error('it was accepted');
};

test('options and words are told apart; an unknown option is one sentence', () => {
  const options = { json: { type: 'boolean', default: false }, step: { type: 'string' } } as const;
  expect(parsed(['a', '--step', '5', 'b', '--json'], options)).toMatchObject({
    values: { json: true, step: '5' },
    positionals: ['a', 'b'],
  });
  expect(parsed([], options).values.json).toBe(false);
  expect(reason(() => parsed(['--loud'], options))).toBe('There is no option --loud.');
  expect(reason(() => parsed(['--stp', '5'], options))).toBe('There is no option --stp; did you mean --step?');
  expect(reason(() => parsed(['--step'], options))).toBe('--step needs a value.');
  expect(reason(() => parsed(['--json=yes'], options))).toBe('--json takes no value.');
});

test('two paths, no more and no fewer', () => {
  expect(twoPaths('fit', ['a.ufo', 'b.ufo'])).toEqual(['a.ufo', 'b.ufo']);
  expect(reason(() => twoPaths('fit', ['a.ufo']))).toBe('fit takes SOURCE and TARGET; see wendril --help.');
  expect(reason(() => twoPaths('trace', ['a', 'b', 'c'], 'PICTURE and TARGET.svg'))).toContain(
    'PICTURE and TARGET.svg',
  );
});

test('endings tell what to write, folders with a slash behind them too', () => {
  expect(endingOf('x/Y.UFO/', SOURCES)).toBe('.ufo');
  expect(endingOf('a.wendril', SOURCES)).toBe('.wendril');
  for (const path of ['a', 'a.otf', '.ufo.bak', ''])
    expect(reason(() => endingOf(path, SOURCES))).toContain('choose from .ufo .ufoz');
});

test('numbers keep to their bounds, words to their list', () => {
  expect(numberOf('step', '2.5', 0)).toBe(2.5);
  expect(numberOf('by', '-7')).toBe(-7);
  for (const text of ['', ' ', 'x', '1e999', '5 5'])
    expect(reason(() => numberOf('step', text))).toContain('is not a number');
  expect(reason(() => numberOf('step', '-1', 0))).toBe('--step is a number of 0 or more.');
  expect(reason(() => numberOf('threshold', '100', 1, 99))).toBe('--threshold is a number from 1 to 99.');
  expect(oneOf('cap', 'flat', ['flat', 'round'])).toBe('flat');
  expect(reason(() => oneOf('cap', 'soft', ['flat', 'round']))).toBe('--cap is one of flat, round.');
});

test('glyphs come by name and by character', () => {
  const demo = buildStarter();
  const names = (text: string) => glyphsOf(demo, text).map((id) => demo.glyphs[id]!.name);
  expect(names('n, o,&,seven')).toEqual(['n', 'o', 'ampersand', 'seven']);
  expect(reason(() => names('n,nope'))).toBe('There is no glyph “nope”.');
});

test('every command tells its options, each with what it does; the nearest word is found', () => {
  for (const command of COMMANDS) {
    const help = helpOf(command);
    expect(help).toContain(command.example);
    for (const o of command.options) expect(help).toContain(`--${o.name}`);
    expect(helpOfAll()).toContain(`  ${command.name} `);
  }
  const names = COMMANDS.map((c) => c.name);
  expect(nearestWord('cats', names)).toBe('cast');
  expect(nearestWord('Kern', names)).toBe('kern');
  expect(nearestWord('zzzzzz', names)).toBeUndefined();
});

test('glyphs that there are not are all named', () => {
  expect(reason(() => glyphsOf(buildStarter(), 'n, qq ,zz'))).toBe('There are no glyphs “qq”, “zz”.');
});
