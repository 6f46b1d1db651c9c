import type { Master, Project } from '../project/model';
import { styleNames } from './names';

/** What a style's name says that the master does not say yet. */
export type StyleHint = { kind: 'angle'; angle: number; sentence: string } | { kind: 'classes'; sentence: string };

/** How far italics lean, in degrees, where nothing else is known. */
const USUAL_SLOPE = -10;

/**
 * What follows from the words of a master's name, as sentences: weight, width and link follow by themselves and are told; an
 * angle is offered where the name says italic and the letters stand upright.
 */
export function styleHints(project: Project, master: Master): StyleHint[] {
  const names = styleNames(project, master);
  const leans = /\b(italic|oblique|slanted)\b/i.test(master.name);
  const out: StyleHint[] = [];
  if (leans && master.italicAngle === 0)
    out.push({ kind: 'angle', angle: USUAL_SLOPE, sentence: 'The name says italic, and the angle is 0.' });
  if (!leans && master.italicAngle !== 0)
    out.push({
      kind: 'angle',
      angle: 0,
      sentence: `The angle is ${master.italicAngle}°, and the name does not say italic.`,
    });
  const words = [
    names.weightClass !== 400 && `weight class ${names.weightClass}`,
    names.widthClass !== 5 && `width class ${names.widthClass}`,
    names.linkedStyle !== 'Regular' && `linked as ${names.linkedStyle}`,
  ].filter(Boolean);
  if (words.length > 0) out.push({ kind: 'classes', sentence: `By its name: ${words.join(', ')}.` });
  return out;
}
