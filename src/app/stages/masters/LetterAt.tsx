import { memo } from 'react';
import { pathData } from '../../../core/project/pathData';
import type { GlyphAt } from '../../../core/variation/glyphAt';

/** A letter as it looks at a place on the axes, on its baseline at the middle below. */
export const LetterAt = memo(function LetterAt({ letter, em, size }: { letter: GlyphAt; em: number; size: number }) {
  const scale = size / em;
  return (
    <path
      d={pathData(letter.contours)}
      transform={`translate(${(-letter.advance / 2) * scale} 0) scale(${scale} ${-scale})`}
    />
  );
});
