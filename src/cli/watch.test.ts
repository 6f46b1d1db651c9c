import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildStarter } from '../../demo/starter';
import { setSides } from '../core/fitting/sides';
import { writeProjectFile } from '../core/formats/project/projectFile';
import { glyphNamed } from '../core/project/queries';

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
