import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { attempt, refused } from '../base/result';
import { checkFont } from '../casting/checks';
import { castFont } from '../casting/font';
import { readDesignspace, writeDesignspace } from './designspace/designspace';
import { projectFiles, projectFromFiles, readProjectFile, writeProjectFile } from './project/projectFile';
import { readGlif } from './ufo/glif';
import { readPlist } from './ufo/plist';

/** Damaged input of every kind: each ends in a result or one sentence, never in another error or an endless loop. */

const demo = buildStarter();
const files = projectFiles(demo);
const damage = (bytes: Uint8Array) =>
  fc
    .array(fc.tuple(fc.nat({ max: bytes.length - 1 }), fc.integer({ min: 0, max: 255 })), {
      minLength: 1,
      maxLength: 12,
    })
    .map((changes) => ({
      changes,
      /** Made when asked for, so that a failing case prints its changes only. */
      bytes: () => {
        const out = bytes.slice();
        for (const [at, value] of changes) out[at] = value;
        return out;
      },
    }));
const textOf = (path: string) => new TextDecoder().decode(files.get(path)!);
const isSentence = (reason: string) => /^[\s\S]{8,400}\.$/.test(reason);

test.each(['otf', 'ttf'] as const)('damaged %s files are judged, never thrown at', (flavour) => {
  const font = castFont(demo, { flavour, place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  fc.assert(
    fc.property(damage(font.value.bytes), fc.nat({ max: 300 }), (damaged, cut) => {
      for (const c of checkFont(damaged.bytes().subarray(0, font.value.bytes.length - cut)))
        expect(c.severity === 'fine' || isSentence(c.reason) ? '' : c.reason).toBe('');
    }),
    { numRuns: 150 },
  );
});

test('damaged GLIF, plist and designspace text is refused by file and line', () => {
  const glif = new TextEncoder().encode(textOf('VelmarrowSans-Regular.ufo/glyphs/a.glif'));
  const plist = new TextEncoder().encode(textOf('VelmarrowSans-Regular.ufo/fontinfo.plist'));
  const space = new TextEncoder().encode(
    writeDesignspace({
      axes: [
        { tag: 'wght', name: 'Weight', minimum: 1, default: 2, maximum: 3, hidden: false, map: [[1, 2]], labels: {} },
      ],
      sources: [{ filename: 'A.ufo', name: 'a', styleName: 'A', layer: undefined, location: { Weight: 1 } }],
      instances: [],
      rules: [],
      lib: {},
    }),
  );
  const readers: [Uint8Array, (text: string) => unknown][] = [
    [glif, (t) => readGlif(t, 'a.glif')],
    [plist, (t) => readPlist(t, 'x.plist')],
    [space, (t) => readDesignspace(t, 'x.designspace')],
  ];
  for (const [bytes, read] of readers) {
    fc.assert(
      fc.property(damage(bytes), (damaged) => {
        const result = attempt(() => read(new TextDecoder().decode(damaged.bytes())));
        if (!result.ok) expect(result.reason).toMatch(/^(a\.glif|x\.plist|x\.designspace)[ ,:]/);
      }),
      { numRuns: 250 },
    );
  }
});

test('damaged project files give the project or a sentence', () => {
  fc.assert(
    fc.property(damage(writeProjectFile(demo)), (damaged) => {
      const result = readProjectFile(damaged.bytes(), 'x.wendril');
      if (!result.ok) expect(result.reason).toMatch(/\.$/);
    }),
    { numRuns: 60 },
  );
});

test('any file of a UFO missing, empty or swapped is a sentence or no loss', () => {
  const paths = [...files.keys()];
  for (const path of paths.filter((_, i) => i % 7 === 0 || /plist|designspace/.test(paths[i]!))) {
    for (const content of [
      undefined,
      new Uint8Array(0),
      Uint8Array.of(0xff, 0xfe, 0x00),
      new TextEncoder().encode('<plist><array/></plist>'),
    ]) {
      const tree = new Map(files);
      if (content) tree.set(path, content);
      else tree.delete(path);
      const result = projectFromFiles(tree, 'x');
      if (!result.ok) expect(isSentence(result.reason) ? '' : `${path}: ${result.reason}`).toBe('');
    }
  }
});

test('entities do not expand, and depth is bounded', () => {
  const bomb =
    '<?xml version="1.0"?><!DOCTYPE p [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><plist><string>&b;</string></plist>';
  expect(attempt(() => readPlist(bomb, 'x.plist'))).toMatchObject(
    refused(expect.stringMatching(/^x\.plist, line 1: /)),
  );
  const deep = `<plist>${'<array>'.repeat(5000)}${'</array>'.repeat(5000)}</plist>`;
  expect(attempt(() => readPlist(deep, 'x.plist'))).toMatchObject(
    refused('x.plist, line 1: elements are nested more than 64 deep.'),
  );
});
