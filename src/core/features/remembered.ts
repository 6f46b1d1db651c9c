import type { CompileOptions, Deed } from './compile';
import type { Answering, Asked } from './nameTable';
import type { Tree } from './tree';

type Options = Pick<CompileOptions, 'glyphs' | 'waiting' | 'away'>;
type Remembered = { options: Options; asked: Asked; deeds: readonly Deed[] };

/** What texts came to the last time that they were read. */
const memory = new WeakMap<Tree, Remembered>();

/** Keeps what a text came to, if nothing that it asked for may be answered otherwise without its knowing. */
export function remember(tree: Tree, { glyphs, waiting, away }: Options, asked: Asked, deeds: readonly Deed[]): void {
  if (asked.isSound)
    memory.set(tree, { options: { glyphs, ...(waiting && { waiting }), ...(away && { away }) }, asked, deeds });
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
  return sameGlyphs && sameNames(a.waiting, b.waiting) && sameNames(a.away, b.away);
}

const sameNames = (a: ReadonlySet<string> = new Set(), b: ReadonlySet<string> = new Set()): boolean =>
  a === b || (a.size === b.size && [...a].every((g) => b.has(g)));
