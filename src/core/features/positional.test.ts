import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { castFont } from '../casting/font';
import type { Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { automaticRules, type Ground } from './automatic';
import { addSections } from './edits';
import { projectGround } from './ground';

const demo = readyDemo();
const folder = mkdtempSync(join(tmpdir(), 'wendril-places-'));

/** The demo with forms of some letters by their place, drawn as the letters are, and the rules that their names call for. */
function withForms(names: readonly string[]): Project {
  const forms = names.map((name, i): Glyph => {
    const { unicodes: _, ...plain } = glyphNamed(demo, name.split('.')[0]!)!;
    return { ...plain, id: `form${i}`, name, unicodes: [] };
  });
  const made = addSections(
    {
      ...demo,
      glyphs: { ...demo.glyphs, ...Object.fromEntries(forms.map((g) => [g.id, g])) },
      glyphOrder: [...demo.glyphOrder, ...forms.map((g) => g.id)],
      features: { ...demo.features, sections: [] },
    },
    { sections: [{ title: 'By place', text: '', automatic: 'calt' }] },
  );
  if (!made.ok) throw new Error(made.reason);
  return made.project;
}

test('HarfBuzz sets forms by their place in a word, past marks, at the ends of words only', () => {
  const font = castFont(withForms(['e.fina', 'n.init', 'a.isol', 'o.medi', 'a.fina']), {
    flavour: 'otf',
    place: { master: 'm1' },
  });
  if (!font.ok) throw new Error(font.reason);
  const path = join(folder, 'places.otf');
  writeFileSync(path, font.value.bytes);
  const set = (text: string): string =>
    (
      JSON.parse(execFileSync(process.execPath, ['scripts/shape.mjs', path, text], { encoding: 'utf8' })) as {
        name: string;
      }[]
    )
      .map((g) => g.name)
      .join(' ');
  expect(set('e')).toBe('e');
  expect(set('ne')).toBe('n.init e.fina');
  expect(set('nene a')).toBe('n.init e n e.fina space a.isol');
  expect(set('na, o')).toBe('n.init a.fina comma space o');
  expect(set('tot')).toBe('t o.medi t');
  expect(set('oto')).toBe('o t o');
  // A mark without a composed letter stands between letters, not between words.
  expect(set('t\u0301e')).toMatch(/^t acutecomb\S* e\.fina$/);
  expect(set('not\u0301')).toMatch(/^n\.init o\.medi t acutecomb\S*$/);
  // Figures are no letters.
  expect(set('n1 a2')).toBe('n one space a.isol two');
});

test('letters that join keep the features that text asks for; others get contexts', () => {
  const codes: Readonly<Record<string, number>> = { 'beh-ar': 0x628, 'alef-ar': 0x627, a: 0x61, b: 0x62 };
  const names = ['a', 'b', 'a.fina', 'beh-ar', 'alef-ar', 'beh-ar.init', 'beh-ar.fina', 'kashida.medi', 'kashida'];
  const ground: Ground = { names, codeOf: (n) => codes[n], above: [], below: [] };
  const text = (tag: string) => automaticRules(ground).find((r) => r.tag === tag)?.text;
  expect(text('init')).toContain('sub beh-ar by beh-ar.init;');
  expect(text('fina')).toContain('sub beh-ar by beh-ar.fina;');
  // What has no character may belong to letters that join.
  expect(text('medi')).toContain('sub kashida by kashida.medi;');
  expect(text('calt')).toContain("sub @letters_in_words a' by a.fina;");
  expect(text('calt')).toContain('@letters_in_words = [a b a.fina];');
  expect(text('calt')).not.toContain('beh');
  expect(automaticRules(projectGround(demo, 'm1')).some((r) => r.tag === 'calt')).toBe(false);
});
