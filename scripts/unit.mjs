// Runs the unit tests in a few bundles: run file by file, they load and warm up the same modules two hundred times.
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root, runTool } from './install.mjs';

const GROUPS = 12;
const out = join(root, 'build/unit');

const files = ['src', 'fuzz', 'demo']
  .flatMap((folder) => readdirSync(join(root, folder), { recursive: true }).map((file) => `${folder}/${file}`))
  .filter((file) => file.endsWith('.test.ts'))
  .sort();
const texts = new Map(files.map((file) => [file, readFileSync(join(root, file), 'utf8')]));
/** What puts something in the place of a module must load it by itself. */
const alone = files.filter((file) => /^jest\.mock\(/m.test(texts.get(file)));

/** Neighbours share most modules, so each group is a run of them; the groups are alike in length. */
const groups = Array.from({ length: GROUPS }, () => []);
const whole = [...texts.values()].reduce((sum, text) => sum + text.length, 0);
let before = 0;
for (const file of files) {
  if (!alone.includes(file)) groups[Math.floor((before / whole) * GROUPS)].push(file);
  before += texts.get(file).length;
}

rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
const entries = groups.map((group, i) => {
  const entry = join(out, `${i + 1}.ts`);
  // Each file is a block of its own, so that what it does before and after its tests is done for these only.
  writeFileSync(entry, group.map((file) => `describe('${file}', () => { require('../../${file}'); });\n`).join(''));
  return entry;
});
await build({
  entryPoints: entries,
  outdir: out,
  outExtension: { '.js': '.test.cjs' },
  bundle: true,
  packages: 'external',
  platform: 'node',
  target: 'node20',
  format: 'cjs',
  sourcemap: 'inline',
  logLevel: 'error',
});
for (const entry of entries) rmSync(entry);
runTool('jest/bin/jest.js', [
  '--selectProjects',
  'bundled',
  'unit',
  '--maxWorkers=2',
  '--testTimeout=60000',
  '--testPathPatterns',
  'build/unit/',
  ...alone,
]);
