import { listed } from '../../base/text';
import { axesKey, CARRIED, CARRIED_AXES, CARRIED_TABLES, carriedPath } from '../../fontfacts/carried';
import type { Project } from '../../project/model';
import type { FontReading } from './reading';

/** Tables of a font that go along as they are, and what is said of them. */

/** Does what a table says vary by differences that are kept elsewhere? */
const variesElsewhere = (tag: string, bytes: Uint8Array): boolean =>
  tag === 'MATH' || tag === 'JSTF' || (tag === 'BASE' && bytes[3] !== 0);

/**
 * Layout that is not told as rules goes along as it is, for as long as the order of glyphs stays; positions for as long as what they
 * were made from stays, too. Substitutions that change with the axes stay for a font that varies over the same.
 */
export function carried(
  r: FontReading,
  glyphNames: readonly string[],
  axes: Project['axes'],
): Pick<Project, 'kept' | 'lib'> {
  const tags = CARRIED_TABLES.filter(
    (tag) => r.font.tables.has(tag) && (axes.length === 0 || !variesElsewhere(tag, r.font.tables.get(tag)!)),
  );
  if (tags.includes('GSUB'))
    r.notes.push(
      'Substitutions (GSUB) are carried as they are while the order of glyphs stays, also when others follow behind; in Features they become rules to be edited.',
    );
  const kept = tags.map((tag): [string, Uint8Array] => [carriedPath(tag), new Uint8Array(r.font.tables.get(tag)!)]);
  const gsub = r.font.tables.get('GSUB');
  const stays = axes.length > 0 && gsub !== undefined && gsub.length >= 4 && gsub[3]! >= 1;
  if (stays)
    r.notes.push(
      'Substitutions that change with the axes stay in the font that varies; fonts of one place have those of the default.',
    );
  return {
    kept: Object.fromEntries(kept),
    lib: kept.length > 0 ? { [CARRIED]: [...glyphNames], ...(stays ? { [CARRIED_AXES]: axesKey(axes) } : {}) } : {},
  };
}

/** What becomes of positions, once. */
export function positionsNote(isCarried: boolean, aside: readonly string[]): string[] {
  const what = listed(aside, 8);
  if (!isCarried) return aside.length > 0 ? [`Left aside: ${what}.`] : [];
  const then = 'are carried as they are; when kerning, anchors or rules are changed they are made anew from these';
  return [`Positions (GPOS) ${then}${aside.length > 0 ? `, and then go: ${what}` : ''}.`];
}
