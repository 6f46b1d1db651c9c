// Completes package-lock.json after an install from a registry that lacks the packages of other platforms: npm then leaves
// them out of the lock file and `npm ci` refuses it. Every package gets the hash that the registry has of it, so that npm holds it against that.
// Run after changing dependencies: node scripts/complete-lock.mjs
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const SYSTEMS = {
  android: 'android',
  darwin: 'darwin',
  linux: 'linux',
  linuxmusl: 'linux',
  win32: 'win32',
  freebsd: 'freebsd',
  openbsd: 'openbsd',
  netbsd: 'netbsd',
  sunos: 'sunos',
  aix: 'aix',
  openharmony: 'openharmony',
};
const PROCESSORS = ['arm64', 'x64', 'arm', 'ia32', 'ppc64', 's390x', 'riscv64', 'loong64', 'mips64el', 'wasm32'];

const file = join(root, 'package-lock.json');
const lock = JSON.parse(readFileSync(file, 'utf8'));
for (const [path, entry] of Object.entries(lock.packages)) {
  for (const [name, range] of Object.entries(entry.optionalDependencies ?? {})) {
    const key = `node_modules/${name}`;
    if (lock.packages[key] || lock.packages[`${path}/node_modules/${name}`]) continue;
    const words = name.split(/[-/]/);
    const os = words.map((w) => SYSTEMS[w]).find(Boolean);
    const cpu = words.find((w) => PROCESSORS.includes(w));
    lock.packages[key] = {
      version: range.replace(/^[\^~]/, ''),
      ...(cpu ? { cpu: [cpu] } : {}),
      ...(entry.dev ? { dev: true } : {}),
      optional: true,
      ...(os ? { os: [os] } : {}),
    };
    console.log(`added ${name}`);
  }
}
for (const [path, entry] of Object.entries(lock.packages)) {
  if (path === '' || entry.integrity || entry.link) continue;
  const name = path.replace(/^.*node_modules\//, '');
  const integrity = execFileSync('npm', ['view', `${name}@${entry.version}`, 'dist.integrity'], {
    encoding: 'utf8',
  }).trim();
  if (!/^sha512-/.test(integrity)) throw new Error(`The registry has no hash of ${name} ${entry.version}.`);
  const { version, ...others } = entry;
  lock.packages[path] = { version, integrity, ...others };
  console.log(`hash of ${name}`);
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`);
