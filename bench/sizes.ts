import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { projectFiles } from '../src/core/formats/project/projectFile';
import { largeProject } from './largeProject';
import { median } from './table';

type Ran = { seconds: number; megabytes: number };

/** Runs a command whole: how long it takes, and the most memory that it had. */
const ran = (command: string, args: readonly string[]): Promise<Ran> =>
  new Promise((resolve, reject) => {
    const started = performance.now();
    const child = spawn(command, args, { stdio: 'ignore' });
    let kilobytes = 0;
    const look = setInterval(() => {
      try {
        const most = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'));
        if (most) kilobytes = Math.max(kilobytes, Number(most[1]));
      } catch {
        // It has just ended.
      }
    }, 15);
    child.once('error', reject);
    child.once('exit', (code) => {
      clearInterval(look);
      if (code === 0) resolve({ seconds: (performance.now() - started) / 1000, megabytes: kilobytes / 1024 });
      else reject(new Error(`${command} ${args.join(' ')} ended with ${code}.`));
    });
  });

/** The middle of three runs. */
async function often(command: string, args: readonly string[]): Promise<Ran> {
  const runs = [await ran(command, args), await ran(command, args), await ran(command, args)];
  return { seconds: median(runs.map((r) => r.seconds)), megabytes: median(runs.map((r) => r.megabytes)) };
}

const told = ({ seconds, megabytes }: Ran): string => `${seconds.toFixed(2)} s ${megabytes.toFixed(0)} MB`.padStart(15);

function ufoOf(glyphs: number, folder: string): string {
  const ufo = join(folder, `Size${glyphs}.ufo`);
  for (const [path, bytes] of projectFiles(largeProject(glyphs))) {
    if (!path.includes('.ufo/')) continue;
    const to = join(ufo, path.slice(path.indexOf('.ufo/') + 5));
    mkdirSync(dirname(to), { recursive: true });
    writeFileSync(to, bytes);
  }
  return ufo;
}

/** Copies of a source whose fonts have names of their own. */
function copiesOf(ufo: string, count: number): string[] {
  return Array.from({ length: count }, (_, i) => {
    const copy = ufo.replace('.ufo', `-${i}.ufo`);
    cpSync(ufo, copy, { recursive: true });
    const info = join(copy, 'fontinfo.plist');
    const named = readFileSync(info, 'utf8').replace(/(<key>familyName<\/key>\s*<string>)[^<]*/, `$1Size ${i}`);
    writeFileSync(
      info,
      named.replace(/<key>(postscriptFontName|styleMapFamilyName)<\/key>\s*<string>[^<]*<\/string>/g, ''),
    );
    return copy;
  });
}

/** Whole commands on sources of several sizes, beside the general Python font library in the same run. */
export async function benchSizes(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-sizes-'));
  const out = ['--out', join(folder, 'out')];
  const library = (ufo: string) =>
    often('/usr/bin/python3', ['bench/reference.py', ufo, join(folder, 'reference.ttf')]);
  const ours = (ufo: string, ...more: string[]) => often('bin/wendril.mjs', ['cast', ufo, ...out, ...more]);
  console.log('\nWhole commands, one source: seconds and most memory, the middle of three runs');
  console.log('  glyphs   library (kept)    TrueType, kept  TrueType, removed   OpenType, removed');
  for (const size of [500, 1000, 1573, 3000, 10000]) {
    const ufo = ufoOf(size, folder);
    const theirs = await library(ufo);
    const kept = await ours(ufo, '--format', 'ttf', '--keep-overlaps');
    const removed = await ours(ufo, '--format', 'ttf');
    const cff = await ours(ufo, '--format', 'otf');
    const times = (theirs.seconds / kept.seconds).toFixed(1);
    console.log(
      `  ${String(size).padStart(6)}  ${told(theirs)}   ${told(kept)} (${times}x)  ${told(removed)}     ${told(cff)}`,
    );
  }
  const ten = copiesOf(ufoOf(1573, folder), 10);
  const many = await often('bin/wendril.mjs', ['cast', ...ten, ...out, '--format', 'ttf', '--keep-overlaps']);
  const one = await library(ten[0]!);
  console.log(
    `  ten sources of 1,573 glyphs in one command: ${told(many).trim()}; the library ten times: ${(10 * one.seconds).toFixed(1)} s, ${((10 * one.seconds) / many.seconds).toFixed(1)}x`,
  );
}
