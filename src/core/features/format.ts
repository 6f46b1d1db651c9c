import { type Result, refused, success } from '../base/result';
import { type Token, tokensOf } from './tokens';
import type { Span, Statement } from './tree';
import { treeOf } from './trees';

/** Longer lines are wrapped, where they can be. */
const WIDE = 100;
const STEP = '  ';

/** A word, sign or verbatim stretch of a text, and what stands before it. */
type Part = Span & { text: string; kind: Token['kind'] | 'comment' | 'verbatim' };

/**
 * A text of rules in even order: one statement a line, blocks indented, single spaces, at most one empty line between statements, long
 * lists wrapped. Words, signs and comments stay what they are; refused where the text holds what is none of these.
 */
export function formatted(text: string): Result<string> {
  const { tokens, comments, faults } = tokensOf(text);
  if (faults[0]) return refused(`${faults[0].reason} Mend that first.`);
  const kept = verbatim(treeOf(text).statements);
  const within = (at: Span) => kept.find((k) => k.from <= at.from && at.to <= k.to);
  const parts: Part[] = [
    ...tokens.filter((t) => t.kind !== 'end' && !within(t)),
    ...comments
      .filter((c) => !within(c))
      .map((c) => ({ ...c, kind: 'comment' as const, text: text.slice(c.from, c.to).trimEnd() })),
    ...kept.map((k) => ({ ...k, kind: 'verbatim' as const, text: text.slice(k.from, k.to) })),
  ].sort((a, b) => a.from - b.from);
  const out = new Lines();
  let before: Part | undefined;
  let round = 0;
  for (const part of parts) {
    const gap = text.slice(before?.to ?? 0, part.from);
    const lines = gap.split('\n').length - 1;
    if (part.kind === 'comment') out.comment(part.text, before !== undefined && lines === 0, lines > 1);
    else {
      if (is(part, '}')) out.close();
      if (lines > 1) out.gap();
      out.add(part.text, spaced(before, part, { round, gap }));
      if (is(part, '(')) round++;
      if (is(part, ')')) round--;
      if (is(part, '{')) out.open();
      else if (is(part, ';') || part.kind === 'verbatim') out.end();
    }
    before = part;
  }
  return success(out.text());
}

const is = (part: Part | undefined, sign: string): boolean => part?.kind === 'symbol' && part.text === sign;

/** Stretches that stay as they are: paths of included files, text for other programs. */
function verbatim(list: readonly Statement[]): Span[] {
  return list.flatMap((s) => {
    if (s.kind === 'include' || s.kind === 'anon') return [{ from: s.from, to: s.to }];
    return 'body' in s && s.kind !== 'table' ? verbatim(s.body) : [];
  });
}

/** Signs that nothing stands between and what comes before them, and behind them. */
const TIGHT_BEFORE = new Set([';', ',', ']', '>', ')', "'"]);
const TIGHT_AFTER = new Set(['[', '<', '(']);

/** Does a space stand between two parts? */
function spaced(before: Part | undefined, part: Part, { round, gap }: { round: number; gap: string }): boolean {
  if (!before) return false;
  if (part.kind === 'symbol' && TIGHT_BEFORE.has(part.text)) return false;
  if (before.kind === 'symbol' && TIGHT_AFTER.has(before.text)) return false;
  // Places on axes, ranges written close.
  if (round > 0 && (is(part, '=') || is(before, '=') || is(part, ':') || is(before, ':'))) return false;
  if (is(part, '-') || is(before, '-')) return gap !== '';
  return true;
}

/** Lines as they grow. */
class Lines {
  private readonly lines: string[] = [];
  private line: { text: string; spaced: boolean }[] = [];
  private depth = 0;
  private wantsGap = false;

  add(text: string, isSpaced: boolean): void {
    this.line.push({ text, spaced: isSpaced });
  }

  /** A comment: behind what stands on its line, or on a line of its own. */
  comment(text: string, behind: boolean, isGap: boolean): void {
    if (behind && this.line.length === 0 && this.lines.length > 0 && !this.wantsGap) {
      this.lines[this.lines.length - 1] += ` ${text}`;
      return;
    }
    this.end();
    if (isGap) this.gap();
    this.push(text);
  }

  gap(): void {
    if (this.line.length === 0 && this.lines.length > 0) this.wantsGap = true;
  }

  open(): void {
    this.end();
    this.depth++;
  }

  close(): void {
    this.end();
    this.wantsGap = false;
    this.depth = Math.max(0, this.depth - 1);
  }

  end(): void {
    if (this.line.length === 0) return;
    let row = '';
    const rows: string[] = [];
    const room = WIDE - this.depth * STEP.length;
    for (const { text, spaced: isSpaced } of this.line) {
      if (isSpaced && row.length + 1 + text.length > room && row !== '') {
        rows.push(row);
        row = STEP + STEP + text;
      } else row += (isSpaced && row !== '' ? ' ' : '') + text;
    }
    this.line = [];
    for (const r of [...rows, row]) this.push(r);
  }

  private push(text: string): void {
    if (this.wantsGap && this.lines.at(-1) !== '') this.lines.push('');
    this.wantsGap = false;
    this.lines.push(STEP.repeat(this.depth) + text);
  }

  text(): string {
    this.end();
    return `${this.lines.join('\n')}\n`;
  }
}
