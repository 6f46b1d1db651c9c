import { emptyDrawing } from '../src/core/project/create';
import type { Project } from '../src/core/project/model';
import { weighedContours } from '../src/core/reweighting/drawings';
import { type Letter, span } from './letter';
import { REGULAR, type Style, smallWeight } from './style';

type Kind = 'capital' | 'lower' | 'small';

/**
 * Letters whose other masters are reweighted from the Regular by Wendril: their strokes cross or turn where a ruler cannot follow.
 * Narrow and heavy ones are given so much more width than their neighbours of the same advance.
 */
const REWEIGHED: Readonly<Record<string, { kind: Kind; wider?: number }>> = {
  section: { kind: 'capital', wider: 0.04 },
  sterling: { kind: 'capital' },
  AE: { kind: 'capital', wider: 0.07 },
  OE: { kind: 'capital', wider: 0.03 },
  y: { kind: 'lower' },
  two: { kind: 'capital' },
  'two.pnum': { kind: 'capital' },
  'two.onum': { kind: 'lower' },
  twosuperior: { kind: 'small' },
  twoinferior: { kind: 'small' },
  'two.numr': { kind: 'small' },
  'two.dnom': { kind: 'small' },
};

const stemsOf = (s: Style, kind: Kind) => {
  const small = kind === 'small' ? smallWeight(s) : 1;
  return kind === 'lower'
    ? { vertical: s.stem, horizontal: s.level }
    : { vertical: s.capStem * small, horizontal: s.capLevel * small };
};

/** A letter's masters: those of {@link REWEIGHED} from the Regular, as wide as the ruler made them; all others as they are. */
export function reweighedMasters(
  project: Project,
  name: string,
  made: readonly Letter[],
  styles: readonly Style[],
): Letter[] {
  const how = REWEIGHED[name];
  const [regular] = made;
  if (!how || !regular) return [...made];
  return made.map((letter, i) => {
    const s = styles[i]!;
    if (s === REGULAR) return letter;
    // The lower case is a little taller in heavy styles.
    const rise = how.kind === 'lower' ? s.xHeight / REGULAR.xHeight : 1;
    const contours = regular.contours.map((c) => ({
      ...c,
      points: c.points.map((p) => ({ ...p, y: p.y > 0 ? p.y * rise : p.y })),
    }));
    const lines = [0, ...span(contours, 'y'), ...contours.flatMap((c) => span([c], 'y'))];
    const wider = 1 + (how.wider ?? 0) * (s.weight > REGULAR.weight ? 1 : 0);
    const { drawing } = weighedContours(
      project,
      { ...emptyDrawing(regular.advance), contours },
      project.masters[0]!,
      {
        from: stemsOf(REGULAR, how.kind),
        to: stemsOf(s, how.kind),
        width: (letter.advance / regular.advance) * wider,
        bearings: 'share',
        rounds: 1,
      },
      lines,
    );
    return { advance: drawing.advance, contours: drawing.contours };
  });
}
