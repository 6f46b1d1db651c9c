import '../core/allEdits';
import { readFileSync } from 'node:fs';
import { registeredEdits } from '../core/project/edit';
import { editEntries, entries, referenceText } from '../core/scripting/declarations';
import { preludeFor } from '../core/scripting/prelude';
import { CALLS } from '../core/scripting/registry';

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
