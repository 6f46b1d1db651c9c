import { listed, textOf } from './text';

const utf8 = (s: string) => new TextEncoder().encode(s);
const utf16 = (s: string, little: boolean, mark: boolean) => {
  const text = mark ? `\ufeff${s}` : s;
  const out = new Uint8Array(text.length * 2);
  const view = new DataView(out.buffer);
  for (let i = 0; i < text.length; i++) view.setUint16(2 * i, text.charCodeAt(i), little);
  return out;
};

test('UTF-8 and UTF-16 are recognised, with a mark or without; anything else is read as Windows Latin and told', () => {
  const words = 'Hamburg\nŻurawka\nØverby\n';
  expect(textOf(utf8(words), 'w.txt')).toEqual({ text: words, note: undefined });
  for (const little of [true, false])
    for (const mark of [true, false])
      expect(textOf(utf16(words, little, mark), 'w.txt')).toEqual({ text: words, note: undefined });
  const latin = textOf(Uint8Array.of(0x4f, 0x72, 0x64, 0xe9, 0x0a), 'w.txt');
  expect(latin.text).toBe('Ordé\n');
  expect(latin.note).toMatch(/^w\.txt is not UTF-8/);
  expect(textOf(new Uint8Array(), 'w.txt')).toEqual({ text: '', note: undefined });
});

test('names are listed whole, or as many as a line holds and how many more', () => {
  const letters = [...'abcdefgh'];
  expect(listed([])).toBe('');
  expect(listed(letters.slice(0, 6))).toBe('a, b, c, d, e, f');
  expect(listed(letters)).toBe('a, b, c, d, e, f and 2 more');
  expect(listed(letters, 2, ' ')).toBe('a b and 6 more');
});
