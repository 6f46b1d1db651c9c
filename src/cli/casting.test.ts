import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzlibSync } from 'fflate';
import { largeProject } from '../../bench/largeProject';
import { readyDemo } from '../../demo/ready';
import { writeProjectFile } from '../core/formats/project/projectFile';
import { cmap } from '../core/opentype/cmap';
import { os2 } from '../core/opentype/os2';
import { readSfnt, tableOf } from '../core/opentype/sfnt';
import type { Project } from '../core/project/model';
import { wendril, wendrilProcess } from './testing';

/** Casting and proofs from the command line: terms, threads, the same bytes wherever. */
const folder = mkdtempSync(join(tmpdir(), 'wendril-cli-casting-'));
const CAST = new Set(['a', 'b', 'f', 'i', 'f_i', 'o', 'x', 'A', 'V', 'space', 'acutecomb', 'aacute', 'period']);
const whole = readyDemo();
/** The demo with few glyphs in its fonts, so that many can be made. */
const family: Project = {
  ...whole,
  features: { ...whole.features, sections: whole.features.sections.filter((s) => s.title === 'Ligatures') },
  glyphs: Object.fromEntries(Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: CAST.has(g.name) }])),
};
const source = join(folder, 'Few.wendril');

const filesIn = (out: string) =>
  readdirSync(out)
    .sort()
    .map((f) => [f, readFileSync(join(out, f)).toString('base64')]);

beforeAll(() => writeFileSync(source, writeProjectFile(family)));

test('every instance and the font that varies: one thread or several, any clock and language, the same bytes', () => {
  const made = (name: string, more: readonly string[], env?: Record<string, string>) => {
    const out = join(folder, name);
    const run = wendrilProcess(
      ['cast', source, '--out', out, '--format', 'otf,woff2', '--instances', 'all', '--variable', ...more],
      env,
    );
    expect([run.code, run.err]).toEqual([0, '']);
    return {
      files: filesIn(out),
      told: run.out
        .trim()
        .split('\n')
        .map((l) => l.slice(out.length + 1)),
    };
  };
  const alone = made('alone', ['--jobs', '1']);
  expect(alone.files).toHaveLength(2 * (family.instances.length + 1));
  const many = made('many', ['--jobs', '3'], { LANG: 'tr_TR.UTF-8', LC_ALL: 'tr_TR.UTF-8', TZ: 'Pacific/Kiritimati' });
  expect(many).toEqual(alone);
});

test('terms are asked for one by one, and added to those of a list; JSON tells the files', () => {
  const list = join(folder, 'letters.txt');
  writeFileSync(list, 'a f i\n');
  const out = join(folder, 'terms');
  const run = wendrilProcess([
    'cast',
    source,
    '--out',
    out,
    '--format',
    'otf',
    '--masters',
    'Regular',
    '--glyphs',
    list,
    '--embedding',
    'view',
    '--lines',
    '900,-300,20',
    '--without',
    'kern',
    '--json',
  ]);
  expect([run.code, run.err]).toEqual([0, '']);
  const { files } = JSON.parse(run.out);
  expect(files).toEqual([
    expect.objectContaining({ format: 'otf', path: join(out, 'VelmarrowSans-Regular.otf'), notes: [] }),
  ]);
  const bytes = new Uint8Array(readFileSync(files[0].path));
  expect(files[0].bytes).toBe(bytes.length);
  const font = readSfnt(bytes);
  const told = os2.read(tableOf(font, 'OS/2'));
  expect([told.fsType, told.sTypoAscender, told.sTypoDescender, told.sTypoLineGap]).toEqual([4, 900, -300, 20]);
  expect([...cmap.read(tableOf(font, 'cmap')).keys()]).toEqual([0x20, 0x61, 0x66, 0x69, 0xa0]);
  const parts = join(folder, 'parts');
  const bold = join(folder, 'Bold.wendril');
  writeFileSync(bold, writeProjectFile({ ...family, instances: family.instances.filter((i) => i.name === 'Bold') }));
  expect(wendrilProcess(['cast', bold, '--out', parts, '--list', 'For the web', '--parts', '--must-agree']).code).toBe(
    0,
  );
  expect(readdirSync(parts)).toContain('VelmarrowSans-Bold-latin.woff2');
});

test.each([
  [['--embedding', 'always'], /“always” is not known; choose from free \(installable\), edit/],
  [['--lines', '900'], /--lines takes ascender, descender and gap/],
  [['--glyphs', 'Nowhere'], /“Nowhere” is neither a list of the project nor a file/],
  [['--languages', 'xx'], /No language is known as “xx”/],
  [['--jobs', '0'], /--jobs is a number from 1 to 64/],
])('%j is refused in one sentence', async (more, reason) => {
  const run = await wendril('cast', source, '--out', join(folder, 'none'), '--format', 'otf', ...more);
  expect(run.code).toBe(1);
  expect(run.err).toMatch(reason);
  expect(run.err.trim().split('\n')).toHaveLength(1);
});

/** The streams of a PDF that are packed, unpacked; its objects are written one by one. */
function streamsOf(pdf: Buffer): Uint8Array[] {
  const out: Uint8Array[] = [];
  for (let at = pdf.indexOf('stream\n'); at >= 0; at = pdf.indexOf('stream\n', at + 7)) {
    if (pdf.subarray(at - 3, at).toString() === 'end') continue;
    try {
      out.push(unzlibSync(new Uint8Array(pdf.subarray(at + 7, pdf.indexOf('endstream', at)))));
    } catch {
      // Not packed.
    }
  }
  return out;
}

test('a proof has the very font in it and text that can be copied, in the sections asked for', () => {
  const out = join(folder, 'fonts');
  expect(wendrilProcess(['cast', source, '--out', out, '--format', 'ttf', '--masters', 'Regular']).code).toBe(0);
  const font = join(out, 'VelmarrowSans-Regular.ttf');
  const pdfPath = join(folder, 'proof.pdf');
  const run = wendrilProcess([
    'proof',
    font,
    '--out',
    pdfPath,
    '--sections',
    'waterfall,kerning,marks',
    '--text',
    'fix AV',
    '--page',
    'letter',
  ]);
  expect([run.code, run.out]).toEqual([0, `${pdfPath}\n`]);
  const pdf = readFileSync(pdfPath);
  const streams = streamsOf(pdf);
  const bytes = new Uint8Array(readFileSync(font));
  expect(streams.some((s) => Buffer.compare(s, bytes) === 0)).toBe(true);
  expect(pdf.toString('latin1').match(/\/MediaBox \[ 0 0 612 792 \]/g)).toHaveLength(3);
  const texts = streams.map((s) => Buffer.from(s).toString('latin1'));
  // The ligature stands for its letters.
  expect(texts.find((s) => s.includes('begincmap'))).toMatch(/<[0-9A-F]{4}> <00660069>/);
  // A and V are one run, drawn nearer by their kerning.
  const index = cmap.read(tableOf(readSfnt(bytes), 'cmap'));
  const hex = (c: string) => index.get(c.codePointAt(0)!)!.toString(16).toUpperCase().padStart(4, '0');
  const kerned = new RegExp(`<${hex('A')}> (\\d+) <${hex('V')}>`);
  expect(Number(kerned.exec(texts.join('\n'))?.[1])).toBeGreaterThan(20);
  const again = join(folder, 'again.pdf');
  wendrilProcess(
    ['proof', font, '--out', again, '--sections', 'waterfall,kerning,marks', '--text', 'fix AV', '--page', 'letter'],
    { TZ: 'Asia/Tokyo' },
  );
  expect(Buffer.compare(readFileSync(again), pdf)).toBe(0);
});

test('a proof of a source shows the family and its languages; what cannot be is one sentence', async () => {
  const pdfPath = join(folder, 'family.pdf');
  mkdirSync(join(folder, 'is a folder.pdf'), { recursive: true });
  const run = wendrilProcess(['proof', source, '--out', pdfPath, '--instance', 'Bold', '--sections', 'family,spacing']);
  expect(run.code).toBe(0);
  const fonts = readFileSync(pdfPath)
    .toString('latin1')
    .match(/\/FontName \/[^\s]+/g)!;
  expect(new Set(fonts).size).toBe(family.instances.length);
  for (const [args, reason] of [
    [['proof', source], /proof needs --out FILE\.pdf/],
    [
      ['proof', source, '--out', pdfPath, '--sections', 'poster'],
      /“poster” is no section of a proof; choose from waterfall/,
    ],
    [['proof', source, '--out', pdfPath, '--page', 'A9'], /“A9” is no size of page; choose from A4, A3, Letter/],
    [['proof', source, '--out', pdfPath, '--master', 'Nobody'], /There is no master “Nobody”; there are Light/],
  ] as const) {
    const refused = await wendril(...args);
    expect([args, refused.code]).toEqual([args, 1]);
    expect(refused.err).toMatch(reason);
  }
});

test('several sources in one command give the bytes of each alone; one that is bad keeps no other from being cast', () => {
  const second = join(folder, 'Second.wendril');
  const renamed = { ...family, family: { ...family.family, name: 'Orde Two' }, masters: family.masters.slice(0, 2) };
  writeFileSync(second, writeProjectFile(renamed));
  const first = join(folder, 'First.wendril');
  writeFileSync(first, writeProjectFile({ ...family, masters: family.masters.slice(0, 3) }));
  const format = ['--format', 'ttf,otf'];
  const alone = [first, second].flatMap((s, i) => {
    const out = join(folder, `one${i}`);
    expect(wendrilProcess(['cast', s, '--out', out, ...format]).code).toBe(0);
    return filesIn(out);
  });
  const byName = (files: string[][]) => [...files].sort(([a], [b]) => (a! < b! ? -1 : 1));
  for (const jobs of ['1', '3']) {
    const out = join(folder, `all${jobs}`);
    const run = wendrilProcess([
      'cast',
      first,
      join(folder, 'none.ufo'),
      second,
      '--out',
      out,
      ...format,
      '--jobs',
      jobs,
    ]);
    expect([run.code, run.err]).toEqual([1, expect.stringMatching(/^wendril: (\S*none\.ufo): \1 does not exist\.\n$/)]);
    expect(byName(filesIn(out))).toEqual(byName(alone));
  }
  const twice = wendrilProcess(['cast', source, source, '--out', join(folder, 'twice'), '--format', 'otf']);
  expect(twice.code).toBe(1);
  expect(twice.err).toMatch(/Few\.wendril and \S+Few\.wendril would both be written to \S+\.otf\.\n$/);
});

test('overlaps of one large font are removed in several threads, and the bytes are the same', () => {
  const large = join(folder, 'Large.wendril');
  writeFileSync(large, writeProjectFile(largeProject(2600)));
  const [one, two] = ['1', '2'].map((jobs) => {
    const out = join(folder, `large${jobs}`);
    const run = wendrilProcess(['cast', large, '--out', out, '--format', 'ttf', '--jobs', jobs]);
    expect(run.code).toBe(0);
    return filesIn(out);
  });
  expect(two).toEqual(one);
});

test('names are told in the language of who asks, else in English', () => {
  const out = join(folder, 'spoken');
  const spoken: Project = {
    ...family,
    masters: [
      {
        ...family.masters[0]!,
        info: {
          ...family.masters[0]!.info,
          openTypeNameRecords: [{ nameID: 10, platformID: 3, encodingID: 1, languageID: 0x407, string: 'Auf Deutsch' }],
        },
      },
    ],
    axes: [],
    instances: [],
    family: { ...family.family, description: 'In English' },
  };
  const file = join(folder, 'Spoken.wendril');
  writeFileSync(file, writeProjectFile(spoken));
  expect(wendrilProcess(['cast', file, '--out', out, '--format', 'ttf']).code).toBe(0);
  const font = join(out, readdirSync(out)[0]!);
  const named = (LC_ALL: string) => JSON.parse(wendrilProcess(['info', font, '--json'], { LC_ALL }).out).names[10];
  expect(['de_AT.UTF-8', 'fr_FR.UTF-8', 'C'].map(named)).toEqual(['Auf Deutsch', 'In English', 'In English']);
});

test('a reader that has had enough ends the command quietly', () => {
  const many = Array.from({ length: 60 }, () => `"${source}"`).join(' ');
  const run = spawnSync('bash', ['-c', `set -o pipefail; bin/wendril.mjs info ${many} | head -1`], {
    encoding: 'utf8',
  });
  expect(run.stdout).toMatch(/^file: \S+\n$/);
  expect(run.stderr).toBe('');
});

test('what was compiled of the command is kept for the next time, and does no harm where it is damaged', () => {
  const keptOf = () => readdirSync('build').filter((f) => f.startsWith('wendril.cjs.info.'));
  const first = wendrilProcess(['info', source]);
  expect(keptOf()).toHaveLength(1);
  writeFileSync(join('build', keptOf()[0]!), 'nonsense');
  expect(wendrilProcess(['info', source])).toEqual(first);
  expect(wendrilProcess(['info', source])).toEqual(first);
});
