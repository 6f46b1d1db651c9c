import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from 'pdf-lib';
import { buildStarter } from '../../demo/starter';
import { readProjectFile, writeProjectFile } from '../core/formats/project/projectFile';
import { drawingOf, glyphNamed } from '../core/project/queries';

const folder = mkdtempSync(join(tmpdir(), 'wendril-run-'));
const source = join(folder, 'Single.wendril');
writeFileSync(source, writeProjectFile(buildStarter()));
const script = (name: string, text: string): string => {
  const file = join(folder, name);
  writeFileSync(file, text);
  return file;
};
const command = (...args: string[]) =>
  spawnSync(process.execPath, ['bin/wendril.mjs', 'run', ...args], { encoding: 'utf8' });
const read = (file: string) => {
  const opened = readProjectFile(readFileSync(file), 'out.wendril');
  if (!opened.ok) throw new Error(opened.reason);
  return opened.value;
};

test('scripts run in order over a source, values are given, the result is written', () => {
  const wider = script(
    'wider.js',
    "const { by } = ask({ by: { number: 1, least: 0, most: 50 } });\nfor (const g of chosen) for (const m of masters) g.drawing(m).advance += by;\nsay('wider by ' + by);",
  );
  const after = script('after.js', "say('n is ' + font.glyph('n').drawing().advance);");
  const target = join(folder, 'Wider.wendril');
  const was = drawingOf(glyphNamed(buildStarter(), 'n')!, 'm1').advance;
  const ran = command(wider, after, source, target, '--glyphs', 'n,o', '--set', 'by=12');
  // The second script asks for nothing: what is given is for the first.
  expect(ran.stdout).toContain(`n is ${was + 12}`);
  expect(command(wider, source, '--set', 'other=12').stderr).toContain('No script asks for other; asked for is by.');
  const only = command(wider, source, target, '--glyphs', 'n,o', '--set', 'by=12');
  expect(only.stdout).toContain('wider by 12');
  expect(only.stdout).toContain('2 glyphs were changed: n o');
  expect(drawingOf(glyphNamed(read(target), 'n')!, 'm1').advance).toBe(was + 12);
  expect(command(wider, after, source).stdout).toContain(`n is ${was + 1}`);
}, 60_000);

test('text is set as the font sets it, anew after an edit; a font is cast into a folder', () => {
  const text = script(
    'sets.js',
    `const m = masters[0];
const before = font.shape('nn', m);
say(before.map((g) => g.glyph).join(), before[1].x === font.glyph('n').drawing(m).advance);
font.glyph('n').drawing(m).advance += 10;
say(font.shape('nn', m)[1].x - before[1].x);
say(font.cast(m, 'ttf') > 2000);`,
  );
  const out = join(folder, 'cast');
  const ran = command(text, source, '--out', out);
  expect([ran.stderr, ran.stdout.split('\n').slice(0, 2)]).toEqual(['', ['n,n true', '10']]);
  const [file] = readdirSync(out);
  expect(file).toMatch(/^VelmarrowSans-\w+\.ttf$/);
  expect(execFileSync('ots-sanitize', [join(out, file!)], { encoding: 'utf8' })).toContain('sanitized successfully');
}, 60_000);

test('a dry run writes nothing and tells all as JSON; what a script finds ends the command with an error', () => {
  const finding = script(
    'finding.js',
    "edits.setGalleyText({ text: 'x' }); finding('n is too wide', font.glyph('n')); table(['a'], [[1]]);",
  );
  const target = join(folder, 'None.wendril');
  const ran = command(finding, source, target, '--dry-run', '--json');
  expect(ran.status).toBe(1);
  const told = JSON.parse(ran.stdout) as Record<string, never[]> & { scripts: { outputs: { kind: string }[] }[] };
  expect(told).toMatchObject({ dryRun: true, changed: [], scripts: [{ script: 'finding.js', edits: 1 }] });
  expect(told.scripts[0]!.outputs.map((o: { kind: string }) => o.kind)).toEqual(['finding', 'table']);
  expect(() => readFileSync(target)).toThrow();
}, 60_000);

test('a shipped script by its key; what fails is one sentence with the line, and nothing is written', () => {
  const shipped = execFileSync(process.execPath, ['bin/wendril.mjs', 'run', 'twoMasters', source], {
    encoding: 'utf8',
  });
  expect(shipped).toContain('advance in Regular');
  const target = join(folder, 'Broken.wendril');
  const broken = command(
    script('broken.js', "font.glyph('n').drawing().advance = 5;\n\nfont.glyph('nobody');"),
    source,
    target,
  );
  expect([broken.status, broken.stderr.trim()]).toEqual([
    expect.any(Number),
    'wendril: broken.js, line 3: There is no glyph “nobody”.',
  ]);
  expect(broken.status).not.toBe(0);
  expect(() => readFileSync(target)).toThrow();
  expect(command(script('endless.js', 'for (;;) {}'), source, '--seconds', '1').stderr).toContain(
    'ran longer than 1 seconds',
  );
  expect(command(source).stderr).toMatch(/run takes scripts, a source/);
  expect(command(join(folder, 'none.js'), source).stderr).toMatch(/cannot be read/);
}, 60_000);

test('a proof is printed once the script has ended, the same bytes each time', async () => {
  const print = script(
    'print.js',
    "for (const s of [['waterfall'], ['waterfall', 'kerning', 'family']]) font.proof(masters[0], s, 'Hamborn', 'A3');",
  );
  const [out, again] = [join(folder, 'printed'), join(folder, 'printed-again')];
  expect(command(print, source, '--out', out).stdout).toMatch(/VelmarrowSans-\w+-proof\.pdf, \d+ bytes/);
  command(print, source, '--out', again);
  const [file, ...more] = readdirSync(out);
  // A second file of a name is numbered: neither is lost.
  expect([file, ...more].map((f) => f!.replace(/^.*-proof/, ''))).toEqual(['-2.pdf', '.pdf']);
  const bytes = readFileSync(join(out, file!));
  expect(readFileSync(join(again, file!)).equals(bytes)).toBe(true);
  const pdf = await PDFDocument.load(bytes);
  expect(pdf.getPages().map((p) => Math.round(p.getWidth()))).toEqual(pdf.getPages().map(() => 842));
  expect(pdf.getPageCount()).toBeGreaterThan(1);
}, 60_000);
