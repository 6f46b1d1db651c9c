import { compileSections } from '../../features/sections';
import { createProject } from '../../project/create';
import type { Project } from '../../project/model';
import { glyphsInOrder } from '../../project/queries';
import { unpackZip } from '../fileTree';
import { projectFiles, projectFromFiles, readProjectFile, writeProjectFile } from './projectFile';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const opened = (files: ReadonlyMap<string, Uint8Array>): Project => {
  const read = projectFromFiles(files, 'F');
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

/** The files of a small family of one master, its source in `folder`, with rules. */
function sources(folder: string, rules: string, beside: Readonly<Record<string, string>>): Map<string, Uint8Array> {
  const plain = projectFiles(createProject({ family: 'Kelp', unitsPerEm: 1000, created: 0 }));
  const ufo = [...plain].filter(([p]) => p.includes('.ufo/'));
  const files = new Map(ufo.map(([p, b]) => [p.replace(/^[^/]+\.ufo/, `${folder}T.ufo`), b]));
  files.set(`${folder}T.ufo/features.fea`, bytes(rules));
  for (const [path, text] of Object.entries(beside)) files.set(path, bytes(text));
  return files;
}

/** Tags of the features that a project’s rules make, and what is wrong in them. */
function made(project: Project): { tags: string[]; faults: string[] } {
  const { sections, included } = project.features;
  const names = [...glyphsInOrder(project).map((g) => g.name), 'a', 'b'];
  const { tags, faults } = compileSections(sections, included, { glyphs: names });
  return { tags: [...tags].sort(), faults: faults.map((f) => f.reason) };
}

const RULE = (tag: string) => `feature ${tag} { sub a by b; } ${tag};\r\n`;

test('files that rules include come in with a source, from beside it, within it and from one another, and go out again', () => {
  const files = sources('', 'include(shared/first.fea);\r\ninclude(own.fea);\r\n', {
    'shared/first.fea': `include(second.fea);\r\n${RULE('ss01')}`,
    'shared/second.fea': RULE('ss02'),
    'T.ufo/own.fea': RULE('ss03'),
  });
  const project = opened(files);
  expect(Object.keys(project.features.included).sort()).toEqual(['own.fea', 'shared/first.fea', 'shared/second.fea']);
  expect(project.features.sections[0]!.text).not.toContain('\r');
  expect(made(project)).toEqual({ tags: ['ss01', 'ss02', 'ss03'], faults: [] });

  const again = unpackZip(writeProjectFile(project), 'F.wendril');
  for (const [path, text] of [
    ['shared/second.fea', RULE('ss02')],
    ['T.ufo/own.fea', RULE('ss03')],
  ] as const)
    expect(new TextDecoder().decode(again.get(path))).toBe(text);
  const back = readProjectFile(writeProjectFile(project), 'F.wendril');
  expect(back.ok && back.value.features).toEqual(project.features);
});

test('a file above the source’s folder is found, and lies within the project afterwards', () => {
  const files = sources('masters/', 'include(../features/all.fea);\n', { 'features/all.fea': RULE('liga') });
  const project = opened(files);
  expect(made(project)).toEqual({ tags: ['liga'], faults: [] });
  const back = readProjectFile(writeProjectFile(project), 'F.wendril');
  expect(back.ok && made(back.value)).toEqual({ tags: ['liga'], faults: [] });
});

test('a file that is not there, one that is no text and files in a circle are told; the rest of the rules stands', () => {
  const missing = opened(sources('', `include(gone.fea);\n${RULE('ss01')}`, {}));
  expect(made(missing)).toEqual({ tags: ['ss01'], faults: ['The file gone.fea is not there to be included.'] });
  const circle = opened(
    sources('', `include(a.fea);\n${RULE('ss01')}`, { 'a.fea': 'include(b.fea);', 'b.fea': 'include(a.fea);' }),
  );
  expect(Object.keys(circle.features.included)).toHaveLength(2);
  expect(made(circle).faults).toEqual(['In b.fea, line 1: Files include one another too deep, or in a circle.']);
  const wrong = opened(sources('', 'include(a.fea);', { 'a.fea': '\n\nfeature ss01 { sub a by nowhere; } ss01;' }));
  expect(made(wrong).faults[0]).toMatch(/^In a\.fea, line 3: Glyph nowhere is not in the project/);
});
