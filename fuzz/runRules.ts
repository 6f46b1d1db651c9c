import { ruleFault } from './ruleCases';

/** npm run fuzz:rules [cases] [first seed]: damaged feature text; whatever comes, sentences at their places and tables that read back. */
const cases = Number(process.argv[2] ?? 50_000);
const first = Number(process.argv[3] ?? 1);
const faults: string[] = [];
const started = performance.now();
for (let seed = first; seed < first + cases && faults.length < 20; seed++) {
  const fault = ruleFault(seed);
  if (fault) faults.push(`seed ${seed}: ${fault}`);
}
console.log(`${cases} cases in ${Math.round((performance.now() - started) / 1000)} s, ${faults.length} faults`);
for (const fault of faults) console.log(fault);
process.exitCode = faults.length > 0 ? 1 : 0;
