import '../core/allEdits';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { registeredEdits } from '../core/project/edit';
import { declarationText, editEntries, entries, referenceText, unknownNames } from '../core/scripting/declarations';
import { preludeFor } from '../core/scripting/prelude';
import { CALLS } from '../core/scripting/registry';
import { SHIPPED } from '../core/scripting/shipped/shipped';

test('docs/scripts.md is made from the declarations: npm run docs:scripts writes it anew', () => {
  const written = readFileSync('docs/scripts.md', 'utf8');
  expect(written.slice(written.indexOf('## What stands by itself')).trim()).toBe(referenceText().trim());
});

test('every call and every edit is told once, with what it takes and gives', () => {
  const all = entries();
  expect(new Set(all.map((e) => `${e.of}.${e.name}`)).size).toBe(all.length);
  for (const c of CALLS) expect(all.some((e) => e.of === c.of && e.name === c.name && e.type === c.gives)).toBe(true);
  expect(editEntries().map((e) => e.name)).toEqual([...registeredEdits().keys()].sort());
  for (const e of all) expect([e.name, /[.?]$/.test(e.does) && e.does.length > 8]).toEqual([e.name, true]);
  // What edits take is written as a designer has it in hand.
  const of = (name: string) => all.find((e) => e.of === 'edits' && e.name === name)!.form;
  expect(of('setSides')).toBe('setSides({ at: Drawing; left?: number; right?: number; advance?: number })');
  expect(of('removeGlyphs')).toBe('removeGlyphs({ ids: Glyph[]; drawOut?: boolean })');
  expect(of('setContours')).toBe('setContours({ at: Drawing; contours: Contour[] })');
});

test('what stands before a script names everything that is told', () => {
  const text = preludeFor(['setSides'], ['g1'], ['m1']);
  for (const c of CALLS) expect(text).toContain(`'${c.of}.${c.name}'`);
  expect(text).toContain('setSides(args = {})');
});

/** What TypeScript finds in the declarations and in scripts that use them, each by itself. */
function faultsIn(scripts: Readonly<Record<string, string>>): string[] {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-types-'));
  writeFileSync(join(folder, 'wendril.d.ts'), declarationText());
  for (const [name, text] of Object.entries(scripts))
    writeFileSync(join(folder, `${name}.js`), `${text}\nexport {};\n`);
  const compilerOptions = {
    allowJs: true,
    checkJs: true,
    noEmit: true,
    strict: false,
    target: 'es2023',
    lib: ['es2023'],
    types: [],
    module: 'esnext',
  };
  writeFileSync(join(folder, 'tsconfig.json'), JSON.stringify({ compilerOptions, include: ['*'] }));
  const { stdout } = spawnSync(
    process.execPath,
    ['node_modules/typescript/bin/tsc', '--pretty', 'false', '-p', folder],
    {
      encoding: 'utf8',
    },
  );
  return stdout.split('\n').flatMap((l) => (/error TS/.test(l) ? [l.replace(/^.*[\\/]/, '')] : []));
}

test('the declarations are sound TypeScript, and scripts that come with Wendril keep to them', () => {
  expect(faultsIn(Object.fromEntries(SHIPPED.map((s) => [s.key, s.text])))).toEqual([]);
  const wrong = faultsIn({
    a: "font.glyph('n').drawing().left = 'wide';",
    b: 'edits.setSides({ at: chosen[0].drawing(), lefft: 5 });',
    c: 'const { by } = ask({ by: { number: 1 } });\nby.trim();',
  });
  expect(wrong).toEqual([
    expect.stringMatching(/^a\.js\(1,.*'string'/),
    expect.stringMatching(/^b\.js\(1,.*lefft/),
    expect.stringMatching(/^c\.js\(2,.*trim/),
  ]);
}, 120_000);

test('names that there are not are found before a script is run, not in comments or quoted words', () => {
  expect(
    unknownNames(
      "font.name;\nfont.glyfs;\nedits.setSides({});\n// font.other\n'edits.none'; shapes.unite; chosen.font.x;",
    ),
  ).toEqual([{ line: 2, name: 'font.glyfs' }]);
  expect(unknownNames('/* font.a\n*/ edits.removeAll({}); `font.b`')).toEqual([{ line: 2, name: 'edits.removeAll' }]);
  for (const { title, text } of SHIPPED) expect([title, unknownNames(text)]).toEqual([title, []]);
});
