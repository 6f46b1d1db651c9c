#!/usr/bin/env -S node --max-semi-space-size=128 --min-semi-space-size=128
// Starts the command with what was compiled of it the time before: most of a short run would else be compiling.
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Script } from 'node:vm';

const file = join(dirname(fileURLToPath(import.meta.url)), '../build/wendril.cjs');
const command = /^[a-z]+$/.test(process.argv[2] ?? '') ? process.argv[2] : 'any';
const kept = `${file}.${command}.${process.version}.cache`;

function before() {
  try {
    return readFileSync(kept);
  } catch {
    return undefined;
  }
}

const cachedData = before();
// Its build is plain ASCII.
const text = readFileSync(file, 'latin1');
const script = new Script(
  `(function (require, module, commandUrl, commandImport) {const exports = module.exports;${text}\n})`,
  {
    filename: file,
    cachedData,
  },
);
if (!cachedData || script.cachedDataRejected)
  process.once('exit', () => {
    // Where it cannot be kept, it is compiled again.
    try {
      const fresh = `${kept}.${process.pid}`;
      writeFileSync(fresh, script.createCachedData());
      renameSync(fresh, kept);
    } catch {}
  });
script.runInThisContext()(createRequire(file), { exports: {} }, pathToFileURL(file).href, (name) => import(name));
