import type { Project } from '../project/model';
import { glyphForCodePoint } from '../project/queries';

/** A rule as one says it: what is replaced, by what, behind and before which glyphs; names or characters, with spaces between. */
export type RuleInWords = { replace: string; by: string; before: string; after: string };

/** What one typed, as names of glyphs: a single character stands for the glyph that has it. */
const namesOf = (project: Project, typed: string): string[] =>
  typed
    .trim()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => {
      const [character, more] = [...word];
      return (more === undefined && glyphForCodePoint(project, character!.codePointAt(0)!)?.name) || word;
    });

/** Any of several glyphs, as the language writes it; nothing for none. */
const anyOf = (names: readonly string[]): string[] =>
  names.length === 0 ? [] : [names.length === 1 ? names[0]! : `[${names.join(' ')}]`];

/** The section that a rule in words is written as, used by text without being asked; undefined while it is not complete. */
export function sectionInWords(project: Project, rule: RuleInWords): { title: string; text: string } | undefined {
  const [replaced, by, behind, ahead] = [rule.replace, rule.by, rule.before, rule.after].map((t) =>
    namesOf(project, t),
  ) as [string[], string[], string[], string[]];
  if (replaced.length === 0 || by.length === 0) return undefined;
  const mark = behind.length + ahead.length > 0 ? "'" : '';
  const pattern = [...anyOf(behind), ...replaced.map((n) => n + mark), ...anyOf(ahead)].join(' ');
  return {
    title: `${rule.replace.trim()} by ${rule.by.trim()}`,
    text: `feature calt {\n  sub ${pattern} by ${by.join(' ')};\n} calt;\n`,
  };
}
