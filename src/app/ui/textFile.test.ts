import { readTextFile } from './textFile';

const file = (content: BlobPart, name = 'rules.fea') => new File([content], name);

test('text comes with its lines ended alike, from UTF-8 and UTF-16', async () => {
  expect(await readTextFile(file('a\r\nb\rc\n'), 'a file of rules', 100)).toEqual({
    ok: true,
    value: { text: 'a\nb\nc\n', note: undefined },
  });
  const wide = Uint8Array.from(Buffer.from('\ufeffé\r\n', 'utf16le'));
  const read = await readTextFile(file(wide), 'a file of rules', 100);
  expect(read.ok && read.value.text.replace(/^\ufeff/, '')).toBe('é\n');
});

test('letters that had to be guessed are told; what is too large or no text is refused by name', async () => {
  const latin = await readTextFile(file(Uint8Array.of(0x61, 0xe9)), 'a list', 100);
  expect(latin.ok && [latin.value.text, latin.value.note]).toEqual([
    'aé',
    expect.stringMatching(/^rules\.fea is not UTF-8/),
  ]);
  expect(await readTextFile(file('x'.repeat(101)), 'a list', 100)).toMatchObject({
    ok: false,
    reason: 'rules.fea is larger than a list can be.',
  });
  expect(await readTextFile(file('abc\u0000def ghi'), 'a list', 100)).toMatchObject({
    ok: false,
    reason: 'rules.fea is not a text file.',
  });
});
