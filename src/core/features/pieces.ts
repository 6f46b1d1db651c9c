import { featureDoes } from './known';
import { tokensOf } from './tokens';
import type { Span, Statement } from './tree';
import { treeOf } from './trees';

/** A project has no more sections than this. */
export const MOST_SECTIONS = 400;

/** One statement of the outermost level, with the comments above it and behind it on its line. */
export type Piece = Span & { key: string; kind: PieceKind; title: string; text: string };
export type PieceKind = 'definition' | 'lookup' | 'feature' | 'table' | 'other';

/** What a statement is about: the same key, the same thing. */
function keyOf(s: Statement): { key: string; kind: PieceKind; title: string } {
  switch (s.kind) {
    case 'feature': {
      const tag = s.tag.trimEnd();
      return { key: `feature ${tag}`, kind: 'feature', title: featureDoes(tag) ?? tag };
    }
    case 'lookup':
      return { key: `lookup ${s.name}`, kind: 'lookup', title: `Lookup ${s.name}` };
    case 'glyphClass':
    case 'markClass':
      return { key: `@${s.name}`, kind: 'definition', title: `Class @${s.name}` };
    case 'anchorDef':
      return { key: `anchor ${s.name}`, kind: 'definition', title: `Anchor ${s.name}` };
    case 'valueRecordDef':
      return { key: `value ${s.name}`, kind: 'definition', title: `Value ${s.name}` };
    case 'conditionset':
      return { key: `conditions ${s.name}`, kind: 'definition', title: `Conditions ${s.name}` };
    case 'languagesystem': {
      const system = `${s.script.trimEnd()} ${s.language.trimEnd()}`;
      return { key: `languagesystem ${system}`, kind: 'definition', title: `Language system ${system}` };
    }
    case 'table':
      return { key: `table ${s.tag}`, kind: 'table', title: `Table ${s.tag}` };
    case 'include':
      return { key: `include ${s.path}`, kind: 'other', title: `File ${s.path}` };
    case 'anon':
      return { key: `anon ${s.tag}`, kind: 'other', title: `Text for ${s.tag}` };
    case 'variation':
      return { key: `variation ${s.tag} ${s.condition}`, kind: 'other', title: `Variation of ${s.tag.trimEnd()}` };
    default:
      return { key: `line ${s.from}`, kind: 'other', title: 'Rules' };
  }
}

/** A text cut at its outermost statements; what stands between them goes to the one it belongs to, so that nothing is lost. */
export function piecesOf(text: string): Piece[] {
  const statements = treeOf(text).statements.filter((s) => s.kind !== 'empty' && s.to > s.from);
  const ends = statements.map((s, i) => {
    const limit = statements[i + 1]?.from ?? text.length;
    const line = text.indexOf('\n', s.to);
    // What follows on its line, a comment, is its own; the last has all that follows.
    return i === statements.length - 1 ? text.length : line < 0 || line > limit ? limit : line + 1;
  });
  return statements.map((s, i) => {
    const [from, to] = [i === 0 ? 0 : ends[i - 1]!, ends[i]!];
    return { ...keyOf(s), from, to, text: text.slice(from, to).trim() };
  });
}

/** Do two texts say the same, whatever their spaces and comments? */
export const saysSame = (a: string, b: string): boolean => said(a) === said(b);
const said = (text: string): string =>
  tokensOf(text)
    .tokens.map((t) => t.text)
    .join(' ');

/**
 * A file’s text as sections: definitions and lookups that stand together, then each feature, with its comments. Joined with an empty
 * line between them they are the text again; so it is cut only where one stands.
 */
export function sectionsOf(text: string): { title: string; text: string }[] {
  const pieces = piecesOf(text);
  const out: { title: string; text: string }[] = [];
  let start = 0;
  let group: Piece[] = [];
  pieces.forEach((piece, i) => {
    group.push(piece);
    const next = pieces[i + 1];
    // Text that goes on with the same: definitions with definitions, and a feature that has several blocks.
    if (!next || out.length >= MOST_SECTIONS - 1) return;
    if (piece.kind !== 'feature' && piece.kind === next.kind) return;
    if (piece.kind === 'feature' && piece.key === next.key) return;
    if (text.slice(piece.to - 1, piece.to + 1) !== '\n\n') return;
    out.push({ title: titleOf(group), text: text.slice(start, piece.to - 1) });
    start = piece.to + 1;
    group = [];
  });
  const rest = text.slice(start);
  if (rest.trim() !== '') out.push({ title: titleOf(group), text: rest });
  return out;
}

function titleOf(group: readonly Piece[]): string {
  const features = [...new Set(group.filter((p) => p.kind === 'feature').map((p) => p.title))];
  if (features.length > 0) return features.slice(0, 3).join(', ');
  const [first] = group;
  if (!first) return 'Rules';
  if (group.length === 1) return first.title;
  const kinds = new Set(group.map((p) => p.kind));
  if (kinds.has('lookup')) return 'Lookups';
  return kinds.has('definition') ? 'Definitions' : 'Rules';
}
