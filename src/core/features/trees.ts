import { parseFeatures } from './parse';
import type { Tree } from './tree';

/** So many texts are remembered with their trees. */
const REMEMBERED = 400;
const trees = new Map<string, Tree>();

/** The tree of a text, remembered: a section that did not change is not read again. */
export function treeOf(text: string): Tree {
  let tree = trees.get(text);
  if (!tree) {
    tree = parseFeatures(text);
    if (trees.size >= REMEMBERED) trees.delete(trees.keys().next().value!);
    trees.set(text, tree);
  }
  return tree;
}
