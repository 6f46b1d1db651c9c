import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';

/**
 * Who may import whom. A folder imports only from the folders named here; a folder without a line of its own fails. Tests
 * may import what they need.
 */
const MAY_IMPORT: Readonly<Record<string, readonly string[]>> = {
  'core/base': [],
  'core/geometry': ['core/base'],
  'core/project': ['core/base', 'core/geometry'],
  'core/storage': ['core/base', 'core/geometry', 'core/project'],
  'core/variation': ['core/base', 'core/geometry', 'core/project'],
  'core/reweighting': ['core/base', 'core/geometry', 'core/project', 'core/variation'],
  'core/tidying': ['core/base', 'core/geometry', 'core/project'],
  'core/tracing': ['core/base', 'core/geometry'],
  'core/coverage': ['core/base', 'core/project'],
  'core/composing': ['core/base', 'core/geometry', 'core/project', 'core/drawing', 'core/fitting'],
  'core/deriving': [
    'core/base',
    'core/composing',
    'core/drawing',
    'core/fitting',
    'core/geometry',
    'core/kerning',
    'core/project',
    'core/reweighting',
  ],
  'core/drawing': ['core/base', 'core/geometry', 'core/project', 'core/tidying'],
  'core/fitting': ['core/base', 'core/geometry', 'core/project', 'core/drawing'],
  'core/kerning': ['core/base', 'core/geometry', 'core/project', 'core/fitting'],
  'core/opentype': ['core/base'],
  'core/features': ['core/base', 'core/geometry', 'core/opentype', 'core/project', 'core/fontfacts'],
  'core/fontfacts': ['core/base', 'core/opentype', 'core/project'],
  'core/fontnames': ['core/base', 'core/opentype', 'core/project', 'core/fontfacts'],
  'core/casting': [
    'core/base',
    'core/coverage',
    'core/fitting',
    'core/geometry',
    'core/opentype',
    'core/features',
    'core/project',
    'core/variation',
    'core/fontfacts',
  ],
  'core/preflight': [
    'core/base',
    'core/casting',
    'core/coverage',
    'core/features',
    'core/fitting',
    'core/fontfacts',
    'core/fontnames',
    'core/geometry',
    'core/kerning',
    'core/project',
    'core/tidying',
    'core/variation',
  ],
  'core/formats': [
    'core/base',
    'core/geometry',
    'core/opentype',
    'core/features',
    'core/project',
    'core/variation',
    'core/fontfacts',
  ],
  'core/scripting': [
    'core/base',
    'core/casting',
    'core/fitting',
    'core/geometry',
    'core/preflight',
    'core/project',
    'core/reweighting',
    'core/variation',
  ],
  'core/testing': ['core', 'core/geometry', 'core/opentype', 'core/project'],
  core: [
    'core/project',
    'core/composing',
    'core/coverage',
    'core/deriving',
    'core/drawing',
    'core/features',
    'core/fitting',
    'core/kerning',
    'core/preflight',
    'core/reweighting',
    'core/scripting',
    'core/tidying',
    'core/variation',
  ],
  sandbox: ['core', 'core/*'],
  typing: [],
  offline: [],
  browser: ['core/project', 'core/storage'],
  workers: ['core/*', 'core', 'browser', 'sandbox', 'typing'],
  cli: ['core/*', 'core', 'sandbox', 'workers'],
  server: ['demo/sheets'],
  'app/state': ['core/*', 'browser', 'workers'],
  'app/keys': ['app/state'],
  'app/ui': ['core/*', 'app/state', 'app/keys'],
  'app/canvas': ['core/*', 'app/state', 'app/keys', 'app/ui'],
  'app/reweight': ['core/*', 'workers', 'app/state', 'app/ui'],
  'app/galley': ['core/*', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/lettering': ['core/*', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/edges': ['core/*', 'app/state', 'app/keys', 'app/ui'],
  'app/stages/plan': ['core/*', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/case': ['core/*', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/draw': ['core/*', 'browser', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas', 'app/edges'],
  'app/stages/compose': ['core/*', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/fit': ['core/*', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/kern': ['core/*', 'browser', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/features': ['core/*', 'workers', 'app/state', 'app/keys', 'app/ui'],
  'app/stages/masters': ['core/*', 'browser', 'workers', 'app/state', 'app/keys', 'app/ui'],
  'app/stages/preflight': ['core/*', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/stages/scripts': ['core/*', 'browser', 'workers', 'app/state', 'app/keys', 'app/ui'],
  'app/stages/cast': ['core/*', 'workers', 'app/state', 'app/keys', 'app/ui', 'app/canvas'],
  'app/commands': ['core/*', 'app/state', 'app/keys', 'app/ui', 'app/canvas', 'app/stages/*'],
  'app/shell': ['core/*', 'browser', 'workers', 'app/*', 'app/stages/*'],
  app: ['app/*'],
};

/** What no file of the core may stand on. */
const NOT_IN_CORE = /^(node:|react|fs$|path$|zustand|localforage|comlink|express)/;

const root = 'src';
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
  (f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f),
);

function folderOf(path: string): string {
  const parts = path.split('/');
  if (path.startsWith('..')) return parts.slice(1, -1).join('/');
  const depth = parts[0] === 'app' && parts[1] === 'stages' ? 3 : parts[0] === 'core' || parts[0] === 'app' ? 2 : 1;
  return parts.slice(0, Math.min(depth, parts.length - 1)).join('/');
}

const importsOf = (file: string): string[] =>
  [...readFileSync(join(root, file), 'utf8').matchAll(/(?:\bfrom|\bimport)\s*\(?\s*'([^']+)'|new URL\('([^']+)'/g)].map(
    (m) => (m[1] ?? m[2])!,
  );

/** What stands beside the code and is taken in as it is: the guide, and the number of this version. */
const BESIDE_THE_CODE = /^(\.\.\/)+(docs\/guide\.md\?raw|package\.json)$/;

const allows = (list: readonly string[], folder: string): boolean =>
  list.some((one) =>
    one.endsWith('/*')
      ? folder.startsWith(one.slice(0, -1)) && !folder.slice(one.length - 1).includes('/')
      : one === folder,
  );

test('every folder imports only from those it may stand on', () => {
  const wrong: string[] = [];
  for (const file of files) {
    const from = folderOf(file);
    const list = MAY_IMPORT[from];
    if (!list) {
      wrong.push(`${file}: the folder ${from} has no line in the list`);
      continue;
    }
    for (const name of importsOf(file)) {
      if (!name.startsWith('.')) {
        if (from.startsWith('core') && NOT_IN_CORE.test(name) && !file.includes('testing/'))
          wrong.push(`${file} -> ${name}`);
        continue;
      }
      if (BESIDE_THE_CODE.test(name)) continue;
      const to = folderOf(relative(root, join(root, dirname(file), name)));
      if (to !== from && !allows(list, to)) wrong.push(`${file} -> ${name}`);
    }
  }
  expect(wrong).toEqual([]);
  expect(files.length).toBeGreaterThan(250);
});

test('no two folders stand on each other', () => {
  const edges = new Map<string, Set<string>>();
  for (const file of files) {
    const from = folderOf(file);
    for (const name of importsOf(file)) {
      if (!name.startsWith('.')) continue;
      const to = folderOf(relative(root, join(root, dirname(file), name)));
      if (to !== from) edges.set(from, (edges.get(from) ?? new Set()).add(to));
    }
  }
  const mutual = [...edges].flatMap(([a, tos]) =>
    [...tos].filter((b) => a < b && edges.get(b)?.has(a)).map((b) => `${a} and ${b}`),
  );
  expect(mutual).toEqual([]);
});
