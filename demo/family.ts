import { createProject, emptyDrawing, newGlyph } from '../src/core/project/create';
import { codePointsForName } from '../src/core/project/glyphNames';
import type { Glyph, Project } from '../src/core/project/model';
import { capitals } from './capitals';
import { figures } from './figures';
import type { Letter } from './letter';
import { lowercase } from './lowercase';
import { directed } from './pen';

/** The day the family was begun: data, so that every build gives the same bytes. */
const BEGUN = Date.UTC(2026, 3, 12) / 1000;

/** Signs that stand in the case, not drawn yet. */
const TO_DRAW = ['eacute', 'ntilde', 'Oslash', 'germandbls', 'arrowright', 'quoteright'];

/** Velmarrow Sans, Regular: the faces of the Velmarrow Light Railway's signs and timetables. */
export function buildDemo(): Project {
  const base = createProject({ family: 'Velmarrow Sans', masterName: 'Regular', created: BEGUN });
  const master = base.masters[0]!;
  const letters: Record<string, () => Letter> = { ...capitals, ...lowercase, ...figures };
  const glyphs: Record<string, Glyph> = { ...base.glyphs };
  const order = [...base.glyphOrder];
  let nextId = base.nextId;
  const add = (name: string, letter: Letter | undefined) => {
    const id = `g${nextId++}`;
    const glyph = newGlyph(id, name, codePointsForName(name), [master], 500);
    order.push(id);
    glyphs[id] = letter ? { ...glyph, drawings: { m1: { ...emptyDrawing(letter.advance), contours: directed(letter.contours) } } } : glyph;
  };
  for (const [name, draw] of Object.entries(letters)) add(name, draw());
  for (const name of TO_DRAW) add(name, undefined);
  glyphs.g2 = { ...glyphs.g2!, drawings: { m1: emptyDrawing(236) } };
  return {
    ...base,
    glyphs,
    glyphOrder: order,
    nextId,
    family: {
      ...base.family,
      designer: 'The Velmarrow drawing office',
      manufacturer: 'Velmarrow Light Railway',
      vendor: 'VLMR',
      copyright: 'Made up for the Wendril demo; free for any use.',
    },
    masters: [
      {
        ...master,
        zones: {
          descender: { name: 'descender', position: -204, overshoot: -8 },
          baseline: { name: 'baseline', position: 0, overshoot: -11 },
          xHeight: { name: 'x-height', position: 520, overshoot: 11 },
          capHeight: { name: 'cap height', position: 700, overshoot: 11 },
          ascender: { name: 'ascender', position: 742, overshoot: 10 },
          own: [],
        },
        stems: [
          { name: 'lowercase stem', value: 84, vertical: true },
          { name: 'lowercase level', value: 73, vertical: false },
        ],
      },
    ],
    texts: {
      galley: 'Griffin Halt 07:45 – 18:30  Hamborn & Orde  Velmarrow Light Railway',
      words: ['Hamborn & Orde', 'nnonnoonn HHOHH 0010', 'Griffin Halt', 'Velmarrow Light Railway'],
      pairs: [],
    },
  };
}
