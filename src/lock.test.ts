import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

type Lock = {
  packages: Record<
    string,
    { version?: string; integrity?: string; optional?: boolean; os?: string[]; cpu?: string[]; link?: boolean }
  >;
};
const root = join(__dirname, '..');
const read = (path: string): Lock => JSON.parse(readFileSync(join(root, path), 'utf8')) as Lock;
const lock = read('package-lock.json');
const installed = read('node_modules/.package-lock.json');

test('every package that is installed here has a hash in the lock file, and is the one that it names', () => {
  const paths = Object.keys(installed.packages).filter(
    (p) => p !== '' && !installed.packages[p]!.link && existsSync(join(root, p)),
  );
  expect(paths.length).toBeGreaterThan(400);
  expect(paths.filter((p) => !lock.packages[p]?.integrity)).toEqual([]);
  expect(paths.filter((p) => lock.packages[p]!.integrity !== installed.packages[p]!.integrity)).toEqual([]);
});

test('those without a hash are builds for other systems only', () => {
  const bare = Object.entries(lock.packages).filter(([path, p]) => path !== '' && !p.integrity && !p.link);
  for (const [path, p] of bare)
    expect([path, p.optional, (p.os ?? p.cpu ?? []).length > 0]).toEqual([path, true, true]);
});

test('one that came without a hash is told when it is installed', () => {
  const script = `
    import { withoutHash } from '${join(root, 'scripts/integrity.mjs')}';
    const lock = { packages: { '': {}, 'node_modules/a': { integrity: 'sha512-x' }, 'node_modules/b': { optional: true } } };
    const installed = { packages: { 'node_modules/a': {}, 'node_modules/b': {}, 'node_modules/c': { link: true } } };
    console.log(JSON.stringify(withoutHash(lock, installed)));`;
  const run = spawnSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' });
  expect(run.stdout.trim()).toBe('["node_modules/b"]');
});
