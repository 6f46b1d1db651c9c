import { filesOfSource, resolvedPath, sourceNames, sourcesIn } from './sourceFolder';

const ufo = (folder: string) =>
  ['metainfo.plist', 'glyphs/contents.plist', 'glyphs/a.glif'].map((f) => `${folder}${f}`);

test('a folder is opened as its designspaces, those nearest the top first; without one as its UFOs', () => {
  const both = [
    ...ufo('sources/Orde-Light.ufo/'),
    'sources/more/Other.designspace',
    'sources/Orde.designspace',
    'README',
  ];
  expect(sourcesIn(both)).toEqual(['sources/Orde.designspace', 'sources/more/Other.designspace']);
  expect(sourcesIn([...ufo('b/B.ufo/'), ...ufo('A.ufo/')])).toEqual(['A.ufo', 'b/B.ufo']);
  // The folder itself may be the UFO.
  expect(sourcesIn(ufo(''))).toEqual(['']);
  expect(sourcesIn(['a.txt', 'X.ufo/data/Y.designspace'])).toEqual([]);
});

test('of a folder that holds much else only the source is read, and what its rules may include', () => {
  const much = [
    ...ufo('src/A.ufo/'),
    ...ufo('old/A.ufo/'),
    'src/A.designspace',
    'src/B.designspace',
    'fea/kern.fea',
    'fonts/A.ttf',
  ];
  expect(filesOfSource(much, 'src/A.designspace', ['A.ufo'])).toEqual([
    ...ufo('src/A.ufo/'),
    'src/A.designspace',
    'fea/kern.fea',
  ]);
  // Sources may lie beside, and those out of the folder are not there.
  expect(filesOfSource(much, 'src/B.designspace', ['../old/A.ufo', '../../A.ufo'])).toEqual([
    ...ufo('old/A.ufo/'),
    'src/B.designspace',
    'fea/kern.fea',
  ]);
  expect(filesOfSource(much, 'old/A.ufo')).toEqual([...ufo('old/A.ufo/'), 'fea/kern.fea']);
  expect(filesOfSource([...ufo(''), 'data/x'], '')).toEqual([...ufo(''), 'data/x']);
});

test('sources are told by the text of a designspace, each once, and by their paths seen from it', () => {
  const text =
    '<sources><source name="a" filename="A.ufo"/><source layer="x" filename="A.ufo"/><source filename="../B.ufo"/></sources><instance filename="I.ufo"/>';
  expect(sourceNames(text)).toEqual(['A.ufo', '../B.ufo']);
  expect([
    resolvedPath('src', '../B.ufo'),
    resolvedPath('', './x/./B.ufo'),
    resolvedPath('src', '../../B.ufo'),
  ]).toEqual(['B.ufo', 'x/B.ufo', undefined]);
});
