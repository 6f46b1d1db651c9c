import { type Compiled, type CompileOptions, compileFeatures, type Source } from './compile';
import { includeFrom } from './includes';
import type { Fault, Span, Statement } from './tree';
import { treeOf } from './trees';

/** A piece of text as the project keeps it. */
export type SectionText = { id: string; title: string; text: string };

/** Tags of the features that text has blocks of. */
export const tagsIn = (texts: readonly string[]): Set<string> =>
  new Set(
    texts.flatMap((t) =>
      treeOf(t).statements.flatMap((s: Statement) => (s.kind === 'feature' ? [s.tag.trimEnd()] : [])),
    ),
  );

/** Compiles sections in their order, with files that they include by path. */
export function compileSections(
  sections: readonly SectionText[],
  included: Readonly<Record<string, string>>,
  options: CompileOptions,
): Compiled {
  const include = includeFrom(included);
  const sources = sections.map((s): Source => ({ tree: treeOf(s.text), include }));
  return compileFeatures(sources, options);
}

/** Line and column of a place in text, from 1 on. */
export function lineAndColumn(text: string, at: number): { line: number; column: number } {
  const before = text.slice(0, at);
  const start = before.lastIndexOf('\n') + 1;
  return { line: before.split('\n').length, column: at - start + 1 };
}

/** Where a line stands in text, counted from 1 on, its end left out; undefined where there is no such line. */
export function lineSpan(text: string, line: number): Span | undefined {
  const lines = text.split('\n');
  const own = lines[line - 1];
  if (own === undefined) return undefined;
  const from = lines.slice(0, line - 1).reduce((sum, l) => sum + l.length + 1, 0);
  return { from, to: from + own.length };
}

/** A fault in words: the section, its line, what is wrong. */
export function faultSentence(section: SectionText | undefined, fault: Fault): string {
  if (!section) return fault.reason;
  const { line } = lineAndColumn(section.text, fault.from);
  const title = section.title || 'Features';
  return `${title}, line ${line}: ${fault.reason}`;
}
