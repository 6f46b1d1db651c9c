// npm test: installs what is missing, then type check, lint, unit tests and the tests of the real interface.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { installIfMissing, root, runTool } from './install.mjs';

/** Debian's packages and the program each brings. */
const PACKAGES = [
  ['chromium', '/usr/bin/chromium'],
  ['chromium-driver', '/usr/bin/chromedriver'],
  ['opentype-sanitizer', '/usr/bin/ots-sanitize'],
];

function installPrograms() {
  const missing = PACKAGES.filter(([, program]) => !existsSync(program)).map(([name]) => name);
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(', ')}…`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return spawnSync(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }).status;
  };
  apt('update');
  if (apt('install', '-y', '--no-install-recommends', ...missing) !== 0) {
    console.error(`Please install ${missing.join(', ')} and run npm test again.`);
    process.exit(1);
  }
}

const stages = [
  ['types', () => runTool('typescript/bin/tsc', ['--noEmit'])],
  ['lint', () => runTool('@biomejs/biome/bin/biome', ['check', '.'])],
  ['build for Node', () => execFileSync(process.execPath, ['scripts/build-node.mjs'], { cwd: root, stdio: 'inherit' })],
  ['build the app', () => runTool('vite/bin/vite.js', ['build', '--logLevel', 'error'])],
  ['tests', () => execFileSync(process.execPath, ['scripts/unit.mjs'], { cwd: root, stdio: 'inherit' })],
  ['tests of the interface', () => runTool('jest/bin/jest.js', ['--selectProjects', 'e2e', '--runInBand'])],
];

installIfMissing();
installPrograms();
for (const [name, run] of stages) {
  const started = Date.now();
  try {
    run();
  } catch {
    console.error(`✕ ${name}`);
    process.exit(1);
  }
  console.log(`✓ ${name} (${((Date.now() - started) / 1000).toFixed(1)} s)`);
}
