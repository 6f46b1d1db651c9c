import { execFileSync, spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildStarter } from '../../demo/starter';
import { setSides } from '../core/fitting/sides';
import { writeProjectFile } from '../core/formats/project/projectFile';
import { glyphNamed } from '../core/project/queries';

/** `wendril cast --watch`, and the lines that it says. */
function watching(source: string, out: string) {
  const child = spawn(process.execPath, [
    'bin/wendril.mjs',
    'cast',
    source,
    '--out',
    out,
    '--format',
    'ttf',
    '--watch',
  ]);
  const said: string[] = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (d: Buffer) => said.push(d.toString()));
  // What is not drawn is told beside.
  const lines = () =>
    said
      .join('')
      .split('\n')
      .filter((l) => l !== '' && !/Not drawn yet/.test(l));
  const heard = async (count: number) => {
    const end = Date.now() + 30_000;
    while (Date.now() < end && lines().length < count) await new Promise((r) => setTimeout(r, 50));
    return lines();
  };
  return { child, heard };
}

test('a source that is watched is cast again when it changes; a damaged one is told, and the next change is waited for', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-watch-'));
  const source = join(folder, 'Single.wendril');
  // The fonts may lie beside the source: writing them is no change of it.
  const out = join(folder, 'fonts');
  mkdirSync(out);
  // As most programs save: beside, and renamed.
  const save = (bytes: Uint8Array | string) => {
    writeFileSync(`${source}~`, bytes);
    renameSync(`${source}~`, source);
  };
  const starter = buildStarter();
  writeFileSync(source, writeProjectFile(starter));
  const { child, heard } = watching(source, out);
  try {
    const [path] = await heard(1);
    const first = readFileSync(path!);
    const wider = setSides(starter, { at: { glyph: glyphNamed(starter, 'n')!.id, master: 'm1' }, advance: 700 });
    if (!wider.ok) throw new Error(wider.reason);
    save(writeProjectFile(wider.project));
    expect((await heard(2))[1]).toBe(path);
    const second = readFileSync(path!);
    expect(second.equals(first)).toBe(false);
    save('nothing that could be read');
    expect((await heard(3))[2]).toMatch(/^wendril: .*Single\.wendril/);
    expect(readFileSync(path!).equals(second)).toBe(true);
    save(writeProjectFile(starter));
    expect((await heard(4))[3]).toBe(path);
    expect(readFileSync(path!).equals(first)).toBe(true);
    // The same again is not written.
    const { mtimeMs } = statSync(path!);
    writeFileSync(source, writeProjectFile(starter));
    await new Promise((r) => setTimeout(r, 1500));
    expect(statSync(path!).mtimeMs).toBe(mtimeMs);
  } finally {
    child.kill('SIGINT');
  }
  const code = await new Promise((r) => child.on('exit', r));
  // As any command that is ended by hand.
  expect(code).toBe(130);
}, 120_000);

test('a UFO is watched as a whole: one glyph of it saved twice, and the folder put in place of the one before', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-watch-ufo-'));
  const source = join(folder, 'Single.ufo');
  const made = join(folder, 'Single.wendril');
  const out = join(folder, 'fonts');
  writeFileSync(made, writeProjectFile(buildStarter()));
  execFileSync(process.execPath, ['bin/wendril.mjs', 'convert', made, source]);
  const { child, heard } = watching(source, out);
  const glif = (of: string) => join(of, 'glyphs', 'n.glif');
  const widened = (of: string, width: number) => {
    const text = readFileSync(glif(of), 'utf8').replace(/<advance width="[\d.]+"/, `<advance width="${width}"`);
    writeFileSync(`${glif(of)}~`, text);
    renameSync(`${glif(of)}~`, glif(of));
  };
  try {
    const [path] = await heard(1);
    let last = readFileSync(path!);
    for (const [i, change] of [
      () => widened(source, 701),
      () => widened(source, 702),
      () => {
        const other = join(folder, 'Other.ufo');
        cpSync(source, other, { recursive: true });
        widened(other, 703);
        renameSync(source, join(folder, 'Before.ufo'));
        renameSync(other, source);
      },
      () => widened(source, 704),
    ].entries()) {
      change();
      expect((await heard(i + 2))[i + 1]).toBe(path);
      const now = readFileSync(path!);
      expect(now.equals(last)).toBe(false);
      last = now;
    }
  } finally {
    child.kill('SIGINT');
  }
  await new Promise((r) => child.on('exit', r));
}, 120_000);
