import type { Place } from '../../core/project/places';
import { glyphForCodePoint } from '../../core/project/queries';
import { glyphAt } from '../../core/variation/glyphAt';
import { stemAndCounter } from '../../core/variation/rows';
import { useBench } from '../state/bench';

/** What the n measures at a place: its stem, the white within, its advance. */
export function MeasuredAt({ place, className }: { place: Place; className?: string }) {
  const project = useBench((s) => s.settled)!;
  const glyph = glyphForCodePoint(project, 0x6e);
  const letter = glyph && glyphAt(project, glyph.id, place);
  if (!letter || letter.contours.length === 0) return null;
  const { stem, counter } = stemAndCounter(letter);
  const told = [
    stem === undefined ? '' : `stem ${Math.round(stem)}`,
    counter === undefined ? '' : `white ${Math.round(counter)}`,
    `advance ${Math.round(letter.advance)}`,
  ].filter(Boolean);
  return <span className={className}>{`n: ${told.join(', ')}`}</span>;
}
