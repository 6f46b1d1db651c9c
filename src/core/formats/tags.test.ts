import fc from 'fast-check';
import { SaxesParser } from 'saxes';
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
    '<a>&nbsp;</a>',
    '<a>&#65;</a>',
    '<a>&</a>',
    '<a>&amp</a>',
    '<a>&constructor;</a>',
    '<a x="&amp;"/>',
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

test('common references and line ends in texts are read as the full parser reads them', () => {
  expect(scanned('<a>\r\n Hamborn &amp; Orde &lt;&gt;&quot;&apos;\rKelm</a>')).toEqual([
    '<a {}',
    'Hamborn & Orde <>"\'\nKelm',
    '>a',
  ]);
  const pieces = fc.constantFrom(
    '&amp;',
    '&lt;',
    '&gt;',
    '&quot;',
    '&apos;',
    '\r\n',
    '\r',
    '\n',
    'x',
    ' ',
    ';',
    'amp;',
  );
  fc.assert(
    fc.property(fc.array(pieces, { minLength: 1, maxLength: 12 }), (list) => {
      let full = '';
      const parser = new SaxesParser();
      parser.on('text', (t) => {
        full += t;
      });
      parser.write(`<a>${list.join('')}</a>`).close();
      let quick = '';
      const whole = scanTags(`<a>${list.join('')}</a>`, {
        offset: 0,
        wantsText: () => true,
        open: () => {},
        close: () => {},
        text: (t) => {
          quick += t;
        },
      });
      expect([whole, quick]).toEqual([true, full]);
    }),
  );
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
