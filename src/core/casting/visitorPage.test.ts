import { type VisitedFile, visitorPage } from './visitorPage';

const file = (change: Partial<VisitedFile> = {}): VisitedFile => ({
  title: 'Orde-Regular.woff2',
  format: 'woff2',
  address: 'Orde-Regular.woff2',
  size: 12345,
  codePoints: [0x41, 0x61],
  axes: [],
  instances: [],
  ...change,
});
const page = (files: readonly VisitedFile[], change = {}) =>
  visitorPage({ title: 'Orde', files, features: [], languages: [], text: 'Aa', ...change });
const dataOf = (html: string) =>
  JSON.parse(/<script type="application\/json" id="data">(.*?)<\/script>/s.exec(html)![1]!);

test('each file is a face of its own, loaded as a style sheet says; one that varies tells how far', () => {
  const html = page([
    file(),
    file({
      title: 'Orde-Variable.ttf',
      format: 'ttf',
      address: 'data:font/ttf;base64,AAEA',
      axes: [
        { tag: 'wght', name: 'Weight', minimum: 300, default: 400, maximum: 800 },
        { tag: 'wdth', name: 'Width', minimum: 75, default: 100, maximum: 100 },
      ],
    }),
  ]);
  expect(html.match(/@font-face \{[^}]*\}/g)).toEqual([
    '@font-face { font-family: "visited-0"; font-display: swap; src: url("Orde-Regular.woff2") format("woff2"); }',
    '@font-face { font-family: "visited-1"; font-display: swap; font-weight: 300 800; font-stretch: 75% 100%; src: url("data:font/ttf;base64,AAEA") format("truetype"); }',
  ]);
  // Bytes stand in the style sheet alone, not in the data too.
  expect(html.match(/AAEA/g)).toHaveLength(1);
});

test('what people typed cannot leave its place: titles, names, texts', () => {
  const html = page([file({ instances: [{ name: '</script><b>', place: { wght: 1 } }] })], {
    title: '<img src=x> & "co"',
    text: '</script><script>alert(1)</script>',
  });
  expect(html).toContain('<title>&lt;img src=x&gt; &amp; &quot;co&quot;</title>');
  expect(html.match(/<\/script>/g)).toHaveLength(2);
  expect(dataOf(html)).toMatchObject({
    text: '</script><script>alert(1)</script>',
    files: [{ instances: [{ name: '</script><b>' }] }],
  });
});

test('the page needs nothing from elsewhere, and its script is one that a browser can read', () => {
  const html = page([file()]);
  expect(html).not.toMatch(/https?:\/\/|src="|href="/);
  const script = /<script>\n(.*?)\n<\/script>/s.exec(html)![1]!;
  expect(() => new Function(script)).not.toThrow();
});
