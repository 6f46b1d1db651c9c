import type { CompileOptions, Deed } from './compile';
import type { Answering, Asked } from './nameTable';
import type { Tree } from './tree';

type Options = Pick<CompileOptions, 'glyphs' | 'waiting'>;
type Remembered = { options: Options; asked: Asked; deeds: readonly Deed[] };

/** What texts came to the last time that they were read. */
const memory = new WeakMap<Tree, Remembered>();

/** Keeps what a text came to, if nothing that it asked for may be answered otherwise without its knowing. */
export function remember(tree: Tree, { glyphs, waiting }: Options, asked: Asked, deeds: readonly Deed[]): void {
  if (asked.isSound) memory.set(tree, { options: { glyphs, ...(waiting && { waiting }) }, asked, deeds });
  else memory.delete(tree);
}

/** What a text comes to, where glyphs and all names that it asks for stand for the same as when it was read. */
export function remembered(tree: Tree, options: Options, answering: readonly Answering[]): readonly Deed[] | undefined {
  const known = memory.get(tree);
  if (!known || !sameOptions(known.options, options) || !known.asked.holds(answering)) return undefined;
  return known.deeds;
}

function sameOptions(a: Options, b: Options): boolean {
  const sameGlyphs =
    a.glyphs === b.glyphs || (a.glyphs.length === b.glyphs.length && a.glyphs.every((g, i) => g === b.glyphs[i]));
  if (!sameGlyphs || (a.waiting?.size ?? 0) !== (b.waiting?.size ?? 0)) return false;
  return a.waiting === b.waiting || [...(a.waiting ?? [])].every((g) => b.waiting!.has(g));
}
