import { buildStarter } from '../../demo/starter';
import { castFont } from '../core/casting/font';
import { readFontFacts } from '../core/fontnames/facts';
import { unpackZip } from '../core/formats/fileTree';
import { readSfnt } from '../core/opentype/sfnt';
import { fromWoff, toWoff } from '../core/opentype/woff';
import { namesService } from './names';

const made = castFont(buildStarter(), { flavour: 'ttf', place: { master: 'm1' }, keepOverlaps: true });
if (!made.ok) throw new Error(made.reason);
const ttf = made.value.bytes;
const text = new TextEncoder().encode('no font at all');

/** The service holds its files from one call to the next; each test begins with none. */
beforeEach(async () => {
  for (const { name } of (await namesService.addFonts([])).files) namesService.removeFont(name);
});

test('files are taken in and told; what is no font is refused by itself', async () => {
  const { files, refused } = await namesService.addFonts([
    { name: 'A.ttf', bytes: ttf },
    { name: 'letter.ttf', bytes: text },
    { name: 'B.woff', bytes: toWoff(ttf) },
  ]);
  expect(files.map((f) => [f.name, f.facts.family])).toEqual([
    ['A.ttf', 'Velmarrow Sans'],
    ['B.woff', 'Velmarrow Sans'],
  ]);
  expect(refused).toEqual(['letter.ttf: This is not an OpenType or TrueType font file.']);
  // Both are the Regular: each contradicts the other.
  expect(files.every((f) => f.contradictions.length === 3)).toBe(true);
  const left = namesService.removeFont('B.woff');
  expect(left.map((f) => [f.name, f.contradictions.length])).toEqual([['A.ttf', 0]]);
});

test('a file opened again takes the place of the one before', async () => {
  await namesService.addFonts([{ name: 'A.ttf', bytes: ttf }]);
  const { files } = await namesService.addFonts([{ name: 'A.ttf', bytes: ttf }]);
  expect(files).toHaveLength(1);
});

test('new names are planned without writing, then written in each file’s own packing', async () => {
  await namesService.addFonts([
    { name: 'A.ttf', bytes: ttf },
    { name: 'B.woff', bytes: toWoff(ttf) },
  ]);
  const namings = {
    'A.ttf': { family: 'Orde', style: 'Regular' },
    'B.woff': { family: 'Orde', style: 'Bold', fullName: 'Orde the Bold' },
  };
  const plan = namesService.planNames(namings);
  expect(plan['A.ttf']!.postScriptName).toBe('Orde-Regular');
  expect(plan['B.woff']).toMatchObject({ postScriptName: 'Orde-Bold', fullName: 'Orde the Bold', weightClass: 700 });
  const { fileName, bytes, notes } = await namesService.makeFonts(namings);
  expect([fileName, notes]).toEqual(['fonts.zip', []]);
  const zip = unpackZip(bytes, fileName);
  expect(readFontFacts(readSfnt(zip.get('A.ttf')!)).family).toBe('Orde');
  expect(readFontFacts(readSfnt(fromWoff(zip.get('B.woff')!)))).toMatchObject({
    style: 'Bold',
    fullName: 'Orde the Bold',
  });
});

test('one font alone is given as it is called', async () => {
  await namesService.addFonts([{ name: 'A.ttf', bytes: ttf }]);
  const { fileName, bytes } = await namesService.makeFonts({ 'A.ttf': { family: 'Orde', style: 'Italic' } });
  expect(fileName).toBe('A.ttf');
  expect(readFontFacts(readSfnt(bytes))).toMatchObject({ isItalic: true, linkedStyle: 'Italic' });
});
