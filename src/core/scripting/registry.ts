import type { Call, Owner } from './call';
import { FONT_CALLS, MASTER_CALLS } from './fontCalls';
import { DRAWING_CALLS, GLYPH_CALLS } from './glyphCalls';
import { GLOBAL_CALLS } from './outputCalls';
import { SHAPE_CALLS } from './shapeCalls';

/** Everything that a script can ask and say, beside edits. */
export const CALLS: readonly Call[] = [
  ...FONT_CALLS,
  ...GLYPH_CALLS,
  ...DRAWING_CALLS,
  ...MASTER_CALLS,
  ...SHAPE_CALLS,
  ...GLOBAL_CALLS,
];

export const callsOf = (of: Owner): readonly Call[] => CALLS.filter((c) => c.of === of);
