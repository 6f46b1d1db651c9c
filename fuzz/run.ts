import { RefusalError } from '../src/core/base/result';
import { castFont } from '../src/core/casting/font';
import { seeds } from './seeds';

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
    const result = await file.open(seed);
    if (!result.ok) {
      refused++;
      if (
        !(result.reason.startsWith(file.name) || /\.ufo|\.glif|\.plist|project\.designspace/.test(result.reason)) ||
        result.reason.length > 300
      )
        faults.push(`${file.name} seed ${seed}: the sentence is “${result.reason.slice(0, 200)}”`);
    } else {
      opened++;
      const cast = castFont(result.value.project, {
        flavour: i % 2 ? 'ttf' : 'otf',
        place: { master: result.value.project.masters[0]!.id },
        keepOverlaps: true,
      });
      if (!cast.ok && cast.reason === '') faults.push(`${file.name} seed ${seed}: casting says nothing`);
    }
  } catch (error) {
    faults.push(
      `${file.name} seed ${seed}: ${error instanceof RefusalError ? 'refusal not caught' : ((error as Error).stack ?? String(error)).split('\n').slice(0, 4).join(' | ')}`,
    );
  }
  const took = performance.now() - started;
  slowest = Math.max(slowest, took);
  if (took > 2000) faults.push(`${file.name} seed ${seed}: took ${Math.round(took)} ms`);
  if (i % 512 === 0) worst = Math.max(worst, process.memoryUsage().rss);
  if (faults.length >= 20) break;
}
console.log(
  `${refused + opened} cases: ${refused} refused, ${opened} opened; slowest ${Math.round(slowest)} ms, memory at most ${Math.round(worst / 1048576)} MB`,
);
for (const fault of faults) console.log(fault);
process.exitCode = faults.length > 0 || worst > 1e9 ? 1 : 0;
