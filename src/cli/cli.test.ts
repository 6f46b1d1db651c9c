import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { readyDemo } from '../../demo/ready';
import { buildStarter } from '../../demo/starter';
import { castFont } from '../core/casting/font';
import { packZip } from '../core/formats/fileTree';
import { projectFiles, writeProjectFile } from '../core/formats/project/projectFile';
import { wendril, wendrilProcess } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'wendril-cli-'));
const files = projectFiles(buildStarter());
const ufoFolder = 'VelmarrowSans-Regular.ufo';

beforeAll(() => {
  for (const [path, bytes] of files) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), bytes);
  }
  writeFileSync(join(folder, 'demo.wendril'), writeProjectFile(buildStarter()));
  writeFileSync(join(folder, 'demo.ufoz'), packZip(new Map([...files].filter(([p]) => p.startsWith(ufoFolder)))));
});

test('every kind of source gives the same bytes as the core', async () => {
  const font = castFont(buildStarter(), { flavour: 'otf', place: { master: 'm1' }, blanks: true });
  if (!font.ok) throw new Error(font.reason);
  for (const [i, source] of ['demo.wendril', 'demo.ufoz', ufoFolder, 'project.designspace'].entries()) {
    const out = join(folder, `out${i}`);
    const run = wendrilProcess(['cast', join(folder, source), '--out', out, '--format', 'otf', '--blanks']);
    expect(run).toEqual({ code: 0, out: `${join(out, 'VelmarrowSans-Regular.otf')}\n`, err: '' });
    expect(Buffer.compare(readFileSync(join(out, 'VelmarrowSans-Regular.otf')), font.value.bytes)).toBe(0);
  }
});

test('characters that are not drawn are left out and told; with --blanks they stand as blanks', async () => {
  const out = join(folder, 'drawn');
  const run = await wendril('cast', join(folder, 'demo.wendril'), '--out', out, '--format', 'ttf');
  expect(run.code).toBe(0);
  expect(run.err).toMatch(/Not drawn yet, so left out: \S/);
  const facts = JSON.parse((await wendril('info', join(out, 'VelmarrowSans-Regular.ttf'), '--json')).out);
  expect(facts.glyphs).toBeLessThan(76);
});

test('instances, masters and the family as one font are chosen by name; what is not there is named', async () => {
  const source = join(process.cwd(), 'public/demo/velmarrow-sans-italic.wendril');
  const out = join(folder, 'chosen');
  const run = await wendril(
    'cast',
    source,
    '--out',
    out,
    '--format',
    'woff2',
    '--instances',
    'Bold Italic',
    '--masters',
    'Light Italic',
    '--variable',
  );
  expect(run.code).toBe(0);
  expect(readdirSync(out).sort()).toEqual([
    'VelmarrowSans-BoldItalic.woff2',
    'VelmarrowSans-ItalicVariable.woff2',
    'VelmarrowSans-LightItalic.woff2',
  ]);
  const facts = JSON.parse((await wendril('info', join(out, 'VelmarrowSans-ItalicVariable.woff2'), '--json')).out);
  expect(facts.axes.map((a: { tag: string }) => a.tag)).toEqual(['wght', 'wdth']);
  expect(facts.instances).toBe(10);
  expect((await wendril('cast', source, '--out', out, '--instances', 'Blackest')).err).toMatch(
    /There is no instance “Blackest”; there are Light Italic, /,
  );
  expect((await wendril('cast', join(folder, 'demo.wendril'), '--out', out, '--variable')).err).toMatch(/one master/);
});

test('all formats, and facts about each', async () => {
  const out = join(folder, 'all');
  expect((await wendril('cast', join(folder, 'demo.wendril'), '--out', out, '--keep-overlaps', '--blanks')).code).toBe(
    0,
  );
  expect(readdirSync(out).sort()).toEqual([
    'VelmarrowSans-Regular.otf',
    'VelmarrowSans-Regular.ttf',
    'VelmarrowSans-Regular.woff2',
  ]);
  for (const format of ['otf', 'ttf', 'woff2']) {
    const run = await wendril('info', join(out, `VelmarrowSans-Regular.${format}`), '--json');
    expect(JSON.parse(run.out)).toMatchObject({
      format,
      glyphs: 76,
      unitsPerEm: 1000,
      weightClass: 400,
      names: { 1: 'Velmarrow Sans', 6: 'VelmarrowSans-Regular' },
    });
  }
  expect(JSON.parse((await wendril('info', join(folder, ufoFolder), '--json')).out)).toMatchObject({
    format: 'source',
    family: 'Velmarrow Sans',
    glyphs: 76,
    masters: [{ name: 'Regular' }],
  });
});

test('a designspace may name sources beside its own folder', async () => {
  mkdirSync(join(folder, 'space'), { recursive: true });
  const text = new TextDecoder()
    .decode(files.get('project.designspace'))
    .replace(`filename="${ufoFolder}"`, `filename="../${ufoFolder}"`);
  writeFileSync(join(folder, 'space/beside.designspace'), text);
  const out = join(folder, 'beside');
  expect(
    await wendril('cast', join(folder, 'space/beside.designspace'), '--out', out, '--format', 'otf', '--blanks'),
  ).toMatchObject({
    code: 0,
    err: '',
  });
  expect(readFileSync(join(out, 'VelmarrowSans-Regular.otf'))).toEqual(
    readFileSync(join(folder, 'out0/VelmarrowSans-Regular.otf')),
  );
});

test('what goes wrong is one sentence on standard error and exit code 1', async () => {
  const fails = async (...args: string[]) => {
    const run = await wendril(...args);
    expect(run.code).toBe(1);
    expect(run.out).toBe('');
    expect(run.err.trimEnd().split('\n')).toHaveLength(1);
    return run.err.trim();
  };
  writeFileSync(join(folder, 'empty.wendril'), '');
  writeFileSync(join(folder, 'letter.ttf'), 'Dear Sir, this is no font.');
  expect(await fails('cast', join(folder, 'none.ufo'), '--out', folder)).toMatch(/none\.ufo does not exist\.$/);
  expect(await fails('cast', join(folder, 'empty.wendril'), '--out', folder)).toBe(
    'wendril: empty.wendril is not a zip file.',
  );
  expect(await fails('cast', join(folder, 'demo.wendril'))).toMatch(/needs --out DIR/);
  expect(await fails('cast', join(folder, 'demo.wendril'), '--out', folder, '--format', 'pfb')).toMatch(
    /“pfb” is not a format; choose from otf, ttf, woff, woff2/,
  );
  expect(await fails('info', join(folder, 'letter.ttf'))).toMatch(
    /letter\.ttf: This is not an OpenType or TrueType font file\.$/,
  );
  expect(await fails('convert', join(folder, 'demo.wendril'), join(folder, 'a.pdf'))).toMatch(
    /has no ending that tells what to write/,
  );
  expect(await fails('convert', join(folder, 'demo.wendril'), join(folder, 'a.svg'))).toMatch(/choose it with --glyph/);
  expect(await fails('convert', join(folder, 'demo.wendril'), join(folder, 'a.svg'), '--glyph', 'nothing')).toMatch(
    /There is no glyph “nothing”/,
  );
  expect(await fails('convert', join(folder, 'letter.ttf'), join(folder, 'a.otf'))).toMatch(
    /letter\.ttf is not a zip file\.$/,
  );
  expect(await fails('names', join(folder, 'letter.ttf'))).toMatch(/not an OpenType or TrueType font file/);
  expect(await fails('names', join(folder, 'demo.wendril'), '--style', 'Bold')).toMatch(/needs --family/);
  expect(await fails('polish')).toMatch(/no command “polish”/);
  expect(await fails('cast', join(folder, 'demo.wendril'), '--loud')).toMatch(/--loud/);
});

test('info tells any number of files, a line each; a bad one tells its fault in its line', async () => {
  writeFileSync(join(folder, 'letter.ttf'), 'Dear Sir, this is no font.');
  const run = await wendril(
    'info',
    join(folder, 'demo.wendril'),
    join(folder, 'letter.ttf'),
    join(folder, ufoFolder),
    '--json',
  );
  const lines = run.out
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as { format?: string; error?: string });
  expect(lines.map((l) => l.format)).toEqual(['source', undefined, 'source']);
  expect(lines[1]!.error).toMatch(/letter\.ttf: This is not an OpenType or TrueType font file\.$/);
  expect(run.code).toBe(1);
});

test('one kind of file becomes another and comes back', async () => {
  const at = (name: string) => join(folder, 'convert', name);
  const chain = [
    join(folder, 'demo.wendril'),
    at('a.otf'),
    at('b.ufo'),
    at('c.woff'),
    at('d.wendril'),
    at('e.designspace'),
    at('f.ufoz'),
    at('g.ttf'),
    at('h.woff2'),
  ];
  for (let i = 1; i < chain.length; i++)
    expect(await wendril('convert', chain[i - 1]!, chain[i]!, '--keep-overlaps')).toMatchObject({
      code: 0,
      out: `${chain[i]}\n`,
    });
  const facts = async (f: string) => JSON.parse((await wendril('info', f, '--json')).out);
  const [first, last] = [await facts(chain[1]!), await facts(chain[8]!)];
  expect(last).toMatchObject({
    glyphs: first.glyphs,
    codePoints: first.codePoints,
    widths: first.widths,
    names: first.names,
  });
  expect((await wendril('convert', at('a.otf'), at('n.svg'), '--glyph', 'n')).code).toBe(0);
  const svg = readFileSync(at('n.svg'), 'utf8');
  expect(svg).toMatch(/viewBox="0 -742 546 946"/);
  expect(svg).toMatch(/<path d="M72 0L156 0L156 -336C/);
});

test('an SVG letter becomes a source of one glyph and a font; a damaged one is refused with its line', async () => {
  const at = (name: string) => join(folder, 'convert', name);
  expect((await wendril('convert', at('n.svg'), at('letter.ufo'), '--glyph', 'eng')).code).toBe(0);
  expect(readFileSync(join(at('letter.ufo'), 'glyphs', 'eng.glif'), 'utf8')).toMatch(/<advance width="546"\/>/);
  expect((await wendril('convert', at('n.svg'), at('letter.otf'))).code).toBe(0);
  expect(JSON.parse((await wendril('info', at('letter.otf'), '--json')).out)).toMatchObject({
    glyphs: 3,
    codePoints: 2,
  });
  expect(JSON.parse((await wendril('info', at('n.svg'), '--json')).out)).toMatchObject({
    format: 'source',
    glyphs: 3,
    drawn: 3,
  });
  writeFileSync(at('bad.svg'), '<svg>\n<path d="M0 0 L"/></svg>');
  expect(await wendril('convert', at('bad.svg'), at('bad.otf'))).toMatchObject({
    code: 1,
    err: expect.stringContaining('bad.svg, line 2: <path> has path data that cannot be read'),
  });
  expect(existsSync(at('bad.otf'))).toBe(false);
});

test('names are shown, planned and given; files keep their packing', async () => {
  const font = join(folder, 'all', 'VelmarrowSans-Regular.otf');
  const web = join(folder, 'all', 'VelmarrowSans-Regular.woff2');
  const [shown] = JSON.parse((await wendril('names', font, '--json')).out);
  expect(shown).toMatchObject({ family: 'Velmarrow Sans', style: 'Regular', contradictions: [] });
  const before = readFileSync(font);
  const planned = await wendril(
    'names',
    font,
    web,
    '--family',
    'Orde',
    '--style',
    'Narrow Bold',
    '--dry-run',
    '--json',
  );
  expect(JSON.parse(planned.out)).toMatchObject([
    { out: null, names: { postScriptName: 'Orde-NarrowBold', weightClass: 700, widthClass: 3 } },
    { out: null },
  ]);
  expect(readFileSync(font).equals(before)).toBe(true);
  const out = join(folder, 'named');
  expect((await wendril('names', font, web, '--family', 'Orde', '--style', 'Narrow Bold', '--out', out)).code).toBe(0);
  expect(readFileSync(font).equals(before)).toBe(true);
  for (const [name, format] of [
    ['VelmarrowSans-Regular.otf', 'otf'],
    ['VelmarrowSans-Regular.woff2', 'woff2'],
  ] as const) {
    const [said] = JSON.parse((await wendril('names', join(out, name), '--json')).out);
    expect(said).toMatchObject({
      family: 'Orde',
      style: 'Narrow Bold',
      weightClass: 700,
      widthClass: 3,
      contradictions: [],
    });
    expect(JSON.parse((await wendril('info', join(out, name), '--json')).out)).toMatchObject({ format, glyphs: 76 });
  }
});

test('operations are applied to many glyphs, and told', async () => {
  const source = join(folder, 'demo.wendril');
  const at = (name: string) => join(folder, 'applied', name);
  const overlap = await wendril(
    'apply',
    'round',
    source,
    at('round.wendril'),
    '--amount',
    '10',
    '--glyphs',
    'n,o',
    '--json',
  );
  const told = JSON.parse(overlap.out) as {
    sentence: string;
    glyphs: { glyph: string; before: number; after: number; deviation: number }[];
  };
  expect(told.sentence).toBe('Rounded coordinates in 2 glyphs');
  expect(told.glyphs.map((g) => [g.glyph, g.before === g.after, g.deviation > 0 && g.deviation < 8])).toEqual([
    ['n', true, true],
    ['o', true, true],
  ]);
  expect(
    (await wendril('apply', 'round', at('round.wendril'), at('again.ufo'), '--amount', '10', '--glyphs', 'n,o')).out,
  ).toBe(`Nothing needed to be changed.\n${at('again.ufo')}\n`);
  expect(readFileSync(join(at('again.ufo'), 'glyphs', 'o.glif'), 'utf8')).toMatch(
    /<point x="-?\d*0" y="-?\d*0" type="curve"/,
  );
  expect((await wendril('apply', 'scale', source, at('half.wendril'), '--x', '0.5')).out).toMatch(
    /^Transformed 76 glyphs\./,
  );
  expect((await wendril('convert', at('half.wendril'), at('n.svg'), '--glyph', 'n')).code).toBe(0);
  expect(readFileSync(at('n.svg'), 'utf8')).toMatch(/<path d="M36 0L78 0L78 -168C/);
  for (const [args, reason] of [
    [['shine', source, at('x.ufo')], /“shine” is no operation; choose from extremes, fewer/],
    [['fewer', source, at('x.otf')], /has no ending that tells what to write/],
    [['fewer', source, at('x.ufo'), '--amount', '99'], /--amount is 0.05 to 20 units for fewer/],
    [['starts', source, at('x.ufo'), '--amount', '1'], /starts takes no --amount/],
    [['rotate', source, at('x.ufo')], /rotate needs --angle/],
    [['move', source, at('x.ufo'), '--glyphs', 'nope'], /There is no glyph “nope”/],
    [['move', source, at('x.ufo'), '--master', 'Bold'], /There is no master “Bold”; there are Regular/],
  ] as const) {
    const run = await wendril('apply', ...args);
    expect([run.code, run.err]).toEqual([1, expect.stringMatching(reason)]);
  }
  expect(existsSync(at('x.ufo'))).toBe(false);
});

test('edges are worked on over many glyphs', async () => {
  const source = join(folder, 'demo.wendril');
  const at = (name: string) => join(folder, 'edges', name);
  expect(
    (await wendril('apply', 'hollow', source, at('open.wendril'), '--amount', '20', '--glyphs', 'n,o,space')).out,
  ).toMatch(/^Hollowed in 2 glyphs\./);
  expect(
    (
      await wendril(
        'apply',
        'frame',
        source,
        at('keys.wendril'),
        '--amount',
        '40',
        '--radius',
        '60',
        '--reversed',
        '--glyphs',
        'A',
      )
    ).out,
  ).toMatch(/^Framed in 1 glyph\./);
  for (const [args, reason] of [
    [['stroke', source, at('x.ufo')], /stroke needs --amount/],
    [['stroke', source, at('x.ufo'), '--amount', '20', '--join', 'soft'], /--join is one of round, sharp, bevel/],
    [['grow', source, at('x.ufo'), '--amount', '0'], /Grow by 1 to 1000 units/],
  ] as const)
    expect(await wendril('apply', ...args)).toMatchObject({ code: 1, err: expect.stringMatching(reason) });
});

test('a picture is traced to one path', async () => {
  const at = (name: string) => join(folder, 'traced', name);
  mkdirSync(at(''), { recursive: true });
  const told = JSON.parse((await wendril('trace', 'public/demo/sheets/stencil.png', at('s.svg'), '--json')).out) as {
    contours: number;
    points: number;
    threshold: number;
  };
  expect(told.contours).toBeGreaterThan(20);
  expect(told.points).toBeLessThan(700);
  const svg = readFileSync(at('s.svg'), 'utf8');
  expect(svg.match(/<path/g)).toHaveLength(1);
  expect(svg).toMatch(/viewBox="0 0 1418\.764 1000"/);
  const coarse = JSON.parse(
    (
      await wendril(
        'trace',
        'public/demo/sheets/stencil.png',
        at('c.svg'),
        '--detail',
        '6',
        '--height',
        '500',
        '--threshold',
        '45',
        '--json',
      )
    ).out,
  ) as {
    points: number;
  };
  expect(coarse.points).toBeLessThan(told.points);
  writeFileSync(at('bad.png'), 'no picture');
  writeFileSync(at('short.png'), readFileSync('public/demo/sheets/stencil.png').subarray(0, 900));
  for (const [args, reason] of [
    [[at('bad.png'), at('x.svg')], /bad\.png is not a PNG or JPEG picture that can be read/],
    [[at('short.png'), at('x.svg')], /short\.png is not a PNG or JPEG picture/],
    [['nowhere.png', at('x.svg')], /nowhere\.png does not exist/],
    [['public/demo/sheets/pen.png', at('x.png')], /has no ending that tells what to write; choose from \.svg/],
    [['public/demo/sheets/pen.png', at('x.svg'), '--threshold', '500'], /--threshold is a number from 1 to 99/],
  ] as const)
    expect(await wendril('trace', ...args)).toMatchObject({ code: 1, err: expect.stringMatching(reason) });
  expect(existsSync(at('x.svg'))).toBe(false);
});

test('a family is fitted and kerned from its controls', async () => {
  const source = join(folder, 'demo.wendril');
  const at = (name: string) => join(folder, 'spaced', name);
  const fitted = JSON.parse((await wendril('fit', source, at('fit.wendril'), '--json')).out) as {
    glyphs: { glyph: string; left: number }[];
  };
  expect(fitted.glyphs.length).toBeGreaterThan(10);
  expect(fitted.glyphs.map((g) => g.glyph)).not.toEqual(expect.arrayContaining(['n']));
  const kerned = JSON.parse(
    (
      await wendril(
        'kern',
        at('fit.wendril'),
        at('kern.ufo'),
        '--glyphs',
        'T,o,A,V',
        '--min',
        '10',
        '--step',
        '10',
        '--json',
      )
    ).out,
  ) as {
    pairs: { first: string; second: string; value: number }[];
  };
  expect(kerned.pairs.some((p) => p.value < -20)).toBe(true);
  for (const p of kerned.pairs) expect(Math.abs(p.value % 10)).toBe(0);
  expect(readFileSync(join(at('kern.ufo'), 'kerning.plist'), 'utf8')).toContain('<integer>-');
  for (const [args, reason] of [
    [['fit', source], /fit takes SOURCE and TARGET/],
    [['kern', source, at('x.otf')], /has no ending that tells what to write/],
    [['fit', source, at('x.ufo'), '--keep', 'nope'], /There is no glyph “nope”/],
    [['kern', source, at('x.ufo'), '--min', 'x'], /--min “x” is not a number/],
  ] as const)
    expect(await wendril(...args)).toMatchObject({ code: 1, err: expect.stringMatching(reason) });
});

test('help needs no arguments and exits with 0', async () => {
  expect((await wendril()).out).toContain('  cast SOURCE… --out DIR');
  expect((await wendril('--help')).code).toBe(0);
});

test('every edit is listed and applied by its name; glyphs and masters are written by theirs', async () => {
  const source = join(folder, 'demo.wendril');
  const at = (name: string) => join(folder, 'edits', name);
  const listed = JSON.parse((await wendril('apply', '--list', '--json')).out) as { name: string; does: string }[];
  expect(listed.length).toBeGreaterThan(80);
  expect(listed.map((e) => e.name)).toContain('setSides');
  expect(listed.every((e) => e.does.length > 5)).toBe(true);
  const wide = JSON.stringify({ at: { glyph: '/n', master: '@Regular' }, advance: 700 });
  expect(await wendril('apply', 'setSides', source, at('wide.ufo'), '--args', wide)).toMatchObject({
    code: 0,
    err: '',
  });
  expect(readFileSync(join(at('wide.ufo'), 'glyphs', 'n.glif'), 'utf8')).toMatch(/<advance width="700"\/>/);
  for (const [args, reason] of [
    ['{', /--args is no JSON/],
    [JSON.stringify({ at: { glyph: '/nobody', master: '@Regular' }, advance: 700 }), /There is no glyph “nobody”/],
    [
      JSON.stringify({ at: { glyph: '/n', master: '@Bold' }, advance: 700 }),
      /There is no master “Bold”; there are Regu/,
    ],
    [JSON.stringify({ at: { glyph: '/n', master: '@Regular' }, advance: 1e9 }), /it must be from 0 to 65535/],
    [JSON.stringify({ at: { master: '@Regular' }, advance: 1 }), /glyph/],
  ] as const) {
    const run = await wendril('apply', 'setSides', source, at('x.ufo'), '--args', args);
    expect([run.code, run.err]).toEqual([1, expect.stringMatching(reason)]);
  }
  expect((await wendril('apply', 'round', source, at('x.ufo'), '--args', '{}')).err).toMatch(/round takes no --args/);
  expect(existsSync(at('x.ufo'))).toBe(false);
});

test('a source whose names lead out of the folder writes nothing outside, whatever it becomes', async () => {
  const victim = join(folder, 'victim');
  mkdirSync(victim, { recursive: true });
  writeFileSync(join(victim, 'letter.txt'), 'mine');
  for (const [i, filename] of ['q/../../../victim', '../../victim/evil.ufo', 'q/../../../victim/evil.ufo'].entries()) {
    const tree = new Map(
      [...files].map(([path, bytes]) => [path.replace(ufoFolder, filename), bytes] as const).filter(([p]) => p !== ''),
    );
    const space = new TextDecoder().decode(files.get('project.designspace')).replaceAll(ufoFolder, filename);
    tree.set('project.designspace', new TextEncoder().encode(space));
    const packed = join(folder, `leads${i}.wendril`);
    writeFileSync(packed, packZip(tree));
    mkdirSync(join(folder, `deep${i}/er`), { recursive: true });
    for (const [path, bytes] of tree) {
      const to = join(folder, `deep${i}/er`, path);
      mkdirSync(dirname(to), { recursive: true });
      writeFileSync(to, bytes);
    }
    for (const source of [packed, join(folder, `deep${i}/er/project.designspace`)])
      for (const to of ['out.designspace', 'out.ufo', 'out.wendril']) {
        const before = readdirSync(victim).sort();
        const run = await wendril('convert', source, join(folder, `deep${i}`, 'er', 'to', 'there', to));
        expect(run.err.includes('    at ')).toBe(false);
        expect(readdirSync(victim).sort()).toEqual(before);
      }
    expect(readFileSync(join(victim, 'letter.txt'), 'utf8')).toBe('mine');
  }
});

test('coverage is told by language and list; letters are put together for languages and what cannot be is told', async () => {
  const source = join(folder, 'demo.wendril');
  const told = await wendril('coverage', source, '--languages', 'en,Polish');
  expect([told.code, told.err]).toEqual([0, '']);
  expect(told.out).toMatch(/English: all letters/);
  const missing = JSON.parse((await wendril('coverage', source, '--languages', 'pl', '--json')).out).languages[0]
    .missing;
  expect(missing).toEqual(expect.arrayContaining(['ł', 'Ż'].map((c) => c.codePointAt(0))));
  expect((await wendril('coverage', source, '--languages', 'xyzzy')).err).toMatch(/There is no language “xyzzy”/);
  writeFileSync(join(folder, 'list.txt'), 'abc ő\nU+0200–U+0100\n');
  const list = await wendril('coverage', source, '--list', join(folder, 'list.txt'));
  expect(list.out).toMatch(/: 3 of 4, missing ő\n/);
  expect(list.err).toMatch(/list\.txt, line 2: U\+0200–U\+0100 is not a range/);
  const target = join(folder, 'wider.ufo');
  const made = await wendril('compose', source, target, '--glyphs', 'é,ł', '--json');
  const report = JSON.parse(made.out);
  expect([...report.built, ...report.notPossible.map((n: { name: string }) => n.name)].sort()).toEqual([
    'eacute',
    'lslash',
  ]);
  expect(existsSync(target)).toBe(true);
  expect((await wendril('compose', source, target)).err).toMatch(/Say what is to be put together/);
  const anchors = JSON.parse((await wendril('compose', source, target, '--anchors-only', '--json')).out);
  expect(anchors.anchors).toBeGreaterThan(20);
});

test('rules are told and written for other tools; a fault ends with 1; text is shaped and explained', async () => {
  const demo = 'public/demo/velmarrow-sans.wendril';
  const fea = join(folder, 'rules.fea');
  const told = await wendril('features', demo, '--write', fea);
  expect([told.code, told.err]).toEqual([0, '']);
  expect(told.out).toMatch(/^Ligatures \(liga; writes itself\): 5 ligatures$/m);
  expect(readFileSync(fea, 'utf8')).toMatch(/feature liga \{\n {2}sub f f i by f_f_i;/);
  const json = JSON.parse((await wendril('features', demo, '--json')).out);
  expect(json.sections).toHaveLength(23);
  expect(json.questions).toEqual([expect.stringMatching(/no text reaches/)]);
  expect(json.offered).toEqual(['aalt', 'locl', 'ordn']);
  const broken = join(folder, 'broken');
  mkdirSync(broken, { recursive: true });
  for (const [path, bytes] of files) {
    if (!path.startsWith(ufoFolder)) continue;
    mkdirSync(dirname(join(broken, path)), { recursive: true });
    writeFileSync(join(broken, path), bytes);
  }
  writeFileSync(join(broken, ufoFolder, 'features.fea'), 'feature liga {\n  sub n n by nothing;\n} liga;\n');
  const checked = await wendril('features', join(broken, ufoFolder), '--check');
  expect(checked.code).toBe(1);
  expect(checked.out).toMatch(/^Ligatures, always on, line 2, column 14: Glyph nothing is not in the project/);
  // One master of it, which is cast for every text.
  const whole = readyDemo();
  const one = join(folder, 'one.wendril');
  writeFileSync(one, writeProjectFile({ ...whole, masters: whole.masters.slice(0, 1), axes: [], instances: [] }));
  const shaped = await wendril('shape', one, 'office AV', '--explain');
  expect(shaped.out).toMatch(/^o f_f_i c e space A V\n/);
  expect(shaped.out).toMatch(/ {2}liga, lookup \d+ of GSUB \(Ligatures, line 2\): o f f i c e .* → o f_f_i c e/);
  expect(shaped.out).toMatch(/ {2}kern, lookup \d+ of GPOS \(the pairs of Kern\): moves glyphs/);
  const small = JSON.parse((await wendril('shape', one, 'ab', '--features', 'smcp', '--json')).out);
  expect(small.glyphs.map((g: { glyph: string }) => g.glyph)).toEqual(['a.sc', 'b.sc']);
  expect((await wendril('shape', one, 'ab', '--features', 'small')).err).toMatch(/small is no feature/);
  expect((await wendril('shape', one, 'ab', '--direction', 'rtl')).out).toMatch(/^b a\n/);
  expect((await wendril('shape', one, 'ab', '--direction', 'up')).err).toMatch(/up is no direction; write ltr or rtl/);
  const font = join(folder, 'decompiled');
  expect((await wendril('cast', one, '--out', font, '--format', 'ttf')).code).toBe(0);
  const [file] = readdirSync(font);
  expect((await wendril('features', join(font, file!), '--write', fea)).code).toBe(0);
  expect(readFileSync(fea, 'utf8')).toMatch(/sub f f i by f_f_i;[\s\S]*feature liga \{[\s\S]*feature cpsp \{/);
  writeFileSync(
    join(broken, ufoFolder, 'features.fea'),
    'feature locl {\n  script latn;\n  language TRK;\n  sub n by o;\n} locl;\n',
  );
  const first = async (...more: string[]) =>
    (await wendril('shape', join(broken, ufoFolder), 'n', ...more)).out.split('\n')[0];
  expect([await first(), await first('--language', 'tr'), await first('--language', 'de')]).toEqual(['n', 'o', 'n']);
});

test('every command answers --help with all the options that it takes; --version works; a wrong word names the nearest', async () => {
  for (const name of ['cast', 'convert', 'info', 'coverage', 'compose', 'names', 'apply', 'fit', 'kern', 'trace']) {
    const { code, out, err } = await wendril(name, '--help');
    expect([name, code, err]).toEqual([name, 0, '']);
    const told = [...out.matchAll(/^ {2}--([\w-]+)/gm)].map((m) => m[1]!).filter((o) => o !== 'help');
    // What the help tells is taken, and nothing else is.
    expect(told.length).toBeGreaterThan(0);
    const all = told.map((option) => `--${option}`);
    expect((await wendril(name, ...all, '--nonesuch')).err).toMatch(/There is no option --nonesuch/);
  }
  expect((await wendril('--version')).out).toMatch(/^wendril \d+\.\d+\.\d+\n$/);
  expect((await wendril('help', 'kern')).out).toBe((await wendril('kern', '--help')).out);
  expect((await wendril('cats')).err).toBe(
    'wendril: There is no command “cats”; did you mean cast? See wendril --help.\n',
  );
  expect((await wendril('apply', 'slnt', 'a.ufo', 'b.ufo')).err).toContain('did you mean slant?');
});
