import { FeatureFault } from './cursor';
import { GlyphIndex } from './glyphIndex';
import { Names } from './resolve';
import type { Statement } from './tree';
import { treeOf } from './trees';

/**
 * The glyphs of a class (its name with the @), worked out from texts in their order, classes within it resolved: by name, in the
 * order that they are written in; empty where no text defines it.
 */
export function membersOf(texts: readonly string[], glyphs: readonly string[], name: string): string[] {
  const names = new Names(new GlyphIndex(glyphs), { valueAt: (values) => values[0]?.value ?? 0 }, () => {});
  const walk = (list: readonly Statement[]): void => {
    for (const s of list) {
      if (s.kind === 'feature' || s.kind === 'lookup') walk(s.body);
      if (s.kind !== 'glyphClass') continue;
      try {
        names.classes.set(s.name, names.glyphs(s.set));
      } catch (error) {
        if (!(error instanceof FeatureFault)) throw error;
      }
    }
  };
  for (const text of texts) walk(treeOf(text).statements);
  return (names.classes.get(name.replace(/^@/, '')) ?? []).map((g) => glyphs[g]!);
}
