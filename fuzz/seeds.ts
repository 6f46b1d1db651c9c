import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildStarter } from '../demo/starter';
import type { Result } from '../src/core/base/result';
import { castFont } from '../src/core/casting/font';
import { fromWoff2, toWoff2 } from '../src/core/fontfacts/webfont';
import { openAny } from '../src/core/formats/openFile';
import { projectFiles, projectFromFiles, writeProjectFile } from '../src/core/formats/project/projectFile';
import { writeSvg } from '../src/core/formats/svg/svg';
import { toWoff } from '../src/core/opentype/woff';
import type { Project } from '../src/core/project/model';
import { mutated, mutatedText, random } from './mutate';

/** One kind of input: `open` reads its damaged form of a number. */
export type Seed = { name: string; open: (seed: number) => Promise<Result<{ project: Project }>> };

/** Files of every kind, small enough for many cases. */
export async function seeds(): Promise<Seed[]> {
  const project = buildStarter();
  const cast = (flavour: 'ttf' | 'otf') => {
    const font = castFont(project, { flavour, place: { master: 'm1' }, keepOverlaps: true });
    if (!font.ok) throw new Error(font.reason);
    return font.value.bytes;
  };
  const ttf = cast('ttf');
  const folder = 'node_modules/@fontsource-variable/source-sans-3/files';
  const variable = readdirSync(folder).find((f) => /greek-wght-normal\.woff2$/.test(f))!;
  const binary = (name: string, bytes: Uint8Array): Seed => ({
    name,
    open: (seed) => openAny(mutated(bytes, seed), name),
  });
  const svg = new TextEncoder().encode(writeSvg(project, project.glyphOrder[40]!, 'm1'));
  return [
    binary('font.ttf', ttf),
    binary('font.otf', cast('otf')),
    binary('font.woff', toWoff(ttf)),
    binary('variable.ttf', await fromWoff2(readFileSync(join(folder, variable)))),
    binary('font.woff2', await toWoff2(ttf)),
    binary('variable.otf', new Uint8Array(readFileSync('src/core/formats/fixtures/velmarrow-cff2.otf'))),
    binary('source.wendril', writeProjectFile(project)),
    { name: 'picture.svg', open: (seed) => openAny(mutatedText(svg, seed), 'picture.svg') },
    treeSeed('source.ufo', projectFiles(project)),
    treeSeed('old.ufo', olderUfo(projectFiles(project))),
  ];
}

/** A folder of sources in which one file is damaged, missing, or under another path. */
function treeSeed(name: string, files: ReadonlyMap<string, Uint8Array>): Seed {
  const paths = [...files.keys()];
  const notGlyphs = paths.filter((p) => !p.endsWith('.glif'));
  return {
    name,
    open: async (seed) => {
      const next = random(seed);
      const list = next() < 0.6 ? notGlyphs : paths;
      const path = list[Math.floor(next() * list.length)]!;
      const tree = new Map(files);
      const kind = next();
      if (kind < 0.05) tree.delete(path);
      else if (kind < 0.1) {
        tree.set(`../${path}`, tree.get(path)!);
        tree.delete(path);
      } else tree.set(path, (kind < 0.25 ? mutated : mutatedText)(tree.get(path)!, seed));
      return openTree(tree, name);
    },
  };
}

async function openTree(tree: ReadonlyMap<string, Uint8Array>, name: string): Promise<Result<{ project: Project }>> {
  const read = projectFromFiles(new Map(tree), name);
  return read.ok ? { ok: true, value: { project: read.value } } : read;
}

/** The same source as an older editor may have left it: version 2, without layers. */
function olderUfo(files: ReadonlyMap<string, Uint8Array>): Map<string, Uint8Array> {
  const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
  const out = new Map<string, Uint8Array>();
  for (const [path, bytes] of files) {
    if (path.endsWith('layercontents.plist') || path.endsWith('.designspace')) continue;
    const older = path.endsWith('metainfo.plist')
      ? text(bytes).replace('<integer>3</integer>', '<integer>2</integer>')
      : path.endsWith('.glif')
        ? text(bytes).replace('format="2"', 'format="1"')
        : undefined;
    out.set(path, older === undefined ? bytes : new TextEncoder().encode(older));
  }
  return out;
}
