import { buildStarter } from '../demo/starter';
import { drawingsOf, flattened } from '../src/core/project/outline';
import { defaultMaster, drawingOf } from '../src/core/project/queries';
import { shapeCase } from './shapeCases';
import { faultOf, OPERATIONS } from './shapes';

/** npm run fuzz:shapes [cases] [first]: puts shapes of every kind together and weighs the results. */
const [cases = 20000, from = 0] = process.argv.slice(2).map(Number);
const project = buildStarter();
const master = defaultMaster(project).id;
const letters = project.glyphOrder
  .map((id) => flattened(drawingOf(project.glyphs[id]!, master), drawingsOf(project, master)))
  .filter((list) => list.length > 0);

const faults = new Map<string, number>();
let slowest = { ms: 0, n: 0 };
const started = performance.now();
for (let n = from; n < from + cases; n++) {
  const { kind, first, second } = shapeCase(n, letters);
  const alone = n % 5 === 4;
  const operation = OPERATIONS[Math.floor(n / 10) % 4]!;
  const begun = performance.now();
  let fault: string | undefined;
  try {
    fault = alone ? faultOf([...first, ...second], [], 'unite') : faultOf(first, second, operation);
  } catch (error) {
    fault = `threw ${(error as Error).stack}`;
  }
  const ms = performance.now() - begun;
  if (ms > slowest.ms) slowest = { ms, n };
  if (fault) {
    const key = `${kind}: ${fault.replace(/by \d+/, 'by some')}`;
    if (!faults.has(key) || (faults.get(key) ?? 0) < 3)
      console.log(`case ${n}, ${kind}, ${alone ? 'alone' : operation}: ${fault}`);
    faults.set(key, (faults.get(key) ?? 0) + 1);
  }
}
console.table([...faults].map(([what, count]) => ({ what, count })));
console.log(
  `${cases} cases in ${((performance.now() - started) / 1000).toFixed(1)} s; slowest ${slowest.ms.toFixed(0)} ms (case ${slowest.n})`,
);
process.exitCode = faults.size > 0 ? 1 : 0;
