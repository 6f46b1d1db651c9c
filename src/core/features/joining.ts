import type { DraftLookup, Rules } from './lookups';
import { emptyPairs } from './rules';

/** Are rules of these two kinds replacements by one and by several? By one is then by several, of which there is one, in features too. */
export const isManifold = (a: Rules['kind'], b: Rules['kind']): boolean =>
  (a === 'single' && b === 'multiple') || (a === 'multiple' && b === 'single');

/**
 * May rules of a kind join those of another in one lookup? Single replacements go among ligatures, or among those by several: those
 * that stand there as single ones are made such.
 */
export function mixed(lookup: DraftLookup, last: Rules, kind: Rules['kind']): boolean {
  if (kind === 'single') return last.kind === 'ligature' || last.kind === 'multiple';
  if (last.kind !== 'single') return false;
  const place = lookup.parts.length - 1;
  if (kind === 'multiple') lookup.parts[place] = { kind, by: new Map([...last.by].map(([g, to]) => [g, [to]])) };
  else if (kind === 'ligature') {
    const ligatures = [...last.by].map(([g, to]) => ({ parts: [g], to }));
    lookup.parts[place] = { kind, ligatures, seen: new Map(ligatures.map((l) => [String(l.parts[0]), l.to])) };
  } else return false;
  return true;
}

/** Rules of the same kind, none yet. */
export function fresh(rules: Rules): Rules {
  switch (rules.kind) {
    case 'ligature':
      return { kind: 'ligature', ligatures: [], seen: new Map() };
    case 'reverse':
      return { kind: 'reverse', rules: [] };
    case 'context':
      return { kind: 'context', rules: [] };
    case 'attach':
      return { kind: 'attach', onto: rules.onto, classes: [], seats: new Map() };
    case 'attachParts':
      return { kind: 'attachParts', classes: [], parts: new Map() };
    case 'pair':
      return { kind: 'pair', parts: [emptyPairs()] };
    default:
      return { kind: rules.kind, by: new Map() } as Rules;
  }
}
