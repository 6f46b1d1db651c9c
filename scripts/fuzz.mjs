// npm run fuzz, npm run fuzz:shapes [cases] [first seed]: bundles the run as the product is bundled, then runs it.
import { spawnSync } from 'node:child_process';
import { bundle } from './bundle.mjs';
import { root } from './install.mjs';

const [entry, ...numbers] = process.argv.slice(2);
const file = await bundle(`fuzz/${entry}.ts`, 'fuzz.mjs');
process.exitCode = spawnSync(process.execPath, [file, ...numbers], { cwd: root, stdio: 'inherit' }).status ?? 1;
