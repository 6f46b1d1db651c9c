// npm run fuzz [cases] [first seed]: bundles the fuzz run as the product is bundled, then runs it.
import { spawnSync } from 'node:child_process';
import { bundle } from './bundle.mjs';
import { root } from './install.mjs';

const file = await bundle('fuzz/run.ts', 'fuzz.mjs');
process.exitCode = spawnSync(process.execPath, [file, ...process.argv.slice(2)], { cwd: root, stdio: 'inherit' }).status ?? 1;
