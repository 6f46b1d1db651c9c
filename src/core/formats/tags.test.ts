import fc from 'fast-check';
import { LineCounter, scanTags, Tag } from './tags';

/** The tags and texts of a document, as a scan tells them. */
function scanned(text: string) {
  const told: string[] = [];
  const whole = scanTags(text, {
    offset: 0,
    wantsText: () => true,
    open: (tag) => told.push(`<${tag.name} ${JSON.stringify(tag.all())}`),
    close: (name) => told.push(`>${name}`),
    text: (t) => t.trim() && told.push(t.trim()),
  });
  return whole ? told : undefined;
}

test('plain documents are told tag by tag', () => {
  expect(
    scanned('<?xml version="1.0"?>\n<glyph name="a" format="2">\n <unicode hex="0061"/>\n<note>soft</note></glyph>\n'),
  ).toEqual([
    '<glyph {"name":"a","format":"2"}',
    '<unicode {"hex":"0061"}',
    '>unicode',
    '<note {}',
    'soft',
    '>note',
    '>glyph',
  ]);
  expect(scanned('<!DOCTYPE plist PUBLIC "x" "y"><plist version="1.0"><dict/></plist>')).toHaveLength(4);
});

test('anything that is not plain is left to the full parser', () => {
  for (const text of [
    '',
    'words',
    '<a>',
    '<a></b>',
    '<a/><b/>',
    '<a x=1/>',
    "<a x='1'/>",
    '<a x="1" x="2"/>',
    '<a><!-- c --></a>',
    '<a>&amp;</a>',
    '<a x="<"/>',
    '<a x="1/>',
    '<!DOCTYPE a [<!ENTITY b "c">]><a/>',
    '<a><![CDATA[x]]></a>',
    '<1/>',
    '<a/>words',
  ]) {
    expect([text, scanned(text)]).toEqual([text, undefined]);
  }
});

test('numbers are read in place to the last digit', () => {
  const read = (text: string) => new Tag().begin('a', text).number('x');
  expect(read('5')).toBeUndefined();
  const value = (text: string) => {
    const tag = new Tag().begin('a', text);
    tag.add('x', 0, text.length);
    return tag.number('x');
  };
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (v) => expect(value(String(v))).toBe(v === 0 ? 0 : v)),
  );
  fc.assert(
    fc.property(fc.integer({ min: -99999, max: 99999 }), fc.integer({ min: 0, max: 6 }), (v, k) =>
      expect(value((v / 10 ** k).toFixed(k))).toBe(Number((v / 10 ** k).toFixed(k)) || 0),
    ),
  );
  for (const bad of ['', ' ', '1.', '.', '-', '1.2.3', 'x', '1e', '--1'])
    expect([bad, Number.isNaN(value(bad)) || value(bad) === Number(bad)]).toEqual([bad, true]);
});

test('lines are counted from one', () => {
  const lines = new LineCounter('ab\n\ncd\n');
  expect([0, 3, 4, 4, 7].map((offset) => lines.at(offset))).toEqual([1, 2, 3, 3, 4]);
});
