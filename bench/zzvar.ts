import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { openSource } from '../src/cli/source';
import { CastCache } from '../src/core/casting/cache';
import { castFont } from '../src/core/casting/font';
import { projectFiles } from '../src/core/formats/project/projectFile';
import { largeProject } from './largeProject';
const AXIS = { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 700, hidden: false, map: [], labels: {} };
const folder = process.argv[2] ?? mkdtempSync(join(tmpdir(), 'wv-'));
const source = join(folder, 'project.designspace');
if (!process.argv[2]) {
const project: any = { ...largeProject(1500, 4), axes: [AXIS] };
for (const [path, bytes] of projectFiles(project)) { mkdirSync(dirname(join(folder, path)), { recursive: true }); writeFileSync(join(folder, path), bytes); }
console.log(folder);
}
for (let r = 0; r < 9; r++) {
  const t = performance.now();
  const of = openSource(source, { keep: false });
  const t1 = performance.now();
  const font = castFont(of, { flavour: 'ttf', place: { master: of.masters[0]!.id }, variable: true, blanks: true, cache: new CastCache() });
  if (!font.ok) throw new Error(font.reason);
  console.log(r, 'read', (t1 - t).toFixed(0), 'cast', (performance.now() - t1).toFixed(0), font.value.bytes.length);
}
