// Which packages that are installed have no hash in the lock file, so that npm could not hold them against one. The lock file was completed
// from a registry without the packages of other systems (see complete-lock.mjs): those have none, and say so where they are installed.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Paths of installed packages without a hash, by the lock file and npm's own record, which names some that are not there. */
export function withoutHash(lock, installed, isThere = () => true) {
  return Object.keys(installed.packages).filter(
    (path) => path !== '' && !installed.packages[path].link && !lock.packages[path]?.integrity && isThere(path),
  );
}

/** Tells of packages that npm had no hash for. */
export function tellUnproven(root) {
  const mark = join(root, 'node_modules/.package-lock.json');
  if (!existsSync(mark)) return;
  const read = (file) => JSON.parse(readFileSync(file, 'utf8'));
  const names = withoutHash(read(join(root, 'package-lock.json')), read(mark), (path) =>
    existsSync(join(root, path)),
  ).map((path) => path.replace(/^.*node_modules\//, ''));
  if (names.length === 0) return;
  console.warn(
    `${names.length === 1 ? 'One package of this system came' : `${names.length} packages of this system came`} without a hash in the lock file to hold against: ${names.join(', ')}. Run npm install --package-lock-only where the registry has all systems, and keep the lock file it writes.`,
  );
}
