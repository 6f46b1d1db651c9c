import { parseFeatures } from './parse';
import type { Tree } from './tree';

/** So many texts are remembered with their trees, of so many letters in all: what is typed goes by, what stands stays. */
const REMEMBERED = { texts: 400, letters: 6_000_000 };
const trees = new Map<string, Tree>();
let letters = 0;

/** The tree of a text, remembered: a section that did not change is not read again. */
export function treeOf(text: string): Tree {
  const known = trees.get(text);
  if (known) {
    // What is asked for again is forgotten last.
    trees.delete(text);
    trees.set(text, known);
    return known;
  }
  const tree = parseFeatures(text);
  for (const old of trees.keys()) {
    if (trees.size < REMEMBERED.texts && letters + text.length <= REMEMBERED.letters) break;
    trees.delete(old);
    letters -= old.length;
  }
  trees.set(text, tree);
  letters += text.length;
  return tree;
}
