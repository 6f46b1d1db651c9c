import { listed } from '../base/text';
import type { SectionText } from './sections';
import type { Statement } from './tree';
import { treeOf } from './trees';

/** What a section has, as far as the order of work goes. */
type Part = {
  title: string;
  defines: Set<string>;
  calls: Set<string>;
  replaces: boolean;
  moves: boolean;
  tags: Set<string>;
};

function partOf({ title, text }: SectionText): Part {
  const part: Part = {
    title: title || 'a section',
    defines: new Set(),
    calls: new Set(),
    replaces: false,
    moves: false,
    tags: new Set(),
  };
  const walk = (list: readonly Statement[], inFeature: boolean): void => {
    for (const s of list)
      switch (s.kind) {
        case 'feature':
          part.tags.add(s.tag.trimEnd());
          walk(s.body, true);
          break;
        case 'lookup':
          part.defines.add(s.name);
          walk(s.body, inFeature);
          break;
        case 'lookupRef':
          if (inFeature) part.calls.add(s.name);
          break;
        case 'sub':
          part.replaces = true;
          break;
        case 'ignore':
          if (s.table === 'GSUB') part.replaces = true;
          else part.moves = true;
          break;
        case 'pos':
        case 'cursive':
        case 'attach':
        case 'attachParts':
          part.moves = true;
      }
  };
  walk(treeOf(text).statements, false);
  return part;
}

const titles = (parts: readonly Part[]): string =>
  listed(
    parts.map((p) => p.title),
    3,
  );

/**
 * Where lookups of a section work at another place than the section stands at, a sentence each, by section: text goes through the
 * lookups of a font in the order in which they were written, replacements first, whichever features call them (OpenType, “GSUB”).
 */
export function orderNotes(sections: readonly SectionText[]): string[][] {
  const parts = sections.map(partOf);
  return parts.map((part, i) => {
    const notes: string[] = [];
    for (const name of part.calls) {
      const home = parts.findIndex((p) => p.defines.has(name));
      if (home < 0 || home >= i) continue;
      const between = parts.slice(home + 1, i).filter((p) => p.replaces || p.moves);
      if (between.length > 0)
        notes.push(`${name} works where it stands, in ${parts[home]!.title}: before ${titles(between)}.`);
    }
    const before = parts.slice(0, i).filter((p) => p.replaces && !p.tags.has('aalt'));
    if (part.tags.has('aalt') && before.length > 0) notes.push(`aalt works before all others, ${titles(before)} too.`);
    const after = parts.slice(i + 1).filter((p) => p.replaces && !p.tags.has('aalt'));
    if (part.moves && !part.replaces && after.length > 0)
      notes.push(`Glyphs move after all replacements: after ${titles(after)} too.`);
    return notes;
  });
}
