// Installs what package-lock.json asks for when node_modules is missing or older than the lock file.
import { execFileSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

export function installIfMissing() {
  const mark = join(root, 'node_modules/.package-lock.json');
  const fresh = existsSync(mark) && statSync(mark).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs - 1000;
  if (!fresh || !existsSync(join(root, 'build/wendril.cjs'))) {
    console.log('Installing packages…');
    execFileSync('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root, stdio: 'inherit' });
  }
}

export const runTool = (tool, args, options = {}) =>
  execFileSync(process.execPath, [join(root, 'node_modules', tool), ...args], {
    cwd: root,
    stdio: 'inherit',
    ...options,
  });
