// npm run mutate [-- --count 40 --seed 1 --only casting,project]: changes one small thing at a time in the core and tells
// which of the changes no test notices. Works on a copy; nothing of the tree is touched.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { parseSync } from '@swc/core';
import { root } from './install.mjs';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '40' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string', default: '' },
    seconds: { type: 'string', default: '240' },
  },
});
const count = Number(values.count);
const wanted = values.only.split(',').filter(Boolean);

/** Numbers that look random and are the same for a seed (mulberry32). */
let state = Number(values.seed) >>> 0;
const random = () => {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
};

const OPERATORS = {
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '&&': '||',
  '||': '&&',
  '&': '|',
  '<<': '>>',
};

/** Every place of a file that can be changed: bytes from, to, and what comes in their place. */
function sitesOf(file) {
  const bytes = readFileSync(join(root, file));
  const tree = parseSync(bytes.toString('utf8'), { syntax: 'typescript', tsx: file.endsWith('x') });
  // Spans count from wherever the parser has got to; the text begins at the first token, so comments before it are added.
  const first = tree.body[0]?.span.start ?? tree.span.start;
  const text = bytes.toString('utf8');
  const lead = /^(?:\s|\/\/[^\n]*\n|\/\*[\s\S]*?\*\/)*/.exec(text)?.[0] ?? '';
  const base = first - Buffer.byteLength(lead);
  const sites = [];
  const at = (span) => ({ from: span.start - base, to: span.end - base });
  const source = (span) => bytes.subarray(span.start - base, span.end - base).toString('utf8');
  const visit = (node, typed) => {
    if (Array.isArray(node)) {
      for (const n of node) visit(n, typed);
      return;
    }
    if (!node || typeof node !== 'object') return;
    if (
      typeof node.type === 'string' &&
      /^Ts|ImportDeclaration|ExportAll/.test(node.type) &&
      node.type !== 'TsNonNullExpression' &&
      node.type !== 'TsAsExpression' &&
      node.type !== 'TsSatisfiesExpression' &&
      node.type !== 'TsConstAssertion'
    )
      return;
    if (node.type === 'BinaryExpression' && OPERATORS[node.operator]) {
      const between = { start: node.left.span.end, end: node.right.span.start };
      const place = source(between).indexOf(node.operator);
      if (place >= 0) {
        const from = between.start - base + Buffer.byteLength(source(between).slice(0, place));
        sites.push({ from, to: from + node.operator.length, put: OPERATORS[node.operator] });
      }
    } else if (node.type === 'NumericLiteral') sites.push({ ...at(node.span), put: String(node.value + 1) });
    else if (node.type === 'BooleanLiteral') sites.push({ ...at(node.span), put: String(!node.value) });
    else if (node.type === 'UnaryExpression' && (node.operator === '-' || node.operator === '!'))
      sites.push({ from: node.span.start - base, to: node.span.start - base + 1, put: ' ' });
    else if (node.type === 'StringLiteral' && /^[A-Za-z0-9/]{4}$/.test(node.value))
      sites.push({ ...at(node.span), put: `'${node.value.slice(0, 3)}~'` });
    else if (
      node.type === 'MemberExpression' &&
      node.object.value === 'Math' &&
      ['min', 'max'].includes(node.property.value)
    )
      sites.push({ ...at(node.property.span), put: node.property.value === 'min' ? 'max' : 'min' });
    for (const [key, value] of Object.entries(node))
      if (key !== 'span' && key !== 'typeAnnotation') visit(value, typed);
  };
  visit(tree.body);
  return sites.map((s) => ({ ...s, file, was: bytes.subarray(s.from, s.to).toString('utf8') }));
}

const core = join(root, 'src/core');
const files = readdirSync(core, { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.ts$/.test(f) && !/\.test\.ts$|^testing\//.test(f))
  .filter((f) => wanted.length === 0 || wanted.some((w) => f.startsWith(`${w}/`)))
  .map((f) => `src/core/${f}`);
const all = files.flatMap(sitesOf);
for (let i = all.length - 1; i > 0; i--) {
  const k = Math.floor(random() * (i + 1));
  [all[i], all[k]] = [all[k], all[i]];
}

const copy = mkdtempSync(join(tmpdir(), 'wendril-mutate-'));
for (const name of readdirSync(root)) {
  if (['node_modules', '.git', 'dist', 'build'].includes(name)) continue;
  cpSync(join(root, name), join(copy, name), { recursive: true });
}
for (const name of ['node_modules', 'build']) symlinkSync(join(root, name), join(copy, name));

const tally = new Map();
const survivors = [];
for (const site of all.slice(0, count)) {
  const path = join(copy, site.file);
  const bytes = readFileSync(path);
  writeFileSync(path, Buffer.concat([bytes.subarray(0, site.from), Buffer.from(site.put), bytes.subarray(site.to)]));
  const folder = dirname(site.file).split('/').slice(0, 3).join('/');
  /** Whether tests fail; undefined when they come to no end in the time they get, which is noticed as well. */
  const fails = (args) => {
    const { status } = spawnSync(
      process.execPath,
      [join(root, 'node_modules/jest/bin/jest.js'), '--selectProjects', 'unit', '--bail', '--silent', ...args],
      { cwd: copy, timeout: Number(values.seconds) * 1000, stdio: 'ignore' },
    );
    return status === null ? undefined : status !== 0;
  };
  // Its own folder's tests first; whatever else depends on it after that.
  const own = fails(['--passWithNoTests', '--testPathPatterns', `${folder}/`]);
  const outcome = own === false ? fails(['--passWithNoTests', '--findRelatedTests', site.file]) : own;
  const word = outcome === undefined ? 'NO END  ' : outcome ? 'noticed ' : 'SURVIVED';
  const noticed = outcome !== false;
  writeFileSync(path, bytes);
  const line = bytes.subarray(0, site.from).toString('utf8').split('\n').length;
  for (const what of [folder, site.file]) {
    const told = tally.get(what) ?? { noticed: 0, all: 0 };
    tally.set(what, { noticed: told.noticed + (noticed ? 1 : 0), all: told.all + 1 });
  }
  if (!noticed) survivors.push(`${site.file}:${line}  ${site.was} -> ${site.put}`);
  console.log(`${word}  ${site.file}:${line}  ${site.was} -> ${site.put}`);
}
rmSync(copy, { recursive: true, force: true });

const line = (what, { noticed, all: n }) =>
  `${what.padEnd(52)} ${String(noticed).padStart(4)} of ${String(n).padEnd(4)} ${Math.round((100 * noticed) / n)} %`;
console.log('\nnoticed of tried');
for (const [what, told] of [...tally].sort()) console.log(line(what.endsWith('.ts') ? `  ${what}` : what, told));
const folders = [...tally].filter(([what]) => !what.endsWith('.ts')).map(([, told]) => told);
const sum = (key) => folders.reduce((total, told) => total + told[key], 0);
if (folders.length > 0) console.log(line('all', { noticed: sum('noticed'), all: sum('all') }));
if (survivors.length > 0) console.log(`\nNot noticed:\n${survivors.join('\n')}`);
