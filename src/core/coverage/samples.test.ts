import { coverageOf, needsOf } from './coverage';
import { loadLanguages } from './languages';
import { sampleOf, writtenSample } from './samples';

test('languages are shown by a sentence of theirs, in their quotation marks and their way to join words', async () => {
  const { all } = await loadLanguages();
  const of = (code: string) => sampleOf(all.find((l) => l.code === code)!);
  expect(of('pl')).toMatch(/^„.*4 maja 2026”: poniedziałek, wtorek, .*sobota i niedziela\.$/);
  expect(of('de')).toMatch(/^„Montag, 4\. Mai 2026“: Montag, .* und Sonntag\.$/);
  expect(of('tr')).toMatch(/Pazartesi.*Pazar\.$/);
  expect(of('el')).toMatch(/Δευτέρα.* και Κυριακή\.$/);
});

test('what a font cannot write of it gives way to the alphabet, and that to nothing', async () => {
  const { all } = await loadLanguages();
  const polish = all.find((l) => l.code === 'pl')!;
  const letters = new Set(needsOf(polish).letters);
  expect(writtenSample(polish, () => true)).toBe(sampleOf(polish));
  // Letters alone: no figures, no quotation marks.
  expect(writtenSample(polish, (c) => letters.has(c))).toBe(polish.letters.join(' '));
  expect(writtenSample(polish, (c) => c < 0x7f)).toBeUndefined();
});

test('for every language of Latin, Greek and Cyrillic there is something to show with what it needs', async () => {
  const { all } = await loadLanguages();
  const own = all.filter((l) => ['Latn', 'Grek', 'Cyrl'].includes(l.script));
  expect(own.length).toBeGreaterThan(150);
  for (const language of own) {
    const { letters, punctuation } = needsOf(language);
    const has = new Set([...letters, ...punctuation, ...Array.from('0123456789.,:;-–', (c) => c.codePointAt(0)!)]);
    const [covered] = coverageOf([language], (c) => has.has(c));
    expect(covered!.missing).toEqual([]);
    expect([language.code, (writtenSample(language, (c) => has.has(c)) ?? '').length > 10]).toEqual([
      language.code,
      true,
    ]);
  }
});
