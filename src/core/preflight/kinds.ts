import { CHARACTER_KINDS } from './characters';
import { FEATURE_KINDS } from './features';
import { FILE_KINDS } from './files';
import { FAMILIES, type Family, type KindFacts } from './finding';
import { FITTING_KINDS } from './fitting';
import { HEIGHT_KINDS } from './heights';
import { KERNING_KINDS } from './kerning';
import { LINE_KINDS } from './lines';
import { MASTER_KINDS } from './masters';
import { NAME_KINDS } from './names';
import { OUTLINE_CHECKS } from './outlineFindings';
import { PART_KINDS } from './parts';

/** Every kind of finding: lists, settings, help and the command line are made from this. */
export const KINDS: readonly KindFacts[] = [
  ...OUTLINE_CHECKS,
  ...HEIGHT_KINDS,
  ...PART_KINDS,
  ...FITTING_KINDS,
  ...KERNING_KINDS,
  ...MASTER_KINDS,
  ...CHARACTER_KINDS,
  ...NAME_KINDS,
  ...LINE_KINDS,
  ...FEATURE_KINDS,
  ...FILE_KINDS,
];

const byName = new Map(KINDS.map((k) => [k.kind, k]));
export const kindOf = (kind: string): KindFacts | undefined => byName.get(kind);

export const FAMILY_NAMES = Object.keys(FAMILIES) as readonly Family[];

/** How bad kinds are, the worst first. */
const RANK = { error: 0, attention: 1, note: 2 } as const;
const order = new Map(KINDS.map((k, i) => [k.kind, RANK[k.severity] * 1000 + i]));
/** Where findings of a kind stand in a list, the worst first. */
export const rankOf = (kind: string): number => order.get(kind) ?? 9999;
