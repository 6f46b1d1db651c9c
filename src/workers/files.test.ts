import { readyDemo } from '../../demo/ready';
import { PLAIN_TERMS } from '../core/casting/outputs';
import { thingsOf } from '../core/casting/things';
import { readProjectFile } from '../core/formats/project/projectFile';
import type { Project } from '../core/project/model';
import { withChanged } from '../core/testing/change';
import { type CastChoice, filesService } from './files';

const CAST = new Set(['a', 'b', 'o', 'eacute', 'space', 'A', 'V', 'f', 'i', 'f_i']);
const whole = readyDemo();
const demo: Project = {
  ...whole,
  glyphs: Object.fromEntries(Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: CAST.has(g.name) }])),
};
const choice = (change: Partial<CastChoice> = {}): CastChoice => ({
  formats: ['ttf'],
  things: [{ master: 'm1' }],
  terms: PLAIN_TERMS,
  ...change,
});
const cast = async (change: Partial<CastChoice> = {}, of = demo) => {
  const told: string[] = [];
  const made = await filesService.cast(of, choice(change), (done, total, now) => told.push(`${done}/${total} ${now}`));
  if (!made.ok) throw new Error(made.reason);
  return { files: made.value, told };
};

test('files are told with what a reader of them would count: glyphs, characters, pairs, tables, checks', async () => {
  const { files, told } = await cast({ formats: ['otf', 'ttf', 'woff'] });
  expect(files.map((f) => f.fileName)).toEqual([
    'VelmarrowSans-Regular.otf',
    'VelmarrowSans-Regular.ttf',
    'VelmarrowSans-Regular.woff',
  ]);
  expect(told).toEqual([
    '0/3 VelmarrowSans-Regular, OTF',
    '1/3 VelmarrowSans-Regular, TTF',
    '2/3 VelmarrowSans-Regular, WOFF',
    '3/3 ',
  ]);
  const [otf, ttf, woff] = files;
  for (const f of files) {
    expect(f.glyphNames).toHaveLength(f.glyphs);
    expect(f.glyphNames[0]).toBe('.notdef');
    expect(f.checks.map((c) => [c.title, c.severity])).toEqual(
      [
        'Tables',
        'Checksum',
        'Outlines',
        'Widths',
        'Code points',
        'Names',
        'Style bits',
        'Held against the project',
      ].map((title) => [title, 'fine']),
    );
  }
  expect([...ttf!.codePoints].sort((a, b) => a - b)).toEqual(
    [...new Set([...CAST].flatMap((n) => Object.values(demo.glyphs).find((g) => g.name === n)!.unicodes))].sort(
      (a, b) => a - b,
    ),
  );
  // Of a packed file the tables are told as they are unpacked.
  expect(woff!.tables).toEqual(ttf!.tables);
  expect(Object.keys(otf!.tables)).toContain('CFF ');
  expect([otf!.quadraticError, ttf!.quadraticError > 0]).toEqual([0, true]);
});

test('characters of a file on terms are those of the file, not of the project', async () => {
  const symbol = await cast({ terms: { ...PLAIN_TERMS, symbol: true } });
  expect(symbol.files[0]!.codePoints.every((c) => c >= 0xf000)).toBe(true);
  const lists = [{ name: 'One', text: 'a' }];
  const listed = { ...demo, settings: { ...demo.settings, lists } };
  const one = await cast({ terms: { ...PLAIN_TERMS, glyphs: { list: 'One' } } }, listed);
  expect([...one.files[0]!.codePoints].sort((a, b) => a - b)).toEqual(
    [0x20, 0x61, 0xa0].filter((c) => c !== 0xa0 || one.files[0]!.codePoints.includes(c)),
  );
  expect(one.files[0]!.glyphNames).not.toContain('b');
});

test('names are planned without anything made; what cannot be is refused in a sentence', async () => {
  const { instances } = thingsOf(demo);
  const planned = await filesService.planned(demo, choice({ things: instances.slice(0, 2), formats: ['otf', 'woff'] }));
  expect(planned).toEqual({
    ok: true,
    value: [
      'VelmarrowSans-Light.otf',
      'VelmarrowSans-Light.woff',
      'VelmarrowSans-NarrowLight.otf',
      'VelmarrowSans-NarrowLight.woff',
    ],
  });
  const twins = { ...demo, instances: demo.instances.map((i) => ({ ...i, fileName: 'Same' })) };
  expect(await filesService.planned(twins, choice({ things: instances.slice(0, 2) }))).toMatchObject({
    ok: false,
    reason: 'Two fonts would be Same.ttf; choose one of them, or give one another name.',
  });
  expect(await filesService.cast(demo, choice({ things: [{ master: 'gone' }] }), () => {})).toMatchObject({
    ok: false,
    reason: 'What was to be cast is no longer in the project.',
  });
});

test('a project that is kept is cast part by part, as it was when it was kept', async () => {
  expect(await filesService.castKept(choice(), () => {})).toMatchObject({ ok: false });
  expect(filesService.fingerprintKept()).toBeUndefined();
  filesService.keep(demo);
  const [kept, plain] = [await filesService.castKept(choice(), () => {}), await cast()];
  expect(kept.ok && Buffer.compare(kept.value[0]!.bytes, plain.files[0]!.bytes)).toBe(0);
  const print = filesService.fingerprintKept()!;
  expect(Object.keys(print.glyphs).sort()).toEqual([...CAST].sort());
  filesService.keep(withChanged(demo, 'o', 'm1', (d) => ({ advance: d.advance + 1 })));
  const after = filesService.fingerprintKept()!;
  expect(Object.keys(print.glyphs).filter((n) => print.glyphs[n] !== after.glyphs[n])).toEqual(['o']);
});

test('a project that is saved is read again as it was', () => {
  const read = readProjectFile(filesService.save(demo), 'demo.wendril');
  if (!read.ok) throw new Error(read.reason);
  expect(read.value.family).toEqual(demo.family);
  expect(read.value.glyphOrder).toHaveLength(demo.glyphOrder.length);
});
