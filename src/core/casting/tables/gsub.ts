import {
  CHAINED_CONTEXT,
  chainedContext,
  GSUB_EXTENSION,
  SINGLE_SUBSTITUTION,
  singleSubstitution,
} from '../../opentype/gsub';
import { writeLayout } from '../../opentype/layout/lists';
import type { CastPlan } from '../plan';
import { scriptsOf } from './gpos';

/** Letters that lose their dot under a mark above: i and j, and the Cyrillic letters of their shape. */
const DOTTED: readonly (readonly [dotted: number, dotless: number])[] = [
  [0x69, 0x131],
  [0x6a, 0x237],
  [0x456, 0x131],
  [0x458, 0x237],
];

/** `GSUB` with `ccmp`: dotless letters under marks above, where the font has both. */
export function gsubTable({ entries, characters }: Pick<CastPlan, 'entries' | 'characters'>): Uint8Array | undefined {
  const dotless = new Map(
    DOTTED.flatMap(([from, to]) => {
      const [a, b] = [characters.get(from), characters.get(to)];
      return a !== undefined && b !== undefined ? [[a, b] as const] : [];
    }),
  );
  const sitting = (name: string) =>
    entries.flatMap((e, i) => (e.drawing.anchors.some((a) => a.name === name) ? [i] : []));
  const [above, below] = [sitting('_top'), [...sitting('_bottom'), ...sitting('_ogonek'), ...sitting('_cedilla')]];
  if (dotless.size === 0 || above.length === 0) return undefined;
  const input = [[...dotless.keys()]];
  const contexts = [
    chainedContext(input, [above], 1),
    // A mark below comes first in normalised text.
    ...(below.length > 0 ? [chainedContext(input, [[...new Set(below)], above], 1)] : []),
  ];
  const usual = { features: [0] };
  return writeLayout(
    {
      scripts: ['DFLT', ...scriptsOf(characters)].sort().map((tag) => ({ tag, usual, languages: [] })),
      features: [{ tag: 'ccmp', lookups: [0] }],
      lookups: [
        { type: CHAINED_CONTEXT, flag: 0, subtables: contexts },
        { type: SINGLE_SUBSTITUTION, flag: 0, subtables: [singleSubstitution(dotless)] },
      ],
    },
    GSUB_EXTENSION,
  );
}
