import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildStarter } from '../demo/starter';
import { Refusal } from '../src/core/base/result';
import { castFont } from '../src/core/casting/font';
import { toWoff2 } from '../src/core/casting/webfont';
import { openAny } from '../src/core/formats/openFile';
import { writeProjectFile } from '../src/core/formats/projectFile';
import { toWoff } from '../src/core/opentype/woff';
import { mutated } from './mutate';

/** Files of every kind, small enough for many cases. */
async function seeds(): Promise<{ name: string; bytes: Uint8Array }[]> {
  const project = buildStarter();
  const cast = (flavour: 'ttf' | 'otf') => {
    const font = castFont(project, { flavour, master: 'm1', keepOverlaps: true });
    if (!font.ok) throw new Error(font.reason);
    return font.value.bytes;
  };
  const ttf = cast('ttf');
  const folder = 'node_modules/@fontsource-variable/source-sans-3/files';
  const variable = readdirSync(folder).find((f) => /greek-wght-normal\.woff2$/.test(f))!;
  const { fromWoff2 } = await import('../src/core/casting/webfont');
  return [
    { name: 'font.ttf', bytes: ttf },
    { name: 'font.otf', bytes: cast('otf') },
    { name: 'font.woff', bytes: toWoff(ttf) },
    { name: 'variable.ttf', bytes: await fromWoff2(readFileSync(join(folder, variable))) },
    { name: 'font.woff2', bytes: await toWoff2(ttf) },
    { name: 'source.wendril', bytes: writeProjectFile(project) },
  ];
}

/** npm run fuzz [cases] [first seed]: damages files of all kinds; whatever comes, one sentence or a sound project. */
const cases = Number(process.argv[2] ?? 100_000);
const first = Number(process.argv[3] ?? 1);
const files = await seeds();
let refused = 0;
let opened = 0;
let slowest = 0;
let worst = 0;
const faults: string[] = [];
for (let i = 0; i < cases; i++) {
  const file = files[i % files.length]!;
  const seed = first + i;
  const started = performance.now();
  try {
    const result = await openAny(mutated(file.bytes, seed), file.name);
    if (!result.ok) {
      refused++;
      if (!(result.reason.startsWith(file.name) || /\.ufo|project\.designspace/.test(result.reason)) || result.reason.length > 300)
        faults.push(`${file.name} seed ${seed}: the sentence is “${result.reason.slice(0, 200)}”`);
    } else {
      opened++;
      const cast = castFont(result.value.project, { flavour: i % 2 ? 'ttf' : 'otf', master: result.value.project.masters[0]!.id, keepOverlaps: true });
      if (!cast.ok && cast.reason === '') faults.push(`${file.name} seed ${seed}: casting says nothing`);
    }
  } catch (error) {
    faults.push(`${file.name} seed ${seed}: ${error instanceof Refusal ? 'refusal not caught' : ((error as Error).stack ?? String(error)).split('\n').slice(0, 4).join(' | ')}`);
  }
  const took = performance.now() - started;
  slowest = Math.max(slowest, took);
  if (took > 2000) faults.push(`${file.name} seed ${seed}: took ${Math.round(took)} ms`);
  if (i % 512 === 0) worst = Math.max(worst, process.memoryUsage().rss);
  if (faults.length >= 20) break;
}
console.log(`${refused + opened} cases: ${refused} refused, ${opened} opened; slowest ${Math.round(slowest)} ms, memory at most ${Math.round(worst / 1048576)} MB`);
for (const fault of faults) console.log(fault);
process.exitCode = faults.length > 0 || worst > 1e9 ? 1 : 0;
