import { readFileSync } from 'node:fs';

type Lock = { packages: Record<string, { integrity?: string; link?: boolean }> };
const read = (path: string): Lock => JSON.parse(readFileSync(path, 'utf8')) as Lock;

test('every package of the lock file has a hash, and those installed are the ones that it names', () => {
  const lock = read('package-lock.json');
  const all = Object.entries(lock.packages).filter(([path, p]) => path !== '' && !p.link);
  expect(all.length).toBeGreaterThan(700);
  expect(all.filter(([, p]) => !/^sha512-/.test(p.integrity ?? '')).map(([path]) => path)).toEqual([]);
  const installed = Object.entries(read('node_modules/.package-lock.json').packages).filter(([, p]) => p.integrity);
  expect(installed.length).toBeGreaterThan(400);
  expect(installed.filter(([path, p]) => lock.packages[path]?.integrity !== p.integrity)).toEqual([]);
});
