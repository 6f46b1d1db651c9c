import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { Project } from '../src/core/project/model';
import { buildDemo } from './family';

const HELD = 'node_modules/.cache/velmarrow';

let ready: Project | undefined;

/** The demo as {@link buildDemo} makes it, built once for every state of the code: for tests and measurements. */
export function readyDemo(): Project {
  ready ??= held() ?? kept(buildDemo());
  return ready;
}

const place = (): string => join(HELD, `${stateOfCode()}.bin`);

function held(): Project | undefined {
  const file = place();
  return existsSync(file) ? (deserialize(readFileSync(file)) as Project) : undefined;
}

/** Written beside and renamed: several tests may build at once. */
function kept(project: Project): Project {
  mkdirSync(HELD, { recursive: true });
  const beside = join(HELD, `${process.pid}.part`);
  writeFileSync(beside, serialize(project));
  renameSync(beside, place());
  return project;
}

/** A name that changes whenever a file does that the demo is made by. */
function stateOfCode(): string {
  const hash = createHash('sha1');
  for (const folder of ['demo', 'src/core'])
    for (const name of readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort()) {
      if (!/\.(ts|json)$/.test(name) || name.endsWith('.test.ts')) continue;
      const { mtimeMs, size } = statSync(join(folder, name));
      hash.update(`${name} ${mtimeMs} ${size}\n`);
    }
  return hash.digest('hex');
}
