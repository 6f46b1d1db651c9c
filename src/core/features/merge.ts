import { addTo } from '../base/grouping';
import { type Piece, piecesOf, saysSame, sectionsOf } from './pieces';
import type { SectionText } from './sections';

/** One thing of a file beside what a project has by the same name. */
export type MergeItem = {
  key: string;
  title: string;
  state: 'new' | 'same' | 'other';
  /** What the file says, and what the project says. */
  theirs: string;
  ours: string | undefined;
};

/** What comes of a merge: texts of sections that change, and sections that are added before others or at the end. */
export type Merged = {
  changed: readonly { id: string; text: string }[];
  added: readonly { title: string; text: string; before?: string }[];
};

function byKey(pieces: readonly Piece[]): Map<string, Piece[]> {
  const out = new Map<string, Piece[]>();
  for (const p of pieces) addTo(out, p.key, p);
  return out;
}
const joined = (pieces: readonly Piece[]): string => pieces.map((p) => p.text).join('\n\n');

/** What a file of rules has that the sections lack, have already, or have otherwise, in the order of the file. */
export function comparedWith(sections: readonly SectionText[], text: string): MergeItem[] {
  const ours = byKey(sections.flatMap((s) => piecesOf(s.text)));
  return [...byKey(piecesOf(text))].map(([key, pieces]) => {
    const theirs = joined(pieces);
    const own = ours.get(key);
    const held = own && joined(own);
    return {
      key,
      title: pieces[0]!.title,
      theirs,
      ours: held,
      state: held === undefined ? 'new' : saysSame(held, theirs) ? 'same' : 'other',
    };
  });
}

/**
 * Takes chosen things of a file into the sections: what they have otherwise is replaced where it stands; new definitions come first,
 * new lookups before the first section that is changed (which may call them), all else behind what there is.
 */
export function mergedInto(
  sections: readonly SectionText[],
  text: string,
  take: ReadonlySet<string>,
  title: string,
): Merged {
  const incoming = byKey(piecesOf(text).filter((p) => take.has(p.key)));
  const placed = new Set<string>();
  const changed = sections.flatMap((s) => {
    const pieces = piecesOf(s.text).filter((p) => incoming.has(p.key));
    if (pieces.length === 0) return [];
    let out = s.text;
    for (const p of [...pieces].reverse()) {
      const isFirst = !placed.has(p.key) && pieces.find((o) => o.key === p.key) === p;
      out =
        out.slice(0, p.from) +
        (isFirst ? around(s.text.slice(p.from, p.to), joined(incoming.get(p.key)!)) : '') +
        out.slice(p.to);
    }
    for (const p of pieces) placed.add(p.key);
    return [{ id: s.id, text: out }];
  });
  const fresh = [...incoming.values()].filter(([first]) => !placed.has(first!.key)).flat();
  const definitions = fresh.filter((p) => p.kind === 'definition');
  const lookups = fresh.filter((p) => p.kind === 'lookup');
  const others = fresh.filter((p) => p.kind !== 'definition' && p.kind !== 'lookup');
  const firstChanged = changed[0]?.id;
  const part = (pieces: readonly Piece[], name: string, before: string | undefined) =>
    pieces.length > 0 ? [{ title: name, text: joined(pieces), ...(before !== undefined && { before }) }] : [];
  return {
    changed,
    added: [
      ...part(definitions, `Definitions of ${title}`, sections[0]?.id),
      ...part(lookups, `Lookups of ${title}`, firstChanged),
      ...sectionsOf(joined(others)),
    ],
  };
}

/** A text in the place of another, with the empty lines that stood around it. */
function around(old: string, text: string): string {
  return /^\s*/.exec(old)![0] + text + /\s*$/.exec(old)![0];
}
